// What a scene has taken of what it may.
#pragma once

#include "geometry/limits.hpp"
#include "scene/tokens.hpp"

#include "coldbrick/budget.hpp"

#include <string>

namespace coldbrick::inline v0::detail {

// Memory, work and time of reading a scene, and the number of its statements.
class SceneBudget {
  public:
    SceneBudget(const SceneLimits& limits, Faults& faults, const DrawLimits& spent = nothing_spent)
        : limits_{limits}, faults_{faults}, budget_{drawing_limits(limits), spent} {
        budget_.name_memory("scene_memory");
    }

    [[nodiscard]] static DrawLimits drawing_limits(const SceneLimits& limits) noexcept {
        return {.seconds = limits.seconds, .memory = limits.scene_memory, .work = limits.work};
    }

    [[nodiscard]] const SceneLimits& limits() const noexcept { return limits_; }

    // The budget of the library's calls while the scene is read.
    [[nodiscard]] Budget& of_calls() noexcept { return budget_; }

    // Whether so many bytes may be asked for now; if not, reports a fault at the word, and the budget is spent.
    bool spend(std::uint64_t bytes, const Word& word);

    // How many bytes there are still.
    [[nodiscard]] std::uint64_t rest() const noexcept { return is_spent() ? 0 : budget_.rest().memory; }

    // Bytes that are not needed any more.
    void give_back(std::uint64_t bytes) noexcept { budget_.give_back(bytes); }

    // The same of the number of statements that are run, and now and then of time.
    void count_statement(const Word& word) {
        constexpr std::uint64_t between_looks = 64;
        if (++statements_ > limits_.statements) return refuse_statements(word);
        if (statements_ % between_looks == 0) check_time(word);
    }
    void check_time(const Word& word);

    // Whether a limit has been met: nothing more is read then.
    [[nodiscard]] bool is_spent() const noexcept { return is_spent_ || budget_.is_spent(); }

    // Reports a limit that has been met.
    void refuse(const Word& word, const std::string& what, std::string_view limit);

    // The same of one that a call of the library has met.
    void refuse(const Word& word, const LimitError& error);

  private:
    void refuse_statements(const Word& word);

    const SceneLimits& limits_;
    Faults& faults_;
    Budget budget_;
    std::uint64_t statements_ = 0;
    bool is_spent_ = false;
};

}  // namespace coldbrick::inline v0::detail

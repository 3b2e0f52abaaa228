// What a scene has taken of what it may.
#pragma once

#include "geometry/limits.hpp"
#include "scene/words.hpp"

#include <algorithm>
#include <chrono>
#include <string>

namespace coldbrick::inline v0::detail {

// A time that may pass.
class Stopwatch {
  public:
    explicit Stopwatch(double seconds) noexcept : seconds_{seconds} {}
    [[nodiscard]] bool is_over() const noexcept {
        return std::chrono::duration<double>{std::chrono::steady_clock::now() - begin_}.count() > seconds_;
    }

  private:
    double seconds_;
    std::chrono::steady_clock::time_point begin_ = std::chrono::steady_clock::now();
};

// Memory that is asked for and time that passes while a scene is read.
class Budget {
  public:
    Budget(const SceneLimits& limits, Faults& faults) noexcept
        : limits_{limits}, faults_{faults}, watch_{limits.seconds} {}

    [[nodiscard]] const SceneLimits& limits() const noexcept { return limits_; }

    // Says whether so many bytes may be asked for now; if not, the fault is told at the word, and the budget is spent.
    bool spend(std::uint64_t bytes, const Word& word) {
        if (!is_spent_ && bytes <= limits_.scene_memory - std::min(used_, limits_.scene_memory)) {
            used_ += bytes;
            return true;
        }
        return refuse_memory(word);
    }

    // How many bytes there are still.
    [[nodiscard]] std::uint64_t rest() const noexcept {
        return is_spent_ ? 0 : limits_.scene_memory - std::min(used_, limits_.scene_memory);
    }

    // Bytes that are not needed any more.
    void give_back(std::uint64_t bytes) noexcept { used_ -= std::min(bytes, used_); }

    // The same of the number of statements that are run, and now and then of time.
    void count_statement(const Word& word) {
        constexpr std::uint64_t between_looks = 64;
        if (++statements_ > limits_.statements) return refuse_statements(word);
        if (statements_ % between_looks == 0) check_time(word);
    }
    void check_time(const Word& word);

    // Whether a limit has been met: nothing more is read then.
    [[nodiscard]] bool is_spent() const noexcept { return is_spent_; }

    // Tells a limit that has been met.
    void refuse(const Word& word, const std::string& what, std::string_view limit);

  private:
    void refuse_statements(const Word& word);
    bool refuse_memory(const Word& word);

    const SceneLimits& limits_;
    Faults& faults_;
    Stopwatch watch_;
    std::uint64_t used_ = 0;
    std::uint64_t statements_ = 0;
    bool is_spent_ = false;
};

}  // namespace coldbrick::inline v0::detail

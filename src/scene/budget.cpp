#include "scene/budget.hpp"

#include <string>

namespace coldbrick::inline v0::detail {

bool SceneBudget::spend(std::uint64_t bytes, const Word& word) {
    if (is_spent_) return false;
    try {
        budget_.take(bytes);
        return true;
    } catch (const LimitError& error) {
        refuse(word, error);
        return false;
    }
}

void SceneBudget::refuse_statements(const Word& word) {
    refuse(word, "the scene runs more than the " + std::to_string(limits_.statements) + " statements that it may",
           "statements");
}

void SceneBudget::check_time(const Word& word) {
    if (is_spent_) return;
    try {
        budget_.check();
    } catch (const LimitError& error) {
        refuse(word, error);
    }
}

void SceneBudget::refuse(const Word& word, const std::string& what, std::string_view limit) {
    if (!is_spent_) faults_.add(word, what, "a greater limit '" + std::string{limit} + "' allows more");
    is_spent_ = true;
}

void SceneBudget::refuse(const Word& word, const LimitError& error) {
    static constexpr const char* names[] = {"seconds", "scene_memory", "work"};
    const auto advice =
        error.limit() == Limit::cancelled
            ? std::string{}
            : "a greater limit '" + std::string{names[static_cast<int>(error.limit())]} + "' allows more";
    if (!is_spent_) faults_.add(word, error.what(), advice);
    is_spent_ = true;
}

}  // namespace coldbrick::inline v0::detail

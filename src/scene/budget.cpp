#include "scene/budget.hpp"

#include <algorithm>
#include <string>

namespace coldbrick::inline v0::detail {

bool Budget::spend(std::uint64_t bytes, const Word& word) {
    if (is_spent_) return false;
    if (bytes > limits_.scene_memory - std::min(used_, limits_.scene_memory)) {
        refuse(word,
               "the scene takes more than the " + std::to_string(limits_.scene_memory) + " bytes of memory that it may",
               "scene_memory");
        return false;
    }
    used_ += bytes;
    return true;
}

void Budget::count_statement(const Word& word) {
    if (++statements_ > limits_.statements) {
        refuse(word, "the scene has more than the " + std::to_string(limits_.statements) + " statements that it may",
               "statements");
    } else if (watch_.is_over()) {
        refuse(word, "reading has taken longer than the " + in_digits(limits_.seconds) + " seconds that it may",
               "seconds");
    }
}

void Budget::refuse(const Word& word, const std::string& what, std::string_view limit) {
    if (!is_spent_) faults_.add(word, what, "a greater limit '" + std::string{limit} + "' allows more");
    is_spent_ = true;
}

}  // namespace coldbrick::inline v0::detail

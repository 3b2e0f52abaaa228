#include "scene/budget.hpp"

#include <algorithm>
#include <string>

namespace coldbrick::inline v0::detail {

bool Budget::refuse_memory(const Word& word) {
    refuse(word,
           "the scene takes more than the " + std::to_string(limits_.scene_memory) + " bytes of memory that it may",
           "scene_memory");
    return false;
}

void Budget::refuse_statements(const Word& word) {
    refuse(word, "the scene runs more than the " + std::to_string(limits_.statements) + " statements that it may",
           "statements");
}

void Budget::check_time(const Word& word) {
    if (!watch_.is_over()) return;
    refuse(word, "reading has taken longer than the " + in_digits(limits_.seconds) + " seconds that it may", "seconds");
}

void Budget::refuse(const Word& word, const std::string& what, std::string_view limit) {
    if (!is_spent_) faults_.add(word, what, "a greater limit '" + std::string{limit} + "' allows more");
    is_spent_ = true;
}

}  // namespace coldbrick::inline v0::detail

#include "scene/statements.hpp"

#include <algorithm>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

std::vector<StatementKind> all_kinds() {
    std::vector<StatementKind> all;
    for (auto* const group :
         {&sheet_statements, &name_statements, &block_statements, &drawing_statements, &flow_statements}) {
        for (auto& kind : group()) all.push_back(std::move(kind));
    }
    std::sort(all.begin(), all.end(), [](const StatementKind& a, const StatementKind& b) { return a.verb < b.verb; });
    return all;
}

}  // namespace

std::span<const StatementKind> statement_kinds() {
    static const auto all = all_kinds();
    return all;
}

const StatementKind* statement_kind(std::string_view verb) {
    const auto* const found = std::find(verb_words.begin(), verb_words.end(), verb);
    return found == verb_words.end() ? nullptr
                                     : &statement_kinds()[static_cast<std::size_t>(found - verb_words.begin())];
}

}  // namespace coldbrick::inline v0::detail

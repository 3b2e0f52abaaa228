#include "coldbrick/scene_words.hpp"

#include "scene/functions.hpp"
#include "scene/grammar.hpp"
#include "scene/shape_statements.hpp"
#include "scene/statements.hpp"

namespace coldbrick::inline v0 {

namespace {

std::vector<std::string> strings(const std::vector<std::string_view>& words) { return {words.begin(), words.end()}; }

SceneStatement statement_of(const std::string& words) {
    SceneStatement statement{.words = words, .forms = {}};
    for (const auto& [needed, optional] : detail::forms_of(words)) {
        statement.forms.push_back({.needed = strings(needed), .optional = strings(optional)});
    }
    return statement;
}

SceneKeyword keyword_of(const detail::Keyword& keyword) {
    using enum SceneKeyword::Takes;
    switch (keyword.takes) {
        case detail::Takes::nothing:
            return {.name = std::string{keyword.name}, .takes = nothing};
        case detail::Takes::word:
            return {.name = std::string{keyword.name}, .takes = word};
        case detail::Takes::pairs:
            return {.name = std::string{keyword.name}, .takes = pairs};
        default:
            return {.name = std::string{keyword.name}, .takes = value};
    }
}

SceneWords all_words() {
    SceneWords all;
    for (const auto& kind : detail::statement_kinds()) {
        const auto verb = std::string{kind.word()};
        using enum detail::Block;
        all.verbs.push_back({.name = verb,
                             .form = std::string{kind.form},
                             .meaning = std::string{kind.meaning},
                             .example = std::string{kind.example},
                             .has_end = kind.block != none,
                             .moves = kind.block == group || kind.block == pattern || kind.block == shape});
        if (kind.head == detail::Head::shape) {
            for (const auto& shape : detail::shape_names()) {
                auto statement = statement_of(verb + " " + std::string{shape});
                if (!statement.forms.empty()) all.statements.push_back(std::move(statement));
            }
        } else if (kind.head == detail::Head::name_and_kind) {
            for (const auto& gradient : detail::gradients) {
                all.statements.push_back(statement_of(verb + " " + std::string{gradient}));
            }
        } else {
            all.statements.push_back(statement_of(verb));
        }
    }
    for (const auto& shape : detail::shape_statements()) {
        all.shapes.push_back(
            {std::string{shape.name}, std::string{shape.form}, std::string{shape.meaning}, "", false, false});
    }
    all.shapes.push_back({"region", "SHAPE plus|minus|within|exclusive_or SHAPE ...",
                          "shapes joined from left to right", "", false, false});
    for (const auto& keyword : detail::keywords) all.keywords.push_back(keyword_of(keyword));
    for (const auto& function : detail::functions) {
        all.functions.push_back({std::string{function.name}, std::string{function.example}});
    }
    for (const auto& joiner : detail::joiners) all.joiners.emplace_back(joiner);
    return all;
}

}  // namespace

const SceneWords& scene_words() {
    static const auto all = all_words();
    return all;
}

}  // namespace coldbrick::inline v0

#include "scene/grammar.hpp"

#include "scene/shape_statements.hpp"
#include "scene/statements.hpp"

#include <algorithm>
#include <map>
#include <string>

namespace coldbrick::inline v0::detail {

using Words = std::vector<std::string_view>;

const Words& stroke_words(bool is_line) {
    static const Words of_lines{"width", "cap", "join", "miter_limit", "dash", "dash_offset"};
    static const Words of_closed{"width", "align", "cap", "join", "miter_limit", "dash", "dash_offset"};
    return is_line ? of_lines : of_closed;
}
const Words& compositing_words() {
    static const Words words{"opacity", "blend", "channels", "light"};
    return words;
}
const Words& rim_words() {
    static const Words words{"smooth", "crisp"};
    return words;
}

Words with_words(Words words, const Words& more) {
    words.insert(words.end(), more.begin(), more.end());
    return words;
}

namespace {

using AllForms = std::map<std::string, std::vector<StatementForm>, std::less<>>;

// Of what fills or strokes a shape, and of the parts of a region.
void add_forms_of(const ShapeStatement& shape, AllForms& all) {
    const auto name = std::string{shape.name};
    const auto add = [&](const std::string& verb, const StatementForm& form, const Words& words) {
        const auto optional = with_words(with_words(form.optional, words), rim_words());
        const auto part = verb == "fill" ? "part " : "stroke part ";
        all[part + name].push_back({form.needed, optional});
        all[verb + " " + name].push_back(
            {with_words(form.needed, {"ink"}), with_words(with_words(optional, {"as"}), compositing_words())});
    };
    for (const auto& form : shape.forms) {
        if (shape.read_filled != nullptr) add("fill", form, shape.filling);
        add("stroke", form, stroke_words(is_line(shape.name)));
        // What is measured is what would be filled, or of lines stroked; without ink.
        const auto& more = shape.read_filled != nullptr ? shape.filling : stroke_words(true);
        all["measure " + name].push_back(
            {with_words(form.needed, {"as"}), with_words(with_words(form.optional, more), rim_words())});
    }
}

AllForms all_forms() {
    AllForms all;
    for (const auto& kind : statement_kinds()) {
        if (kind.forms.empty()) continue;
        if (kind.head != Head::shape && kind.head != Head::name_and_kind) {
            all[std::string{kind.word()}] = kind.forms;
            continue;
        }
        // One form for each gradient; that of a region for shapes.
        const auto names = kind.head == Head::shape ? Words{"region"} : Words{gradients.begin(), gradients.end()};
        for (std::size_t i = 0; i < names.size(); ++i) {
            all[std::string{kind.word()} + " " + std::string{names[i]}] = {kind.forms[i]};
        }
    }
    for (const auto& shape : shape_statements()) add_forms_of(shape, all);
    return all;
}

}  // namespace

const std::vector<StatementForm>& forms_of(std::string_view words) {
    static const auto forms = all_forms();
    static const std::vector<StatementForm> none;
    const auto found = forms.find(words);
    return found == forms.end() ? none : found->second;
}

const std::vector<std::string_view>& shape_names() {
    static const auto names = [] {
        std::vector<std::string_view> all{"region"};
        for (const auto& shape : shape_statements()) all.push_back(shape.name);
        std::sort(all.begin(), all.end());
        return all;
    }();
    return names;
}

bool is_line(std::string_view shape) {
    const auto* const found = shape_statement(shape);
    return found != nullptr && found->read_filled == nullptr;
}

}  // namespace coldbrick::inline v0::detail

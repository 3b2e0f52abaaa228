#include "scene/grammar.hpp"

#include "scene/shape_statements.hpp"

#include <algorithm>
#include <map>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

using Words = std::vector<std::string_view>;

const Words& stroke_words(std::string_view shape) {
    static const Words of_lines{"width", "cap", "join", "miter_limit", "dash", "dash_offset"};
    static const Words of_closed{"width", "align", "cap", "join", "miter_limit", "dash", "dash_offset"};
    return is_line(shape) ? of_lines : of_closed;
}

// How ink is laid, and how a shape's rim looks.
const Words& laying_words() {
    static const Words words{"opacity", "blend", "channels", "light"};
    return words;
}
const Words& rim_words() {
    static const Words words{"smooth", "crisp"};
    return words;
}

void append(Words& words, const Words& more) { words.insert(words.end(), more.begin(), more.end()); }

using AllForms = std::map<std::string, std::vector<StatementForm>, std::less<>>;

AllForms all_forms() {
    static const Words gradient_words{"spread", "placing", "dither"};
    AllForms all{{"sheet", {{{"size"}, {"ink"}}, {{"from"}, {}}}},
                 {"paste", {{{"at"}, {"size", "part", "turned", "mirrored", "scaling", "without"}}}},
                 {"mark", {{{"at", "ink"}, laying_words()}}},
                 {"flood", {{{"from", "ink"}, {"tolerance", "neighbors"}}}},
                 {"fill region", {{{"ink"}, laying_words()}}},
                 {"stroke region", {{{"ink"}, stroke_words("region")}}},
                 {"move", {{{"by"}, {}}}},
                 {"turn", {{{"by"}, {"about"}}}},
                 {"scale", {{{"by"}, {"about"}}}},
                 {"shear", {{{"by"}, {"about"}}}},
                 {"gradient linear", {{{"from", "to", "stops"}, gradient_words}}},
                 {"gradient radial", {{{"center", "radius", "stops"}, gradient_words}}},
                 {"gradient conic", {{{"center", "stops"}, {"from", "placing", "dither"}}}},
                 {"hatch", {{{"spacing", "ink"}, {"angle", "width", "ground", "offset", "placing"}}}},
                 {"pattern", {{{"size"}, {"ink", "offset", "placing"}}}}};
    append(all["flood"].front().optional, laying_words());
    append(all["paste"].front().optional, laying_words());
    append(all["stroke region"].front().optional, laying_words());
    append(all["stroke region"].front().optional, rim_words());
    for (const auto& [shape, forms, filling, read_filled, read_stroked] : shape_statements()) {
        const auto name = std::string{shape};
        for (const auto& form : forms) {
            auto filled = form;
            append(filled.optional, filling);
            append(filled.optional, rim_words());
            auto stroked = form;
            append(stroked.optional, stroke_words(shape));
            append(stroked.optional, rim_words());
            if (read_filled != nullptr) all["part " + name].push_back(filled);
            all["stroke part " + name].push_back(stroked);
            filled.needed.emplace_back("ink");
            stroked.needed.emplace_back("ink");
            append(filled.optional, laying_words());
            append(stroked.optional, laying_words());
            if (read_filled != nullptr) all["fill " + name].push_back(filled);
            all["stroke " + name].push_back(stroked);
        }
    }
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

bool is_line(std::string_view shape) noexcept {
    const auto* const found = shape_statement(shape);
    return found != nullptr && found->read_filled == nullptr;
}

}  // namespace coldbrick::inline v0::detail

#include "scene/grammar.hpp"

#include <map>
#include <string>

namespace coldbrick::detail {

namespace {

using Words = std::vector<std::string_view>;

struct ShapeForms {
    std::string_view shape;
    std::vector<Form> forms;  // without ink, and without what only filling or stroking takes
    Words filling;            // what else filling takes
};

const std::vector<ShapeForms>& shape_forms() {
    static const Words rules{"rule", "edges"};
    static const std::vector<Form> round_parts{
        {{"center", "radius", "sweep"}, {"by", "counterclockwise"}},
        {{"center", "radii", "sweep"}, {"by", "counterclockwise", "turned"}},
        {{"at", "size", "sweep"}, {"by", "counterclockwise", "turned", "anchor"}}};
    static const std::vector<ShapeForms> all{
        {"arc", round_parts, {}},
        {"box", {{{"at", "size"}, {"anchor", "round"}}, {{"from", "to"}, {"round"}}}, {}},
        {"chord", round_parts, {}},
        {"circle", {{{"center", "radius"}, {}}, {{"at", "radius"}, {"anchor"}}}, {}},
        {"ellipse", {{{"center", "radii"}, {"turned"}}, {{"at", "size"}, {"turned", "anchor"}}}, {}},
        {"line", {{{"from", "to"}, {}}, {{"through"}, {"closed"}}}, {}},
        {"path", {{{"data"}, {}}}, rules},
        {"polygon", {{{"through"}, {}}, {{"center", "radius", "points"}, {"turned"}}}, rules},
        {"sector", round_parts, {}},
        {"star", {{{"center", "radius", "points"}, {"inner_radius", "turned"}}}, rules}};
    return all;
}

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

using AllForms = std::map<std::string, std::vector<Form>, std::less<>>;

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
    for (const auto& [shape, forms, filling] : shape_forms()) {
        const auto name = std::string{shape};
        for (const auto& form : forms) {
            auto filled = form;
            append(filled.optional, filling);
            append(filled.optional, rim_words());
            auto stroked = form;
            append(stroked.optional, stroke_words(shape));
            append(stroked.optional, rim_words());
            if (!is_line(shape)) all["part " + name].push_back(filled);
            all["stroke part " + name].push_back(stroked);
            filled.needed.emplace_back("ink");
            stroked.needed.emplace_back("ink");
            append(filled.optional, laying_words());
            append(stroked.optional, laying_words());
            if (!is_line(shape)) all["fill " + name].push_back(filled);
            all["stroke " + name].push_back(stroked);
        }
    }
    return all;
}

}  // namespace

const std::vector<Form>& forms_of(std::string_view words) {
    static const auto forms = all_forms();
    static const std::vector<Form> none;
    const auto found = forms.find(words);
    return found == forms.end() ? none : found->second;
}

}  // namespace coldbrick::detail

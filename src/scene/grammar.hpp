// The keywords of the language, and the forms that statements have of them.
#pragma once

#include <array>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

// What follows a keyword.
// word: one that may be a keyword elsewhere.
enum class Takes { nothing, one_value, word, pairs };

struct Keyword {
    std::string_view name;
    Takes takes = Takes::one_value;
};

inline constexpr auto keywords = std::to_array<Keyword>({{"about"},
                                                         {"align", Takes::word},
                                                         {"along"},
                                                         {"anchor", Takes::word},
                                                         {"angle"},
                                                         {"at"},
                                                         {"axes"},
                                                         {"blend", Takes::word},
                                                         {"by"},
                                                         {"cap", Takes::word},
                                                         {"center"},
                                                         {"channels", Takes::word},
                                                         {"closed", Takes::nothing},
                                                         {"counterclockwise", Takes::nothing},
                                                         {"crisp", Takes::nothing},
                                                         {"dash"},
                                                         {"dash_offset"},
                                                         {"data"},
                                                         {"direction", Takes::word},
                                                         {"dither", Takes::word},
                                                         {"edges", Takes::word},
                                                         {"em"},
                                                         {"face", Takes::word},
                                                         {"fallback", Takes::word},
                                                         {"features", Takes::word},
                                                         {"fit"},
                                                         {"from"},
                                                         {"ground"},
                                                         {"height"},
                                                         {"ink"},
                                                         {"inner_radius"},
                                                         {"join", Takes::word},
                                                         {"language", Takes::word},
                                                         {"letter_spacing"},
                                                         {"light", Takes::word},
                                                         {"line_spacing"},
                                                         {"lines", Takes::word},
                                                         {"mirrored", Takes::word},
                                                         {"miter_limit"},
                                                         {"neighbors", Takes::word},
                                                         {"number"},
                                                         {"offset"},
                                                         {"opacity"},
                                                         {"overflow", Takes::word},
                                                         {"part"},
                                                         {"place", Takes::word},
                                                         {"placing", Takes::word},
                                                         {"points"},
                                                         {"radii"},
                                                         {"radius"},
                                                         {"round"},
                                                         {"rule", Takes::word},
                                                         {"scaling", Takes::word},
                                                         {"side", Takes::word},
                                                         {"size"},
                                                         {"slant"},
                                                         {"smooth", Takes::nothing},
                                                         {"spacing"},
                                                         {"spread", Takes::word},
                                                         {"stops", Takes::pairs},
                                                         {"sweep"},
                                                         {"through", Takes::pairs},
                                                         {"to"},
                                                         {"tolerance"},
                                                         {"turned"},
                                                         {"weight"},
                                                         {"width"},
                                                         {"without"},
                                                         {"words"},
                                                         {"wrap"}});

inline constexpr auto gradients = std::to_array<std::string_view>({"conic", "linear", "radial"});

// How the parts of a region are joined to those before.
inline constexpr auto joiners = std::to_array<std::string_view>({"minus", "plus", "within", "xor"});

// One way to say where a figure is: keywords that it needs, and those that may be left out.
struct StatementForm {
    std::vector<std::string_view> needed;
    std::vector<std::string_view> optional;
};

// How ink is laid, how a shape's rim looks, and how a shape is stroked: keywords that many statements take.
[[nodiscard]] const std::vector<std::string_view>& laying_words();
[[nodiscard]] const std::vector<std::string_view>& rim_words();
[[nodiscard]] const std::vector<std::string_view>& stroke_words(bool is_line);

// Both lists, one after the other.
[[nodiscard]] std::vector<std::string_view> with_words(std::vector<std::string_view> words,
                                                       const std::vector<std::string_view>& more);

// The forms of a statement, by its verb and shape ("fill circle"); empty for a statement that there is not. Those of
// "part circle" are of a filled part of a region, "stroke part circle" of a stroked one: without ink.
[[nodiscard]] const std::vector<StatementForm>& forms_of(std::string_view words);

// The names of all shapes, and of regions.
[[nodiscard]] const std::vector<std::string_view>& shape_names();

// Whether a shape is a line, that has no inside.
[[nodiscard]] bool is_line(std::string_view shape) noexcept;

}  // namespace coldbrick::inline v0::detail

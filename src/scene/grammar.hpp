// The statements of the language: which keywords each takes. parse.cpp and evaluate.cpp read these tables.
#pragma once

#include <array>
#include <string_view>
#include <vector>

namespace coldbrick::detail {

// What follows a keyword.
enum class Takes { nothing, one_value, pairs };

struct Keyword {
    std::string_view name;
    Takes takes;
};

inline constexpr auto keywords = std::to_array<Keyword>({{"at", Takes::one_value},
                                                         {"center", Takes::one_value},
                                                         {"closed", Takes::nothing},
                                                         {"edges", Takes::one_value},
                                                         {"from", Takes::one_value},
                                                         {"ink", Takes::one_value},
                                                         {"radii", Takes::one_value},
                                                         {"radius", Takes::one_value},
                                                         {"rule", Takes::one_value},
                                                         {"size", Takes::one_value},
                                                         {"through", Takes::pairs},
                                                         {"to", Takes::one_value}});

inline constexpr auto verbs = std::to_array<std::string_view>({"fill", "mark", "sheet", "stroke"});
inline constexpr auto shapes = std::to_array<std::string_view>({"box", "circle", "ellipse", "line", "polygon"});

// One way to say where a figure is: keywords that it needs, and those that may be left out.
struct Form {
    std::vector<std::string_view> needed;
    std::vector<std::string_view> optional;
};

// The forms of a statement, by its verb and shape ("fill circle"); empty for a statement that there is not.
[[nodiscard]] const std::vector<Form>& forms_of(std::string_view words);

}  // namespace coldbrick::detail

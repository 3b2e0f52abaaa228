// The keywords of the language, and the forms that statements have of them.
#pragma once

#include <algorithm>
#include <array>
#include <cstdint>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

// What follows a keyword.
// word: one that may be a keyword elsewhere.
enum class Takes : std::uint8_t { nothing, one_value, word, pairs };

// What its values are: expressions, of which a number, a colour, a text or any of them is expected; a word as it is;
// labels with numbers, such as wght=700; faces.
enum class Reads : std::uint8_t { number, color, text, any, word, labels, faces };

struct Keyword {
    std::string_view name;
    Takes takes = Takes::one_value;
    Reads reads = Reads::number;
};

inline constexpr auto keywords = std::to_array<Keyword>({
    {"about", Takes::one_value, Reads::any},
    {"align", Takes::word, Reads::word},
    {"along", Takes::one_value, Reads::text},
    {"anchor", Takes::word, Reads::word},
    {"angle"},
    {"as", Takes::word, Reads::word},
    {"at", Takes::one_value, Reads::any},
    {"axes", Takes::one_value, Reads::labels},
    {"blend", Takes::word, Reads::word},
    {"by", Takes::one_value, Reads::any},
    {"cap", Takes::word, Reads::word},
    {"center", Takes::one_value, Reads::any},
    {"channels", Takes::word, Reads::word},
    {"closed", Takes::nothing},
    {"corner_radius"},
    {"counterclockwise", Takes::nothing},
    {"crisp", Takes::nothing},
    {"dash"},
    {"dash_offset"},
    {"data", Takes::one_value, Reads::text},
    {"direction", Takes::word, Reads::word},
    {"dither", Takes::word, Reads::word},
    {"edges", Takes::word, Reads::word},
    {"em"},
    {"face", Takes::word, Reads::faces},
    {"fallback", Takes::word, Reads::faces},
    {"features", Takes::word, Reads::labels},
    {"fit", Takes::one_value, Reads::any},
    {"from", Takes::one_value, Reads::any},
    {"ground", Takes::one_value, Reads::color},
    {"height"},
    {"ink", Takes::one_value, Reads::color},
    {"inner_radius"},
    {"join", Takes::word, Reads::word},
    {"language", Takes::word, Reads::word},
    {"letter_spacing"},
    {"light", Takes::word, Reads::word},
    {"line_spacing"},
    {"lines", Takes::word, Reads::word},
    {"loops"},
    {"mirrored", Takes::word, Reads::word},
    {"miter_limit"},
    {"neighbors", Takes::word, Reads::word},
    {"number"},
    {"offset", Takes::one_value, Reads::any},
    {"opacity"},
    {"overflow", Takes::word, Reads::word},
    {"part", Takes::one_value, Reads::any},
    {"place", Takes::word, Reads::word},
    {"placing", Takes::word, Reads::word},
    {"points"},
    {"radii", Takes::one_value, Reads::any},
    {"radius"},
    {"rate"},
    {"rule", Takes::word, Reads::word},
    {"scaling", Takes::word, Reads::word},
    {"side", Takes::word, Reads::word},
    {"size", Takes::one_value, Reads::any},
    {"slant"},
    {"smooth", Takes::nothing},
    {"spacing"},
    {"spread", Takes::word, Reads::word},
    {"step"},
    {"stops", Takes::pairs, Reads::any},
    {"sweep"},
    {"through", Takes::pairs, Reads::any},
    {"time"},
    {"to", Takes::one_value, Reads::any},
    {"tolerance"},
    {"turned"},
    {"weight"},
    {"width"},
    {"without", Takes::one_value, Reads::color},
    {"words", Takes::one_value, Reads::text},
    {"wrap"},
});
static_assert(keywords.size() <= 128, "Node::keywords has a bit for each");

// The number of a keyword among all; a word that is none does not compile.
class Key {
  public:
    template <std::size_t size>
    consteval Key(const char (&name)[size]) : number_{number_of(std::string_view{name})} {}
    [[nodiscard]] constexpr std::uint8_t number() const noexcept { return number_; }
    [[nodiscard]] constexpr std::string_view name() const noexcept { return keywords[number_].name; }

  private:
    static consteval std::uint8_t number_of(std::string_view name) {
        for (std::size_t i = 0; i < keywords.size(); ++i) {
            if (keywords[i].name == name) return static_cast<std::uint8_t>(i);
        }
        throw "this is no keyword of the language";
    }
    std::uint8_t number_;
};

inline constexpr auto gradients = std::to_array<std::string_view>({"conic", "linear", "radial"});

// How the parts of a region are joined to those before.
inline constexpr auto joiners = std::to_array<std::string_view>({"exclusive_or", "minus", "plus", "within"});

// What a word of the version before is called now; empty for any other word. These are taken with a remark until the
// next version.
[[nodiscard]] constexpr std::string_view new_spelling(std::string_view old) noexcept {
    if (old == "evenodd") return "even_odd";
    if (old == "round") return "corner_radius";
    return old == "xor" ? "exclusive_or" : "";
}

[[nodiscard]] constexpr bool is_joiner(std::string_view word) noexcept {
    return std::any_of(joiners.begin(), joiners.end(),
                       [&](std::string_view joiner) { return joiner == word || joiner == new_spelling(word); });
}

// One form of saying where a figure is: keywords that it needs, and those that may be left out.
struct StatementForm {
    std::vector<std::string_view> needed;
    std::vector<std::string_view> optional;
};

// How ink is laid, how a shape's rim looks, and how a shape is stroked: keywords that many statements take.
[[nodiscard]] const std::vector<std::string_view>& compositing_words();
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
[[nodiscard]] bool is_line(std::string_view shape);

}  // namespace coldbrick::inline v0::detail

// coldbrick/face.hpp - what letters look like.
//
//     Text{.words = "BERTH 4", .at = {44, 306}, .height = 18};                          // faces::line() by default
//     Text{.words = "3.2 m", .at = {4, 4}, .face = faces::pixel(), .height = 14};       // every dot two pixels wide
//
//     const auto label = load_face("quay.ttf");                                         // TrueType, OpenType
//     const auto bold = label.with_axes({{.tag = "wght", .value = 700}});               // of a variable font
//     const auto table = label.with_features({{.tag = "tnum"}, {.tag = "liga", .value = 0}});
//     const auto all = label.with_fallback({load_face("devanagari.ttf"), faces::line()});
//
// Three faces are always there. All of them have ASCII and Latin-1; the first two Latin Extended-A, Greek, Cyrillic,
// punctuation, signs of money and mathematics, arrows and simple shapes as well. Others come from font files: their
// outlines are filled as they are, without hinting.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/shared.hpp"

#include <cstdint>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {
class FaceSource;
class FaceList;
}  // namespace detail

// An OpenType feature by its tag of four characters, such as "tnum" or "liga": 0 is off, 1 on, and of features that
// choose among several forms the number of the form.
struct FaceFeature {
    std::string tag;
    unsigned value = 1;
    friend bool operator==(const FaceFeature&, const FaceFeature&) = default;
};

// Where on an axis of a variable font, such as "wght", a face is to be.
struct FaceAxis {
    std::string tag;
    double value = 0;
    friend bool operator==(const FaceAxis&, const FaceAxis&) = default;
};

// An axis that a variable font has.
struct FaceAxisRange {
    std::string tag;
    std::string name;
    double least = 0;
    double usual = 0;
    double most = 0;
};

class Face;
bool operator==(const Face& a, const Face& b) noexcept;

// A value: copies share what does not change, and may be used by several threads.
class Face {
  public:
    // faces::line().
    Face();
    explicit Face(detail::Shared<detail::FaceSource> source) noexcept : source_{std::move(source)} {}

    // "line", "pixel", "tiny"; of a font file the family and the style.
    [[nodiscard]] std::string name() const;

    // Whether there is a drawing for a character, in it or in those to fall back on; others are drawn as the missing
    // box of the face itself.
    [[nodiscard]] bool has(char32_t character) const;

    // The characters that it has drawings for itself, in their order.
    [[nodiscard]] std::vector<char32_t> characters() const;

    // The features and axes that there are. The built-in faces have none.
    [[nodiscard]] std::vector<std::string> features() const;
    [[nodiscard]] std::vector<FaceAxisRange> axes() const;

    // The same face with features on or off beside those that are usual, or at other places of its axes; those that
    // have been given before are forgotten. Throws Error for a feature or an axis that it does not have, with those
    // that it has, and for a value that is not on the axis.
    [[nodiscard]] Face with_features(const std::vector<FaceFeature>& features) const;
    [[nodiscard]] Face with_axes(const std::vector<FaceAxis>& axes) const;

    // The same face with others, in which characters that it has no drawing for are looked up, in turn. Throws Error
    // for more than 254, with those that they fall back on.
    [[nodiscard]] Face with_fallback(std::vector<Face> others) const;
    [[nodiscard]] const std::vector<Face>& fallback() const noexcept;

    [[nodiscard]] const detail::FaceSource& source() const noexcept;

    // Whether both are the same face: copies of one, with equal features, axes and faces to fall back on.
    friend bool operator==(const Face& a, const Face& b) noexcept;

  private:
    detail::Shared<detail::FaceSource> source_;
    detail::Shared<detail::FaceList> fallback_;
};

// A face out of a font file, TrueType, OpenType or a collection of them, by its path or in memory (which is copied);
// number says which of a collection's faces, name what messages call the file, if not its path. Throws Error for a file
// that cannot be read, is damaged, has no outlines (pictures of letters only) or no face of that number, and if the
// library has been built without font files.
[[nodiscard]] Face load_face(std::string_view path, int number = 0, std::string_view name = {});
[[nodiscard]] Face load_face(std::span<const std::uint8_t> file, int number = 0);

// How many faces a font file has: of a collection maybe several. Throws Error as load_face.
[[nodiscard]] int count_faces(std::string_view path);
[[nodiscard]] int count_faces(std::span<const std::uint8_t> file);

// The bytes of a character in UTF-8. Throws Error for what is none: a surrogate, or beyond U+10FFFF.
[[nodiscard]] std::string utf8(char32_t character);

// Whether the library has been built with font files.
[[nodiscard]] bool can_load_faces() noexcept;

namespace faces {

// Letters as the path of a round pen of any breadth, for capitals of 5 pixels and more; best from 7 on. Heights and
// breadths in whole pixels are fitted to the pixels.
[[nodiscard]] const Face& line();

// Letters of dots: capitals of 7 dots, or of 5. Heights are multiples of that.
[[nodiscard]] const Face& pixel();
[[nodiscard]] const Face& tiny();

}  // namespace faces

}  // namespace v0
}  // namespace coldbrick

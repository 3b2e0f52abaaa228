// coldbrick/face.hpp - what letters look like.
//
//     Text{.words = "BERTH 4", .at = {44, 306}, .height = 18};                          // faces::line() unless told
//     Text{.words = "3.2 m", .at = {4, 4}, .face = faces::pixel(), .height = 14};       // every dot two pixels wide
//
// Three faces are always there. All of them have ASCII and Latin-1; the first two Latin Extended-A, Greek, Cyrillic,
// punctuation, signs of money and mathematics, arrows and simple shapes as well.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/shared.hpp"

#include <string>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {
class FaceSource;
}  // namespace detail

// A value: copies share what does not change, and may be used by several threads.
class Face {
  public:
    // faces::line().
    Face() noexcept;
    explicit Face(detail::Shared<detail::FaceSource> source) noexcept : source_{std::move(source)} {}

    // "line", "pixel", "tiny".
    [[nodiscard]] std::string name() const;

    // Whether there is a drawing for a character; others are drawn as the face's missing box.
    [[nodiscard]] bool has(char32_t character) const;

    // The characters that there are drawings for, in their order.
    [[nodiscard]] std::vector<char32_t> characters() const;

    [[nodiscard]] const detail::FaceSource& source() const noexcept;

    // Whether both are the same face.
    friend bool operator==(const Face&, const Face&) noexcept = default;

  private:
    detail::Shared<detail::FaceSource> source_;
};

namespace faces {

// Letters as the way of a round pen of any breadth, for capitals of 5 pixels and more; best from 7 on. Heights and
// breadths in whole pixels are fitted to the pixels.
[[nodiscard]] const Face& line() noexcept;

// Letters of dots: capitals of 7 dots, or of 5. Heights are multiples of that.
[[nodiscard]] const Face& pixel() noexcept;
[[nodiscard]] const Face& tiny() noexcept;

}  // namespace faces

}  // namespace v0
}  // namespace coldbrick

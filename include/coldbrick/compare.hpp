// coldbrick/compare.hpp - where two pictures differ, and how many colours one has.
//
//     const auto found = compare(before, after);
//     if (found.pixels > 0) save(differences_shown(before, after), "where.png");
//
// Of a view, the pixels of its clip are the picture. Colours are compared in 16 bits; gray is a colour like others.
#pragma once

#include "coldbrick/convert.hpp"
#include "coldbrick/detail/public.hpp"

#include <limits>
#include <memory>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

struct Differences {
    std::int64_t pixels = 0;  // that differ
    // The greatest difference of each channel, in 255ths: 1 is a step of 8 bits.
    double red = 0;
    double green = 0;
    double blue = 0;
    double alpha = 0;
    Box box;  // around the pixels that differ; the first picture's upper left pixel is (0, 0)
};

// Which channels a picture makes use of.
struct Needs {
    bool color = false;  // a pixel is not gray
    bool alpha = false;  // a pixel is not opaque
    bool deep = false;   // a channel has a value that 8 bits do not
    friend bool operator==(const Needs&, const Needs&) = default;
};

namespace detail {
Differences compare(const Surface& a, const Surface& b, double tolerance);
Bitmap<Rgb8> differences_shown(const Surface& a, const Surface& b, double tolerance);
std::vector<Color16> colors_of(const Surface& picture, std::size_t most);
Needs needs_of(const Surface& picture);

// What a picture makes use of, found out from parts of it in any order.
class PixelSurvey {
  public:
    // Colours are counted to one more than `most`.
    explicit PixelSurvey(std::size_t most);
    PixelSurvey(const PixelSurvey&) = delete;
    PixelSurvey(PixelSurvey&&) = delete;
    PixelSurvey& operator=(const PixelSurvey&) = delete;
    PixelSurvey& operator=(PixelSurvey&&) = delete;
    ~PixelSurvey();

    void take(const Surface& part);

    [[nodiscard]] const Needs& needs() const noexcept { return needs_; }
    [[nodiscard]] std::size_t colors() const noexcept;

  private:
    struct Numbers;

    std::size_t most_;
    Needs needs_;
    std::unique_ptr<Numbers> numbers_;
};

}  // namespace detail

// A pixel differs if a channel differs by more than the tolerance, in 255ths. Throws Error if the pictures have not the
// same size.
template <Picture P, Picture Q>
[[nodiscard]] Differences compare(const P& a, const Q& b, double tolerance = 0) {
    return detail::compare(detail::SurfaceAccess::of(a), detail::SurfaceAccess::of(b), tolerance);
}

// The first picture in pale grays, and what differs in red: the more, the darker. Throws Error as compare().
template <Picture P, Picture Q>
[[nodiscard]] Bitmap<Rgb8> differences_shown(const P& a, const Q& b, double tolerance = 0) {
    return detail::differences_shown(detail::SurfaceAccess::of(a), detail::SurfaceAccess::of(b), tolerance);
}

// The different colours of a picture, each once, sorted by red, green, blue and alpha. If there are more than `most`,
// it returns one more than that, whichever come first. Memory grows with the colours and not with the pixels.
template <Picture P>
[[nodiscard]] std::vector<Color16> colors_of(const P& picture,
                                             std::size_t most = std::numeric_limits<std::size_t>::max()) {
    return detail::colors_of(detail::SurfaceAccess::of(picture), most);
}

// How many they are; no further than to one more than `most`.
template <Picture P>
[[nodiscard]] std::size_t count_colors(const P& picture, std::size_t most = std::numeric_limits<std::size_t>::max()) {
    return colors_of(picture, most).size();
}

template <Picture P>
[[nodiscard]] Needs needs_of(const P& picture) {
    return detail::needs_of(detail::SurfaceAccess::of(picture));
}

}  // namespace v0
}  // namespace coldbrick

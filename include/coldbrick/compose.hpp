// coldbrick/compose.hpp - pictures on pictures, and changes of whole pictures.
//
//     paste(page, stamp, {.at = {24, 18}});
//     paste(page, photo, {.at = {24, 90}, .size = {.width = 220}});                 // in proportion
//     paste(page, sprites, {.at = {5, 5}, .part = Box{{16, 0}, {16, 16}}, .compositing = {.opacity = 0.5}});
//     paste(page, stamp, Transform{}.turn(15_deg).move({300, 80}));                 // by any angle
//     auto face   = crop(photo, {.at = {40, 30}, .size = {64, 64}});                // a view, of the same memory
//     auto framed = bordered(face, {.left = 4, .top = 4, .right = 4, .bottom = 12}, colors::white);
//     invert(face);
//
// Of a view, the pixels of its clip are the picture.
#pragma once

#include "coldbrick/convert.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/resize.hpp"
#include "coldbrick/transform.hpp"

#include <optional>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// Turned clockwise by quarters of a turn, without loss.
enum class Quarters { none, one, two, three };

// Mirrored without loss: left_right puts the left side on the right, top_bottom the upper side below.
enum class Mirror { none, left_right, top_bottom };

// How a picture is pasted. First its part is taken, then mirrored, then turned, then resized.
struct Paste {
    Point at = {};              // where its upper left pixel comes to lie
    std::optional<Box> part{};  // pixels of the picture, in its own coordinates; left out: all
    Mirror mirrored = Mirror::none;
    Quarters turned = Quarters::none;
    Size size = {};                    // 0,0: as it is; one side 0: in proportion
    std::optional<Scaling> scaling{};  // left out: box to reduce, bilinear to enlarge
    std::optional<Color> without{};    // pixels of this colour are not pasted
    Compositing compositing{};
};

// How wide a border is on each side, in pixels, 0 or more.
struct Margins {
    int left = 0;
    int top = 0;
    int right = 0;
    int bottom = 0;
};

namespace detail {

// A picture that is kept, as it is pasted.
struct KeptPicture : Counted {
    Surface surface;
};

Box paste(const Surface& to, const Surface& from, const Paste& how, const Transform& by);

// A copy of a picture as it is pasted, but for where: its part, mirrored, turned, resized.
Shared<KeptPicture> prepared_picture(const Surface& from, const Paste& how);

// The box around a picture that has been prepared, pasted under a transform. Throws Error as pasting it would.
Box pasted_box(const Surface& from, const Paste& how, const Transform& by);
void turn(const Surface& from, const Surface& to, Mirror mirrored, Quarters turned);
Surface crop(const Surface& surface, const Box& box);
void gray_out(const Surface& surface);
Box replace_color(const Surface& surface, Color from, Color to, int tolerance);
void check_margins(const Margins& margins);

constexpr bool is_sideways(Quarters turned) noexcept { return turned == Quarters::one || turned == Quarters::three; }
}  // namespace detail

// Pastes a picture transformed, as it would lie without, with smooth edges, and gives the box that was touched. Each
// pixel gets what lies under its centre, mixed from the four nearest pixels of the picture. Throws Error as a
// transformed() shape does.
template <Target T, Picture P>
Box paste(T&& target, const P& picture, const Transform& by, const Paste& how = {},
          SourcePlace where = SourcePlace::current()) {
    if constexpr (detail::Recorder<T>) {
        return target.recorder().paste(detail::SurfaceAccess::of(picture), how, by, where);
    } else {
        return detail::paste(detail::SurfaceAccess::of(target), detail::SurfaceAccess::of(picture), how, by);
    }
}

// Pastes a picture and gives the box that was touched. The picture may be a part of the target, and overlap with where
// it goes. Throws Error if the picture or its part is empty, the part reaches beyond the picture, or for a size or an
// opacity that is not allowed.
template <Target T, Picture P>
Box paste(T&& target, const P& picture, const Paste& how = {}, SourcePlace where = SourcePlace::current()) {
    return paste(target, picture, Transform{}, how, where);
}

// A view of a box of the picture, whose upper left pixel is (0, 0) in it. No pixel is copied. Throws Error if the box
// is empty or reaches beyond the picture's clip.
template <class Format>
[[nodiscard]] Pixels<Format> crop(const Pixels<Format>& picture, const Box& box) {
    return detail::SurfaceAccess::view<Format>(detail::crop(detail::SurfaceAccess::of(picture), box));
}
template <PixelFormat Format>
[[nodiscard]] Pixels<Format> crop(Bitmap<Format>& picture, const Box& box) {
    return crop(picture.pixels(), box);
}
template <PixelFormat Format>
[[nodiscard]] Pixels<const Format> crop(const Bitmap<Format>& picture, const Box& box) {
    return crop(picture.pixels(), box);
}

// A copy of what a picture's clip shows, with pixels of its own, and its palette if it has one. Throws Error if that is
// empty.
template <Picture P>
[[nodiscard]] auto copy(const P& picture) {
    return convert<typename detail::FormatOf<P>::type>(picture);
}

// Of a bitmap without a name, which ends with the line: a copy of the box.
template <PixelFormat Format>
[[nodiscard]] Bitmap<Format> crop(Bitmap<Format>&& picture, const Box& box) {
    return copy(crop(picture, box));
}

// A copy, mirrored and then turned. Throws Error if the picture's clip is empty.
template <Picture P>
[[nodiscard]] auto turned(const P& picture, Quarters turned, Mirror mirrored = Mirror::none) {
    const auto& from = detail::SurfaceAccess::of(picture);
    const auto size = detail::enlarged_size(from, 1);
    const auto new_size = detail::is_sideways(turned) ? Size{.width = size.height, .height = size.width} : size;
    auto result = detail::unset_bitmap<typename detail::FormatOf<P>::type>(from, new_size);
    detail::turn(from, detail::SurfaceAccess::of(result), mirrored, turned);
    return result;
}
template <Picture P>
[[nodiscard]] auto mirrored(const P& picture, Mirror mirror) {
    return turned(picture, Quarters::none, mirror);
}

// A copy with a border around it. Throws Error for a margin below 0, or if the result is too large.
template <Picture P>
[[nodiscard]] auto bordered(const P& picture, const Margins& margins, Color color) {
    const auto& from = detail::SurfaceAccess::of(picture);
    const auto size = detail::enlarged_size(from, 1);
    detail::check_margins(margins);
    auto result = detail::unset_bitmap<typename detail::FormatOf<P>::type>(
        from,
        {.width = margins.left + size.width + margins.right, .height = margins.top + size.height + margins.bottom});
    clear(result, color);
    paste(result, picture, {.at = {margins.left, margins.top}, .compositing = {.blend = Blend::replace}});
    return result;
}

// Every pixel of the target's clip that has the colour `from`, alpha included, gets the colour `to`, which replaces;
// with a tolerance, also those of which no channel differs by more, in 255ths. Returns the box around the pixels that
// it has set. Throws Error for a tolerance that is not from 0 to 255.
template <detail::PixelTarget T>
Box replace_color(T&& target, Color from, Color to, int tolerance = 0) {
    detail::check_is_target<T>();
    return detail::replace_color(detail::SurfaceAccess::of(target), from, to, tolerance);
}

// Every pixel of the target's clip becomes the gray of its luma; alpha stays.
template <detail::PixelTarget T>
void gray_out(T&& target) {
    detail::gray_out(detail::SurfaceAccess::of(target));
}

// Every colour channel v of the target's clip becomes the greatest value less v; alpha stays.
template <detail::PixelTarget T>
void invert(T&& target) {
    const auto& surface = detail::SurfaceAccess::of(target);
    fill(target, surface.window,
         Ink{Color{255, 255, 255}, {.blend = Blend::exclusive_or, .channels = Channels::color}});
}

}  // namespace v0
}  // namespace coldbrick

// coldbrick/pattern.hpp - inks from small pictures and from lines.
//
//     fill(chart, sand,  Pattern::of(dots, {.offset = {3, 0}}));               // a bitmap, repeated
//     fill(chart, water, Hatch{.spacing = 6, .angle = 45_deg, .width = 1.5, .color = colors::teal});
//     fill(chart, frame, PictureInk::of(photo, {.at = {24, 18}}));             // once; nothing around it
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {

// The colours of a picture's clip. Throws Error if that is empty.
struct Tile {
    Size size;
    std::vector<Color16> colors;
};
Tile tile_of(const Surface& surface);

}  // namespace detail

// A picture over and over.
class Pattern {
  public:
    struct Place {
        Point offset = {};  // where a corner of the picture comes to lie
        Placing placing = Placing::target;
    };

    // A copy of the picture; of a view, of its clip. Throws Error if that is empty.
    template <Picture P>
    static Pattern of(const P& picture, const Place& place) {
        return Pattern{detail::tile_of(detail::SurfaceAccess::of(picture)), place};
    }
    template <Picture P>
    static Pattern of(const P& picture) {
        return of(picture, Place{});
    }
    operator Ink() const;

  private:
    Pattern(detail::Tile tile, const Place& place) noexcept : tile_{std::move(tile)}, place_{place} {}
    detail::Tile tile_;
    Place place_;
};

// A picture once, and nothing around it.
class PictureInk {
  public:
    struct Place {
        Point at = {};  // its upper left pixel
        Placing placing = Placing::target;
    };

    template <Picture P>
    static PictureInk of(const P& picture, const Place& place) {
        return PictureInk{detail::tile_of(detail::SurfaceAccess::of(picture)), place};
    }
    template <Picture P>
    static PictureInk of(const P& picture) {
        return of(picture, Place{});
    }
    operator Ink() const;

  private:
    PictureInk(detail::Tile tile, const Place& place) noexcept : tile_{std::move(tile)}, place_{place} {}
    detail::Tile tile_;
    Place place_;
};

// Parallel lines on a ground. They run in the direction of the angle; 0 is along the rows. Throws Error when it becomes
// an ink: if a number is not finite, the spacing is below 1, or the width not above 0.
struct Hatch {
    double spacing = 8;  // from one line's middle to the next, in pixels
    Angle angle = {};
    double width = 1;
    Color color = {};
    Color ground = {.alpha = 0};
    AnyPosition offset = {};  // a place on the middle of a line
    Placing placing = Placing::target;
    operator Ink() const;
};

}  // namespace v0
}  // namespace coldbrick

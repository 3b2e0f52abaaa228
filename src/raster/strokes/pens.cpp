// The pens of strokes, and how far they reach.
#include "raster/strokes/stroker.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

double Pen::reach() const noexcept {
    const auto wider = std::max({left, right, disc_radius});
    const auto mitered = join == Join::miter ? std::min(wider * std::max(miter_limit, 1.0), beyond_everything) : wider;
    return mitered + 2 * wider + beyond + 2;
}

double reach_of(const Stroke& how) noexcept {
    // A pen of twice the width, which is drawn where a stroke lies on one side.
    const auto half = how.width.pixels() + 2.0;
    return Pen{.left = half,
               .right = half,
               .cap = how.cap,
               .join = how.join,
               .miter_limit = how.miter_limit,
               .beyond = half,
               .disc_radius = half}
        .reach();
}

Tolerance detail_in(const Box& clip, double flatness) noexcept {
    const auto window = window_of(clip);
    constexpr auto margin = 4.0;
    return {.flatness = flatness,
            .seen = Surroundings{{double{1} * window.left, double{1} * window.top},
                                 {double{1} * window.right, double{1} * window.bottom}}
                        .grown(margin)};
}

Tolerance detail_in(const Box& clip, double flatness, const Stroke& how) noexcept {
    return for_stroke(detail_in(clip, flatness), how);
}

Tolerance for_stroke(Tolerance tolerance, const Stroke& how) noexcept {
    tolerance.seen = tolerance.seen.grown(reach_of(how));
    tolerance.is_measured = !how.dash.empty();
    if (tolerance.is_measured) {
        // At most some 2^20 chords within the pen's reach, several for each of the most_dashes that a call may have.
        constexpr auto least_of_width = 0x1p-36;
        const auto width = how.width.pixels();
        tolerance.flatness = std::max(tolerance.flatness / std::max(1.0, width), width * least_of_width);
    }
    return tolerance;
}

namespace {

double slack_of(const Stroke& how) noexcept { return how.edge == Edge::smooth ? 0 : fixed_slack; }

}  // namespace

Band::Band(const Stroke& how) noexcept : out{0}, in{how.width.pixels()} {
    const auto width = how.width.pixels();
    if (how.align == Align::outside) out = width;
    if (how.align == Align::center) out = how.width.is_whole() ? std::floor(width / 2) : (width - 1) / 2;
    in = width - out;
}

Pen pen_along(const Stroke& how) noexcept {
    const auto slack = slack_of(how);
    const auto half = how.width.pixels() / 2 + slack;
    const auto is_even = how.width.is_whole() && std::fmod(how.width.pixels(), 2) == 0;
    return {.left = half,
            .right = half,
            .cap = how.cap,
            .join = how.join,
            .miter_limit = how.miter_limit,
            .beyond = how.cap == Cap::square ? half : 0.5 + slack,
            .moved = is_even ? Vec{-0.5, -0.5} : Vec{},
            .disc_radius = half};
}

Pen pen_along_rings(const Stroke& how) noexcept {
    auto pen = pen_along(how);
    pen.moved = {};
    return pen;
}

Pen pen_around(const Stroke& how) noexcept {
    const auto width = how.width.pixels();
    const auto out = Band{how}.out;
    const auto slack = slack_of(how);
    // Where the fill's edge is the stroke's, the fill cuts it off. Crisp, there are pixels of fills beyond their edge
    // (at the ends of axes); beside caps, it is no more than what a curve's chords may be beside it.
    const auto over_crisp_edge = how.dash.empty() ? 1.0 : 1.0 / 64;
    const auto over_the_edge = how.edge == Edge::smooth ? 0 : over_crisp_edge;
    return {.left = how.align == Align::inside ? over_the_edge : out + slack,
            .right = how.align == Align::outside ? over_the_edge : width - out - slack,
            .cap = how.cap,
            .join = how.join,
            .miter_limit = how.miter_limit,
            .disc_radius = width / 2,
            .disc_left = out - width / 2};
}

Pen outer_side(Pen pen) noexcept {
    pen.right = 0;
    return pen;
}

Pen inner_side(Pen pen) noexcept {
    pen.left = 0;
    return pen;
}

}  // namespace coldbrick::inline v0::detail

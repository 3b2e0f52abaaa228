// coldbrick/gradient.hpp - inks that go from colour to colour.
//
//     fill(chart, sky, LinearGradient{.from = {0, 0}, .to = {0, 300}, .stops = {{0, navy}, {0.6, coral}, {1, gold}}});
//     fill(chart, lamp, RadialGradient{.center = {0.5, 0.5}, .radius = 0.5,
//                                      .stops = {{0, white}, {1, with_alpha(white, 0)}}, .placing = Placing::shape});
//     fill(chart, dial, ConicGradient{.center = {64, 48}, .from = 270_deg, .stops = {{0, teal}, {1, gold}}});
//
// Each is an ink. Between two stops the colours go evenly from one to the other, weighted by their alpha, so that a
// transparent stop lends no colour. Two stops at one place make a sharp change there. Throws Error when it becomes an
// ink: if there are no stops, if one is outside 0 to 1 or before the one ahead of it, if a number is not finite, if the
// gradient has no length.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/ink.hpp"

#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// A colour at a part of the gradient, 0 to 1.
struct Stop {
    double at = 0;
    Color color = {};
};

// What comes before the first stop and behind the last one. pad: their colours. repeat: the gradient again. reflect:
// the gradient there and back.
enum class Spread { pad, repeat, reflect };

// none: each pixel gets the nearest colour that its format has. ordered: pixels are rounded up or down in a fixed
// pattern of 8x8, so that their mean comes near the true colour and no bands are seen.
enum class Dither { none, ordered };

// From one place to another along a straight line, and the same beside it.
struct LinearGradient {
    AnyPosition from = {};
    AnyPosition to = {};
    std::vector<Stop> stops = {};
    Spread spread = Spread::pad;
    Placing placing = Placing::target;
    Dither dither = Dither::none;
    operator Ink() const;
};

// From a centre outwards, all around, as far as the radius.
struct RadialGradient {
    AnyPosition center = {};
    double radius = 0;
    std::vector<Stop> stops = {};
    Spread spread = Spread::pad;
    Placing placing = Placing::target;
    Dither dither = Dither::none;
    operator Ink() const;
};

// Once around a centre, clockwise from a direction.
struct ConicGradient {
    AnyPosition center = {};
    Angle from = {};
    std::vector<Stop> stops = {};
    Placing placing = Placing::target;
    Dither dither = Dither::none;
    operator Ink() const;
};

}  // namespace v0
}  // namespace coldbrick

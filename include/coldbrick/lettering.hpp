// coldbrick/lettering.hpp - what outlines and a round pen cover together: the shape that words are (text.hpp), and a
// line with a breadth as a shape of its own.
//
//     Lettering wave{.lines = parse_path("M 20,80 C 40,40 60,40 80,80 S 120,120 140,80"), .weight = 9};
//     fill  (chart, wave, colors::teal);                             // as the pen draws it
//     stroke(chart, wave, {.width = 2}, colors::white);              // around that, on both sides
//     fill  (chart.within(Region{wave}), chart.box(), gold);         // only there
//
// docs/pixel-rules.md, "Letters", says which pixels that are.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/path.hpp"

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

struct Lettering {
    // What lies inside by the nonzero rule; all subpaths count as closed. They go clockwise around what is inside.
    Path outlines = {};
    // What a round pen covers that follows these, with round ends and corners. A subpath of one place is a dot.
    Path lines = {};
    // The breadth of the pen in pixels, 1/256 to max_coordinate, if there are lines. Crisp, a breadth of 1 is the
    // hairline's pixels.
    double weight = 1;

    friend bool operator==(const Lettering&, const Lettering&) = default;
};

}  // namespace v0
}  // namespace coldbrick

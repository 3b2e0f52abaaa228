// coldbrick/path.hpp - outlines of straight lines and curves.
//
//     Path gull;
//     gull.move({20, 40})
//         .quadratic({.control = {30, 24}, .to = {40, 40}})
//         .quadratic({.control = {50, 24}, .to = {60, 40}});
//     stroke(chart, gull, {.width = 3, .cap = Cap::round}, colors::white);
//
//     Path bay = parse_path("M 10,80 C 40,10 65,10 95,80 S 150,150 180,80 Z");
//     fill(chart, bay, colors::teal);
//     fill(chart, bay, {.rule = FillRule::nonzero}, colors::teal);
//
// A path has one or several subpaths, each begun by a move. Filled, every subpath counts as closed. Places may lie
// between pixels; whole numbers are pixel centres, and a path of straight lines between whole numbers has the pixels of
// the polygon or polyline. Curves are drawn by chords that are nowhere further than 1/64 pixel away
// (docs/pixel-rules.md, "Paths").
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/budget.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/geometry.hpp"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

class Path {
  public:
    struct Quadratic {
        AnyPosition control;
        AnyPosition to;
    };
    struct Cubic {
        AnyPosition control_1;
        AnyPosition control_2;
        AnyPosition to;
    };
    // An arc of an ellipse with these half-axes, turned clockwise by an angle, from where the path is. Of the four such
    // arcs, `large` chooses one of more than half a turn, `clockwise` one that goes clockwise on the screen. Radii that
    // are too small to reach the end grow as much as is needed; a radius of 0 gives a straight line. As in SVG 2, 9.5.1
    // (out-of-range parameters) and B.2 (the conversion from endpoints to a centre).
    struct EllipticalArc {
        AnyPosition radii;
        Angle turned = {};
        bool large = false;
        bool clockwise = true;
        AnyPosition to;

        friend bool operator==(const EllipticalArc&, const EllipticalArc&) = default;
    };

    // Each adds a step and returns the path. A path begins with a move. Throw Error if it does not, if a coordinate or
    // radius is beyond max_coordinate or no number, or a radius is negative; the path is then as it was.
    Path& move(AnyPosition to);
    Path& line(AnyPosition to);
    Path& quadratic(const Quadratic& curve);
    Path& cubic(const Cubic& curve);
    Path& arc(const EllipticalArc& arc);
    // A straight line back to where the subpath began, and a joint there. What follows without a move begins there.
    Path& close();
    // All steps of another path, or of this one again.
    Path& add(const Path& other);

    [[nodiscard]] bool empty() const noexcept { return steps_.empty(); }

    // One step, as the rasteriser reads it: every curve as a cubic or an arc around a centre.
    struct Step {
        enum class Kind { move, line, cubic, arc, close };
        Kind kind;
        Position to;              // also of a close: where the subpath began
        Position control_1 = {};  // cubic
        Position control_2 = {};  // cubic
        EllipticalArc arc = {};   // arc

        friend bool operator==(const Step&, const Step&) = default;
    };
    [[nodiscard]] std::span<const Step> steps() const& noexcept { return steps_; }
    template <class Steps = Step>
    [[nodiscard]] std::span<const Step> steps() const&& {
        static_assert(detail::never<Steps>, "this path is gone at the end of the line: give it a name first");
        return {};
    }

    friend bool operator==(const Path&, const Path&) = default;

  private:
    void add_step(const Step& step);
    detail::CountedVector<Step> steps_;
    Position begin_;
};

// A fault in the string of a path.
class PathError : public Error {
  public:
    PathError(const std::string& message, std::size_t position) : Error{message}, position_{position} {}

    // The number of bytes before the fault.
    [[nodiscard]] std::size_t position() const noexcept { return position_; }

  private:
    std::size_t position_;
};

// Reads path data as SVG 2, 9.3 defines it: all its commands (M L H V C S Q T A Z), absolute and relative. Throws
// PathError for what that grammar has not, and for numbers beyond max_coordinate.
[[nodiscard]] Path parse_path(std::string_view text);

// The straight pieces that a path is drawn as: for each subpath its points, from the first to the last. Of curves there
// are as many as keep within 1/64 pixel, and hardly more. Throws Error if the path is empty.
[[nodiscard]] std::vector<std::vector<Position>> flattened(const Path& path);

}  // namespace v0
}  // namespace coldbrick

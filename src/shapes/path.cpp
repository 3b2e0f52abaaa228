#include "coldbrick/path.hpp"

#include "geometry/limits.hpp"

#include <cmath>
#include <string>

namespace coldbrick::inline v0 {

namespace {

void check_value(const char* field, double value, double least) {
    if (value >= least && value <= max_coordinate) return;
    throw Error{std::string{"path: "} + field + " is " + std::to_string(value) + "; allowed is " +
                std::to_string(static_cast<int>(least)) + " to " + std::to_string(max_coordinate)};
}

void check(Position place) {
    check_value("x", place.x, -max_coordinate);
    check_value("y", place.y, -max_coordinate);
}

constexpr Position between(Position a, Position b, double part) noexcept {
    return {.x = a.x + (b.x - a.x) * part, .y = a.y + (b.y - a.y) * part};
}

}  // namespace

void Path::add_step(const Step& step) {
    if (steps_.empty() && step.kind != Step::Kind::move) throw Error{"path: the first step must be a move"};
    steps_.push_back(step);
}

Path& Path::move(AnyPosition to) {
    check(to);
    add_step({.kind = Step::Kind::move, .to = to});
    begin_ = to;
    return *this;
}

Path& Path::line(AnyPosition to) {
    check(to);
    add_step({.kind = Step::Kind::line, .to = to});
    return *this;
}

Path& Path::add(const Path& other) {
    const auto begin = other.begin_;
    // By number: of itself, its steps move.
    const auto count = other.steps_.size();
    steps_.reserve(steps_.size() + count);
    for (std::size_t i = 0; i < count; ++i) {
        const auto step = other.steps_[i];
        add_step(step);
    }
    if (count > 0) begin_ = begin;
    return *this;
}

Path& Path::quadratic(const Quadratic& curve) {
    // The same curve as a cubic.
    const auto from = steps_.empty() ? Position{} : steps_.back().to;
    return cubic({.control_1 = between(from, curve.control, 2.0 / 3),
                  .control_2 = between(curve.to, curve.control, 2.0 / 3),
                  .to = curve.to});
}

Path& Path::cubic(const Cubic& curve) {
    check(curve.control_1);
    check(curve.control_2);
    check(curve.to);
    add_step({.kind = Step::Kind::cubic, .to = curve.to, .control_1 = curve.control_1, .control_2 = curve.control_2});
    return *this;
}

Path& Path::arc(const EllipticalArc& arc) {
    check_value("radii.x", arc.radii.x, 0);
    check_value("radii.y", arc.radii.y, 0);
    detail::check_angle("path", "turned", arc.turned);
    check(arc.to);
    const auto is_straight = arc.radii.x == 0 || arc.radii.y == 0;
    add_step({.kind = is_straight ? Step::Kind::line : Step::Kind::arc, .to = arc.to, .arc = arc});
    return *this;
}

Path& Path::close() {
    add_step({.kind = Step::Kind::close, .to = begin_});
    return *this;
}

}  // namespace coldbrick::inline v0

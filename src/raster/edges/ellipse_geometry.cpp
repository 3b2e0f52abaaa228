#include "raster/edges/ellipse_geometry.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

// Draws a parallel curve of an ellipse: by its normals, from which place and tangent follow.
class ParallelDrawer {
  public:
    ParallelDrawer(const EllipseGeometry& geometry, double distance, Contours& contours) noexcept
        : form_{geometry},
          distance_{distance},
          contours_{contours},
          size_{geometry.a() + geometry.b() + std::fabs(distance) + length(geometry.center())},
          flatness_{resolved_flatness(contours.flatness(), size_)},
          seen_{contours.seen()} {}

    // The place with that normal, in the ellipse's own directions.
    [[nodiscard]] Vec place(Vec normal) const noexcept {
        const auto a = form_.a();
        const auto b = form_.b();
        const auto reach = std::sqrt(a * a * normal.x * normal.x + b * b * normal.y * normal.y);
        return {a * a * normal.x / reach + distance_ * normal.x, b * b * normal.y / reach + distance_ * normal.y};
    }

    void corner(Vec normal) { contours_.to(on_screen(place(normal))); }

    // The normal of the place that lies in a direction, in the ellipse's own directions: by halving a quarter.
    [[nodiscard]] Vec normal_towards(Vec direction) const noexcept {
        const auto ahead = Vec{std::fabs(direction.x), std::fabs(direction.y)};
        auto before = Vec{1, 0};
        auto after = Vec{0, 1};
        if (ahead.y == 0) after = before;
        if (ahead.x == 0) before = after;
        constexpr auto halvings = 44;
        for (auto i = 0; i < halvings && !(before == after); ++i) {
            const auto middle = unit(before + after);
            (cross(ahead, place(middle)) > 0 ? after : before) = middle;
        }
        return {std::copysign(before.x, direction.x), std::copysign(before.y, direction.y)};
    }

    // From one normal to another that is clockwise of it by at most a quarter turn; draws all but the first corner.
    void arc(Vec from, Vec to) { follow({.normal = from, .place = place(from)}, {.normal = to, .place = place(to)}); }

  private:
    struct End {
        Vec normal;
        Vec place;
    };

    void follow(const End& from, const End& to) {
        const auto begin = from.place;
        const auto end = to.place;
        const auto chord = end - begin;
        const auto middle = unit(from.normal + to.normal);
        const auto tip = tip_of(from, to, middle);
        // The arc lies in the triangle, and is at most half as high.
        const auto height = std::fabs(cross(tip - begin, chord));
        if (cross(from.normal, to.normal) > 0 && height > 2 * flatness_ * length(chord) && is_near(begin, end, tip)) {
            const auto between = End{.normal = middle, .place = place(middle)};
            follow(from, between);
            follow(between, to);
            return;
        }
        contours_.to(on_screen(end));
    }

    // Where the tangents at both ends meet. If their directions are too much alike, as for a parabola: twice as
    // far out as the arc is in its middle.
    [[nodiscard]] Vec tip_of(const End& first, const End& last, Vec middle) const noexcept {
        const auto& [from, begin] = first;
        const auto& [to, end] = last;
        const auto along = cross(from, to);
        if (!(along * flatness_ > size_ * 0x1p-50)) return place(middle) * 2 - (begin + end) * 0.5;
        const auto [h, k] = Vec{dot(from, begin), dot(to, end)};
        return {(h * to.y - k * from.y) / along, (k * from.x - h * to.x) / along};
    }

    [[nodiscard]] Vec on_screen(Vec place) const noexcept { return form_.center() + turned(place, form_.direction()); }

    // Whether a triangle may have a part in the window.
    [[nodiscard]] bool is_near(Vec a, Vec b, Vec c) const noexcept {
        const auto [ax, ay] = on_screen(a);
        const auto [bx, by] = on_screen(b);
        const auto [cx, cy] = on_screen(c);
        const auto& [least, most] = seen_;
        return std::min({ax, bx, cx}) <= most.x && std::max({ax, bx, cx}) >= least.x &&
               std::min({ay, by, cy}) <= most.y && std::max({ay, by, cy}) >= least.y;
    }

    const EllipseGeometry& form_;
    double distance_;
    Contours& contours_;
    double size_;
    double flatness_;
    Surroundings seen_;
};

// The end of an axis that comes next clockwise, and not the one where a direction is.
Vec next_axis(Vec direction) noexcept {
    if (direction.x > 0 && direction.y >= 0) return {0, 1};
    if (direction.x <= 0 && direction.y > 0) return {-1, 0};
    return direction.x < 0 ? Vec{0, -1} : Vec{1, 0};
}

// How far it is clockwise to another direction, by its cosine and sine.
double degrees_to(Vec from, Vec to) noexcept { return angle_of({dot(from, to), cross(from, to)}).in_degrees(); }

// What of a disc lies in the directions of a turn.
void draw_sector(Vec center, double radius, const Turn& turn, Contours& contours) {
    auto at = turn.begin();
    contours.to(center);
    contours.to(center + at * radius);
    for (auto rest = turn.degrees; rest > 90; rest -= 90) {
        contours.arc(center, radius, at, -left_of(at));
        at = -left_of(at);
    }
    if (!(at == turn.end())) contours.arc(center, radius, at, turn.end());
    contours.close();
}

}  // namespace

EllipseGeometry::EllipseGeometry(Point origin, Vec center, Vec half_axes, Angle turned) noexcept
    : origin_{origin},
      center_{center},
      a_{half_axes.x},
      b_{half_axes.y},
      turn_{turned},
      direction_{half_axes.x == half_axes.y ? Vec{1, 0} : direction_of(turned)} {}

EllipseGeometry::EllipseGeometry(const WholeEllipse& ellipse) noexcept
    : origin_{ellipse.box.at},
      center_{(ellipse.box.size.width - 1) / 2.0, (ellipse.box.size.height - 1) / 2.0},
      a_{ellipse.box.size.width / 2.0},
      b_{ellipse.box.size.height / 2.0},
      turn_{ellipse.turn},
      direction_{ellipse.box.size.width == ellipse.box.size.height ? Vec{1, 0} : direction_of(ellipse.turn)} {}

Vec EllipseGeometry::rim(Vec direction) const noexcept {
    const auto own = turned(direction, {direction_.x, -direction_.y});
    return center_ + direction * (1 / length({own.x / a_, own.y / b_}));
}

Vec EllipseGeometry::normal(Vec direction) const noexcept {
    const auto own = turned(direction, {direction_.x, -direction_.y});
    return turned(unit({own.x / (a_ * a_), own.y / (b_ * b_)}), direction_);
}

void EllipseGeometry::add_rim(const Turn& turn, const Tolerance& tolerance, Subpath& subpath) const {
    const auto place = RoundPlaces{.center = center_, .half_axes = {a_, b_}, .direction = direction_};
    const auto own = [&](Vec direction) { return turned(direction, {direction_.x, -direction_.y}); };
    // From a direction to the place on the unit circle that the ellipse takes there.
    const auto on_circle = [&](Vec direction) {
        const auto [x, y] = own(direction);
        return unit({x / a_, y / b_});
    };
    const auto begin = on_circle(turn.begin());
    const auto end = turn.is_whole ? begin : on_circle(turn.end());
    subpath.add({.at = rim(turn.begin()), .out = place.along(begin)});
    subpath.go_on(place.along(begin));
    // Through the ends of the axes, as places on the circle.
    const auto own_begin = own(turn.begin());
    auto axis = next_axis(own_begin);
    auto before = degrees_to(own_begin, axis);
    const auto degrees = turn.is_whole ? 360 : turn.degrees;
    auto at = begin;
    for (; before < degrees; before += 90) {
        add_chords(at, axis, place, tolerance, subpath);
        subpath.add_joint(place(axis), place.along(axis));
        at = axis;
        axis = -left_of(axis);
    }
    add_chords(at, end, place, tolerance, subpath);
    const auto last = turn.is_whole ? turn.begin() : turn.end();
    subpath.add({.at = rim(last), .in = place.along(end)});
}

bool EllipseGeometry::draw_parallel(double distance, Contours& contours) const {
    // Inside, the curve ends where it meets its mirror image on the longer axis.
    auto first = Vec{1, 0};
    auto second = Vec{0, 1};
    const auto shorter = std::min(a_, b_);
    if (distance <= -shorter) return false;
    // Around a circle it is another one, whose chords need no search.
    if (contours.is_smooth() && a_ == b_ && a_ + distance < largest_followed) {
        contours.circle(center_, a_ + distance);
        return true;
    }
    if (distance < 0 && a_ != b_) {
        const auto limit = shorter * shorter / -distance;
        const auto farthest = (limit * limit - shorter * shorter) / std::fabs(a_ * a_ - b_ * b_);
        if (farthest < 1) {
            auto& cut = a_ > b_ ? first : second;
            cut = a_ > b_ ? Vec{std::sqrt(farthest), std::sqrt(1 - farthest)}
                          : Vec{std::sqrt(1 - farthest), std::sqrt(farthest)};
        }
    }
    ParallelDrawer drawer{*this, distance, contours};
    drawer.corner(first);
    drawer.arc(first, second);
    drawer.arc({-second.x, second.y}, {-first.x, first.y});
    drawer.arc(-first, -second);
    drawer.arc({second.x, -second.y}, {first.x, -first.y});
    contours.close();
    return true;
}

void EllipseGeometry::draw_parallel_sector(double distance, const Turn& turn, Contours& contours) const {
    if (a_ == b_) return draw_sector(center_, a_ + distance, turn, contours);
    ParallelDrawer drawer{*this, distance, contours};
    const auto own = [&](Vec direction) { return turned(direction, {direction_.x, -direction_.y}); };
    const auto begin = own(turn.begin());
    auto at = drawer.normal_towards(begin);
    contours.to(center_);
    drawer.corner(at);
    // Through the ends of the axes, where normals and directions from the centre are the same.
    auto axis = next_axis(begin);
    for (auto before = degrees_to(begin, axis); before < turn.degrees; before += 90) {
        drawer.arc(at, axis);
        at = axis;
        axis = -left_of(axis);
    }
    drawer.arc(at, drawer.normal_towards(own(turn.end())));
    contours.close();
}

double EllipseGeometry::half_width() const noexcept { return length({a_ * direction_.x, b_ * direction_.y}); }
double EllipseGeometry::half_height() const noexcept { return length({a_ * direction_.y, b_ * direction_.x}); }

}  // namespace coldbrick::inline v0::detail

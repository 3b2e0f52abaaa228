#include "raster/lowering/placement.hpp"

#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

std::string numbers(Vec pair) { return in_digits(pair.x) + "," + in_digits(pair.y); }

void check_place(Vec at) {
    constexpr auto most = double{1} * max_coordinate;
    if (std::fabs(at.x) <= most && std::fabs(at.y) <= most) return;
    throw Error{"transform: it takes the shape to " + numbers(at) + "; allowed is -" + std::to_string(max_coordinate) +
                " to " + std::to_string(max_coordinate)};
}

}  // namespace

Placement::Placement(const Transform& by) : by_{by}, is_identity_{by.is_identity()} {
    if (is_identity_) return;
    const auto& [xx, xy, dx, yx, yy, dy] = by.rows();
    for (const auto number : {xx, xy, dx, yx, yy, dy}) {
        if (!std::isfinite(number)) throw Error{"transform: one of its numbers is not finite"};
    }
    const auto determinant = xx * yy - xy * yx;
    const auto sum = xx * xx + xy * xy + yx * yx + yy * yy;
    // The larger singular value.
    scale_ = std::sqrt((sum + std::sqrt(std::max(0.0, sum * sum - 4 * determinant * determinant))) / 2);
    constexpr auto hardly = 1e-9;
    constexpr auto most = 1e12;
    if (!(std::fabs(determinant) > hardly * scale_ * scale_) || !(scale_ > hardly)) {
        throw Error{"transform: it flattens everything to a line or a point; its rows are " + numbers({xx, xy}) +
                    " and " + numbers({yx, yy}) + ", and what they make of a square must have an area"};
    }
    if (!(scale_ < most)) {
        throw Error{"transform: it makes everything " + in_digits(scale_) + " times as large; allowed is up to 1e12"};
    }
}

std::optional<Position> Placement::move() const noexcept {
    const auto& [xx, xy, dx, yx, yy, dy] = by_.rows();
    const auto is_near = std::fabs(dx) <= max_coordinate && std::fabs(dy) <= max_coordinate;
    if (xx != 1 || xy != 0 || yx != 0 || yy != 1 || !is_near) return std::nullopt;
    return Position{dx, dy};
}

std::optional<Point> Placement::find_whole_move() const noexcept {
    const auto by = move();
    if (!by || by->x != std::floor(by->x) || by->y != std::floor(by->y)) return std::nullopt;
    return Point{.x = static_cast<int>(by->x), .y = static_cast<int>(by->y)};
}

std::pair<Point, Mapping> Placement::around(Point origin) const {
    const auto at = by_(origin);
    check_place({at.x, at.y});
    const auto whole = Point{.x = static_cast<int>(std::floor(at.x)), .y = static_cast<int>(std::floor(at.y))};
    const auto& rows = by_.rows();
    return {whole,
            {.xx = rows.xx, .xy = rows.xy, .yx = rows.yx, .yy = rows.yy, .shift = {at.x - whole.x, at.y - whole.y}}};
}

void Placement::apply(Contours& contours, Point origin) const {
    if (is_identity_) return;
    const auto [whole, mapping] = around(origin);
    contours.map(mapping, whole, scale_);
}

FlatPath Placement::operator()(FlatPath flat) const {
    if (is_identity_) return flat;
    const auto [whole, mapping] = around(flat.origin);
    flat.origin = whole;
    for (auto& subpath : flat.subpaths) {
        for (auto& node : subpath.nodes) {
            node.at = mapping(node.at);
            check_place({node.at.x + whole.x, node.at.y + whole.y});
        }
    }
    return flat;
}

Tolerance Placement::seen_in(const Box& clip, double flatness) const noexcept {
    auto tolerance = detail::detail_in(clip, flatness);
    if (is_identity_) return tolerance;
    tolerance.flatness = flatness / scale_;
    tolerance.seen = tolerance.seen.mapped(by_.inverse());
    return tolerance;
}

}  // namespace coldbrick::inline v0::detail

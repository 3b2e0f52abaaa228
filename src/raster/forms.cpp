// What the shapes are made of, whether their coordinates are whole or not.
#include "geometry/limits.hpp"
#include "raster/ellipse_rows.hpp"
#include "raster/outline.hpp"
#include "raster/polygon_checks.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/vertices.hpp"

#include <cmath>
#include <string>

namespace coldbrick::detail {

namespace {

template <class Shape>
const Shape* as(const ShapeRef& shape) noexcept {
    const auto* const found = std::get_if<const Shape*>(&shape);
    return found != nullptr ? *found : nullptr;
}

// A number rounded to 1/256. Throws Error if it is out of range.
double rounded(std::string_view shape, std::string_view field, double value, double least) {
    if (!(value >= least && value <= max_coordinate)) {
        auto text = std::isfinite(value) ? in_digits(value) : std::string{"no finite number"};
        throw Error{std::string{shape} + ": " + std::string{field} + " is " + text + "; allowed is " +
                    (least > 0 ? "1/256" : std::to_string(static_cast<int>(least))) + " to " +
                    std::to_string(max_coordinate)};
    }
    constexpr auto steps = 256.0;
    return std::floor(value * steps + 0.5) / steps;
}

Position rounded(std::string_view shape, std::string_view field, Position at, double least = -max_coordinate) {
    const auto name = std::string{field};
    return {.x = rounded(shape, name + ".x", at.x, least), .y = rounded(shape, name + ".y", at.y, least)};
}

Point origin_at(Position at) noexcept {
    return {.x = static_cast<int>(std::floor(at.x)), .y = static_cast<int>(std::floor(at.y))};
}

Vec from_origin(Position at, Point origin) noexcept { return {at.x - origin.x, at.y - origin.y}; }

EllipseForm form_of(const subpixel::Ellipse& ellipse) {
    const auto& place = ellipse.place();
    const auto center = rounded("ellipse", "center", place.center);
    const auto radii = rounded("ellipse", "radii", place.radii, 0);
    check_angle("ellipse", "turned", place.turned);
    const auto origin = origin_at(center);
    return {origin, from_origin(center, origin), {radii.x + 0.5, radii.y + 0.5}, place.turned};
}
EllipseForm form_of(const Ellipse& ellipse) { return EllipseForm{ellipse}; }

BoxForm form_of(const subpixel::RoundedBox& shape) {
    const auto at = rounded("box", "at", shape.box.at);
    constexpr auto least = 1.0 / 256;
    const auto width = rounded("box", "size.width", shape.box.size.width, least);
    const auto height = rounded("box", "size.height", shape.box.size.height, least);
    const auto radius = rounded("rounded box", "corner_radius", shape.corner_radius, 0);
    if (radius > std::min(width, height) / 2) {
        throw Error{"rounded box: corner_radius is " + in_digits(radius) + "; allowed is 0 to " +
                    in_digits(std::min(width, height) / 2)};
    }
    const auto origin = origin_at(at);
    const auto [left, top] = from_origin(at, origin) - Vec{0.5, 0.5};
    return {.origin = origin,
            .left = left,
            .top = top,
            .right = left + width,
            .bottom = top + height,
            .corner_radius = radius};
}

BoxForm form_of(const RoundedBox& shape) {
    check_box("rounded box", shape.box);
    const auto& [at, size] = shape.box;
    const auto most = std::min(size.width, size.height) / 2;
    if (shape.corner_radius < 0 || shape.corner_radius > most) {
        refuse("rounded box", "corner_radius", shape.corner_radius, 0, most);
    }
    return {.origin = at,
            .left = -0.5,
            .top = -0.5,
            .right = size.width - 0.5,
            .bottom = size.height - 0.5,
            .corner_radius = static_cast<double>(shape.corner_radius)};
}

template <class Whole, class Fractional>
std::optional<SweptForm> swept(const ShapeRef& shape, std::string_view name) {
    const auto form = [&](const auto& of) {
        check_angle(name, "sweep.from", of.sweep.from);
        check_angle(name, "sweep.by", of.sweep.by);
        return SweptForm{.of = form_of(of.of), .sweep = of.sweep};
    };
    if (const auto* const whole = as<Whole>(shape)) return form(*whole);
    if (const auto* const fractional = as<Fractional>(shape)) return form(*fractional);
    return std::nullopt;
}

// Tracks from points of either kind.
class TrackMaker {
  public:
    explicit TrackMaker(Position first) noexcept { flat_.origin = origin_at(first); }

    template <class Points>
    void add(const Points& points, bool closed) {
        auto& track = flat_.tracks.emplace_back();
        track.nodes.reserve(points.size());
        for (const auto& at : points) track.add(from_origin(at, flat_.origin));
        if (closed && track.nodes.size() > 2) track.close();
    }

    [[nodiscard]] FlatPath take() noexcept { return std::move(flat_); }

  private:
    FlatPath flat_;
};

std::vector<Position> rounded_all(std::string_view shape, const std::vector<Position>& places) {
    if (places.empty()) throw Error{std::string{shape} + ": it has no points; it needs one at least"};
    std::vector<Position> result;
    result.reserve(places.size());
    for (const auto& at : places) result.push_back(rounded(shape, "through", at));
    return result;
}

template <class Rings>
FlatPath tracks_of_rings(const Rings& rings) {
    TrackMaker tracks{rings.front().front()};
    for (const auto& ring : rings) tracks.add(ring, true);
    return tracks.take();
}

FlatPath lines(const Line& shape, const Detail&) {
    check_point("line", "from", shape.from);
    check_point("line", "to", shape.to);
    TrackMaker tracks{shape.from};
    tracks.add(std::array{shape.from, shape.to}, false);
    return tracks.take();
}

FlatPath lines(const Polyline& shape, const Detail&) {
    check_polyline(shape);
    TrackMaker tracks{shape.through.front()};
    tracks.add(shape.through, shape.closed);
    return tracks.take();
}

FlatPath lines(const Polygon& shape, const Detail&) {
    check_polygon(shape);
    return tracks_of_rings(shape.rings());
}

FlatPath lines(const subpixel::Line& shape, const Detail&) {
    const auto ends = rounded_all("line", {shape.from, shape.to});
    TrackMaker tracks{ends.front()};
    tracks.add(ends, false);
    return tracks.take();
}

FlatPath lines(const subpixel::Polyline& shape, const Detail&) {
    const auto places = rounded_all("polyline", shape.through);
    TrackMaker tracks{places.front()};
    tracks.add(places, shape.closed);
    return tracks.take();
}

FlatPath lines(const subpixel::Polygon& shape, const Detail&) {
    if (shape.rings.empty()) throw Error{"polygon: it has no rings; it needs one at least"};
    std::vector<std::vector<Position>> rings;
    for (const auto& ring : shape.rings) rings.push_back(rounded_all("polygon", ring));
    return tracks_of_rings(rings);
}

FlatPath lines(const Path& shape, const Detail& detail) { return flatten(shape, detail); }

FlatPath lines(const VertexList& list, const Detail&) {
    check_vertices(list);
    return tracks_of(list);
}

FlatPath lines(const VertexElement& element, const Detail&) { return tracks_of(element); }

}  // namespace

std::optional<EllipseForm> ellipse_of(const ShapeRef& shape) {
    if (const auto* const circle = as<Circle>(shape)) return EllipseForm{Ellipse{*circle}};
    if (const auto* const ellipse = as<Ellipse>(shape)) return EllipseForm{*ellipse};
    if (const auto* const circle = as<subpixel::Circle>(shape)) return form_of(subpixel::Ellipse{*circle});
    if (const auto* const ellipse = as<subpixel::Ellipse>(shape)) return form_of(*ellipse);
    return std::nullopt;
}

std::optional<BoxForm> box_of_shape(const ShapeRef& shape) {
    if (const auto* const box = as<Box>(shape)) return form_of(RoundedBox{.box = *box});
    if (const auto* const box = as<RoundedBox>(shape)) return form_of(*box);
    if (const auto* const box = as<subpixel::Box>(shape)) return form_of(subpixel::RoundedBox{.box = *box});
    if (const auto* const box = as<subpixel::RoundedBox>(shape)) return form_of(*box);
    return std::nullopt;
}

std::optional<SweptForm> sector_of(const ShapeRef& shape) { return swept<Sector, subpixel::Sector>(shape, "sector"); }
std::optional<SweptForm> chord_of(const ShapeRef& shape) { return swept<Chord, subpixel::Chord>(shape, "chord"); }
std::optional<SweptForm> arc_of(const ShapeRef& shape) { return swept<Arc, subpixel::Arc>(shape, "arc"); }

std::optional<FlatPath> lines_of(const ShapeRef& shape, const Detail& detail) {
    return std::visit(
        [&](const auto* of) -> std::optional<FlatPath> {
            if constexpr (requires { lines(*of, detail); }) return lines(*of, detail);
            return std::nullopt;
        },
        shape);
}

}  // namespace coldbrick::detail

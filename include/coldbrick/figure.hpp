// coldbrick/figure.hpp - any shape with how it is filled or stroked, and where, as one value.
//
//     std::vector<Figure> buoys{Circle{.center = {64, 48}, .radius = 20}, stroked(mast, {.width = 3})};
//     buoys.push_back(transformed(filled(shoal, {.edge = Edge::smooth}), Transform{}.turn(30_deg)));
//     for (const auto& buoy : buoys) fill(chart, buoy, gold);
//     const auto hit = std::find_if(buoys.rbegin(), buoys.rend(), [](const Figure& f) { return contains(f, Point{60,
//     50}); });
//
// A figure is an area (spans.hpp): fill(), bounds(), contains(), for_each_span(), Region and clips take it.
#pragma once

#include "coldbrick/region.hpp"
#include "coldbrick/spans.hpp"

#include <variant>

namespace coldbrick {

class Figure;

namespace detail {

// The shapes themselves.
using ShapeValue =
    std::variant<Box, RoundedBox, Circle, Ellipse, Sector, Chord, Arc, Line, Polyline, Polygon, Path, Region,
                 subpixel::Box, subpixel::RoundedBox, subpixel::Circle, subpixel::Ellipse, subpixel::Sector,
                 subpixel::Chord, subpixel::Arc, subpixel::Line, subpixel::Polyline, subpixel::Polygon>;

template <class Shape, class Shapes>
inline constexpr bool is_one_of = false;
template <class Shape, class... Shapes>
inline constexpr bool is_one_of<Shape, std::variant<Shapes...>> = OneOf<Shape, Shapes...>;

template <class Shape>
concept ShapeByValue = is_one_of<Shape, ShapeValue>;

}  // namespace detail

// Equal figures have equal shapes, drawn in the same way, by numbers: others may have the same pixels.
class Figure {
  public:
    // A shape that has an inside, a filled() or a stroked() one, or one of these transformed().
    template <detail::ShapeByValue Shape>
    requires detail::Fillable<Shape> Figure(Shape shape) : shape_{std::move(shape)} {}
    template <detail::ShapeByValue Shape>
    requires detail::Fillable<Shape> Figure(Filled<Shape> area) : shape_{std::move(area.shape)}, how_{area.how} {}
    template <detail::ShapeByValue Shape>
    Figure(Stroked<Shape> area) : shape_{std::move(area.shape)}, how_{std::move(area.how)} {}
    template <class Area>
    Figure(Transformed<Area> area) : Figure{std::move(area.area)} {
        by_ = by_.then(area.by);
    }

    // The transform that it is under.
    [[nodiscard]] const Transform& transform() const noexcept { return by_; }

    // The same under a further one.
    [[nodiscard]] Figure then(const Transform& next) const {
        auto placed = *this;
        placed.by_ = by_.then(next);
        return placed;
    }

    // Whether it is a stroke, and not a fill.
    [[nodiscard]] bool is_stroke() const noexcept { return std::holds_alternative<Stroke>(how_); }

    // Calls use(shape, how) with the shape as its own type and a Fill or a Stroke, and returns what that returns.
    template <class Use>
    decltype(auto) visit(const Use& use) const {
        return std::visit(use, shape_, how_);
    }

    friend bool operator==(const Figure&, const Figure&) = default;

    // The figure as an area. It must outlive it.
    friend detail::AreaRef area_ref(const Figure& figure) noexcept {
        const auto address = [](const auto& of) { return detail::ShapeRef{&of}; };
        detail::AreaRef area{
            .shape = std::visit(address, figure.shape_), .how = &detail::usual_fill, .by = &figure.by_};
        if (const auto* const fill = std::get_if<Fill>(&figure.how_)) area.how = fill;
        if (const auto* const stroke = std::get_if<Stroke>(&figure.how_)) area.how = stroke;
        return area;
    }

  private:
    detail::ShapeValue shape_;
    std::variant<Fill, Stroke> how_;
    Transform by_;
};

// A figure under a further transform.
[[nodiscard]] inline Figure transformed(const Figure& figure, const Transform& by) { return figure.then(by); }

}  // namespace coldbrick

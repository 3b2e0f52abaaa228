// coldbrick/figure.hpp - any shape with how it is filled or stroked, and where, as one value.
//
//     std::vector<Figure> buoys{Circle{.center = {64, 48}, .radius = 20}, stroked(mast, {.width = 3})};
//     buoys.push_back(transformed(filled(shoal, {.edge = Edge::smooth}), Transform{}.turn(30_deg)));
//     for (const auto& buoy : buoys) fill(chart, buoy, gold);
//     const auto has_pixel = [](const Figure& buoy) { return contains(buoy, Point{60, 50}); };
//     const auto hit = std::find_if(buoys.rbegin(), buoys.rend(), has_pixel);
//
// A figure is an area (spans.hpp): fill(), bounds(), contains(), for_each_span(), Region and clips take it.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/shape_value.hpp"
#include "coldbrick/spans.hpp"

#include <utility>
#include <variant>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {

// How the library gets at what a figure is made of.
struct FigureParts;

}  // namespace detail

// Equal figures have equal shapes, drawn alike, by numbers: others may have the same pixels.
class Figure {
  public:
    // A shape that has an inside, a filled() or a stroked() one, or one of these transformed().
    template <detail::Fillable Shape>
    Figure(Shape shape) : shape_{std::move(shape)} {}
    template <detail::Fillable Shape>
    Figure(Filled<Shape> area) : shape_{std::move(area.shape)}, how_{area.how} {}
    template <detail::AnyShape Shape>
    Figure(Stroked<Shape> area) : shape_{std::move(area.shape)}, how_{std::move(area.how)} {}
    template <class Area>
    Figure(Transformed<Area> area) : Figure{std::move(area.area)} {
        by_ = by_.then(area.by);
    }

    // The transform that it is under.
    [[nodiscard]] const Transform& transform() const& noexcept { return by_; }
    [[nodiscard]] Transform transform() && noexcept { return by_; }

    // The same under a further one.
    [[nodiscard]] Figure then(const Transform& next) && {
        if (!next.is_identity()) by_ = by_.then(next);
        return std::move(*this);
    }
    [[nodiscard]] Figure then(const Transform& next) const& {
        auto placed = *this;
        placed.by_ = by_.then(next);
        return placed;
    }

    // What it is made of.
    [[nodiscard]] const std::variant<Fill, Stroke>& how() const& noexcept { return how_; }
    [[nodiscard]] std::variant<Fill, Stroke> how() && noexcept { return std::move(how_); }

    // Whether it is a stroke, and not a fill.
    [[nodiscard]] bool is_stroke() const noexcept { return std::holds_alternative<Stroke>(how_); }

    // About how many bytes it takes beside its own: of points, steps, spans.
    [[nodiscard]] std::size_t bytes_besides() const noexcept { return shape_.bytes_besides(); }

    friend bool operator==(const Figure& a, const Figure& b) {
        return a.shape_ == b.shape_ && a.how_ == b.how_ && a.by_ == b.by_;
    }

    // The figure as an area. It must outlive it.
    friend detail::AreaRef area_ref(const Figure& figure) noexcept {
        return {.shape = figure.shape_.ref(),
                .fill = std::get_if<Fill>(&figure.how_),
                .stroke = std::get_if<Stroke>(&figure.how_),
                .by = &figure.by_};
    }

  private:
    friend struct detail::FigureParts;

    Figure(detail::ShapeValue shape, std::variant<Fill, Stroke> how, const Transform& by)
        : shape_{std::move(shape)}, how_{std::move(how)}, by_{by} {}

    detail::ShapeValue shape_;
    std::variant<Fill, Stroke> how_;
    Transform by_;
};

namespace detail {

struct FigureParts {
    static ShapeValue& shape(Figure& figure) noexcept { return figure.shape_; }
    static std::variant<Fill, Stroke>& how(Figure& figure) noexcept { return figure.how_; }
    static Figure figure(ShapeValue shape, std::variant<Fill, Stroke> how, const Transform& by) {
        return {std::move(shape), std::move(how), by};
    }
};

}  // namespace detail

// A figure under a further transform.
[[nodiscard]] inline Figure transformed(const Figure& figure, const Transform& by) { return figure.then(by); }

}  // namespace v0
}  // namespace coldbrick

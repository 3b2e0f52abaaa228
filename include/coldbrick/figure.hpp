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

#include "coldbrick/region.hpp"
#include "coldbrick/spans.hpp"
#include "coldbrick/vertices.hpp"

#include <concepts>
#include <memory>
#include <utility>
#include <variant>
#include <vector>

namespace coldbrick {

namespace detail {

// A shape that is kept somewhere else: one of the caller's own, or a list of vertices.
class HeldShape {
  public:
    HeldShape() = default;
    HeldShape(const HeldShape&) = delete;
    HeldShape(HeldShape&&) = delete;
    HeldShape& operator=(const HeldShape&) = delete;
    HeldShape& operator=(HeldShape&&) = delete;
    virtual ~HeldShape() = default;

    // The shape as that of an area.
    virtual void refer(AreaRef& area) const noexcept = 0;
    [[nodiscard]] virtual bool is_equal(const HeldShape& other) const = 0;
};
using SharedShape = std::shared_ptr<const HeldShape>;

template <OwnShape Shape>
class HeldOwn final : public HeldShape {
  public:
    explicit HeldOwn(Shape shape) : shape_{std::move(shape)} {}
    void refer(AreaRef& area) const noexcept override {
        area.own = &shape_;
        area.own_calls = &own_shape_calls<Shape>;
    }
    [[nodiscard]] bool is_equal(const HeldShape& other) const override {
        if (const auto* const same = dynamic_cast<const HeldOwn*>(&other)) {
            if constexpr (std::equality_comparable<Shape>) return shape_ == same->shape_;
            return this == same;
        }
        return false;
    }

  private:
    Shape shape_;
};

// The vertices are copied, as they come to lie.
SharedShape held(const VertexList& list);
SharedShape held(const VertexElement& element);

template <class List>
struct ValuesOf;
template <class... Types>
struct ValuesOf<TypeList<Types...>> {
    using Variant = std::variant<Types..., SharedShape>;
};

// Any shape.
using ShapeValue = ValuesOf<LastingShapes>::Variant;

template <AnyShape Shape>
ShapeValue as_value(Shape shape) {
    if constexpr (is_one_of<Shape, LastingShapes>) return ShapeValue{std::move(shape)};
    if constexpr (is_one_of<Shape, TypeList<VertexList, VertexElement>>) return held(shape);
    if constexpr (!BuiltInShape<Shape>) return std::make_shared<const HeldOwn<Shape>>(std::move(shape));
}

std::size_t bytes_besides(const ShapeValue& shape) noexcept;

bool are_equal(const ShapeValue& a, const ShapeValue& b);

// How the library gets at what a figure is made of.
struct FigureParts;

// The shape as that of an area; it must outlive it.
inline void refer(AreaRef& area, const ShapeValue& shape) noexcept {
    std::visit(
        [&](const auto& of) {
            if constexpr (requires { of->refer(area); }) of->refer(area);
            if constexpr (!requires { of->refer(area); }) area.shape = &of;
        },
        shape);
}

}  // namespace detail

// Equal figures have equal shapes, drawn in the same way, by numbers: others may have the same pixels.
class Figure {
  public:
    // A shape that has an inside, a filled() or a stroked() one, or one of these transformed().
    template <detail::Fillable Shape>
    Figure(Shape shape) : shape_{detail::as_value(std::move(shape))} {}
    template <detail::Fillable Shape>
    Figure(Filled<Shape> area) : shape_{detail::as_value(std::move(area.shape))}, how_{area.how} {}
    template <detail::AnyShape Shape>
    Figure(Stroked<Shape> area) : shape_{detail::as_value(std::move(area.shape))}, how_{std::move(area.how)} {}
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

    // What it is made of.
    [[nodiscard]] const std::variant<Fill, Stroke>& how() const noexcept { return how_; }

    // Whether it is a stroke, and not a fill.
    [[nodiscard]] bool is_stroke() const noexcept { return std::holds_alternative<Stroke>(how_); }

    // About how many bytes it takes beside its own: of points, steps, spans.
    [[nodiscard]] std::size_t bytes_besides() const noexcept { return detail::bytes_besides(shape_); }

    friend bool operator==(const Figure& a, const Figure& b) {
        return detail::are_equal(a.shape_, b.shape_) && a.how_ == b.how_ && a.by_ == b.by_;
    }

    // The figure as an area. It must outlive it.
    friend detail::AreaRef area_ref(const Figure& figure) noexcept {
        detail::AreaRef area{.shape = {}, .how = &detail::usual_fill, .by = &figure.by_};
        detail::refer(area, figure.shape_);
        if (const auto* const fill = std::get_if<Fill>(&figure.how_)) area.how = fill;
        if (const auto* const stroke = std::get_if<Stroke>(&figure.how_)) area.how = stroke;
        return area;
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

}  // namespace coldbrick

// Lists of shapes of one kind.
#include "geometry/limits.hpp"
#include "paint/brushes/mark.hpp"
#include "paint/brushes/painter.hpp"
#include "paint/brushes/prepared.hpp"
#include "paint/brushes/small_painter.hpp"
#include "raster/lowering/geometry_bounds.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/draw_each.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <limits>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

[[noreturn]] void refuse_element(std::string_view call, std::size_t number, std::size_t count, const Error& error) {
    throw Error{std::string{call} + ": number " + std::to_string(number) + " of 0 to " + std::to_string(count - 1) +
                ": " + error.what()};
}

// Calls check(number) for each, and adds the number of one for which it throws.
template <class Check>
void check_numbers(std::string_view call, std::size_t count, const Check& check) {
    std::size_t number = 0;
    try {
        for (; number < count; ++number) check(number);
    } catch (const LimitError&) {
        throw;
    } catch (const Error& error) {
        refuse_element(call, number, count, error);
    }
}

// Whether a shape is one of those that most lists are of, and can be; others are looked at as for drawing.
bool is_sound(const AreaRef& area) noexcept {
    const auto is_coordinate_pair = [](Point at) { return is_coordinate(at.x) && is_coordinate(at.y); };
    if (area.shape.kind == number_in<Circle, AllShapes> && area.shape.own_calls == nullptr) {
        const auto& circle = *static_cast<const Circle*>(area.shape.shape);
        return is_coordinate_pair(circle.center) && circle.radius >= 0 && circle.radius <= max_coordinate;
    }
    if (area.shape.kind == number_in<Box, AllShapes> && area.shape.own_calls == nullptr) {
        const auto& [at, extent] = *static_cast<const Box*>(area.shape.shape);
        const auto is_length = [](int length) { return length >= 1 && length <= max_coordinate; };
        return is_coordinate_pair(at) && is_length(extent.width) && is_length(extent.height);
    }
    if (area.shape.kind == number_in<Line, AllShapes> && area.shape.own_calls == nullptr) {
        const auto& line = *static_cast<const Line*>(area.shape.shape);
        return is_coordinate_pair(line.from) && is_coordinate_pair(line.to);
    }
    return false;
}

// The box around several, of which those without pixels do not count.
class BoxAround {
  public:
    void add(const Box& box) noexcept {
        if (box.empty()) return;
        left_ = std::min(left_, box.at.x);
        top_ = std::min(top_, box.at.y);
        right_ = std::max(right_, box.at.x + box.size.width);
        bottom_ = std::max(bottom_, box.at.y + box.size.height);
    }
    [[nodiscard]] Box box() const noexcept {
        if (left_ >= right_) return {};
        return {.at = {.x = left_, .y = top_}, .size = {.width = right_ - left_, .height = bottom_ - top_}};
    }

  private:
    int left_ = std::numeric_limits<int>::max();
    int top_ = std::numeric_limits<int>::max();
    int right_ = std::numeric_limits<int>::min();
    int bottom_ = std::numeric_limits<int>::min();
};

// Calls paint(number) for each, and returns the box around what they touch.
template <class Paint>
Box all_touched(std::size_t count, const Paint& paint) {
    BoxAround touched;
    for (std::size_t i = 0; i < count; ++i) {
        constexpr std::uint64_t steps_of_shape = 8;
        spend_work(steps_of_shape);
        touched.add(paint(i));
    }
    return touched.box();
}

// More dashes than a call may have come up only where they are seen: that is looked at before anything is drawn.
void check_dashes(const Surface& surface, const ShapesRef& shapes) {
    if (shapes.stroke == nullptr || shapes.stroke->dash.empty()) return;
    check_numbers("stroke_each", shapes.count, [&](std::size_t i) { scan(shapes[i], surface.window, null_sink); });
}

std::vector<Brush> brushes_for(const Target& target, std::span<const Ink> inks) {
    std::vector<Brush> brushes;
    brushes.reserve(inks.size());
    for (const auto& ink : inks) brushes.push_back(brush_for(target, ink));
    return brushes;
}

}  // namespace

void check_each(std::string_view call, const ShapesRef& shapes) {
    // The first one is looked at in full, and with it how all are drawn.
    check_numbers(call, shapes.count, [&](std::size_t i) {
        const auto area = shapes[i];
        if (i == 0 || !is_sound(area)) scan(area, Box{}, null_sink);
    });
}

void check_each(std::string_view call, const Point* points, std::size_t count) {
    check_numbers(call, count, [&](std::size_t i) { check_point("mark", "at", points[i]); });
}

void check_ink_count(std::string_view call, std::size_t shapes, std::size_t inks) {
    if (shapes == inks) return;
    throw Error{std::string{call} + ": there are " + std::to_string(inks) + " inks for " + std::to_string(shapes) +
                " shapes; allowed is one ink for all, or as many as there are shapes"};
}

Box paint_each(const Surface& surface, const ShapesRef& shapes, const Shared<ReadyInk>& ink) {
    check_dashes(surface, shapes);
    if (shapes.count == 0) return {};
    Painter painter{surface, ink->brush()};
    const auto* const color = ink->ink().plain_color();
    if (color == nullptr) return all_touched(shapes.count, [&](std::size_t i) { return painter.paint(shapes[i]); });
    const SmallPainter small{surface, *color};
    return all_touched(shapes.count, [&](std::size_t i) {
        const auto touched = small.paint(shapes[i]);
        return touched.empty() ? painter.paint(shapes[i]) : touched;
    });
}

Box paint_each(const Surface& surface, const ShapesRef& shapes, std::span<const Color> colors) {
    check_dashes(surface, shapes);
    return all_touched(shapes.count, [&](std::size_t i) { return paint(surface, Ink{colors[i]}, shapes[i]); });
}

Box paint_each(const Surface& surface, const ShapesRef& shapes, std::span<const Ink> inks) {
    check_dashes(surface, shapes);
    const auto brushes = brushes_for(surface, inks);
    return all_touched(shapes.count, [&](std::size_t i) { return paint(surface, brushes[i], shapes[i]); });
}

Box mark_each(const Surface& surface, std::span<const Point> points, const Shared<ReadyInk>& ink) {
    const auto* const color = ink->ink().plain_color();
    const auto is_put =
        color != nullptr && surface.kernel->put != nullptr && !surface.clips && surface.observer == nullptr;
    return all_touched(points.size(), [&](std::size_t i) {
        if (!is_put || !contains(surface.window, points[i])) return mark(surface, points[i], ink->brush());
        put_color(surface, *color, points[i]);
        return Box{.at = points[i], .size = one_pixel};
    });
}

Box mark_each(const Surface& surface, std::span<const Point> points, std::span<const Color> colors) {
    return all_touched(points.size(), [&](std::size_t i) { return mark(surface, points[i], Ink{colors[i]}); });
}

Box mark_each(const Surface& surface, std::span<const Point> points, std::span<const Ink> inks) {
    const auto brushes = brushes_for(surface, inks);
    return all_touched(points.size(), [&](std::size_t i) { return mark(surface, points[i], brushes[i]); });
}

}  // namespace coldbrick::inline v0::detail

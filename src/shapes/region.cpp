#include "coldbrick/region.hpp"

#include "geometry/limits.hpp"
#include "raster/lowering/geometry_bounds.hpp"
#include "raster/rounds/closed_shapes.hpp"
#include "raster/strokes/outline_subpaths.hpp"
#include "shapes/shape_scans.hpp"

#include <algorithm>
#include <limits>
#include <optional>
#include <string>

namespace coldbrick::inline v0 {

Region Region::of_spans(const std::vector<Span>& spans) {
    for (std::size_t i = 0; i < spans.size(); ++i) {
        const auto& run = spans[i];
        const auto follows = i == 0 || spans[i - 1].y < run.y ||
                             (spans[i - 1].y == run.y && std::int64_t{spans[i - 1].x} + spans[i - 1].length < run.x);
        constexpr auto most = std::int64_t{std::numeric_limits<int>::max()};
        if (run.length >= 1 && std::int64_t{run.x} + run.length > most) {
            throw Error{"region: span " + std::to_string(i) + " (row " + std::to_string(run.y) + ", column " +
                        std::to_string(run.x) + ", length " + std::to_string(run.length) +
                        ") goes beyond the numbers; its last column may be " + std::to_string(most - 1)};
        }
        if (run.length < 1 || !follows) {
            throw Error{"region: span " + std::to_string(i) + " (row " + std::to_string(run.y) + ", column " +
                        std::to_string(run.x) + ", length " + std::to_string(run.length) +
                        ") does not follow the one before; spans are sorted, apart, and at least 1 long"};
        }
    }
    Region region;
    region.spans_.assign(spans.begin(), spans.end());
    region.measure();
    return region;
}

void Region::measure() noexcept {
    bounds_ = detail::box_around(spans_);
    area_ = 0;
    for (const auto& run : spans_) area_ += run.length;
}

std::span<const Span> Region::row(int y) const& noexcept {
    const auto first = std::partition_point(spans_.begin(), spans_.end(), [y](const Span& run) { return run.y < y; });
    const auto end = std::partition_point(first, spans_.end(), [y](const Span& run) { return run.y == y; });
    return {first, end};
}

bool Region::contains(Point pixel) const noexcept {
    const auto before = std::partition_point(spans_.begin(), spans_.end(), [pixel](const Span& run) {
        return run.y != pixel.y ? run.y < pixel.y : run.x <= pixel.x;
    });
    if (before == spans_.begin()) return false;
    const auto& run = *(before - 1);
    return run.y == pixel.y && pixel.x - std::int64_t{run.x} < run.length;
}

Region Region::shifted(Point by) const {
    const auto check = [](const char* field, int first, int last, int shift) {
        constexpr auto most = std::int64_t{std::numeric_limits<int>::max()};
        if (std::int64_t{first} + shift >= -most && std::int64_t{last} + shift < most) return;
        throw Error{std::string{"region: shifted by "} + field + " " + std::to_string(shift) +
                    " it would lie beyond the numbers"};
    };
    if (empty()) return {};
    check("x", bounds_.at.x, bounds_.last().x, by.x);
    check("y", bounds_.at.y, bounds_.last().y, by.y);
    auto moved = *this;
    for (auto& run : moved.spans_) {
        run.x += by.x;
        run.y += by.y;
    }
    moved.bounds_.at = {.x = bounds_.at.x + by.x, .y = bounds_.at.y + by.y};
    return moved;
}

Region unite(const Region& a, const Region& b) { return Region{detail::union_of(a.spans_, b.spans_)}; }
Region intersection(const Region& a, const Region& b) { return Region{detail::intersection_of(a.spans_, b.spans_)}; }
Region difference(const Region& a, const Region& b) { return Region{detail::difference_of(a.spans_, b.spans_)}; }
Region symmetric_difference(const Region& a, const Region& b) {
    return Region{detail::symmetric_difference_of(a.spans_, b.spans_)};
}

namespace detail {

namespace {

// What is moved, smoothed or stroked has rows and columns beside its own.
void check_extent(const Region& region) {
    constexpr auto margin = 16;
    constexpr auto most = std::numeric_limits<int>::max() - margin;
    const auto& box = region.bounds();
    const auto refuse_number = [](const char* what, int number) {
        refuse("region", what, number, -std::int64_t{most}, most);
    };
    if (region.empty()) return;
    if (box.at.x < -most) refuse_number("its first column", box.at.x);
    if (box.at.y < -most) refuse_number("its first row", box.at.y);
    if (box.last().x > most) refuse_number("its last column", box.last().x);
    if (box.last().y > most) refuse_number("its last row", box.last().y);
}

// What of the region may matter for a stroke in the clip.
Region near_clip(const Region& region, const Box& clip, const Stroke& how) {
    if (!how.dash.empty()) return region;
    return Region{region, clip.inset(-(std::min(static_cast<int>(how.width.pixels()), max_coordinate - 4) + 4))};
}

}  // namespace

Geometry geometry_of(const Region& shape, const Tolerance&) {
    check_extent(shape);
    return PixelsGeometry{.spans = shape.spans(), .bounds = shape.bounds()};
}

Box scan_fill(const Region& shape, const Box& clip, const SpanSink& sink) {
    return scan_set(shape.spans(), clip, sink);
}

Box scan_stroke(const Region& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_stroke(how);
    check_extent(shape);
    if (is_hairline(how)) return scan_set_outline(shape.spans(), clip, sink);
    if (shape.empty() || clip.empty()) return {};
    auto rounded = how;
    rounded.join = Join::round;
    const auto near = near_clip(shape, clip, how);
    const auto origin = shape.bounds().at;
    return scan_around(
        {.edges = outline_subpaths(near.spans(), origin), .origin = origin}, rounded, clip, sink,
        [&](const SpanSink& gather) { scan_fill(near, clip, gather); },
        [&](const SpanSink& gather) { scan_set_outline(shape.spans(), clip, gather); });
}

std::optional<Box> fill_bounds(const Region& shape) { return shape.bounds(); }

std::optional<Box> stroke_bounds(const Region& shape, const Stroke& how) {
    if (shape.empty()) return Box{};
    const auto reach = std::min(static_cast<int>(how.width.pixels()), max_coordinate - 4) + 4;
    return bounds_by_rows(shape.bounds().inset(-reach),
                          [&](const Box& clip) { return scan_stroke(shape, how, clip, null_sink); });
}

}  // namespace detail

}  // namespace coldbrick::inline v0

#include "coldbrick/region.hpp"

#include "raster/closed_shapes.hpp"
#include "raster/find_bounds.hpp"
#include "raster/outline_tracks.hpp"
#include "raster/shape_scans.hpp"

#include <algorithm>
#include <limits>
#include <string>

namespace coldbrick {

Region Region::of_spans(std::vector<Span> spans) {
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
    region.spans_ = std::move(spans);
    region.measure();
    return region;
}

void Region::measure() noexcept {
    bounds_ = detail::box_around(spans_);
    area_ = 0;
    for (const auto& run : spans_) area_ += run.length;
}

std::span<const Span> Region::row(int y) const noexcept {
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

// The region's spans in some rows.
std::span<const Span> rows_of(const Region& region, int first, int end) {
    const auto spans = region.spans();
    const auto from = std::partition_point(spans.begin(), spans.end(), [=](const Span& run) { return run.y < first; });
    const auto to = std::partition_point(from, spans.end(), [=](const Span& run) { return run.y < end; });
    return {from, to};
}

SpanSet moved_down(const SpanSet& spans, int rows) {
    auto moved = spans;
    for (auto& run : moved) run.y += rows;
    return moved;
}

SpanSet without_ends(const SpanSet& spans) {
    SpanSet shrunk;
    for (const auto& run : spans) {
        if (run.length > 2) shrunk.push_back({.y = run.y, .x = run.x + 1, .length = run.length - 2});
    }
    return shrunk;
}

// The pixels of which one of the four neighbours lies outside.
Box scan_outline_of(const Region& region, const Box& clip, const SpanReceiver& receiver) {
    const auto window = window_of(clip);
    if (window.empty()) return {};
    constexpr auto least = std::numeric_limits<int>::min();
    const auto rows = rows_of(region, std::max(window.top, least + 1) - 1, window.bottom);
    const auto below = rows_of(region, window.bottom,
                               window.bottom == std::numeric_limits<int>::max() ? window.bottom : window.bottom + 1);
    SpanSet all{rows.begin(), rows.end()};
    all.insert(all.end(), below.begin(), below.end());
    const auto inner = intersection_of(without_ends(all), intersection_of(moved_down(all, 1), moved_down(all, -1)));
    SpanBatch batch{window, receiver};
    for (const auto& run : difference_of(all, inner)) {
        if (run.y >= window.top && run.y < window.bottom) batch.add(run.y, run.x, run.x + run.length);
    }
    return batch.finish();
}

// What of the region may matter for a stroke in the clip.
Region near_clip(const Region& region, const Box& clip, const Stroke& how) {
    if (!how.dash.empty()) return region;
    const auto around = grown(clip, std::min(how.width, max_coordinate - 4) + 4);
    return Region{region, around};
}

}  // namespace

Box scan_fill(const Region& shape, const Box& clip, const SpanReceiver& receiver) {
    SpanBatch batch{window_of(clip), receiver};
    if (batch.window().empty()) return {};
    for (const auto& run : rows_of(shape, batch.window().top, batch.window().bottom)) {
        batch.add(run.y, run.x, run.x + run.length);
    }
    return batch.finish();
}

Box scan_stroke(const Region& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_stroke(how);
    if (is_hairline(how)) return scan_outline_of(shape, clip, receiver);
    if (shape.empty() || clip.empty()) return {};
    auto rounded = how;
    rounded.join = Join::round;
    const auto near = near_clip(shape, clip, how);
    const auto origin = shape.bounds().at;
    return scan_around(
        {.edges = outline_tracks(near.spans(), origin), .origin = origin}, rounded, clip, receiver,
        [&](const SpanReceiver& gather) { scan_fill(near, clip, gather); },
        [&](const SpanReceiver& gather) { scan_outline_of(shape, clip, gather); });
}

Box stroke_bounds(const Region& shape, const Stroke& how) {
    check_stroke(how);
    if (shape.empty()) return {};
    return bounds_by_rows(grown(shape.bounds(), std::min(how.width, max_coordinate - 4) + 4),
                          [&](const Box& clip) { return scan_stroke(shape, how, clip, nobody); });
}

}  // namespace detail

}  // namespace coldbrick

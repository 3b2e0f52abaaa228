#include "raster/strokes/outline_subpaths.hpp"

#include "geometry/budget_memory.hpp"
#include "raster/spans/span_sets.hpp"

#include <algorithm>
#include <limits>

namespace coldbrick::inline v0::detail {

namespace {

// A corner of pixels: the upper left one of pixel (x, y).
struct Corner {
    int x;
    int y;
    friend bool operator==(const Corner&, const Corner&) = default;
};

// A side of a run of pixels, the set on its right hand.
struct Side {
    Corner from;
    Corner to;
    bool used = false;
};

bool is_before(const Corner& a, const Corner& b) noexcept { return a.y != b.y ? a.y < b.y : a.x < b.x; }

CountedVector<Side> sides_of(const SpanSet& spans) {
    auto below = spans;
    auto above = spans;
    for (auto& run : below) ++run.y;
    for (auto& run : above) --run.y;
    CountedVector<Side> sides;
    sides.reserve(4 * spans.size());
    for (const auto& [y, x, length] : spans) {
        sides.push_back({.from = {x + length, y}, .to = {x + length, y + 1}});
        sides.push_back({.from = {x, y + 1}, .to = {x, y}});
    }
    for (const auto& [y, x, length] : difference_of(spans, below)) {
        sides.push_back({.from = {x, y}, .to = {x + length, y}});
    }
    for (const auto& [y, x, length] : difference_of(spans, above)) {
        sides.push_back({.from = {x + length, y + 1}, .to = {x, y + 1}});
    }
    sort_in_budget(sides.begin(), sides.end(), [](const Side& a, const Side& b) { return is_before(a.from, b.from); });
    return sides;
}

// The side that goes on where another ends. Where two do, the one that turns right, around the same pixel.
Side& next_of(CountedVector<Side>& sides, const Side& side) {
    auto next = std::partition_point(sides.begin(), sides.end(),
                                     [&](const Side& other) { return is_before(other.from, side.to); });
    const auto turn = [&](const Side& other) {
        const auto along = Vec{double{1} * side.to.x - side.from.x, double{1} * side.to.y - side.from.y};
        return cross(along, {double{1} * other.to.x - other.from.x, double{1} * other.to.y - other.from.y});
    };
    const auto other = next + 1;
    const auto has_two = other != sides.end() && other->from == side.to;
    if (has_two && turn(*other) > turn(*next)) next = other;
    return *next;
}

}  // namespace

CountedVector<Subpath> outline_subpaths(std::span<const Span> spans, Point origin) {
    auto sides = sides_of({spans.begin(), spans.end()});
    const auto place = [&](const Corner& corner) {
        return Vec{double{1} * corner.x - origin.x - 0.5, double{1} * corner.y - origin.y - 0.5};
    };
    CountedVector<Subpath> subpaths;
    for (auto& first : sides) {
        if (first.used) continue;
        auto& subpath = subpaths.emplace_back();
        for (auto* side = &first; !side->used; side = &next_of(sides, *side)) {
            side->used = true;
            spend_work(16);
            const auto at = place(side->from);
            // Straight on, the corner is none.
            const auto& nodes = subpath.nodes;
            if (nodes.size() > 1 && cross(at - nodes.back().at, nodes.back().at - nodes[nodes.size() - 2].at) == 0) {
                subpath.nodes.pop_back();
            }
            subpath.add(at);
        }
        subpath.close();
    }
    return subpaths;
}

}  // namespace coldbrick::inline v0::detail

#include "coldbrick/smooth_region.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <limits>
#include <string>

namespace coldbrick::inline v0 {

namespace {

using Part = SmoothRegion::Part;

// Adds a part, to the last one if it goes on there.
void add(std::vector<Part>& parts, const Part& part) {
    if (!parts.empty()) {
        auto& last = parts.back();
        if (last.y == part.y && last.x + last.length == part.x && last.coverage == part.coverage) {
            last.length += part.length;
            return;
        }
    }
    parts.push_back(part);
}

}  // namespace

SmoothRegion SmoothRegion::of_parts(std::span<const Part> parts) {
    SmoothRegion region;
    for (const auto& part : parts) {
        const auto& [y, x, length, coverage] = part;
        const auto end = std::int64_t{x} + length;
        const auto is_behind =
            region.parts_.empty() || region.parts_.back().y < y ||
            (region.parts_.back().y == y && region.parts_.back().x + region.parts_.back().length <= x);
        if (length < 1 || end > std::numeric_limits<int>::max() || !is_behind) {
            throw Error{"smooth region: a part of row " + std::to_string(y) + " from column " + std::to_string(x) +
                        " is " + std::to_string(length) +
                        " pixels long; allowed are parts of 1 pixel or more, in order of rows, from left to right"};
        }
        if (coverage == 0) continue;
        add(region.parts_, part);
        region.bounds_ = enclosing(region.bounds_, Box{.at = {x, y}, .size = {length, 1}});
    }
    return region;
}

SmoothRegion SmoothRegion::shifted(Point by) const {
    if (empty()) return *this;
    const auto last = bounds_.last();
    const auto is_within = [](std::int64_t number) {
        return number >= std::numeric_limits<int>::min() && number < std::numeric_limits<int>::max();
    };
    for (const auto number : {std::int64_t{bounds_.at.x} + by.x, std::int64_t{last.x} + by.x,
                              std::int64_t{bounds_.at.y} + by.y, std::int64_t{last.y} + by.y}) {
        if (!is_within(number)) {
            detail::refuse("smooth region", "a coordinate that it is shifted to", number,
                           std::numeric_limits<int>::min(), std::numeric_limits<int>::max() - 1);
        }
    }
    auto moved = *this;
    for (auto& part : moved.parts_) {
        part.x += by.x;
        part.y += by.y;
    }
    moved.bounds_.at = moved.bounds_.at + by;
    return moved;
}

std::span<const Part> SmoothRegion::row(int y) const& noexcept {
    const auto from = std::partition_point(parts_.begin(), parts_.end(), [=](const Part& part) { return part.y < y; });
    const auto to = std::partition_point(from, parts_.end(), [=](const Part& part) { return part.y == y; });
    return {from, to};
}

int SmoothRegion::coverage_at(Point pixel) const noexcept {
    const auto parts = row(pixel.y);
    const auto part =
        std::partition_point(parts.begin(), parts.end(), [&](const Part& p) { return p.x + p.length <= pixel.x; });
    return part != parts.end() && part->x <= pixel.x ? part->coverage : 0;
}

SmoothRegion intersection(const SmoothRegion& a, const SmoothRegion& b) {
    SmoothRegion both;
    const auto is_before = [](const Part& p, const Part& q) { return p.y != q.y ? p.y < q.y : p.x + p.length <= q.x; };
    auto in_a = a.parts_.begin();
    auto in_b = b.parts_.begin();
    while (in_a != a.parts_.end() && in_b != b.parts_.end()) {
        if (is_before(*in_a, *in_b)) {
            ++in_a;
        } else if (is_before(*in_b, *in_a)) {
            ++in_b;
        } else {
            const auto left = std::max(in_a->x, in_b->x);
            const auto right = std::min(in_a->x + in_a->length, in_b->x + in_b->length);
            const auto coverage = detail::product_255(in_a->coverage, in_b->coverage);
            if (coverage != 0) {
                add(both.parts_, {.y = in_a->y, .x = left, .length = right - left, .coverage = coverage});
                both.bounds_ = enclosing(both.bounds_, Box{.at = {left, in_a->y}, .size = {right - left, 1}});
            }
            (in_a->x + in_a->length < in_b->x + in_b->length ? in_a : in_b)++;
        }
    }
    return both;
}

}  // namespace coldbrick::inline v0

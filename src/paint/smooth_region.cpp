#include "coldbrick/smooth_region.hpp"

#include "formats/kernels.hpp"

#include <algorithm>

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

std::span<const Part> SmoothRegion::row(int y) const noexcept {
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

#include "raster/lowering/letter_outline.hpp"

#include "coldbrick/error.hpp"

#include <utility>

namespace coldbrick::inline v0::detail {

Outline::Group pen_group(const FlatPath& lines, double radius) {
    const auto pen =
        Pen{.left = radius, .right = radius, .cap = Cap::round, .join = Join::round, .disc_radius = radius};
    return {.rule = FillRule::nonzero, .draw = [&lines, pen](Contours& contours) {
                for (const auto& subpath : lines.subpaths) draw_subpath(subpath, pen, contours);
            }};
}

Outline stroke_of_pen(const LettersGeometry& geometry, const Stroke& how) {
    if (!how.dash.empty()) {
        throw Error{
            "stroke: dash is given for letters that a pen draws; allowed are dashes along their lines, as a Path"};
    }
    // What a pen covers, made broader and thinner, is what pens of other breadths cover.
    const Band band{how};
    auto outline = Outline{.origin = geometry.lines.origin, .groups = {}, .truth = Outline::in_first_only};
    outline.groups.push_back(pen_group(geometry.lines, geometry.weight / 2 + band.out));
    const auto inner = geometry.weight / 2 - band.in;
    if (inner > 0) outline.groups.push_back(pen_group(geometry.lines, inner));
    return outline;
}

Outline either(Outline a, Outline b) {
    const auto groups_of_a = a.groups.size();
    const auto all_of_a = (1U << groups_of_a) - 1;
    const auto is_covered = [](GroupTruth truth, unsigned inside) { return ((truth >> inside) & 1U) != 0; };
    a.truth = group_truth([&](unsigned inside) {
        const auto inside_b = inside >> groups_of_a;
        return is_covered(a.truth, inside & all_of_a) ||
               (inside_b >> b.groups.size() == 0 && is_covered(b.truth, inside_b));
    });
    for (std::size_t i = 0; i < b.groups.size(); ++i) a.groups.push_back(std::move(b.groups[i]));
    return a;
}

}  // namespace coldbrick::inline v0::detail

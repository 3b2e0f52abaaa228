// Regions and clips: from their parts to sets of pixels.
#include "scene/figures.hpp"

#include "coldbrick/smooth_region.hpp"

#include <optional>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

// The figure's pixels in a box, as a region.
Region region_of(const Drawn& figure, const Transform& by, const Box& within) {
    return Region{std::get<Figure>(figure).then(by), within};
}

std::optional<Drawn> read_part(const RegionPart& part, const PartsOf& of, Edge edge = Edge::crisp) {
    auto parts = of.of;
    parts.given = std::span{of.of.program.arguments}.subspan(part.first_argument, part.argument_count);
    Arguments given{parts, of.values, of.faults, edge};
    auto figure = std::optional<Drawn>{};
    read_figure(*part.shape, part.is_stroked, given, figure);
    return figure;
}

}  // namespace

namespace {

// What parts that are joined alike make together, two by two: so that the work grows with the number of their spans,
// and not with its square. exclusive_or, plus and within do not care how they are grouped; what is taken away one by
// one is taken away together.
Region joined(std::vector<Region> parts, Joiner joiner) {
    for (auto count = parts.size(); count > 1; count = (count + 1) / 2) {
        for (std::size_t i = 0; 2 * i < count; ++i) {
            auto& first = parts[2 * i];
            if (2 * i + 1 == count) {
                parts[i] = std::move(first);
                continue;
            }
            const auto& second = parts[2 * i + 1];
            parts[i] = joiner == Joiner::within      ? intersection(first, second)
                       : joiner == Joiner::exclusive ? symmetric_difference(first, second)
                                                     : unite(first, second);
        }
    }
    return std::move(parts.front());
}

Region with(const Region& before, std::vector<Region> parts, Joiner joiner) {
    const auto all = joined(std::move(parts), joiner);
    if (joiner == Joiner::minus) return difference(before, all);
    if (joiner == Joiner::within) return intersection(before, all);
    return joiner == Joiner::exclusive ? symmetric_difference(before, all) : unite(before, all);
}

}  // namespace

std::optional<Region> read_region(const PartsOf& of, const Box& within) {
    auto region = std::optional{Region{}};
    std::vector<Region> alike;
    for (std::size_t i = 0; i < of.parts.size(); ++i) {
        const auto& part = of.parts[i];
        const auto figure = read_part(part, of);
        if (!figure) region = std::nullopt;
        if (!region) continue;
        alike.push_back(region_of(*figure, of.by, within));
        if (i + 1 < of.parts.size() && of.parts[i + 1].joiner == part.joiner) continue;
        region = with(*region, std::exchange(alike, {}), part.joiner);
    }
    return region;
}

std::optional<SmoothRegion> read_smooth_region(const PartsOf& of, const Box& within) {
    auto region = std::optional<SmoothRegion>{};
    auto complete = true;
    for (const auto& part : of.parts) {
        if (region && part.joiner != Joiner::within) {
            of.faults.add(part.word, "a smooth clip has one shape, or shapes within each other",
                          "write 'within' before it, or leave out 'smooth'");
            return std::nullopt;
        }
        // Smooth is the clip, and so are all of its parts.
        const auto figure = read_part(part, of, Edge::smooth);
        complete = complete && figure;
        if (!complete) continue;
        const SmoothRegion covered{std::get<Figure>(*figure).then(of.by), within};
        region = region ? intersection(*region, covered) : covered;
    }
    return complete ? region : std::nullopt;
}

}  // namespace coldbrick::inline v0::detail

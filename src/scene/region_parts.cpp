// Regions and clips: from their parts to sets of pixels.
#include "scene/figures.hpp"

namespace coldbrick::detail {

namespace {

// The figure's pixels in a box, as a region. A mark or a flood is no part of one.
Region region_of(const Figure& figure, const Transform& by, const Box& within) {
    Region region;
    with_area(figure, by, [&](const AreaRef& area) { region = Region{area, within}; });
    return region;
}

std::optional<Figure> read_part(const RegionPart& part, const PartsOf& of) {
    Arguments given{part.arguments, of.values, of.faults};
    return read_figure((part.is_stroked ? "stroke " : "fill ") + part.shape.text, given);
}

}  // namespace

std::optional<Region> read_region(const PartsOf& of, const Box& within) {
    auto region = std::optional{Region{}};
    for (const auto& part : of.parts) {
        const auto figure = read_part(part, of);
        if (!figure) {
            region = std::nullopt;
            continue;
        }
        if (!region) continue;
        const auto pixels = region_of(*figure, of.by, within);
        region = part.joiner == "minus"    ? difference(*region, pixels)
                 : part.joiner == "within" ? intersection(*region, pixels)
                 : part.joiner == "xor"    ? symmetric_difference(*region, pixels)
                                           : unite(*region, pixels);
    }
    return region;
}

std::optional<SmoothRegion> read_smooth_region(const PartsOf& of, const Box& within) {
    auto region = std::optional<SmoothRegion>{};
    auto complete = true;
    for (const auto& part : of.parts) {
        if (region && part.joiner != "within") {
            of.faults.add(part.shape, "a smooth clip has one shape, or shapes within each other",
                          "write 'within' before it, or leave out 'smooth'");
            return std::nullopt;
        }
        const auto figure = read_part(part, of);
        complete = complete && figure;
        if (!complete) continue;
        with_area(*figure, of.by, [&](const AreaRef& area) {
            const SmoothRegion covered{area, within};
            region = region ? intersection(*region, covered) : covered;
        });
    }
    return complete ? region : std::nullopt;
}

}  // namespace coldbrick::detail

#include "raster/lowering/arc_outline.hpp"

#include <algorithm>
#include <utility>

namespace coldbrick::inline v0::detail {

Outline nested(Point origin, Outline::Group outer, Outline::Group inner) {
    return {.origin = origin, .groups = {std::move(outer), std::move(inner)}, .truth = Outline::in_first_only};
}

Outline::Group wedge_of(const EllipseGeometry& geometry, const Turn& turn, double reach) {
    const auto center = geometry.center();
    return {.rule = FillRule::nonzero, .draw = [=](Contours& contours) {
                contours.to(center);
                auto at = turn.begin();
                contours.to(center + at * reach);
                for (auto rest = turn.degrees; rest > 90; rest -= 90) {
                    const auto next = -left_of(at);
                    contours.to(center + (at + next) * reach);
                    contours.to(center + next * reach);
                    at = next;
                }
                contours.to(center + (at + turn.end()) * reach);
                contours.to(center + turn.end() * reach);
                contours.close();
            }};
}

Outline::Group sector_of(const EllipseGeometry& geometry, double distance, const Turn& turn) {
    return {.rule = FillRule::nonzero,
            .draw = [=](Contours& contours) { geometry.draw_parallel_sector(distance, turn, contours); }};
}

bool is_followed(const EllipseGeometry& geometry, double distance) noexcept {
    return std::max(geometry.a(), geometry.b()) + distance < largest_followed;
}

namespace {

// The cap beyond the end of a circular arc (forward), or before its beginning (-1): half a disc, or half a square.
void draw_round_arc_cap(Vec middle, Vec normal, double half, double forward, Cap cap, Contours& contours) {
    const auto along = -left_of(normal) * forward;
    const auto side = normal * forward;
    contours.to(middle + side * half);
    if (cap == Cap::round) {
        contours.arc(middle, half, side, along);
        contours.arc(middle, half, along, -side);
    } else {
        contours.to(middle + (side + along) * half);
        contours.to(middle + (along - side) * half);
        contours.to(middle - side * half);
    }
    contours.close();
}

}  // namespace

std::optional<Outline> stroke_of_round_arc(const ArcGeometry& arc, const Turn& turn, const Stroke& how) {
    const auto& geometry = arc.of;
    const Band band{how};
    if (how.edge == Edge::crisp || !geometry.is_plain_at(-band.in) || !is_followed(geometry, band.out))
        return std::nullopt;
    auto outer = sector_of(geometry, band.out, turn);
    if (how.cap != Cap::flush) {
        const auto half = how.width.pixels() / 2;
        // How far a cap reaches around the centre.
        const auto reach = angle_of({geometry.a() - band.in, half}).in_degrees();
        if (geometry.a() != geometry.b() || 360 - turn.degrees < 2 * reach) return std::nullopt;
        outer.draw = [=, cap = how.cap, radius = geometry.a() + band.out - half](Contours& contours) {
            geometry.draw_parallel_sector(band.out, turn, contours);
            draw_round_arc_cap(geometry.center() + turn.end() * radius, turn.end(), half, 1, cap, contours);
            draw_round_arc_cap(geometry.center() + turn.begin() * radius, turn.begin(), half, -1, cap, contours);
        };
    }
    return nested(geometry.origin(), std::move(outer), sector_of(geometry, -band.in, turn));
}

void draw_arc_caps(const EllipseGeometry& geometry, const Turn& turn, const Stroke& how, Contours& contours) {
    const auto half = how.width.pixels() / 2;
    const Band band{how};
    const auto draw = [&](Vec direction, double outward) {
        const auto normal = geometry.normal(direction);
        const auto middle = geometry.rim(direction) + normal * (band.out - half);
        if (how.cap == Cap::round) return contours.circle(middle, half + fixed_slack);
        // From where the ray, which may be askew to the edge, cuts the band's sides on; a little before, so that no
        // pixel between is left out.
        const auto along = -left_of(normal) * outward;
        const auto slack = contours.is_smooth() ? 0.0 : 2 * fixed_slack;
        const auto side = normal * ((half + fixed_slack) * outward);
        const auto on_ray = [&](double away) {
            return geometry.rim(direction) + direction * (away / std::max(dot(direction, normal), 0.1)) - along * slack;
        };
        const auto outer = on_ray(band.out + fixed_slack);
        const auto inner = on_ray(-(2 * half - band.out) - fixed_slack);
        const auto beyond = middle + along * half;
        const auto begins_outside = outward > 0;
        for (const auto corner :
             {begins_outside ? outer : inner, beyond + side, beyond - side, begins_outside ? inner : outer}) {
            contours.to(corner);
        }
        contours.close();
    };
    draw(turn.begin(), -1);
    draw(turn.end(), 1);
}

}  // namespace coldbrick::inline v0::detail

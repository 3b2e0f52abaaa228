#include "shapes/polygon_checks.hpp"

#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <string>

namespace coldbrick::inline v0::detail {

void check_polyline(const Polyline& polyline) {
    if (polyline.through.empty()) throw Error{"polyline: through has no points; it needs at least one"};
    for (std::size_t i = 0; i < polyline.through.size(); ++i) {
        const auto point = polyline.through[i];
        if (is_coordinate(point.x) && is_coordinate(point.y)) continue;
        refuse_point("polyline", "through[" + std::to_string(i) + "]", point);
    }
}

void check_polygon(const Polygon& polygon) {
    const auto& rings = polygon.rings();
    if (rings.empty()) throw Error{"polygon: it has no rings of vertices; it needs at least one"};
    for (std::size_t r = 0; r < rings.size(); ++r) {
        const auto name = [&] { return rings.size() == 1 ? "" : " (ring " + std::to_string(r) + ")"; };
        if (rings[r].empty()) throw Error{"polygon" + name() + ": it has no vertices; it needs at least one"};
        for (std::size_t i = 0; i < rings[r].size(); ++i) {
            const auto point = rings[r][i];
            if (is_coordinate(point.x) && is_coordinate(point.y)) continue;
            refuse_point("polygon" + name(), "vertex[" + std::to_string(i) + "]", point);
        }
    }
}

}  // namespace coldbrick::inline v0::detail

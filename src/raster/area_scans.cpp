// From an area of any kind to what finds its spans.
#include "raster/shape_scans.hpp"

#include "coldbrick/region.hpp"
#include "coldbrick/vertices.hpp"

namespace coldbrick::detail {

namespace {

constexpr Transform nowhere_else;

// Whether there is a way for it between whole pixels, without a transform and with crisp edges.
bool is_plain(const AreaRef& area, Edge edge) noexcept {
    return edge == Edge::crisp && (area.by == nullptr || area.by->is_identity());
}

const Transform& placing_of(const AreaRef& area) noexcept { return area.by == nullptr ? nowhere_else : *area.by; }

Box scan_area(const AreaRef& area, const Fill& how, const Box& clip, const SpanReceiver& receiver) {
    check_fill(how);
    const auto scan_any = [&](const auto* shape) {
        if (is_plain(area, how.edge)) {
            if constexpr (requires { scan_fill(*shape, clip, receiver); }) return scan_fill(*shape, clip, receiver);
            if constexpr (requires { scan_fill(*shape, how, clip, receiver); })
                return scan_fill(*shape, how, clip, receiver);
        }
        return scan_figure(area.shape, how, placing_of(area), clip, receiver);
    };
    return std::visit(scan_any, area.shape);
}

Box scan_area(const AreaRef& area, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    const auto scan_any = [&](const auto* shape) {
        if (is_plain(area, how.edge)) {
            if constexpr (requires { scan_stroke(*shape, how, clip, receiver); })
                return scan_stroke(*shape, how, clip, receiver);
        }
        return scan_figure(area.shape, how, placing_of(area), clip, receiver);
    };
    return std::visit(scan_any, area.shape);
}

Box bounds_of(const AreaRef& area, const Fill& how) {
    check_fill(how);
    const auto find = [&](const auto* shape) {
        if (is_plain(area, how.edge)) {
            if constexpr (requires { fill_bounds(*shape); }) return fill_bounds(*shape);
            if constexpr (requires { fill_bounds(*shape, how); }) return fill_bounds(*shape, how);
        }
        return figure_bounds(area.shape, how, placing_of(area));
    };
    return std::visit(find, area.shape);
}

Box bounds_of(const AreaRef& area, const Stroke& how) {
    const auto find = [&](const auto* shape) {
        if (is_plain(area, how.edge)) {
            if constexpr (requires { stroke_bounds(*shape, how); }) return stroke_bounds(*shape, how);
        }
        return figure_bounds(area.shape, how, placing_of(area));
    };
    return std::visit(find, area.shape);
}

}  // namespace

Box scan(const AreaRef& area, const Box& clip, const SpanReceiver& receiver) {
    return std::visit([&](const auto* how) { return scan_area(area, *how, clip, receiver); }, area.how);
}

Box bounds_of(const AreaRef& area) {
    return std::visit([&](const auto* how) { return bounds_of(area, *how); }, area.how);
}

}  // namespace coldbrick::detail

// Clips that are more than a box: regions, crisp and smooth.
#pragma once

#include "coldbrick/draw.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/smooth_region.hpp"

#include <string_view>

namespace coldbrick::inline v0::detail {

// Scans an area as far as the surface's window and clips show it, and reports to its observer.
Box scan_observed(const Surface& surface, const AreaRef& area, const SpanSink& sink);
inline Box scan_masked(const Surface& surface, const AreaRef& area, const SpanSink& sink) {
    const auto is_plain = !surface.clips && surface.observer == nullptr;
    return is_plain ? scan(area, surface.window, sink) : scan_observed(surface, area, sink);
}

// Throws Error, in the name of the call, unless the pixel lies in the surface's window.
void check_seen(std::string_view call, const Surface& surface, Point pixel);

}  // namespace coldbrick::inline v0::detail

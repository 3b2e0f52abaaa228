#include "raster/rows/ellipse_rows.hpp"

namespace coldbrick::inline v0::detail {

Box scan_ellipse(const Box& box, const Box& clip, const SpanSink& sink) {
    return with_ellipse_rows(box, [&](const auto& rows) { return scan_inside(rows, clip, sink); });
}

}  // namespace coldbrick::inline v0::detail

// Lines of width 1, solid and dashed (rule 3), of shapes that have been checked.
#pragma once

#include "coldbrick/spans.hpp"

namespace coldbrick::detail {

Box scan_hairline(const Line& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_hairline(const Polyline& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_hairline(const Polygon& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);

}  // namespace coldbrick::detail

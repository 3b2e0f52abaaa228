// Circles and ellipses with smooth edges, of which a quarter tells all.
#pragma once

#include "coldbrick/detail/span_receiver.hpp"

namespace coldbrick::detail {

// Whether scan_round_cover() can draw the ellipse that fits a box: it is of moderate size.
[[nodiscard]] bool is_quick_round(const Box& box) noexcept;

// The coverage of that ellipse in the clip.
Box scan_round_cover(const Box& box, const Box& clip, const SpanReceiver& receiver);

}  // namespace coldbrick::detail

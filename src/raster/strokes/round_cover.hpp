// Upright circles and ellipses and their strokes with smooth edges, of which a quarter tells all.
#pragma once

#include "raster/edges/ellipse_form.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/detail/span_receiver.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// What lies between two curves that run beside an upright ellipse, or within the outer one if it is alone.
struct RoundBand {
    // A box of pixels that contains it and has the same centre.
    Box box;
    Vec half_axes;
    double out;                // how far the outer curve lies outside of the ellipse, or inside if it is negative
    std::optional<double> in;  // the same of the inner one
};

// The fill of an ellipse, and a stroke of it, as such a band. Nothing if the ellipse is turned, very large or thin, not
// centred on a pixel or halfway between two, or if the inner curve meets itself.
[[nodiscard]] std::optional<RoundBand> round_fill(const EllipseForm& form);
[[nodiscard]] std::optional<RoundBand> round_stroke(const EllipseForm& form, const Band& band);

// The coverage of it in the clip.
Box scan_round_cover(const RoundBand& band, const Box& clip, const SpanReceiver& receiver);

}  // namespace coldbrick::inline v0::detail

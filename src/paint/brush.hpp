// An ink made ready for a format: once for a call, or once for many.
#pragma once

#include "formats/kernels.hpp"

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/spans.hpp"

#include <optional>
#include <vector>

namespace coldbrick::inline v0::detail {

class TransferCurves;

// What does not depend on where the ink is laid. Of an ink and a palette that outlive it.
struct Brush {
    enum class Way : std::uint8_t {
        opaque,    // one pixel, over and over
        blended,   // one colour, source-over, by the format's own function
        weakened,  // the same with an opacity, which is not rounded before it meets coverage
        general,   // colours taken out, laid on, put back
    };
    const Ink* ink;
    Way way = Way::general;
    Pixel pixel{};                           // of opaque ones
    Color color{};                           // of those that are blended, the opacity in its alpha
    const TransferCurves* curves = nullptr;  // of one colour laid otherwise, if they have been found out
};

// Throws Error for an ink that the target cannot take.
Brush brush_for(const Target& target, const Ink& ink);

// What becomes of bytes below, if the ink is one colour for which that follows from each byte alone, and is laid
// otherwise than source-over.
std::optional<TransferCurves> transfer_curves_for(const Target& target, const Brush& brush);

// Lays the ink on the area, or on a pixel, as far as it lies in the surface's clips.
Box paint(const Surface& surface, const Brush& brush, const AreaRef& area);
Box mark(const Surface& surface, Point at, const Brush& brush);

// Brushes for the inks that many calls have by number, and one for the colour of the last other call.
struct Brushes {
    // Throws Error for an ink that the target cannot take.
    Brushes(const Target& target, const std::vector<Ink>& inks);

    const Brush& of(const Target& target, Color color);

    std::vector<Brush> by_number;
    Ink last_color;
    Brush last;
};

}  // namespace coldbrick::inline v0::detail

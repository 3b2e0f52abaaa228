// An ink made ready for a format: once for a call, or once for many.
#pragma once

#include "formats/kernels.hpp"
#include "paint/blending/lines_16.hpp"
#include "paint/blending/over_16.hpp"

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/spans.hpp"

#include <optional>
#include <variant>
#include <vector>

namespace coldbrick::inline v0::detail {

class TransferCurves;

// All that ink, compositing options and format decide, so that nothing asks for it again on the way to the pixels. Of
// an ink and a palette that outlive it.
struct Brush {
    // How a run of pixels that are covered whole gets its colour: one loop each.
    enum class Runs : std::uint8_t {
        pixel,          // one pixel, over and over
        over,           // one colour source-over, by the format's own function
        over_weakened,  // the same with an opacity, which is not rounded before it meets coverage
        bytes,          // one colour: each byte below changes by itself
        over_16,        // one colour source-over, numbers of 16 bits
        lines_16,       // one colour by another blend mode, numbers of 16 bits
        direct,         // the colours of a source are the pixels
        rounds,         // the pixels of a source come again after some columns
        stored,         // the colours of a source are stored
        over_colors,    // the colours of a source, source-over, on pixels that are colours
        blended,        // colours loaded, blended, stored
        blended_bytes,  // the same of one colour: where what is below is opaque, each byte changes by itself
    };
    const Ink* ink;
    Runs runs = Runs::blended;
    bool covers = false;     // whether the format's own function lays the colour on what is covered in part, too
    bool is_placed = false;  // whether the box around the shape matters to the ink
    int period = 0;          // of `rounds`; 1 of `direct`: all pixels are the same
    Pixel pixel{};           // of `pixel`
    Color color{};           // of one colour source-over, the opacity in its alpha
    const TransferCurves* curves = nullptr;  // of `bytes`, if they are known
    std::variant<std::monostate, Over16, Lines16> deep = {};
};

// Throws Error for an ink that the target cannot take.
Brush brush_for(const Target& target, const Ink& ink);
void check_ink(const Target& target, const Ink& ink);

// Lays the ink on the area, or on a pixel, as far as it lies in the surface's clips. Returns the box that was touched.
Box paint(const Surface& surface, const Brush& brush, const AreaRef& area);
Box mark(const Surface& surface, Point at, const Brush& brush);

// Brushes for the inks that many calls have by number, and one for the colour of the last other call.
struct Brushes {
    // Throws Error for an ink that the target cannot take.
    Brushes(const Target& target, const std::vector<Ink>& inks);

    // Lays the colour on the area, as paint() does.
    Box paint(const Surface& surface, Color color, const AreaRef& area);

    std::vector<Brush> by_number;

  private:
    const Brush& of(const Target& target, Color color);

    Ink last_color_;
    Brush last_;
};

}  // namespace coldbrick::inline v0::detail

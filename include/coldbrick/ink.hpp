// coldbrick/ink.hpp - what is laid on the pixels of a shape.
//
//     fill(chart, shoal, colors::seagreen);                       // a colour is an ink
//     fill(chart, shoal, with_alpha(colors::seagreen, 96));       // translucent: blends source-over
#pragma once

#include "coldbrick/color.hpp"

namespace coldbrick {

// An ink that lays one colour on every pixel. Alpha 255 replaces what is there; less blends by source-over
// (docs/pixel-rules.md, "Ink on pixels").
class Ink {
  public:
    // Implicit, so that a colour can be given wherever an ink is asked for.
    constexpr Ink(Color color) noexcept : color_{color} {}

    [[nodiscard]] constexpr Color color() const noexcept { return color_; }

  private:
    Color color_;
};

}  // namespace coldbrick

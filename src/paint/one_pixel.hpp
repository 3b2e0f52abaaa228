// Inks of any kind on single pixels, which are not worth making an ink ready for.
#pragma once

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

namespace coldbrick::inline v0::detail {

// Lays the ink on a pixel of the window, as the painters do, and says whether it could: not where there are clips or a
// observer, and not an ink or a format that has no colours of 8 bits.
bool lay_on_pixel(const Surface& surface, const Ink& ink, Point at);

}  // namespace coldbrick::inline v0::detail

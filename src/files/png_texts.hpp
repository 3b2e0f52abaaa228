// What a PNG file says besides its pixels: texts and density, from the chunks themselves.
#pragma once

#include "files/readers.hpp"

namespace coldbrick::inline v0::detail {

// Adds the texts (tEXt, zTXt, iTXt) and the density (pHYs) of a PNG file to what is known of it. A chunk that is
// damaged is left out, and reported among the oddities. Throws Error if the texts are more than the limits allow,
// before memory is asked for.
void read_png_texts(const ByteSource& file, const LoadLimits& limits, PictureInfo& info);

}  // namespace coldbrick::inline v0::detail

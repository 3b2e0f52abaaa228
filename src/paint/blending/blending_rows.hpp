// Compositing on many pixels at once, in vectors of doubles.
#pragma once

#include "paint/blending/blending.hpp"

namespace coldbrick::inline v0::detail {

// Opacity in 65535ths, so that products are exact.
double whole_opacity(const Compositing& how) noexcept;

// Multiplies the alpha of so many colours by coverage and opacity, rounded to the nearest once.
void weaken(const Cover& cover, double opacity, int count, Color* colors) noexcept;

// The colour with the opacity multiplied into its alpha, rounded to the nearest (rule 6).
Color weakened(Color color, const Compositing& how) noexcept;

// Whether lay_row() knows such pixels.
bool knows_rows(const Blender& blender) noexcept;

// As Blender::lay(), of whole numbers in doubles: exact. Of 16 bits a channel only where all that is below is opaque.
void lay_row(const Blender& blender, const Color* ink, const Cover& cover, int count, Color* below);
void lay_row(const Blender& blender, const Color16* ink, const Cover& cover, int count, Color16* below);

}  // namespace coldbrick::inline v0::detail

// How the rows of a PNG file are filtered before they are compressed.
#pragma once

#include "files/packed.hpp"

#include <array>

namespace coldbrick::inline v0::detail {

// What each byte is subtracted from: the pixel to the left, the one above, the mean of both, Paeth's choice
// (ISO/IEC 15948, section 9); or in each row whichever gives the least sum of differences.
enum class PngFilter : std::uint8_t { none = 0, left = 1, above = 2, mean = 3, paeth = 4, least_sum };

inline constexpr std::array png_filters{PngFilter::none, PngFilter::left,  PngFilter::above,
                                        PngFilter::mean, PngFilter::paeth, PngFilter::least_sum};

// Rows from first to end - 1, each behind a byte that says how it is filtered: (row_bytes() + 1) * (end - first) bytes.
void filter_rows(const Packed& picture, int first, int end, PngFilter filter, std::uint8_t* to);

}  // namespace coldbrick::inline v0::detail

// What is read of Exif: which way up a picture is.
#pragma once

#include "files/readers.hpp"

namespace coldbrick::inline v0::detail {

// The orientation, 1 to 8, in an APP1 segment of a JPEG file (Exif 2.32, section 4.6.4); 1, which is upright,
// if it has none.
[[nodiscard]] int exif_orientation(FileBytes segment) noexcept;

}  // namespace coldbrick::inline v0::detail

// Pictures in another size, without mixing.
#pragma once

#include "coldbrick/pixels.hpp"

namespace coldbrick::inline v0::detail {

// Each pixel becomes the one under its centre; of two as near, the one to the right or below.
void resize_nearest(const Surface& from, const Surface& to);

}  // namespace coldbrick::inline v0::detail

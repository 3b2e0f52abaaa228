#include "pictures/picture_sources.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

bool has_opaque_pixels(const Surface& picture) noexcept {
    if (!picture.kernel->is_indexed) return !picture.kernel->has_alpha;
    const auto colors = palette_of(picture).colors();
    return std::all_of(colors.begin(), colors.end(), [](Color color) { return color.alpha == 255; });
}

}  // namespace coldbrick::inline v0::detail

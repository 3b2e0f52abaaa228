// Pixels of its own, row after row without gaps; single pixels from one picture to another.
#pragma once

#include "formats/kernels.hpp"

#include "coldbrick/detail/pixel_bytes.hpp"
#include "coldbrick/pixels.hpp"

namespace coldbrick::inline v0::detail {

struct PackedCopy {
    // In a format, to be set; with the palette of another surface, if it has one.
    PackedCopy(const Surface& like, Size size, const FormatKernel& kernel);
    // The pixels of a surface's clip, in its format, or of one channel as gray.
    explicit PackedCopy(const Surface& of);

    PixelBytes bytes;
    Surface surface;  // of these bytes, also after a move
};

// Copies pixels from one surface to another: as bytes where both have the same whole ones, else as colours.
class PixelCopier {
  public:
    PixelCopier(const Surface& from, const Surface& to) noexcept
        : from_{from},
          to_{to},
          bytes_{from.kernel == to.kernel ? static_cast<std::size_t>(from.kernel->pixel_bytes()) : 0} {}

    void copy(Point from, Point to) const {
        if (bytes_ != 0) {
            std::memcpy(pixel_address(to_, to.x, to.y), pixel_address(from_, from.x, from.y), bytes_);
            return;
        }
        const auto color = decode_deep(from_, from);
        write_colors(to_, &color, 1, to);
    }

  private:
    const Surface& from_;
    const Surface& to_;
    std::size_t bytes_;  // of a pixel; 0: by colours
};

}  // namespace coldbrick::inline v0::detail

// One colour laid otherwise than source-over on opaque pixels of 16 bits a channel.
#pragma once

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

#include <array>
#include <cstdint>
#include <optional>

namespace coldbrick::inline v0::detail {

// What becomes of a number below goes evenly up to some value, and evenly from the next one on.
class Lines16 {
  public:
    // Of an ink's numbers, those of a pixel; and the alpha with which each is laid, 0 where nothing is drawn into.
    Lines16(Blend blend, const std::array<std::uint16_t, 4>& ink, const std::array<std::uint32_t, 4>& alphas,
            bool is_gray) noexcept;

    // Lays it on a run, and says whether it could: not where a pixel is not opaque.
    bool lay(const Surface& surface, const Span& run) const noexcept;

  private:
    // For each number of a pixel, or of four grays.
    using Four = std::array<double, 4>;
    struct Lines {
        Four first;   // where they begin
        Four raised;  // what becomes of it, and a half
        Four step;
    };
    void set(std::size_t place, Blend blend, std::uint16_t ink, double alpha) noexcept;

    bool is_gray_;
    Lines before_;
    Lines behind_;
};

// Nothing for another ink, other compositing options, or another format.
std::optional<Lines16> lines_16_of(const FormatKernel& kernel, const Ink& ink) noexcept;

}  // namespace coldbrick::inline v0::detail

// One colour source-over on opaque pixels of 16 bits a channel.
#pragma once

#include "coldbrick/detail/span_sink.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

#include <array>
#include <cstdint>
#include <optional>

namespace coldbrick::inline v0::detail {

// A colour of 16 bits, and the alpha with which it is laid, opacity multiplied in. Of an ink of one colour, on numbers
// of 16 bits.
struct DeepInk {
    Color16 color;
    std::uint32_t alpha;
};
std::optional<DeepInk> deep_ink_of(const FormatKernel& kernel, const Ink& ink) noexcept;

// Whether so many pixels of four numbers, alpha last, are opaque.
bool are_deep_opaque(const std::uint8_t* pixels, std::size_t count) noexcept;

class Over16 {
  public:
    // The numbers of a pixel, one or four, and the alpha with which they are laid, opacity multiplied in.
    Over16(const std::array<std::uint16_t, 4>& pixel, std::size_t channels, std::uint32_t alpha) noexcept;

    // Lays it on a run, and says whether it could: not where a pixel is not opaque.
    bool lay(const Surface& surface, const Span& run) const noexcept;

  private:
    static constexpr std::size_t period = 8;
    std::size_t channels_;
    std::array<std::uint32_t, period> source_;  // s * a + half, for each number of some pixels
    std::uint32_t rest_;                        // 65535 - a
};

// Nothing for another ink, or another format.
std::optional<Over16> over_16_of(const FormatKernel& kernel, const Ink& ink) noexcept;

}  // namespace coldbrick::inline v0::detail

// One colour source-over on opaque pixels of 16 bits a channel.
#pragma once

#include "coldbrick/detail/span_receiver.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

#include <array>
#include <cstdint>
#include <optional>

namespace coldbrick::inline v0::detail {

class DeepOver {
  public:
    // The numbers of a pixel, one or four, and the alpha with which they are laid, opacity multiplied in.
    DeepOver(const std::array<std::uint16_t, 4>& pixel, std::size_t channels, std::uint32_t alpha) noexcept;

    // Lays it on a run, and says whether it could: not where a pixel is not opaque.
    bool lay(const Surface& surface, const Span& run) const noexcept;

  private:
    static constexpr std::size_t period = 8;
    std::size_t channels_;
    std::array<std::uint32_t, period> source_;  // s * a + half, for each number of some pixels
    std::uint32_t rest_;                        // 65535 - a
};

// Nothing for another ink, or another format.
std::optional<DeepOver> deep_over_of(const Surface& surface, const Ink& ink) noexcept;

}  // namespace coldbrick::inline v0::detail

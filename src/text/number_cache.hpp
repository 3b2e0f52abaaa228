// Numbers that are kept by others, in a little memory.
#pragma once

#include <array>
#include <atomic>
#include <bit>
#include <cstdint>

namespace coldbrick::inline v0::detail {

// Keeps some of the numbers that it has been asked for; several threads may ask. Size is a power of two.
template <std::size_t size>
class NumberCache {
  public:
    // The number of a key, which find() says, in single precision whether it had been kept or not.
    template <class Find>
    double operator()(std::uint32_t key, const Find& find) const {
        constexpr auto spread = 0x9e3779b9U;  // 2^32 by the golden ratio: Knuth, TAOCP 3, section 6.4
        auto& place = places_[key * spread >> (32U - std::bit_width(size - 1))];
        const auto kept = place.load(std::memory_order_relaxed);
        if (kept >> 32U == key && key != 0) return std::bit_cast<float>(static_cast<std::uint32_t>(kept));
        const auto found = static_cast<float>(find());
        place.store(std::uint64_t{key} << 32U | std::bit_cast<std::uint32_t>(found), std::memory_order_relaxed);
        return found;
    }

  private:
    mutable std::array<std::atomic<std::uint64_t>, size> places_{};
};

}  // namespace coldbrick::inline v0::detail

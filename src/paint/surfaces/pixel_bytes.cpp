#include "coldbrick/detail/pixel_bytes.hpp"

#include <algorithm>
#include <cstring>

namespace coldbrick::inline v0::detail {

PixelBytes::PixelBytes(std::size_t count) : bytes_{new std::uint8_t[count]()}, count_{count} {}

PixelBytes::PixelBytes(std::size_t count, Unset /*unset*/) : bytes_{new std::uint8_t[count]}, count_{count} {}

PixelBytes::PixelBytes(const PixelBytes& of) : PixelBytes{of.count_, Unset{}} {
    if (count_ > 0) std::memcpy(bytes_, of.bytes_, count_);
}

PixelBytes& PixelBytes::operator=(const PixelBytes& of) {
    auto copy = of;
    return *this = std::move(copy);
}

bool PixelBytes::equals(std::span<const std::uint8_t> other) const noexcept {
    return std::equal(begin(), end(), other.begin(), other.end());
}

}  // namespace coldbrick::inline v0::detail

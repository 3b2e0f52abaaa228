// The bytes of a bitmap.
#pragma once

#include "coldbrick/detail/public.hpp"

#include <cstddef>
#include <cstdint>
#include <span>
#include <utility>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

// So many bytes, which it owns: a contiguous range whose size stays. A copy has bytes of its own; after a move, the old
// one has none.
class PixelBytes {
  public:
    using value_type = std::uint8_t;
    using iterator = const std::uint8_t*;
    using const_iterator = const std::uint8_t*;

    // What is going to be set altogether needs no zeros before.
    struct Unset {};

    PixelBytes() noexcept = default;
    explicit PixelBytes(std::size_t count);  // all of them 0
    PixelBytes(std::size_t count, Unset unset);

    PixelBytes(const PixelBytes& of);
    PixelBytes(PixelBytes&& of) noexcept
        : bytes_{std::exchange(of.bytes_, nullptr)}, count_{std::exchange(of.count_, 0)} {}
    PixelBytes& operator=(const PixelBytes& of);
    PixelBytes& operator=(PixelBytes&& of) noexcept {
        delete[] std::exchange(bytes_, std::exchange(of.bytes_, nullptr));
        count_ = std::exchange(of.count_, 0);
        return *this;
    }
    ~PixelBytes() { delete[] bytes_; }

    [[nodiscard]] const std::uint8_t* data() const noexcept { return bytes_; }
    [[nodiscard]] std::uint8_t* data() noexcept { return bytes_; }
    [[nodiscard]] std::size_t size() const noexcept { return count_; }
    [[nodiscard]] bool empty() const noexcept { return count_ == 0; }
    [[nodiscard]] const std::uint8_t* begin() const noexcept { return bytes_; }
    [[nodiscard]] const std::uint8_t* end() const noexcept { return bytes_ + count_; }
    [[nodiscard]] const std::uint8_t& operator[](std::size_t place) const noexcept { return bytes_[place]; }

    friend bool operator==(const PixelBytes& a, const PixelBytes& b) noexcept { return a.equals({b.bytes_, b.count_}); }
    friend bool operator==(const PixelBytes& a, std::span<const std::uint8_t> b) noexcept { return a.equals(b); }

  private:
    [[nodiscard]] bool equals(std::span<const std::uint8_t> other) const noexcept;

    std::uint8_t* bytes_ = nullptr;
    std::size_t count_ = 0;
};

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick

// Rows of 8-bit pixels to colours and back, in vectors; in the order rgb or bgr.
#pragma once

#include "coldbrick/color.hpp"
#include "coldbrick/formats.hpp"

#include <cstddef>
#include <cstdint>

namespace coldbrick::inline v0::detail {

// From and to pixels of three bytes; opaque.
void read_rgb_row(const std::uint8_t* pixels, ChannelOrder order, std::size_t count, Color* colors) noexcept;
void write_rgb_row(const Color* colors, ChannelOrder order, std::size_t count, std::uint8_t* pixels) noexcept;

// From pixels of three bytes to those of the other order, elsewhere.
void swap_rgb_row(const std::uint8_t* from, std::size_t count, std::uint8_t* to) noexcept;

// From and to pixels of four bytes, of which alpha is the last.
void read_rgba_row(const std::uint8_t* pixels, ChannelOrder order, std::size_t count, Color* colors) noexcept;
void write_rgba_row(const Color* colors, ChannelOrder order, std::size_t count, std::uint8_t* pixels) noexcept;

// From grays, and to the luma.
void read_gray_row(const std::uint8_t* pixels, std::size_t count, Color* colors) noexcept;
void write_gray_row(const Color* colors, std::size_t count, std::uint8_t* pixels) noexcept;

// Each becomes its luma; alpha stays.
void make_gray_row(Color* colors, std::size_t count) noexcept;

}  // namespace coldbrick::inline v0::detail

// Pictures of opaque colours reduced by whole factors: means of boxes, in whole numbers.
#pragma once

#include "coldbrick/pixels.hpp"

#include <array>
#include <cstdint>
#include <optional>
#include <vector>

namespace coldbrick::inline v0::detail {

// Rows of the result, one by one: the same pixels that Scaling::box gives, to the bit.
class BoxMeans {
  public:
    // Each pixel of the result is the mean of so many by so many ones of the picture, of whose clip each row has as
    // many as the result needs.
    BoxMeans(int columns, int rows, int width);

    // Finds row y of the result, in 8 bits a channel. Says whether it could: not where a pixel of the picture is not
    // opaque.
    bool find(const Surface& from, int y, Color* result);

  private:
    [[nodiscard]] const std::uint8_t* row_of(const Surface& from, int y, std::vector<Color>& kept) const;
    bool find_halves(const Surface& from, int y, Color* result);

    std::size_t columns_;
    int rows_;
    std::size_t width_;
    std::array<std::vector<Color>, 2> kept_;
    std::vector<std::uint16_t> sums_;
};

// The factors, if a picture of such a size is reduced by whole ones, of which a sum of 8 bits fits into 16.
std::optional<BoxMeans> box_means(Size from, Size to);

}  // namespace coldbrick::inline v0::detail

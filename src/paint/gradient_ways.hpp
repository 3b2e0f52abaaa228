// How far along the way of a gradient the pixels of a row are.
#pragma once

#include "geometry/trigonometry.hpp"

#include "coldbrick/gradient.hpp"

#include <array>
#include <cmath>
#include <cstdint>
#include <optional>

namespace coldbrick::inline v0::detail {

// Some pixels of a row in a gradient's own coordinates. Each pixel's place follows from its own number, wherever the
// others begin.
struct RowPart {
    Vec origin;          // the place of pixel 0
    double step;         // to the next pixel
    std::int64_t first;  // the number of the first pixel
    int count;           // at most part_length

    [[nodiscard]] double x(int i) const noexcept { return origin.x + static_cast<double>(first + i) * step; }
};
inline constexpr int part_length = 256;
using Places = std::array<std::int32_t, part_length>;

// Numbers of pixels below it do in single precision and in 32 bits. No part has pixels on both sides.
inline constexpr std::int64_t far_pixels = std::int64_t{1} << 22U;
inline bool is_near(const RowPart& row) noexcept { return row.first >= -far_pixels && row.first < far_pixels; }

// A length whose square might be beyond the numbers.
[[nodiscard]] double far_length(Vec a) noexcept;

// Each tells, for the pixels of a part of a row, places on a ramp (ramp.hpp).

// Along a straight line: the part grows evenly from pixel to pixel.
class LinearWay {
  public:
    LinearWay(Position from, Position to, Spread spread) noexcept;

    [[nodiscard]] bool is_even_in_rows() const noexcept { return per_unit_.x == 0; }

    void find(const RowPart& row, Places& places) const noexcept;

    // The place of the first of the pixels alone.
    [[nodiscard]] int first_place(const RowPart& row) const noexcept;

  private:
    // In whole numbers: a place, and how far it is to the next pixel's. Nothing if those would be too large.
    struct Steps {
        std::int64_t place;
        std::int64_t move;
    };
    [[nodiscard]] std::optional<Steps> steps_of(const RowPart& row, double origin, double per_pixel) const noexcept;

    // A place on the ramp has so many bits for its fraction.
    static constexpr int place_bits = 28;

    // What lies before the first place and behind the last one is told apart from what lies between.
    static void find_padded(std::int64_t place, std::int64_t move, int count, Places& places) noexcept;

    void find_folded(std::int64_t place, std::int64_t move, int count, Places& places) const noexcept;

    Vec from_;
    Vec per_unit_;
    Spread spread_;
};

// From a centre outwards.
class RadialWay {
  public:
    RadialWay(Position center, double radius, Spread spread) noexcept
        : center_{center.x, center.y}, per_unit_{1 / radius}, spread_{spread} {}

    [[nodiscard]] static bool is_even_in_rows() noexcept { return false; }

    void find(const RowPart& row, Places& places) const noexcept;

  private:
    Vec center_;
    double per_unit_;
    Spread spread_;
};

// Around a centre.
class ConicWay {
  public:
    ConicWay(Position center, Angle from) noexcept
        : center_{center.x, center.y}, from_{from.in_degrees() / 360 - std::floor(from.in_degrees() / 360)} {}

    [[nodiscard]] static bool is_even_in_rows() noexcept { return false; }

    void find(const RowPart& row, Places& places) const noexcept;

  private:
    Vec center_;
    double from_;
};

}  // namespace coldbrick::inline v0::detail

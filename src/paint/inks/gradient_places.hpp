// Where the pixels of a row lie along a gradient.
#pragma once

#include "geometry/trigonometry.hpp"
#include "paint/inks/look_up.hpp"
#include "paint/inks/ramp.hpp"

#include "coldbrick/gradient.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
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

// Each computes, for the pixels of a part of a row, places on a ramp (ramp.hpp).

// Along a straight line: the part grows evenly from pixel to pixel.
class LinearAxis {
  public:
    LinearAxis(Position from, Position to, Spread spread) noexcept;

    [[nodiscard]] bool is_even_in_rows() const noexcept { return per_unit_.x == 0; }

    void find(const RowPart& row, Places& places) const noexcept;

    // The colours there at once.
    template <class Texel>
    void fetch(const RowPart& row, const Texel* ramp, Texel* colors) const noexcept {
        const auto steps = steps_in(row);
        if (!steps) {
            Places places;
            find(row, places);
            return look_up(ramp, places.data(), row.count, colors);
        }
        constexpr auto unsigned_place = [](std::int64_t place) { return static_cast<std::uint64_t>(place); };
        if (spread_ == Spread::pad) {
            const auto [begin, end, before, behind] = between_ends(*steps, row.count);
            std::fill_n(colors, begin, ramp[before]);
            look_up_along(
                ramp, steps->place + begin * steps->move, steps->move, end - begin, colors + begin,
                [=](std::int64_t place) { return static_cast<std::size_t>(unsigned_place(place) >> place_bits); });
            std::fill_n(colors + end, row.count - end, ramp[behind]);
        } else if (spread_ == Spread::repeat) {
            look_up_along(ramp, steps->place, steps->move, row.count, colors, [=](std::int64_t place) {
                return static_cast<std::size_t>(unsigned_place(place) >> place_bits & (ramp_size - 1));
            });
        } else {
            look_up_along(ramp, steps->place, steps->move, row.count, colors, [=](std::int64_t place) {
                constexpr auto there_and_back = std::uint64_t{2 * ramp_size - 1};
                const auto at = unsigned_place(place) >> place_bits & there_and_back;
                return static_cast<std::size_t>(std::min(at, there_and_back - at));
            });
        }
    }

    // The place of the first of the pixels alone.
    [[nodiscard]] int first_place(const RowPart& row) const noexcept;

  private:
    // In whole numbers: a place, and how far it is to the next pixel's. Nothing if those would be too large.
    struct Steps {
        std::int64_t place;
        std::int64_t move;
    };
    [[nodiscard]] std::optional<Steps> steps_in(const RowPart& row) const noexcept;

    // A place on the ramp has so many bits for its fraction.
    static constexpr int place_bits = 28;

    // Of so many pixels, those from begin to end - 1 lie between the ends of the gradient; which end is beside them.
    struct Between {
        int begin;
        int end;
        int before;  // a place on the ramp
        int behind;
    };
    [[nodiscard]] static Between between_ends(const Steps& steps, int count) noexcept;

    static void find_padded(const Steps& steps, int count, Places& places) noexcept;
    void find_folded(const Steps& steps, int count, Places& places) const noexcept;

    Vec from_;
    Vec per_unit_;
    Spread spread_;
};

// From a centre outwards.
class RadialAxis {
  public:
    RadialAxis(Position center, double radius, Spread spread) noexcept
        : center_{center.x, center.y}, per_unit_{1 / radius}, spread_{spread} {}

    [[nodiscard]] static bool is_even_in_rows() noexcept { return false; }

    void find(const RowPart& row, Places& places) const noexcept;

  private:
    Vec center_;
    double per_unit_;
    Spread spread_;
};

// Around a centre.
class ConicAxis {
  public:
    ConicAxis(Position center, Angle from) noexcept
        : center_{center.x, center.y}, from_{from.in_degrees() / 360 - std::floor(from.in_degrees() / 360)} {}

    [[nodiscard]] static bool is_even_in_rows() noexcept { return false; }

    void find(const RowPart& row, Places& places) const noexcept;

  private:
    Vec center_;
    double from_;
};

}  // namespace coldbrick::inline v0::detail

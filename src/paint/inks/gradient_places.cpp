#include "paint/inks/gradient_places.hpp"

#include "geometry/vectors.hpp"
#include "paint/inks/ramp.hpp"

#include <algorithm>
#include <cstdlib>
#include <numbers>

namespace coldbrick::inline v0::detail {

namespace {

// From a part of the gradient to a place on the ramp. Parts so large that their fraction is lost are at its beginning
// or end.
int place_of(double part, Spread spread) noexcept {
    constexpr auto most = 1e15;
    if (!(std::fabs(part) < most)) return part > 0 ? ramp_size - 1 : 0;
    if (spread == Spread::repeat) part -= std::floor(part);
    if (spread == Spread::reflect) {
        part -= 2 * std::floor(part / 2);
        if (part > 1) part = 2 - part;
    }
    return static_cast<int>(std::clamp(part * ramp_size, 0.0, ramp_size - 1.0));
}

// The same of a place on a ramp that goes on, there again or there and back.
COLDBRICK_INLINE std::int32_t folded(std::int32_t place, bool reflects) noexcept {
    const auto again = place & (ramp_size - 1);
    const auto there_and_back = place & (2 * ramp_size - 1);
    return reflects ? std::min(there_and_back, 2 * ramp_size - 1 - there_and_back) : again;
}

// The columns of a part of a row, from a centre: relative to the nearest pixel, so that single precision does.
struct FromCenter {
    std::int32_t first;  // of the part's pixels, counted from that pixel
    float step;
    float rest;

    // Where numbers are small enough: the greatest column away from the centre is given, too.
    FromCenter(const RowPart& row, double center, double per_unit) noexcept {
        const auto pixel = std::clamp((center - row.origin.x) / row.step, -1.0 * far_pixels, 1.0 * far_pixels);
        const auto nearest = std::nearbyint(pixel);
        first = static_cast<std::int32_t>(row.first - static_cast<std::int64_t>(nearest));
        step = static_cast<float>(row.step * per_unit);
        rest = static_cast<float>((row.origin.x + nearest * row.step - center) * per_unit);
    }

    [[nodiscard]] COLDBRICK_INLINE float at(int i) const noexcept {
        return static_cast<float>(first + i) * step + rest;
    }
    [[nodiscard]] float most() const noexcept { return static_cast<float>(2 * far_pixels) * step + std::fabs(rest); }
};

// The direction of a vector as a part of a turn, in (-0.5, 0.5], to 2^-27; exact for multiples of an eighth. Of 0, 0.
// The arc tangent of at most 1 is by M. Abramowitz and I. A. Stegun, Handbook of Mathematical Functions, 4.4.49.
double turns_of(Vec a) noexcept {
    const auto x = std::fabs(a.x);
    const auto y = std::fabs(a.y);
    const auto longer = std::max(x, y);
    if (!(longer > 0)) return 0;
    const auto tangent = std::min(x, y) / longer;
    const auto square = tangent * tangent;
    constexpr double factors[] = {0.0028662257, -0.0161657367, 0.0429096138, -0.0752896400,
                                  0.1065626393, -0.1420889944, 0.1999355085, -0.3333314528};
    auto sum = 0.0;
    for (const auto factor : factors) sum = (sum + factor) * square;
    constexpr auto per_radian = 0.5 / std::numbers::pi;
    auto turns = tangent == 1 ? 0.125 : (tangent + tangent * sum) * per_radian;
    if (y > x) turns = 0.25 - turns;
    if (a.x < 0) turns = 0.5 - turns;
    return a.y < 0 ? -turns : turns;
}

// The same in single precision, to 2^-19: by 4.4.47 there.
COLDBRICK_INLINE float near_turns(float across, float down) noexcept {
    const auto x = std::fabs(across);
    const auto y = std::fabs(down);
    const auto longer = std::max(std::max(x, y), 1e-30F);
    const auto tangent = std::min(x, y) / longer;
    const auto square = tangent * tangent;
    auto sum = 0.0208351F * square - 0.0851330F;
    sum = (sum * square + 0.1801410F) * square - 0.3302995F;
    sum = sum * square + 0.9998660F;
    constexpr auto per_radian = static_cast<float>(0.5 / std::numbers::pi);
    auto turns = tangent == 1 ? 0.125F : tangent * sum * per_radian;
    turns = y > x ? 0.25F - turns : turns;
    turns = across < 0 ? 0.5F - turns : turns;
    return down < 0 ? -turns : turns;
}

}  // namespace

double far_length(Vec a) noexcept {
    const auto size = std::max(std::fabs(a.x), std::fabs(a.y));
    return size > 0 ? size * length(a * (1 / size)) : 0;
}

LinearAxis::LinearAxis(Position from, Position to, Spread spread) noexcept : from_{from.x, from.y}, spread_{spread} {
    // By the length, whose square might be beyond the numbers.
    const auto along = Vec{to.x - from.x, to.y - from.y};
    const auto size = far_length(along);
    per_unit_ = along * (1 / size) * (1 / size);
}

std::optional<LinearAxis::Steps> LinearAxis::steps_in(const RowPart& row) const noexcept {
    const auto origin = dot(row.origin - from_, per_unit_);
    const auto per_pixel = row.step * per_unit_.x;
    // They do for pixels so near, of gradients that are neither very short nor very far away.
    constexpr auto most_parts = 1 << 22;
    const auto is_allowed = is_near(row) && std::fabs(origin) + std::fabs(per_pixel) * far_pixels < most_parts;
    if (!is_allowed) return std::nullopt;
    constexpr auto unit = double{std::int64_t{ramp_size} << place_bits};
    const auto move = static_cast<std::int64_t>(std::nearbyint(per_pixel * unit));
    return Steps{.place = static_cast<std::int64_t>(std::nearbyint(origin * unit)) + row.first * move, .move = move};
}

void LinearAxis::find(const RowPart& row, Places& places) const noexcept {
    if (const auto steps = steps_in(row)) {
        return spread_ == Spread::pad ? find_padded(*steps, row.count, places) : find_folded(*steps, row.count, places);
    }
    const auto origin = dot(row.origin - from_, per_unit_);
    const auto per_pixel = row.step * per_unit_.x;
    for (int i = 0; i < row.count; ++i) {
        places[static_cast<std::size_t>(i)] =
            place_of(origin + static_cast<double>(row.first + i) * per_pixel, spread_);
    }
}

int LinearAxis::first_place(const RowPart& row) const noexcept {
    const auto steps = steps_in(row);
    if (!steps) {
        const auto origin = dot(row.origin - from_, per_unit_);
        return place_of(origin + static_cast<double>(row.first) * (row.step * per_unit_.x), spread_);
    }
    const auto place = steps->place >> place_bits;
    if (spread_ == Spread::pad) return static_cast<int>(std::clamp<std::int64_t>(place, 0, ramp_size - 1));
    return folded(static_cast<std::int32_t>(place), spread_ == Spread::reflect);
}

LinearAxis::Between LinearAxis::between_ends(const Steps& steps, int count) noexcept {
    const auto [place, move] = steps;
    constexpr auto end = std::int64_t{ramp_size} << place_bits;
    // How many pixels lie on one side of a border, until it is crossed.
    const auto until = [count](std::int64_t border, std::int64_t per_pixel) {
        const auto moves = per_pixel > 0 ? (border + per_pixel - 1) / per_pixel : std::int64_t{count};
        return static_cast<int>(std::clamp<std::int64_t>(moves, 0, count));
    };
    auto begin = 0;
    if (place < 0) begin = until(-place, move);
    if (place >= end) begin = until(place - end + 1, -move);
    const auto from = place + begin * move;
    const auto inside = std::min(count - begin, move >= 0 ? until(end - from, move) : until(from + 1, -move));
    return {.begin = begin,
            .end = begin + inside,
            .before = place < 0 ? 0 : ramp_size - 1,
            .behind = move < 0 ? 0 : ramp_size - 1};
}

void LinearAxis::find_padded(const Steps& steps, int count, Places& places) noexcept {
    const auto [begin, end, before, behind] = between_ends(steps, count);
    std::fill_n(places.begin(), begin, before);
    run_in_vectors(
        [place = steps.place, move = steps.move, first = begin, stop = end, to = places.data()]() COLDBRICK_KERNEL {
            for (int k = first; k < stop; ++k) {
                to[k] = static_cast<std::int32_t>(static_cast<std::uint64_t>(place + k * move) >> place_bits);
            }
        });
    std::fill(places.begin() + end, places.begin() + count, behind);
}

void LinearAxis::find_folded(const Steps& steps, int count, Places& places) const noexcept {
    const auto reflects = spread_ == Spread::reflect;
    run_in_vectors([=, place = steps.place, move = steps.move, to = places.data()]() COLDBRICK_KERNEL {
        for (int i = 0; i < count; ++i) {
            const auto at = static_cast<std::int32_t>(static_cast<std::uint64_t>(place + i * move) >> place_bits);
            to[i] = folded(at, reflects);
        }
    });
}

void RadialAxis::find(const RowPart& row, Places& places) const noexcept {
    const auto down = (row.origin.y - center_.y) * per_unit_;
    const FromCenter columns{row, center_.x, per_unit_};
    // Where the gradient goes on behind its end, a place has to be a number; precision is lost long before.
    const auto pads = spread_ == Spread::pad;
    constexpr auto most_parts = 1 << 18;
    if (!is_near(row) || !(pads || std::fabs(down) + columns.most() < most_parts)) {
        for (int i = 0; i < row.count; ++i) {
            const auto across = (row.x(i) - center_.x) * per_unit_;
            places[static_cast<std::size_t>(i)] = place_of(std::sqrt(across * across + down * down), spread_);
        }
        return;
    }
    const auto square = static_cast<float>(down) * static_cast<float>(down);
    const auto last = static_cast<float>(pads ? ramp_size - 1 : most_parts * ramp_size);
    const auto reflects = spread_ == Spread::reflect;
    auto* const to = places.data();
    const auto count = row.count;
    run_in_vectors([=]() COLDBRICK_KERNEL {
        for (int i = 0; i < count; ++i) {
            const auto across = columns.at(i);
            const auto place = std::min(std::sqrt(across * across + square) * ramp_size, last);
            to[i] = folded(static_cast<std::int32_t>(place), reflects);
        }
    });
}

void ConicAxis::find(const RowPart& row, Places& places) const noexcept {
    const auto down = row.origin.y - center_.y;
    const FromCenter columns{row, center_.x, 1};
    constexpr auto most_far = 1e9F;
    if (!is_near(row) || !(std::fabs(down) + columns.most() < most_far)) {
        for (int i = 0; i < row.count; ++i) {
            places[static_cast<std::size_t>(i)] =
                place_of(turns_of({row.x(i) - center_.x, down}) - from_, Spread::repeat);
        }
        return;
    }
    const auto y = static_cast<float>(down);
    const auto from = static_cast<float>(2 - from_);
    auto* const to = places.data();
    const auto count = row.count;
    run_in_vectors([=]() COLDBRICK_KERNEL {
        for (int i = 0; i < count; ++i) {
            const auto part = near_turns(columns.at(i), y) + from;
            to[i] = static_cast<std::int32_t>(part * ramp_size) & (ramp_size - 1);
        }
    });
}

}  // namespace coldbrick::inline v0::detail

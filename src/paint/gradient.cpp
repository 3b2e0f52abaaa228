#include "coldbrick/gradient.hpp"

#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <functional>
#include <numbers>
#include <string>

namespace coldbrick::inline v0 {

namespace {

using detail::Vec;

// The colours along the way, at so many places.
constexpr int ramp_bits = 12;
constexpr int ramp_size = 1 << ramp_bits;

void check_finite(std::string_view kind, std::string_view field, double value) {
    if (std::isfinite(value)) return;
    throw Error{std::string{kind} + ": " + std::string{field} + " is not finite; allowed are finite numbers"};
}

void check_place(std::string_view kind, std::string_view field, Position place) {
    check_finite(kind, std::string{field} + ".x", place.x);
    check_finite(kind, std::string{field} + ".y", place.y);
}

// How long the way of a gradient may be, so that its steps are numbers wherever it is looked at.
constexpr auto least_way = 1e-9;
constexpr auto most_way = 1e15;

void check_choices(std::string_view kind, Spread spread, Placing placing, Dither dither) {
    detail::check_choice(kind, "spread", spread, {"pad", "repeat", "reflect"});
    detail::check_choice(kind, "placing", placing, {"target", "shape"});
    detail::check_choice(kind, "dither", dither, {"none", "ordered"});
}

void check_stops(std::string_view kind, const std::vector<Stop>& stops) {
    const auto name = std::string{kind};
    if (stops.empty()) throw Error{name + ": it has no stops; it needs one at least"};
    auto before = 0.0;
    for (std::size_t i = 0; i < stops.size(); ++i) {
        const auto at = stops[i].at;
        if (!(at >= 0 && at <= 1)) {
            throw Error{name + ": stop " + std::to_string(i) + " is at " + detail::in_digits(at) +
                        "; allowed is 0 to 1"};
        }
        if (at < before) {
            throw Error{name + ": stop " + std::to_string(i) + " is at " + detail::in_digits(at) +
                        ", before the one at " + detail::in_digits(before) + "; stops go upwards"};
        }
        before = at;
    }
}

// The colour between two stops, weighted by alpha.
Color16 between(const Stop& from, const Stop& to, double at) noexcept {
    const auto part = to.at > from.at ? (at - from.at) / (to.at - from.at) : 1.0;
    const auto first_weight = from.color.alpha * (1 - part);
    const auto second_weight = to.color.alpha * part;
    const auto sum = first_weight + second_weight;
    const auto channel = [&](std::uint8_t first, std::uint8_t second) {
        if (sum <= 0) return static_cast<std::uint16_t>(257 * (part < 0.5 ? first : second));
        return detail::nearest_whole<std::uint16_t>(257 * (first * first_weight + second * second_weight) / sum);
    };
    return {.red = channel(from.color.red, to.color.red),
            .green = channel(from.color.green, to.color.green),
            .blue = channel(from.color.blue, to.color.blue),
            .alpha = detail::nearest_whole<std::uint16_t>(257 * sum)};
}

// The colours along the way, in both depths.
struct Ramp {
    std::array<Color16, ramp_size> deep;
    std::array<Color, ramp_size> colors;
    bool is_opaque;

    explicit Ramp(const std::vector<Stop>& stops) {
        std::size_t next = 0;
        for (int i = 0; i < ramp_size; ++i) {
            const auto at = (i + 0.5) / ramp_size;
            while (next < stops.size() && stops[next].at <= at) ++next;
            const auto index = static_cast<std::size_t>(i);
            if (next == 0) {
                deep[index] = widened(stops.front().color);
            } else if (next == stops.size()) {
                deep[index] = widened(stops.back().color);
            } else {
                deep[index] = between(stops[next - 1], stops[next], at);
            }
            colors[index] = narrowed(deep[index]);
        }
        is_opaque = std::all_of(stops.begin(), stops.end(), [](const Stop& stop) { return stop.color.alpha == 255; });
    }
};

// The 8x8 ordered dither matrix of B. E. Bayer, "An optimum method for two-level rendition of continuous-tone
// pictures", ICC 1973: in each pixel, at which part of a step, in 64ths, a value is rounded up.
constexpr auto dither_matrix = [] {
    std::array<std::array<std::uint8_t, 8>, 8> matrix{};
    for (unsigned y = 0; y < 8; ++y) {
        for (unsigned x = 0; x < 8; ++x) {
            // The bits of x ^ y and y, from the last one on, in turn.
            auto value = 0U;
            for (unsigned bit = 0; bit < 3; ++bit) {
                value = value * 4 + (((x ^ y) >> bit) & 1U) * 2 + ((y >> bit) & 1U);
            }
            matrix[y][x] = static_cast<std::uint8_t>(value);
        }
    }
    return matrix;
}();

Color dithered(const Color16& color, Point at) noexcept {
    // A value v of 16 bits is v / 257 steps; the rest of it decides.
    const auto threshold = dither_matrix[static_cast<unsigned>(at.y) & 7U][static_cast<unsigned>(at.x) & 7U];
    const auto step = [threshold](std::uint16_t value) {
        return static_cast<std::uint8_t>((value * 64U + threshold * 257U + 128U) / (257U * 64U));
    };
    return {.red = step(color.red), .green = step(color.green), .blue = step(color.blue), .alpha = step(color.alpha)};
}

// Some pixels of a row in a gradient's own coordinates. Each pixel's place follows from its own number, wherever the
// others begin.
struct RowPart {
    Vec origin;          // the place of pixel 0
    double step;         // to the next pixel
    std::int64_t first;  // the number of the first pixel
    int count;

    [[nodiscard]] double x(int i) const noexcept { return origin.x + static_cast<double>(first + i) * step; }
};

// What of the way each pixel of a row has gone, as a place on the ramp; Way tells it for a part of a row.
template <class Way>
class GradientSource final : public detail::InkSource {
  public:
    GradientSource(Way way, const std::vector<Stop>& stops, Placing placing, Dither dither)
        : way_{std::move(way)}, ramp_{stops}, placing_{placing}, dither_{dither} {}

    void fetch(Point from, int count, const Box& shape, Color* colors) const override {
        const auto part = part_of_row(from, count, shape);
        if (dither_ == Dither::none) {
            way_.each(part, [&](int i, int place) { colors[i] = ramp_.colors[static_cast<std::size_t>(place)]; });
        } else {
            way_.each(part, [&](int i, int place) {
                colors[i] = dithered(ramp_.deep[static_cast<std::size_t>(place)], {.x = from.x + i, .y = from.y});
            });
        }
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        way_.each(part_of_row(from, count, shape),
                  [&](int i, int place) { colors[i] = ramp_.deep[static_cast<std::size_t>(place)]; });
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return ramp_.is_opaque; }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return placing_ == Placing::shape; }
    [[nodiscard]] bool is_even_in_rows() const noexcept override {
        return dither_ == Dither::none && way_.is_even_in_rows();
    }

  private:
    // A box begins half a pixel before its first pixel's centre.
    [[nodiscard]] RowPart part_of_row(Point from, int count, const Box& shape) const noexcept {
        if (placing_ == Placing::target) {
            return {.origin = {0, double{1} * from.y}, .step = 1, .first = from.x, .count = count};
        }
        const auto [width, height] =
            Vec{std::max(1.0, double{1} * shape.size.width), std::max(1.0, double{1} * shape.size.height)};
        return {.origin = {0.5 / width, (double{1} * from.y - shape.at.y + 0.5) / height},
                .step = 1 / width,
                .first = std::int64_t{from.x} - shape.at.x,
                .count = count};
    }

    Way way_;
    Ramp ramp_;
    Placing placing_;
    Dither dither_;
};

// From a part of the way to a place on the ramp. Parts so large that their fraction is lost are at its beginning or
// end.
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

// A length whose square might be beyond the numbers.
double far_length(Vec a) noexcept {
    const auto size = std::max(std::fabs(a.x), std::fabs(a.y));
    return size > 0 ? size * length(a * (1 / size)) : 0;
}

// Along a straight line: the part grows evenly from pixel to pixel.
class LinearWay {
  public:
    LinearWay(Position from, Position to, Spread spread) noexcept : from_{from.x, from.y}, spread_{spread} {
        // By way of the length, whose square might be beyond the numbers.
        const auto along = Vec{to.x - from.x, to.y - from.y};
        const auto size = far_length(along);
        per_unit_ = along * (1 / size) * (1 / size);
    }

    [[nodiscard]] bool is_even_in_rows() const noexcept { return per_unit_.x == 0; }

    template <class Take>
    void each(const RowPart& row, const Take& take) const {
        const auto origin = dot(row.origin - from_, per_unit_);
        const auto per_pixel = row.step * per_unit_.x;
        // Whole numbers do for pixels so far out, of gradients that are neither very short nor very far away.
        constexpr auto far = 1 << 24;
        constexpr auto most_parts = 1 << 22;
        const auto is_near = row.first > -far && row.first < far - row.count;
        if (!is_near || !(std::fabs(origin) + std::fabs(per_pixel) * far < most_parts)) {
            for (int i = 0; i < row.count; ++i)
                take(i, place_of(origin + static_cast<double>(row.first + i) * per_pixel, spread_));
            return;
        }
        constexpr auto unit = double{std::int64_t{ramp_size} << place_bits};
        const auto move = static_cast<std::int64_t>(std::nearbyint(per_pixel * unit));
        const auto place = static_cast<std::int64_t>(std::nearbyint(origin * unit)) + row.first * move;
        if (spread_ == Spread::pad) return each_padded(place, move, row.count, take);
        for (int i = 0; i < row.count; ++i) take(i, folded((place + i * move) >> place_bits));
    }

  private:
    // A place on the ramp has so many bits for its fraction.
    static constexpr int place_bits = 28;

    // What lies before the first place and behind the last one is told apart from what lies between.
    template <class Take>
    static void each_padded(std::int64_t place, std::int64_t move, int count, const Take& take) {
        constexpr auto end = std::int64_t{ramp_size} << place_bits;
        const auto is_before = [](std::int64_t at) { return at < 0; };
        const auto is_behind = [](std::int64_t at) { return at >= end; };
        auto i = 0;
        const auto take_while = [&](const auto& holds, int same) {
            for (; i < count && holds(place); ++i, place += move) take(i, same);
        };
        take_while(is_before, 0);
        take_while(is_behind, ramp_size - 1);
        // As many moves as there are until one of the ends is reached.
        const auto room = move >= 0 ? end - 1 - place : place;
        const auto moves = move == 0 ? count : room / std::abs(move) + 1;
        const auto stop = static_cast<int>(std::min<std::int64_t>(count, i + moves));
        for (; i < stop; ++i, place += move) take(i, static_cast<int>(place >> place_bits));
        take_while(is_before, 0);
        take_while(is_behind, ramp_size - 1);
    }

    [[nodiscard]] int folded(std::int64_t place) const noexcept {
        if (spread_ == Spread::repeat) return static_cast<int>(place & (ramp_size - 1));
        const auto there_and_back = place & (2 * ramp_size - 1);
        return static_cast<int>(there_and_back < ramp_size ? there_and_back : 2 * ramp_size - 1 - there_and_back);
    }

    Vec from_;
    Vec per_unit_;
    Spread spread_;
};

class RadialWay {
  public:
    RadialWay(Position center, double radius, Spread spread) noexcept
        : center_{center.x, center.y}, per_unit_{1 / radius}, spread_{spread} {}

    [[nodiscard]] static bool is_even_in_rows() noexcept { return false; }

    template <class Take>
    void each(const RowPart& row, const Take& take) const {
        const auto down = (row.origin.y - center_.y) * per_unit_;
        for (int i = 0; i < row.count; ++i) {
            const auto across = (row.x(i) - center_.x) * per_unit_;
            take(i, place_of(std::sqrt(across * across + down * down), spread_));
        }
    }

  private:
    Vec center_;
    double per_unit_;
    Spread spread_;
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

class ConicWay {
  public:
    ConicWay(Position center, Angle from) noexcept
        : center_{center.x, center.y}, from_{from.in_degrees() / 360 - std::floor(from.in_degrees() / 360)} {}

    [[nodiscard]] static bool is_even_in_rows() noexcept { return false; }

    template <class Take>
    void each(const RowPart& row, const Take& take) const {
        const auto down = row.origin.y - center_.y;
        for (int i = 0; i < row.count; ++i) {
            take(i, place_of(turns_of({row.x(i) - center_.x, down}) - from_, Spread::repeat));
        }
    }

  private:
    Vec center_;
    double from_;
};

template <class Way>
Ink ink_of(Way way, const std::vector<Stop>& stops, Placing placing, Dither dither) {
    return Ink{Ink::Source{detail::make_shared_value<GradientSource<Way>>(std::move(way), stops, placing, dither)}};
}

}  // namespace

LinearGradient::operator Ink() const {
    constexpr auto kind = "linear gradient";
    check_stops(kind, stops);
    check_place(kind, "from", from);
    check_place(kind, "to", to);
    if (from == to) {
        throw Error{"linear gradient: from and to are both " + detail::in_digits(from.x) + "," +
                    detail::in_digits(from.y) + "; they must be apart"};
    }
    const auto size = far_length({to.x - from.x, to.y - from.y});
    if (!(size >= least_way && size <= most_way)) {
        throw Error{"linear gradient: from and to are " + detail::in_digits(size) + " apart; allowed is " +
                    detail::in_digits(least_way) + " to " + detail::in_digits(most_way)};
    }
    check_choices(kind, spread, placing, dither);
    return ink_of(LinearWay{from, to, spread}, stops, placing, dither);
}

RadialGradient::operator Ink() const {
    constexpr auto kind = "radial gradient";
    check_stops(kind, stops);
    check_place(kind, "center", center);
    check_finite(kind, "radius", radius);
    if (!(radius >= least_way && radius <= most_way)) {
        throw Error{"radial gradient: radius is " + detail::in_digits(radius) + "; allowed is " +
                    detail::in_digits(least_way) + " to " + detail::in_digits(most_way)};
    }
    check_choices(kind, spread, placing, dither);
    return ink_of(RadialWay{center, radius, spread}, stops, placing, dither);
}

ConicGradient::operator Ink() const {
    constexpr auto kind = "conic gradient";
    check_stops(kind, stops);
    check_place(kind, "center", center);
    check_finite(kind, "from", from.in_degrees());
    check_choices(kind, Spread::pad, placing, dither);
    return ink_of(ConicWay{center, from}, stops, placing, dither);
}

}  // namespace coldbrick::inline v0

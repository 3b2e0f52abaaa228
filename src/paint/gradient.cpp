#include "coldbrick/gradient.hpp"

#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"
#include "geometry/vectors.hpp"
#include "paint/look_up.hpp"

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

using detail::nearest_whole;
using detail::run_in_vectors;
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

// A colour rounded down to 8 bits, and from which threshold on each channel is rounded up.
struct Dithered {
    Color floor;
    Color up_from;
};

Dithered dithered(const Color16& color) noexcept {
    // A value v of 16 bits is v / 257 steps. With a threshold t it becomes (64 v + 257 t + 128) / (64 * 257), rounded
    // down: one step more if 257 t >= 64 * 257 - 128 - 64 (v mod 257).
    const auto floor = [](std::uint16_t value) { return static_cast<std::uint8_t>(value / 257U); };
    const auto up_from = [](std::uint16_t value) {
        return static_cast<std::uint8_t>((64U * 257U - 128U - 64U * (value % 257U) + 256U) / 257U);
    };
    const auto each = [&](const auto& of) {
        return Color{.red = of(color.red), .green = of(color.green), .blue = of(color.blue), .alpha = of(color.alpha)};
    };
    return {.floor = each(floor), .up_from = each(up_from)};
}

// Rounds so many colours, by thresholds that come again after eight.
void round_up(const Dithered* colors, const std::array<std::uint8_t, 8>& thresholds, int count, Color* to) noexcept {
    using detail::Words8;
    using Bytes32 = std::uint8_t __attribute__((vector_size(32)));
    run_in_vectors([&]() COLDBRICK_KERNEL {
        Words8 words;
        for (std::size_t i = 0; i < 8; ++i) words[i] = thresholds[i] * 0x01010101U;
        const auto threshold = reinterpret_cast<Bytes32>(words);
        int i = 0;
        for (; i + 8 <= count; i += 8) {
            Words8 first;
            Words8 second;
            detail::read(colors + i, first);
            detail::read(colors + i + 4, second);
            const auto floor =
                reinterpret_cast<Bytes32>(__builtin_shufflevector(first, second, 0, 2, 4, 6, 8, 10, 12, 14));
            const auto up_from =
                reinterpret_cast<Bytes32>(__builtin_shufflevector(first, second, 1, 3, 5, 7, 9, 11, 13, 15));
            const Bytes32 rounded = floor - reinterpret_cast<Bytes32>(threshold >= up_from);
            detail::write(rounded, static_cast<void*>(to + i));
        }
        for (; i < count; ++i) {
            const auto& [floor, up_from] = colors[i];
            const auto each = [&](std::uint8_t value, std::uint8_t from) {
                return static_cast<std::uint8_t>(value + (thresholds[static_cast<std::size_t>(i) % 8] >= from ? 1 : 0));
            };
            to[i] = {.red = each(floor.red, up_from.red),
                     .green = each(floor.green, up_from.green),
                     .blue = each(floor.blue, up_from.blue),
                     .alpha = each(floor.alpha, up_from.alpha)};
        }
    });
}

// A mixture of a first and a second stop's colours, weighted by alpha, at so many parts of the way between them.
class Mixture {
  public:
    Mixture(const Stop& from, const Stop& to) noexcept
        : first_{channels(from.color)}, second_{channels(to.color)}, at_{from.at}, length_{to.at - from.at} {}

    // The colours at places on the ramp.
    void set(int begin, int end, Color16* colors) const noexcept {
        run_in_vectors([&]() COLDBRICK_KERNEL {
            for (int i = begin; i < end; ++i) colors[i] = at((i + 0.5) / ramp_size);
        });
    }

  private:
    static constexpr std::array<double, 4> channels(Color color) noexcept {
        return {double{1} * color.red, double{1} * color.green, double{1} * color.blue, double{1} * color.alpha};
    }

    [[nodiscard]] COLDBRICK_INLINE Color16 at(double place) const noexcept {
        const auto part = length_ > 0 ? (place - at_) / length_ : 1.0;
        const auto first_weight = first_[3] * (1 - part);
        const auto second_weight = second_[3] * part;
        const auto sum = first_weight + second_weight;
        const auto channel = [&](std::size_t i) {
            if (sum <= 0) return static_cast<std::uint16_t>(257 * (part < 0.5 ? first_[i] : second_[i]));
            const auto mean = (first_[i] * first_weight + second_[i] * second_weight) / sum;
            return static_cast<std::uint16_t>(static_cast<std::int32_t>(257 * mean + 0.5));
        };
        return {.red = channel(0),
                .green = channel(1),
                .blue = channel(2),
                .alpha = nearest_whole<std::uint16_t>(257 * sum)};
    }

    std::array<double, 4> first_;
    std::array<double, 4> second_;
    double at_;
    double length_;
};

// The colours along the way, in both depths.
struct Ramp {
    std::array<Color16, ramp_size> deep;
    std::array<Color, ramp_size> colors;
    std::vector<Dithered> dithered_colors;  // if they are asked for
    bool is_opaque;

    Ramp(const std::vector<Stop>& stops, Dither dither) {
        // The first place that is not before a part of the way.
        const auto place_of = [](double at) {
            return static_cast<int>(std::clamp(std::ceil(at * ramp_size - 0.5), 0.0, double{ramp_size}));
        };
        auto place = place_of(stops.front().at);
        std::fill_n(deep.begin(), place, widened(stops.front().color));
        for (std::size_t i = 1; i < stops.size(); ++i) {
            const auto end = place_of(stops[i].at);
            Mixture{stops[i - 1], stops[i]}.set(place, end, deep.data());
            place = end;
        }
        std::fill(deep.begin() + place, deep.end(), widened(stops.back().color));
        std::transform(deep.begin(), deep.end(), colors.begin(), [](const Color16& color) { return narrowed(color); });
        is_opaque = std::all_of(stops.begin(), stops.end(), [](const Stop& stop) { return stop.color.alpha == 255; });
        if (dither == Dither::none) return;
        dithered_colors.resize(ramp_size);
        std::transform(deep.begin(), deep.end(), dithered_colors.begin(), dithered);
    }
};

// Some pixels of a row in a gradient's own coordinates. Each pixel's place follows from its own number, wherever the
// others begin.
struct RowPart {
    Vec origin;          // the place of pixel 0
    double step;         // to the next pixel
    std::int64_t first;  // the number of the first pixel
    int count;           // at most part_length

    [[nodiscard]] double x(int i) const noexcept { return origin.x + static_cast<double>(first + i) * step; }
};
constexpr int part_length = 256;
using Places = std::array<std::int32_t, part_length>;

// Numbers of pixels below it do in single precision and in 32 bits. No part has pixels on both sides.
constexpr std::int64_t far = std::int64_t{1} << 22U;
bool is_near(const RowPart& row) noexcept { return row.first >= -far && row.first < far; }

// What of the way each pixel of a row has gone, as a place on the ramp; Way tells it for a part of a row.
template <class Way>
class GradientSource final : public detail::InkSource {
  public:
    GradientSource(Way way, const std::vector<Stop>& stops, Placing placing, Dither dither)
        : way_{std::move(way)}, ramp_{stops, dither}, placing_{placing}, dither_{dither} {}

    void fetch(Point from, int count, const Box& shape, Color* colors) const override {
        if (dither_ == Dither::ordered) return dither(from, count, shape, colors);
        const auto* const ramp = ramp_.colors.data();
        each_part(from, count, shape, [&](int done, int length, const Places& places) {
            detail::look_up(ramp, places.data(), length, colors + done);
        });
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        const auto* const ramp = ramp_.deep.data();
        each_part(from, count, shape, [&](int done, int length, const Places& places) {
            detail::look_up(ramp, places.data(), length, colors + done);
        });
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return ramp_.is_opaque; }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return placing_ == Placing::shape; }
    [[nodiscard]] bool is_even_in_rows() const noexcept override {
        return dither_ == Dither::none && way_.is_even_in_rows();
    }

  private:
    // A box begins half a pixel before its first pixel's centre.
    [[nodiscard]] RowPart row_of(Point from, const Box& shape) const noexcept {
        if (placing_ == Placing::target) {
            return {.origin = {0, double{1} * from.y}, .step = 1, .first = from.x, .count = 0};
        }
        const auto [width, height] =
            Vec{std::max(1.0, double{1} * shape.size.width), std::max(1.0, double{1} * shape.size.height)};
        return {.origin = {0.5 / width, (double{1} * from.y - shape.at.y + 0.5) / height},
                .step = 1 / width,
                .first = std::int64_t{from.x} - shape.at.x,
                .count = 0};
    }

    // Calls use(done, length, places) for one part of a row after the other.
    template <class Use>
    void each_part(Point from, int count, const Box& shape, const Use& use) const {
        auto row = row_of(from, shape);
        Places places;
        for (int done = 0; done < count; done += row.count, row.first += row.count) {
            auto length = std::int64_t{std::min(part_length, count - done)};
            for (const auto border : {-far, far}) {
                if (row.first < border) length = std::min(length, border - row.first);
            }
            row.count = static_cast<int>(length);
            way_.find(row, places);
            use(done, row.count, places);
        }
    }

    void dither(Point from, int count, const Box& shape, Color* colors) const {
        std::array<std::uint8_t, 8> thresholds;
        for (std::size_t i = 0; i < 8; ++i) {
            thresholds[i] = dither_matrix[static_cast<unsigned>(from.y) & 7U][(static_cast<unsigned>(from.x) + i) & 7U];
        }
        const auto even = way_.is_even_in_rows();
        const auto some = even ? std::min(count, 8) : count;
        each_part(from, some, shape, [&](int done, int length, const Places& places) {
            std::array<Dithered, part_length> ramp;
            detail::look_up(ramp_.dithered_colors.data(), places.data(), length, ramp.data());
            std::array<std::uint8_t, 8> from_here;
            std::rotate_copy(thresholds.begin(), thresholds.begin() + done % 8, thresholds.end(), from_here.begin());
            round_up(ramp.data(), from_here, length, colors + done);
        });
        // What is even in rows comes again after eight pixels.
        for (int i = some; i < count; ++i) colors[i] = colors[i - 8];
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

// The same of a place on a ramp that goes on, there again or there and back.
COLDBRICK_INLINE std::int32_t folded(std::int32_t place, bool reflects) noexcept {
    const auto again = place & (ramp_size - 1);
    const auto there_and_back = place & (2 * ramp_size - 1);
    return reflects ? std::min(there_and_back, 2 * ramp_size - 1 - there_and_back) : again;
}

// The columns of a part of a row, from a centre: told from the nearest pixel, so that single precision does.
struct FromCenter {
    std::int32_t first;  // of the part's pixels, counted from that pixel
    float step;
    float rest;

    // Where numbers are small enough: the greatest column away from the centre is told, too.
    FromCenter(const RowPart& row, double center, double per_unit) noexcept {
        const auto pixel = std::clamp((center - row.origin.x) / row.step, -1.0 * far, 1.0 * far);
        const auto nearest = std::nearbyint(pixel);
        first = static_cast<std::int32_t>(row.first - static_cast<std::int64_t>(nearest));
        step = static_cast<float>(row.step * per_unit);
        rest = static_cast<float>((row.origin.x + nearest * row.step - center) * per_unit);
    }

    [[nodiscard]] COLDBRICK_INLINE float at(int i) const noexcept {
        return static_cast<float>(first + i) * step + rest;
    }
    [[nodiscard]] float most() const noexcept { return static_cast<float>(2 * far) * step + std::fabs(rest); }
};

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

    void find(const RowPart& row, Places& places) const noexcept {
        const auto origin = dot(row.origin - from_, per_unit_);
        const auto per_pixel = row.step * per_unit_.x;
        // Whole numbers do for pixels so near, of gradients that are neither very short nor very far away.
        constexpr auto most_parts = 1 << 22;
        if (!is_near(row) || !(std::fabs(origin) + std::fabs(per_pixel) * far < most_parts)) {
            for (int i = 0; i < row.count; ++i) {
                places[static_cast<std::size_t>(i)] =
                    place_of(origin + static_cast<double>(row.first + i) * per_pixel, spread_);
            }
            return;
        }
        constexpr auto unit = double{std::int64_t{ramp_size} << place_bits};
        const auto move = static_cast<std::int64_t>(std::nearbyint(per_pixel * unit));
        const auto place = static_cast<std::int64_t>(std::nearbyint(origin * unit)) + row.first * move;
        spread_ == Spread::pad ? find_padded(place, move, row.count, places)
                               : find_folded(place, move, row.count, places);
    }

  private:
    // A place on the ramp has so many bits for its fraction.
    static constexpr int place_bits = 28;

    // What lies before the first place and behind the last one is told apart from what lies between.
    static void find_padded(std::int64_t place, std::int64_t move, int count, Places& places) noexcept {
        constexpr auto end = std::int64_t{ramp_size} << place_bits;
        // How many pixels lie on one side of a border, until it is crossed.
        const auto until = [&](std::int64_t border, std::int64_t per_pixel) {
            const auto steps = per_pixel > 0 ? (border + per_pixel - 1) / per_pixel : std::int64_t{count};
            return static_cast<int>(std::clamp<std::int64_t>(steps, 0, count));
        };
        auto i = 0;
        if (place < 0) i = until(-place, move);
        if (place >= end) i = until(place - end + 1, -move);
        std::fill_n(places.begin(), i, place < 0 ? 0 : ramp_size - 1);
        const auto from = place + i * move;
        const auto stop = i + std::min(count - i, move >= 0 ? until(end - from, move) : until(from + 1, -move));
        auto* const to = places.data();
        run_in_vectors([=]() COLDBRICK_KERNEL {
            for (int k = i; k < stop; ++k) {
                to[k] = static_cast<std::int32_t>(static_cast<std::uint64_t>(place + k * move) >> place_bits);
            }
        });
        std::fill(places.begin() + stop, places.begin() + count, move < 0 ? 0 : ramp_size - 1);
    }

    void find_folded(std::int64_t place, std::int64_t move, int count, Places& places) const noexcept {
        const auto reflects = spread_ == Spread::reflect;
        auto* const to = places.data();
        run_in_vectors([=]() COLDBRICK_KERNEL {
            for (int i = 0; i < count; ++i) {
                const auto at = static_cast<std::int32_t>(static_cast<std::uint64_t>(place + i * move) >> place_bits);
                to[i] = folded(at, reflects);
            }
        });
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

    void find(const RowPart& row, Places& places) const noexcept {
        const auto down = (row.origin.y - center_.y) * per_unit_;
        const FromCenter columns{row, center_.x, per_unit_};
        constexpr auto most_parts = 1 << 14;
        if (!is_near(row) || !(std::fabs(down) + columns.most() < most_parts)) {
            for (int i = 0; i < row.count; ++i) {
                const auto across = (row.x(i) - center_.x) * per_unit_;
                places[static_cast<std::size_t>(i)] = place_of(std::sqrt(across * across + down * down), spread_);
            }
            return;
        }
        const auto square = static_cast<float>(down) * static_cast<float>(down);
        const auto pads = spread_ == Spread::pad;
        const auto reflects = spread_ == Spread::reflect;
        auto* const to = places.data();
        const auto count = row.count;
        run_in_vectors([=]() COLDBRICK_KERNEL {
            for (int i = 0; i < count; ++i) {
                const auto across = columns.at(i);
                const auto place = static_cast<std::int32_t>(std::sqrt(across * across + square) * ramp_size);
                to[i] = pads ? std::min(place, ramp_size - 1) : folded(place, reflects);
            }
        });
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

class ConicWay {
  public:
    ConicWay(Position center, Angle from) noexcept
        : center_{center.x, center.y}, from_{from.in_degrees() / 360 - std::floor(from.in_degrees() / 360)} {}

    [[nodiscard]] static bool is_even_in_rows() noexcept { return false; }

    void find(const RowPart& row, Places& places) const noexcept {
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

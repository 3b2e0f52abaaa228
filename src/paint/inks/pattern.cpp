#include "coldbrick/pattern.hpp"

#include "formats/kernels.hpp"
#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"
#include "geometry/vectors.hpp"
#include "paint/inks/look_up.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <functional>
#include <string>
#include <type_traits>

namespace coldbrick::inline v0 {

namespace {

using detail::run_in_vectors;
using detail::Tile;
using detail::Vec;

// Where coordinates begin.
Point origin_of(Placing placing, const Box& shape) noexcept { return placing == Placing::shape ? shape.at : Point{}; }

// A picture, over and over or once.
class TileSource final : public detail::InkSource {
  public:
    TileSource(const Tile& tile, Point offset, Placing placing, bool repeats)
        : size_{tile.size}, offset_{offset}, placing_{placing}, repeats_{repeats} {
        const auto is_whole = [](const Color16& color) { return color.alpha == 65535; };
        is_opaque_ = repeats && std::all_of(tile.colors.begin(), tile.colors.end(), is_whole);
        const auto is_deep = [](const Color16& color) { return widened(narrowed(color)) != color; };
        if (std::any_of(tile.colors.begin(), tile.colors.end(), is_deep)) deep_ = tile.colors;
        colors_.resize(tile.colors.size());
        std::transform(tile.colors.begin(), tile.colors.end(), colors_.begin(),
                       [](const Color16& c) { return narrowed(c); });
    }

    void fetch(Point from, int count, const Box& shape, Color* colors) const override {
        copy(colors_.data(), from, count, shape, colors);
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        if (!deep_.empty()) return copy(deep_.data(), from, count, shape, colors);
        constexpr auto at_once = 256;
        std::array<Color, at_once> shallow;
        for (int done = 0; done < count; done += at_once) {
            const auto length = std::min(at_once, count - done);
            copy(colors_.data(), {.x = from.x + done, .y = from.y}, length, shape, shallow.data());
            std::transform(shallow.begin(), shallow.begin() + length, colors + done,
                           [](Color c) { return widened(c); });
        }
    }
    [[nodiscard]] Color color_of_pixel(Point pixel, const Box& shape) const override {
        const auto [width, height] = size_;
        const auto origin = origin_of(placing_, shape);
        auto x = std::int64_t{pixel.x} - origin.x - offset_.x;
        auto y = std::int64_t{pixel.y} - origin.y - offset_.y;
        if (repeats_) {
            x -= detail::floor_div(x, width) * width;
            y -= detail::floor_div(y, height) * height;
        } else if (x < 0 || y < 0 || x >= width || y >= height) {
            return {.alpha = 0};
        }
        return colors_[static_cast<std::size_t>(y * width + x)];
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return is_opaque_; }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return placing_ == Placing::shape; }
    [[nodiscard]] int row_period() const noexcept override { return repeats_ ? size_.width : 0; }

  private:
    template <class Texel>
    void copy(const Texel* tile, Point from, int count, const Box& shape, Texel* colors) const {
        const auto [width, height] = size_;
        const auto origin = origin_of(placing_, shape);
        const auto x = std::int64_t{from.x} - origin.x - offset_.x;
        auto y = std::int64_t{from.y} - origin.y - offset_.y;
        if (repeats_) {
            y -= detail::floor_div(y, height) * height;
            return copy_around(tile + y * width, static_cast<int>(x - detail::floor_div(x, width) * width), count,
                               colors);
        }
        // What lies before the picture, in it, and behind it.
        const auto within = [&](std::int64_t end) {
            return static_cast<int>(std::clamp<std::int64_t>(end - x, 0, count));
        };
        const auto has_row = y >= 0 && y < height;
        const auto first = has_row ? within(0) : count;
        const auto last = has_row ? within(width) : count;
        const auto nothing = widened_to<Texel>(Color{.alpha = 0});
        std::fill_n(colors, first, nothing);
        if (first < last) std::copy_n(tile + y * width + (x + first), last - first, colors + first);
        std::fill_n(colors + last, count - last, nothing);
    }

    // From a column of a row on; behind its end, it begins again.
    template <class Texel>
    void copy_around(const Texel* row, int first, int count, Texel* colors) const {
        const auto width = size_.width;
        const auto end = std::min(width - first, count);
        std::copy_n(row + first, end, colors);
        const auto begun = std::min(first, count - end);
        std::copy_n(row, begun, colors + end);
        // One round is there: the others are copies, of twice as many each time.
        for (auto done = end + begun; done < count;) {
            const auto rounds = std::min(done / width * width, count - done);
            std::copy_n(colors, rounds, colors + done);
            done += rounds;
        }
    }

    template <class Texel>
    static Texel widened_to(Color color) noexcept {
        if constexpr (std::is_same_v<Texel, Color>) return color;
        if constexpr (!std::is_same_v<Texel, Color>) return widened(color);
    }

    Size size_;
    std::vector<Color> colors_;
    std::vector<Color16> deep_;  // empty if 8 bits hold them all
    Point offset_;
    Placing placing_;
    bool repeats_;
    bool is_opaque_;
};

// The colours of a hatch by how far a pixel is from the middle of the nearest line: tabulated for distances at which a
// line's edge runs through the pixel, in steps of 1/512 of a pixel. Nearer it is the line's colour, and the ground's
// farther out.
class HatchColors {
  public:
    explicit HatchColors(const Hatch& hatch) : hatch_{hatch}, across_{-left_of(detail::direction_of(hatch.angle))} {
        const auto reach = (std::fabs(across_.x) + std::fabs(across_.y)) / 2;
        const auto half = hatch.width / 2;
        const auto farthest = std::min(half + reach, hatch.spacing / 2);
        nearest_ = std::clamp(half - reach, 0.0, farthest);
        const auto steps = static_cast<int>(std::ceil((farthest - nearest_) * steps_per_pixel)) + 1;
        deep_.reserve(static_cast<std::size_t>(steps) + 1);
        for (int i = 0; i <= steps; ++i) {
            deep_.push_back(laid(covered(std::min(nearest_ + i / steps_per_pixel, hatch.spacing / 2))));
        }
        colors_.resize(deep_.size());
        std::transform(deep_.begin(), deep_.end(), colors_.begin(),
                       [](const Color16& color) { return narrowed(color); });
    }

    [[nodiscard]] const Vec& across() const noexcept { return across_; }
    [[nodiscard]] double nearest() const noexcept { return nearest_; }
    [[nodiscard]] const std::vector<Color>& colors() const noexcept { return colors_; }
    [[nodiscard]] const std::vector<Color16>& deep() const noexcept { return deep_; }

    static constexpr double steps_per_pixel = 512;

  private:
    // How much of a pixel lies on one side of a line whose distance from its centre is given: the square's width across
    // the line grows evenly at its corners, and is the same between.
    [[nodiscard]] double beside(double away) const noexcept {
        const auto [most, least] = std::minmax({std::fabs(across_.x), std::fabs(across_.y)}, std::greater{});
        const auto reach = (most + least) / 2;
        const auto flat = (most - least) / 2;
        const auto side = std::fabs(away);
        if (side >= reach) return away < 0 ? 0 : 1;
        const auto corner = reach - side;
        const auto behind = side <= flat ? 0.5 - side / most : corner * corner / (2 * most * least);
        return away < 0 ? behind : 1 - behind;
    }

    // How much of a pixel the lines cover that come near it, so far from the middle of the nearest one.
    [[nodiscard]] double covered(double away) const noexcept {
        if (hatch_.width >= hatch_.spacing) return 1;
        const auto half = hatch_.width / 2;
        auto sum = 0.0;
        for (const auto line : {-1, 0, 1}) {
            const auto from_line = away - line * hatch_.spacing;
            sum += beside(from_line + half) - beside(from_line - half);
        }
        return std::clamp(sum, 0.0, 1.0);
    }

    // The line in front of the ground, weighted by alpha.
    [[nodiscard]] Color16 laid(double covered) const noexcept {
        const auto line_weight = hatch_.color.alpha * covered;
        const auto ground_weight = hatch_.ground.alpha * (1 - covered);
        const auto sum = line_weight + ground_weight;
        const auto channel = [&](std::uint8_t line, std::uint8_t ground) {
            const auto mean = sum > 0 ? (line * line_weight + ground * ground_weight) / sum : line;
            return detail::nearest_whole<std::uint16_t>(257 * mean);
        };
        return {.red = channel(hatch_.color.red, hatch_.ground.red),
                .green = channel(hatch_.color.green, hatch_.ground.green),
                .blue = channel(hatch_.color.blue, hatch_.ground.blue),
                .alpha = detail::nearest_whole<std::uint16_t>(257 * sum)};
    }

    Hatch hatch_;
    Vec across_;
    double nearest_;
    std::vector<Color> colors_;
    std::vector<Color16> deep_;
};

class HatchSource final : public detail::InkSource {
  public:
    explicit HatchSource(const Hatch& hatch)
        : hatch_{hatch}, ramp_{hatch}, per_pixel_{part_of(ramp_.across().x / hatch.spacing)} {}

    void fetch(Point from, int count, const Box& shape, Color* colors) const override {
        draw(ramp_.colors().data(), from, count, shape, colors);
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        draw(ramp_.deep().data(), from, count, shape, colors);
    }
    [[nodiscard]] bool is_opaque() const noexcept override {
        return hatch_.color.alpha == 255 && hatch_.ground.alpha == 255;
    }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return hatch_.placing == Placing::shape; }

  private:
    // The fraction of a number of spacings, in 2^-64ths.
    static std::uint64_t part_of(double spacings) noexcept {
        const auto fraction = spacings - std::floor(spacings);
        constexpr auto unit = 9007199254740992.0;  // 2^53: all that a fraction has
        return fraction >= 0 ? static_cast<std::uint64_t>(fraction * unit) << 11U : 0;
    }

    // How far pixels are from the middle of the nearest line, as places on the ramp.
    template <class Number>
    struct Steps {
        explicit Steps(const HatchSource& of, Number unit) noexcept
            : per_unit{static_cast<Number>(std::min(of.hatch_.spacing, most) * HatchColors::steps_per_pixel / unit)},
              first{static_cast<Number>(std::min(of.ramp_.nearest(), most) * HatchColors::steps_per_pixel - 0.5)},
              last{static_cast<Number>(of.ramp_.colors().size() - 1)} {}

        // Lines farther apart than this are nowhere distinguished.
        static constexpr auto most = 1e30;
        Number per_unit;
        Number first;
        Number last;
    };

    // In single precision the 32 upper bits of a place do.
    void find_near(std::uint64_t place, int count, std::int32_t* to) const noexcept {
        const Steps<float> steps{*this, 4294967296.0F};
        run_in_vectors([=, move = per_pixel_]() COLDBRICK_KERNEL {
            using Places4 = std::uint64_t __attribute__((vector_size(32)));
            using Floats8 = float __attribute__((vector_size(32)));
            constexpr auto upper = std::uint64_t{0xffffffff00000000};
            constexpr auto positive = 0x7fffffff;
            // Every other one, and those between.
            Places4 even = {place, place + 2 * move, place + 4 * move, place + 6 * move};
            Places4 odd = even + move;
            for (int i = 0; i < count; i += 8, even += 8 * move, odd += 8 * move) {
                const auto words =
                    detail::is_little_endian ? (even >> 32U) | (odd & upper) : (even & upper) | (odd >> 32U);
                const auto at = __builtin_convertvector(reinterpret_cast<detail::Ints8>(words), Floats8);
                const auto away = reinterpret_cast<Floats8>(reinterpret_cast<detail::Ints8>(at) & positive);
                const Floats8 step = away * steps.per_unit - steps.first;
                const Floats8 least = step > 0 ? step : Floats8{};
                const Floats8 last = Floats8{} + steps.last;
                detail::write(__builtin_convertvector(least < last ? least : last, detail::Ints8), to + i);
            }
        });
    }

    // Wide spacings need all bits.
    void find_wide(std::uint64_t place, int count, std::int32_t* to) const noexcept {
        const Steps<double> steps{*this, 18446744073709551616.0};
        for (int i = 0; i < count; ++i, place += per_pixel_) {
            const auto away = std::fabs(static_cast<double>(static_cast<std::int64_t>(place))) * steps.per_unit;
            to[i] = static_cast<std::int32_t>(std::clamp(away - steps.first, 0.0, steps.last));
        }
    }

    // Each pixel's place follows from its column, wherever the others begin.
    template <class Texel>
    void draw(const Texel* ramp, Point from, int count, const Box& shape, Texel* colors) const {
        const auto origin = origin_of(hatch_.placing, shape);
        const auto column = std::int64_t{from.x} - origin.x;
        const auto at = Vec{-hatch_.offset.x, double{1} * from.y - origin.y - hatch_.offset.y};
        auto place =
            part_of(dot(at, ramp_.across()) / hatch_.spacing) + static_cast<std::uint64_t>(column) * per_pixel_;
        constexpr auto at_once = 256;
        constexpr auto wide = 4096;
        std::array<std::int32_t, at_once> steps;
        for (int done = 0; done < count; done += at_once) {
            const auto length = std::min(at_once, count - done);
            hatch_.spacing < wide ? find_near(place, length, steps.data()) : find_wide(place, length, steps.data());
            place += static_cast<std::uint64_t>(length) * per_pixel_;
            detail::look_up(ramp, steps.data(), length, colors + done);
        }
    }

    Hatch hatch_;
    HatchColors ramp_;
    std::uint64_t per_pixel_;  // to the right, in 2^-64ths of a spacing
};

}  // namespace

Tile detail::tile_of(const Surface& surface) {
    const auto& [at, size] = surface.window;
    if (surface.window.empty()) throw Error{"pattern: the picture's clip is empty; it must have at least one pixel"};
    const auto width = static_cast<std::size_t>(size.width);
    Tile tile{.size = size, .colors = std::vector<Color16>(width * static_cast<std::size_t>(size.height))};
    for (int y = 0; y < size.height; ++y) {
        auto* const row = tile.colors.data() + width * static_cast<std::size_t>(y);
        read_colors(surface, {.x = at.x, .y = at.y + y}, size.width, row);
    }
    return tile;
}

namespace {

void check_placing(std::string_view what, Placing placing) {
    detail::check_choice(what, "placing", placing, {"target", "shape"});
}

}  // namespace

Pattern::operator Ink() const {
    check_placing("pattern", place_.placing);
    constexpr auto repeats = true;
    return Ink{Ink::Source{detail::make_shared_value<TileSource>(tile_, place_.offset, place_.placing, repeats)}};
}

PictureInk::operator Ink() const {
    check_placing("picture", place_.placing);
    constexpr auto repeats = false;
    return Ink{Ink::Source{detail::make_shared_value<TileSource>(tile_, place_.at, place_.placing, repeats)}};
}

Hatch::operator Ink() const {
    for (const auto number : {spacing, width, angle.in_degrees(), double{offset.x}, double{offset.y}}) {
        if (!std::isfinite(number)) throw Error{"hatch: one of its numbers is not finite"};
    }
    check_placing("hatch", placing);
    if (spacing < 1) throw Error{"hatch: spacing is " + detail::in_digits(spacing) + "; allowed is 1 or more"};
    if (width <= 0) throw Error{"hatch: width is " + detail::in_digits(width) + "; allowed is more than 0"};
    return Ink{Ink::Source{detail::make_shared_value<HatchSource>(*this)}};
}

}  // namespace coldbrick::inline v0

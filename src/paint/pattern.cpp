#include "coldbrick/pattern.hpp"

#include "formats/kernels.hpp"
#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <string>

namespace coldbrick::inline v0 {

namespace {

using detail::Tile;
using detail::Vec;

// Where coordinates begin.
Point origin_of(Placing placing, const Box& shape) noexcept { return placing == Placing::shape ? shape.at : Point{}; }

// From what an ink has in 16 bits to the depth that is asked for.
void put(Color16 from, Color16& to) noexcept { to = from; }
void put(Color16 from, Color& to) noexcept { to = narrowed(from); }

// A picture, over and over or once.
class TileSource final : public detail::InkSource {
  public:
    TileSource(Tile tile, Point offset, Placing placing, bool repeats)
        : tile_{std::move(tile)}, offset_{offset}, placing_{placing}, repeats_{repeats} {
        const auto is_whole = [](const Color16& color) { return color.alpha == 65535; };
        is_opaque_ = repeats && std::all_of(tile_.colors.begin(), tile_.colors.end(), is_whole);
    }

    void fetch(Point from, int count, const Box& shape, Color* colors) const override {
        copy(from, count, shape, colors);
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        copy(from, count, shape, colors);
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return is_opaque_; }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return placing_ == Placing::shape; }

  private:
    template <class Texel>
    void copy(Point from, int count, const Box& shape, Texel* colors) const {
        const auto [width, height] = tile_.size;
        const auto origin = origin_of(placing_, shape);
        auto x = std::int64_t{from.x} - origin.x - offset_.x;
        auto y = std::int64_t{from.y} - origin.y - offset_.y;
        if (repeats_) {
            x -= detail::floor_div(x, width) * width;
            y -= detail::floor_div(y, height) * height;
        }
        const auto has_row = y >= 0 && y < height;
        const auto* const row = tile_.colors.data() + (has_row ? y * width : 0);
        for (int i = 0; i < count; ++i, ++x) {
            if (repeats_ && x == width) x = 0;
            const auto is_there = has_row && x >= 0 && x < width;
            put(is_there ? row[x] : Color16{.alpha = 0}, colors[i]);
        }
    }

    Tile tile_;
    Point offset_;
    Placing placing_;
    bool repeats_;
    bool is_opaque_;
};

class HatchSource final : public detail::InkSource {
  public:
    explicit HatchSource(const Hatch& hatch) : hatch_{hatch}, across_{-left_of(detail::direction_of(hatch.angle))} {}

    void fetch(Point from, int count, const Box& shape, Color* colors) const override {
        draw(from, count, shape, colors);
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        draw(from, count, shape, colors);
    }
    [[nodiscard]] bool is_opaque() const noexcept override {
        return hatch_.color.alpha == 255 && hatch_.ground.alpha == 255;
    }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return hatch_.placing == Placing::shape; }

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

    // How much of a pixel the lines cover that come near it. `place` is that of its centre, in spacings from a line.
    [[nodiscard]] double covered(double place) const noexcept {
        const auto half = hatch_.width / 2;
        if (hatch_.width >= hatch_.spacing) return 1;
        const auto nearest = std::floor(place + 0.5);
        auto sum = 0.0;
        for (const auto line : {nearest - 1, nearest, nearest + 1}) {
            const auto away = (place - line) * hatch_.spacing;
            sum += beside(away + half) - beside(away - half);
        }
        return std::clamp(sum, 0.0, 1.0);
    }

    template <class Texel>
    void draw(Point from, int count, const Box& shape, Texel* colors) const {
        const auto origin = origin_of(hatch_.placing, shape);
        const auto at =
            Vec{double{1} * from.x - origin.x - hatch_.offset.x, double{1} * from.y - origin.y - hatch_.offset.y};
        const auto first = dot(at, across_);
        for (int i = 0; i < count; ++i) put(laid(covered((first + i * across_.x) / hatch_.spacing)), colors[i]);
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
    for (const auto number : {spacing, width, angle.in_degrees(), offset.x, offset.y}) {
        if (!std::isfinite(number)) throw Error{"hatch: one of its numbers is not finite"};
    }
    check_placing("hatch", placing);
    if (spacing < 1) throw Error{"hatch: spacing is " + detail::in_digits(spacing) + "; allowed is 1 or more"};
    if (width <= 0) throw Error{"hatch: width is " + detail::in_digits(width) + "; allowed is more than 0"};
    return Ink{Ink::Source{detail::make_shared_value<HatchSource>(*this)}};
}

}  // namespace coldbrick::inline v0

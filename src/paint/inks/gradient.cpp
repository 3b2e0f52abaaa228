#include "coldbrick/gradient.hpp"

#include "geometry/limits.hpp"
#include "paint/inks/gradient_places.hpp"
#include "paint/inks/look_up.hpp"
#include "paint/inks/ramp.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <string>
#include <type_traits>

namespace coldbrick::inline v0 {

namespace {

using detail::ConicAxis;
using detail::Dithered;
using detail::far_length;
using detail::far_pixels;
using detail::LinearAxis;
using detail::part_length;
using detail::Places;
using detail::RadialAxis;
using detail::Ramp;
using detail::RowPart;
using detail::Vec;

void check_finite(std::string_view kind, std::string_view field, double value) {
    if (std::isfinite(value)) return;
    throw Error{std::string{kind} + ": " + std::string{field} + " is not finite; allowed are finite numbers"};
}

void check_place(std::string_view kind, std::string_view field, Position place) {
    check_finite(kind, std::string{field} + ".x", place.x);
    check_finite(kind, std::string{field} + ".y", place.y);
}

// How long a gradient may be, so that its steps are numbers wherever it is looked at.
constexpr auto least_length = 1e-9;
constexpr auto most_length = 1e15;

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

// Where each pixel of a row lies on the ramp; Axis computes it for a part of a row.
template <class Axis>
class GradientSource final : public detail::InkSource {
  public:
    GradientSource(Axis axis, const std::vector<Stop>& stops, Placing placing, Dither dither)
        : axis_{std::move(axis)}, ramp_{stops, dither}, placing_{placing}, dither_{dither} {}

    void fetch(Point from, int count, const Box& shape, Color* colors) const override {
        if (dither_ == Dither::ordered) return dither(from, count, shape, colors);
        fetch_from(ramp_.colors.data(), from, count, shape, colors);
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        fetch_from(ramp_.deep.data(), from, count, shape, colors);
    }
    [[nodiscard]] Color color_of_pixel(Point pixel, const Box& shape) const override {
        if constexpr (std::is_same_v<Axis, LinearAxis>) {
            if (dither_ == Dither::none) {
                return ramp_.colors[static_cast<std::size_t>(axis_.first_place(row_of(pixel, shape)))];
            }
        }
        return InkSource::color_of_pixel(pixel, shape);
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return ramp_.is_opaque; }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return placing_ == Placing::shape; }
    [[nodiscard]] int row_period() const noexcept override {
        if (!axis_.is_even_in_rows()) return 0;
        return dither_ == Dither::none ? 1 : 8;
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

    // Calls use(done, row) for one part of a row after the other.
    template <class Use>
    void each_part(Point from, int count, const Box& shape, const Use& use) const {
        auto row = row_of(from, shape);
        for (int done = 0; done < count; done += row.count, row.first += row.count) {
            auto length = std::int64_t{std::min(part_length, count - done)};
            for (const auto border : {-far_pixels, far_pixels}) {
                if (row.first < border) length = std::min(length, border - row.first);
            }
            row.count = static_cast<int>(length);
            use(done, row);
        }
    }

    template <class Texel>
    void fetch_from(const Texel* ramp, Point from, int count, const Box& shape, Texel* colors) const {
        each_part(from, count, shape, [&](int done, const RowPart& row) {
            if constexpr (std::is_same_v<Axis, LinearAxis>) {
                axis_.fetch(row, ramp, colors + done);
            } else {
                Places places;
                axis_.find(row, places);
                detail::look_up(ramp, places.data(), row.count, colors + done);
            }
        });
    }

    void dither(Point from, int count, const Box& shape, Color* colors) const {
        std::array<std::uint8_t, 8> thresholds;
        for (std::size_t i = 0; i < 8; ++i) {
            thresholds[i] =
                detail::dither_matrix[static_cast<unsigned>(from.y) & 7U][(static_cast<unsigned>(from.x) + i) & 7U];
        }
        const auto even = axis_.is_even_in_rows();
        const auto some = even ? std::min(count, 8) : count;
        each_part(from, some, shape, [&](int done, const RowPart& row) {
            std::array<Dithered, part_length> ramp;
            Places places;
            axis_.find(row, places);
            detail::look_up(ramp_.dithered_colors.data(), places.data(), row.count, ramp.data());
            std::array<std::uint8_t, 8> from_here;
            std::rotate_copy(thresholds.begin(), thresholds.begin() + done % 8, thresholds.end(), from_here.begin());
            detail::round_up(ramp.data(), from_here, row.count, colors + done);
        });
        // What is even in rows comes again after eight pixels.
        for (int i = some; i < count; ++i) colors[i] = colors[i - 8];
    }

    Axis axis_;
    Ramp ramp_;
    Placing placing_;
    Dither dither_;
};

template <class Axis>
Ink ink_of(Axis axis, const std::vector<Stop>& stops, Placing placing, Dither dither) {
    return Ink{Ink::Source{detail::make_shared_value<GradientSource<Axis>>(std::move(axis), stops, placing, dither)}};
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
    if (!(size >= least_length && size <= most_length)) {
        throw Error{"linear gradient: from and to are " + detail::in_digits(size) + " apart; allowed is " +
                    detail::in_digits(least_length) + " to " + detail::in_digits(most_length)};
    }
    check_choices(kind, spread, placing, dither);
    return ink_of(LinearAxis{from, to, spread}, stops, placing, dither);
}

RadialGradient::operator Ink() const {
    constexpr auto kind = "radial gradient";
    check_stops(kind, stops);
    check_place(kind, "center", center);
    check_finite(kind, "radius", radius);
    if (!(radius >= least_length && radius <= most_length)) {
        throw Error{"radial gradient: radius is " + detail::in_digits(radius) + "; allowed is " +
                    detail::in_digits(least_length) + " to " + detail::in_digits(most_length)};
    }
    check_choices(kind, spread, placing, dither);
    return ink_of(RadialAxis{center, radius, spread}, stops, placing, dither);
}

ConicGradient::operator Ink() const {
    constexpr auto kind = "conic gradient";
    check_stops(kind, stops);
    check_place(kind, "center", center);
    check_finite(kind, "from", from.in_degrees());
    check_choices(kind, Spread::pad, placing, dither);
    return ink_of(ConicAxis{center, from}, stops, placing, dither);
}

}  // namespace coldbrick::inline v0

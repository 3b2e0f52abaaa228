#include "paint/fast_rounds.hpp"

#include "geometry/limits.hpp"
#include "paint/fast_pixels.hpp"
#include "raster/strokes/ellipse_offset.hpp"
#include "raster/strokes/round_cover.hpp"
#include "raster/strokes/small_round.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

namespace {

// A box, and what its corners are cut to.
struct RoundPart {
    Box box;
    Vec corner;
};

// An upright round shape, if it is small enough.
std::optional<RoundPart> small_round_of(const AreaRef& area) noexcept {
    constexpr auto largest = SmallRound::largest;
    if (const auto* const circle = as<Circle>(area)) {
        const auto& [center, radius] = *circle;
        if (radius < 0 || 2 * std::int64_t{radius} >= largest) return std::nullopt;
        constexpr auto farthest = max_coordinate;
        if (center.x < -farthest || center.y < -farthest) return std::nullopt;
        const auto half = radius + 0.5;
        const auto side = 2 * radius + 1;
        return RoundPart{{.at = {.x = center.x - radius, .y = center.y - radius}, .size = {side, side}}, {half, half}};
    }
    const auto is_small = [](const Size& size) {
        return size.width > 0 && size.width <= largest && size.height > 0 && size.height <= largest;
    };
    if (const auto* const ellipse = as<Ellipse>(area)) {
        const auto& box = ellipse->box();
        if (!is_small(box.size) || ellipse->turn() != Angle{}) return std::nullopt;
        return RoundPart{box, {box.size.width / 2.0, box.size.height / 2.0}};
    }
    if (const auto* const rounded = as<RoundedBox>(area)) {
        const auto& [box, radius] = *rounded;
        if (!is_small(box.size)) return std::nullopt;
        if (radius < 0 || radius > std::min(box.size.width, box.size.height) / 2) return std::nullopt;
        return RoundPart{box, {double{1} * radius, double{1} * radius}};
    }
    return std::nullopt;
}

Box paint_smooth(const Surface& surface, Color color, const SmallRound& shape, Point at) {
    const SmallRoundSpans spans{shape, at};
    const auto word = word_of(surface, color);
    const auto for_each_whole = [&](const auto& use) {
        for (const auto& span : spans.all()) {
            if (span.each == nullptr) use(pixel_address(surface, span.x, span.y), span.length);
        }
    };
    if (const auto pixel_bytes = surface.kernel->pixel_bytes(); pixel_bytes == 4) {
        for_each_whole([&](std::uint8_t* pixels, int length) { write_pixels(word, pixels, length); });
    } else {
        auto pattern = pattern_of(surface, word);
        for_each_whole([&](std::uint8_t* pixels, int length) {
            pattern.write(pixels, static_cast<std::size_t>(length) * static_cast<std::size_t>(pixel_bytes));
        });
    }
    surface.kernel->cover(surface, spans.all(), color);
    return shape.covered(at);
}

// What reaches so far out of such a shape, and into it.
std::optional<RoundBand> small_band(const RoundPart& part, int out, int in) noexcept {
    const auto& [box, corner] = part;
    const auto [shorter, longer] = std::minmax(box.size.width, box.size.height);
    if (longer + 2 * out > SmallRound::largest || corner.x == 0) return std::nullopt;
    const auto is_circular = corner.x == corner.y;
    if (!is_circular && longer > thinnest_offset * shorter) return std::nullopt;
    const auto& [at, size] = box;
    const auto around = Box{.at = {.x = at.x - out, .y = at.y - out},
                            .size = {.width = size.width + 2 * out, .height = size.height + 2 * out}};
    const auto half = Vec{size.width / 2.0, size.height / 2.0};
    const auto edge_at = [&, corner = corner](int distance) {
        return is_circular ? edge_around(around, half, std::max(corner.x + distance, 0.0), distance)
                           : offset_edge(around, corner, distance);
    };
    return RoundBand{
        .box = around, .outer = edge_at(out), .inner = 2 * in < shorter ? std::optional{edge_at(-in)} : std::nullopt};
}

}  // namespace

bool is_usual_smooth_stroke(const Stroke& how) noexcept {
    const auto is_known = how.align == Align::center || how.align == Align::inside || how.align == Align::outside;
    return how.edge == Edge::smooth && how.dash.empty() && is_known && how.cap == Cap::flush &&
           how.join == Join::miter && how.miter_limit == Stroke{}.miter_limit && how.dash_offset == 0 &&
           how.width.is_whole() && how.width.pixels() >= 1 && how.width.pixels() <= SmallRound::largest;
}

std::optional<Box> paint_smooth_round(const Surface& surface, Color color, const AreaRef& area) {
    const auto round = small_round_of(area);
    if (!round || !is_inside(round->box, surface.window)) return std::nullopt;
    const auto& [box, corner] = *round;
    const auto& [width, height] = box.size;
    const auto is_circle = width == height && width <= largest_kept_circle && corner.x == width / 2.0;
    if (is_circle) return paint_smooth(surface, color, small_circle(box.size.width), box.at);
    return paint_smooth(surface, color, small_round(box.size, {.center = corner, .half_axes = corner}, nullptr),
                        box.at);
}

std::optional<Box> paint_smooth_ring(const Surface& surface, Color color, const AreaRef& area) {
    const auto& how = *area.stroke;
    if (color.alpha != 255 || surface.kernel->cover == nullptr || !is_usual_smooth_stroke(how)) return std::nullopt;
    const auto round = small_round_of(area);
    if (!round) return std::nullopt;
    const auto width = static_cast<int>(how.width.pixels());
    const auto out = how.align == Align::outside ? width : (how.align == Align::center ? width / 2 : 0);
    const auto band = small_band(*round, out, width - out);
    if (!band || !is_inside(band->box, surface.window)) return std::nullopt;
    return paint_smooth(surface, color, small_round(band->box.size, band->outer, band->inner ? &*band->inner : nullptr),
                        band->box.at);
}

}  // namespace coldbrick::inline v0::detail

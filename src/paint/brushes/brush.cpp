// What ink, compositing options and format decide.
#include "paint/brushes/brush.hpp"

#include "geometry/limits.hpp"
#include "paint/blending/blending.hpp"
#include "paint/blending/blending_rows.hpp"

#include "coldbrick/error.hpp"

#include <string>

namespace coldbrick::inline v0::detail {

namespace {

// The pixel that an ink of one colour, laid as usual, sets everywhere; nothing if it is not as simple.
std::optional<Pixel> single_pixel(const Target& target, const Ink& ink) {
    const auto is_channel = target.kernel->is_sparse && target.kernel->pixel_bits > 1;
    if (is_channel) return std::nullopt;
    if (const auto* const color = ink.plain_color()) {
        return color->alpha == 255 ? std::optional{encode(target, *color)} : std::nullopt;
    }
    const auto& how = ink.how();
    const auto is_usual =
        how.opacity == 1 && how.channels == Channels::all && (how.blend == Blend::over || how.blend == Blend::replace);
    // What is covered in part is mixed as light only where all colours are.
    const auto is_light = how.light == Light::linear && how.blend != Blend::replace;
    if (!is_usual || is_light) return std::nullopt;
    if (const auto* const color = ink.color()) {
        if (color->alpha != 255 && how.blend != Blend::replace) return std::nullopt;
        return encode(target, *color);
    }
    if (const auto* const entry = std::get_if<PaletteEntry>(&ink.of())) {
        const auto is_whole = palette_of(target)[static_cast<std::size_t>(entry->number)].alpha == 255;
        if (!is_whole && how.blend != Blend::replace) return std::nullopt;
        return Pixel{static_cast<std::uint8_t>(entry->number)};
    }
    const auto* const deep = std::get_if<Color16>(&ink.of());
    if (deep == nullptr || (deep->alpha != 65535 && how.blend != Blend::replace)) return std::nullopt;
    return encode(target, *deep);
}

// Whether an ink of one colour is laid source-over, and the format knows how to.
bool is_over(const Target& target, const Ink& ink) noexcept {
    if (ink.color() == nullptr || target.kernel->blend == nullptr) return false;
    auto how = ink.how();
    how.opacity = 1;
    return ink.is_usual() || how == Compositing{};
}

// Of an ink of one colour that is laid otherwise.
void choose_blending(const Target& target, Brush& brush) {
    const auto& kernel = *target.kernel;
    const auto is_single = brush.ink->color() != nullptr && brush.ink->how().blend != Blend::replace;
    if (is_single && (kernel.is_by_byte || kernel.is_indexed)) {
        brush.runs = Brush::Runs::bytes;
    } else if (const auto over = over_16_of(kernel, *brush.ink)) {
        brush.runs = Brush::Runs::over_16;
        brush.deep = *over;
    } else if (const auto lines = lines_16_of(kernel, *brush.ink)) {
        brush.runs = Brush::Runs::lines_16;
        brush.deep = *lines;
    } else if (is_single && !kernel.is_gray) {
        brush.runs = Brush::Runs::blended_bytes;
    }
}

// Of an ink of more colours.
void choose_for(const Target& target, const InkSource& source, Brush& brush) {
    const auto& kernel = *target.kernel;
    const auto& how = brush.ink->how();
    brush.is_placed = source.is_placed_in_shape();
    const auto takes_own = how.opacity == 1 && takes_all(how.channels, kernel.has_alpha);
    if (takes_own && source.is_opaque() && (how.blend == Blend::over || how.blend == Blend::replace)) {
        // Bytes of a pixel that are not its own stay as they are.
        const auto is_whole = !kernel.is_sparse;
        brush.period = is_whole ? source.row_period() : 0;
        brush.runs = Brush::Runs::stored;
        if (brush.period > 1) brush.runs = Brush::Runs::rounds;
        if (is_whole && (kernel.is_color || brush.period == 1)) brush.runs = Brush::Runs::direct;
        return;
    }
    const auto is_usual = how.opacity == 1 && how.blend == Blend::over && how.light == Light::encoded;
    if (is_usual && kernel.is_color && takes_all(how.channels, true)) brush.runs = Brush::Runs::over_colors;
}

}  // namespace

void check_ink(const Target& target, const Ink& ink) {
    const auto* const entry = std::get_if<PaletteEntry>(&ink.of());
    if (entry == nullptr) return;
    if (!target.kernel->is_indexed) {
        throw Error{"ink: palette entry " + std::to_string(entry->number) +
                    " is given for a buffer without palette; allowed are colours, or Index8 buffers"};
    }
    const auto last = static_cast<int>(palette_of(target).size()) - 1;
    if (entry->number < 0 || entry->number > last) refuse("ink", "palette entry", entry->number, 0, last);
}

Brush brush_for(const Target& target, const Ink& ink) {
    check_ink(target, ink);
    auto brush = Brush{.ink = &ink};
    if (const auto* const source = std::get_if<Ink::Source>(&ink.of())) {
        choose_for(target, **source, brush);
    } else if (const auto pixel = single_pixel(target, ink)) {
        brush.runs = Brush::Runs::pixel;
        brush.pixel = *pixel;
        brush.covers = target.kernel->cover != nullptr && ink.color() != nullptr && ink.how().blend != Blend::replace;
        if (brush.covers) brush.color = *ink.color();
    } else if (is_over(target, ink)) {
        brush.covers = ink.how().opacity == 1;
        brush.runs = brush.covers ? Brush::Runs::over : Brush::Runs::over_weakened;
        brush.color = weakened(*ink.color(), ink.how());
    } else {
        choose_blending(target, brush);
    }
    return brush;
}

Brushes::Brushes(const Target& target, const std::vector<Ink>& inks)
    : last_color_{Color{}}, last_{brush_for(target, last_color_)} {
    by_number.reserve(inks.size());
    for (const auto& ink : inks) by_number.push_back(brush_for(target, ink));
}

const Brush& Brushes::of(const Target& target, Color color) {
    if (*last_color_.color() == color) return last_;
    last_color_ = Ink{color};
    last_ = brush_for(target, last_color_);
    return last_;
}

}  // namespace coldbrick::inline v0::detail

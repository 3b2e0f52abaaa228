#include "drawing/close_observer.hpp"

#include "formats/kernels.hpp"
#include "paint/blending/blending.hpp"

#include <algorithm>
#include <variant>

namespace coldbrick::inline v0::detail {

LaidInk::LaidInk(const Surface& surface, const Ink& ink, const Box& shape)
    : surface_{surface}, ink_{ink}, shape_{shape} {
    if (const auto* const source = std::get_if<Ink::Source>(&ink.of())) source_ = source->get();
    const auto& how = ink.how();
    const auto& kernel = *surface.kernel;
    takes_all_ = takes_all(how.channels, kernel.has_alpha);
    replaces_ = how.blend == Blend::replace && how.opacity == 1;
    is_over_ = how.blend == Blend::over && how.opacity == 1;
    const auto is_invisible = how.opacity == 0 || how.channels == Channels::none ||
                              (!kernel.has_alpha && !has(how.channels, Channels::color));
    const auto alpha = source_ == nullptr ? single().alpha : std::uint8_t{255};
    is_transparent_ = is_invisible || (alpha == 0 && how.blend != Blend::replace);
    is_opaque_ = source_ == nullptr ? alpha == 255 : source_->is_opaque();
}

void LaidInk::colors(Point from, int count, std::vector<Color>& to) const {
    to.resize(static_cast<std::size_t>(count));
    if (source_ == nullptr) {
        std::fill(to.begin(), to.end(), single());
    } else {
        source_->fetch(from, count, shape_, to.data());
    }
}

Color LaidInk::single() const {
    if (const auto* const entry = std::get_if<PaletteEntry>(&ink_.of())) {
        return palette_of(surface_)[static_cast<std::size_t>(entry->number)];
    }
    if (const auto* const deep = std::get_if<Color16>(&ink_.of())) return narrowed(*deep);
    return *ink_.color();
}

}  // namespace coldbrick::inline v0::detail

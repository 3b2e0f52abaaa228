// Views without their type: what rasterised spans are painted on.
#pragma once

#include "coldbrick/color.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/shared.hpp"
#include "coldbrick/detail/target.hpp"
#include "coldbrick/formats.hpp"
#include "coldbrick/geometry.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/palette.hpp"

#include <cstddef>
#include <cstdint>
#include <initializer_list>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

struct Memory;
class Region;
class SmoothRegion;

namespace detail {

// Clips beside the box that is a target's window (detail/clips.hpp).
struct Clips;
// Of clips that there are.
const Region* mask_of(const Shared<Clips>& clips) noexcept;
const SmoothRegion* cover_of(const Shared<Clips>& clips) noexcept;

// An observer of the pixels that calls touch.
class Observer;

// A view without its type: what rasterised spans are painted on.
struct Surface : Target {
    Shared<Clips> clips = nullptr;
    Shared<KeptPalette> kept_palette = nullptr;  // if the view keeps it
    Observer* observer = nullptr;

    // If there is one, drawing touches only its pixels; is as weak as its pixels are covered.
    [[nodiscard]] const Region* mask() const noexcept { return clips ? mask_of(clips) : nullptr; }
    [[nodiscard]] const SmoothRegion* cover() const noexcept { return clips ? cover_of(clips) : nullptr; }
};

// The surface with its clip narrowed to a region too.
Surface masked(const Surface& surface, const Region& region);
Surface masked(const Surface& surface, const SmoothRegion& region);

// One channel of it, as gray. Throws Error if the format has no such channel in a byte or number of its own.
Surface channel_of(const Surface& surface, Channels channel);

// Whether drawing may touch the pixel.
bool contains(const Surface& surface, Point pixel) noexcept;

// Throws Error if the memory cannot be a buffer of pixels of that format.
Surface make_surface(const Memory& memory, const FormatKernel& kernel);

// Throw Error if the pixel lies outside the clip.
Color color_at(const Surface& surface, Point pixel);
Color16 color16_at(const Surface& surface, Point pixel);
std::uint8_t byte_at(const Surface& surface, Point pixel);

// The number of bytes of a bitmap. Throws Error if the size is empty or over the limit.
std::size_t bitmap_bytes(Size size, int pixel_bits);

// The size with these sides. Throws Error if they are not two.
Size size_of(std::initializer_list<int> sides);

void clear(const Surface& surface, Color color);

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick

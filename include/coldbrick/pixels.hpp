// coldbrick/pixels.hpp - a view of pixels in memory with another owner, and Bitmap, which owns its pixels.
//
//     Bitmap<Rgb8> chart{{720, 450}, 0x0b2239_rgb};              // new pixels, one colour
//     Pixels<Bgr8> frame{{.top_left = camera, .size = {640, 480}, .stride = 1984}};
//     fill(frame.within({.at = {10, 10}, .size = {200, 80}}), moon, gold);    // the same coordinates, clipped
//     Color below = chart.color_at({236, 148});
//
// A view is a pointer, a size and a stride; copy it freely. It must not outlive the memory, and drawing never touches
// a byte of that memory outside the pixels of the view's clip.
#pragma once

#include "coldbrick/color.hpp"
#include "coldbrick/detail/pixel_bytes.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/surface.hpp"
#include "coldbrick/formats.hpp"
#include "coldbrick/geometry.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/palette.hpp"

#include <concepts>
#include <cstddef>
#include <cstdint>
#include <initializer_list>
#include <optional>
#include <type_traits>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// The most bytes that a Bitmap may have (4 GiB); its width and height are also at most max_coordinate.
inline constexpr std::uint64_t max_bitmap_bytes = std::uint64_t{1} << 32U;

// Where the pixels of a buffer lie.
struct Memory {
    void* top_left = nullptr;  // the first byte of pixel (0, 0), which is shown at the top left
    Size size;                 // columns and rows, each from 1 to max_coordinate
    // Bytes from a pixel to the one below it. Negative where rows are stored from bottom to top; its magnitude is at
    // least the bytes of a row. Left out: rows follow each other without a gap.
    std::optional<std::ptrdiff_t> stride = std::nullopt;
};

// The same for pixels that are only read.
struct ConstMemory {
    const void* top_left = nullptr;
    Size size;
    std::optional<std::ptrdiff_t> stride = std::nullopt;
};

template <class Format>
requires PixelFormat<std::remove_const_t<Format>>
class Pixels;
template <PixelFormat Format>
class Bitmap;

namespace detail {

template <class Other, class Format>
concept WritableFormOf = std::is_const_v<Format> && std::is_same_v<Other, std::remove_const_t<Format>>;

template <class View>
[[noreturn]] inline void refuse_view() {
    static_assert(never<View>,
                  "this bitmap is gone at the end of the line, and a view of it dangles: give it a name first");
}

// How the library gets at the untyped side of views and bitmaps.
struct SurfaceAccess {
    template <class Format>
    static const Surface& of(const Pixels<Format>& pixels) noexcept {
        return pixels.surface_;
    }
    template <PixelFormat Format>
    static Surface of(const Bitmap<Format>& bitmap) noexcept {
        return bitmap.surface();
    }
    template <class Format>
    static Pixels<Format> view(const Surface& surface) noexcept {
        Pixels<Format> pixels;
        pixels.surface_ = surface;
        return pixels;
    }
    // Whose pixels are going to be set, all of them.
    template <PixelFormat Format>
    static Bitmap<Format> unset_bitmap(Size size) {
        return Bitmap<Format>{size, PixelBytes::Unset{}};
    }
};

}  // namespace detail

// A view of pixels: Pixels<Rgb8> to draw on, Pixels<const Rgb8> to read only.
template <class Format>
requires PixelFormat<std::remove_const_t<Format>>
class Pixels {
  public:
    using Layout = std::remove_const_t<Format>;

    // Throws Error if the pointer is null, the size is empty or beyond max_coordinate, or the stride is shorter than
    // a row or so large that rows lie beyond all memory.
    // Without a palette, the one of Index8 is palettes::quay().
    explicit Pixels(const Memory& memory) : surface_{detail::make_surface(memory, detail::kernel_of<Layout>())} {}
    explicit Pixels(const ConstMemory& memory) requires std::is_const_v<Format>
        : surface_{detail::make_surface(
              {.top_left = const_cast<void*>(memory.top_left), .size = memory.size, .stride = memory.stride},
              detail::kernel_of<Layout>())} {}

    // Numbers of colours in a palette, which the view keeps.
    Pixels(const Memory& memory, Palette palette) requires std::same_as<Layout, Index8> : Pixels{memory} {
        surface_.kept_palette = detail::make_shared_value<detail::KeptPalette>(std::move(palette));
        surface_.palette = &surface_.kept_palette->palette;
    }

    // A view to draw on is also a view to read.
    template <detail::WritableFormOf<Format> Other>
    Pixels(const Pixels<Other>& other) noexcept : surface_{detail::SurfaceAccess::of(other)} {}

    // Columns and rows of the whole buffer.
    [[nodiscard]] Size size() const noexcept { return surface_.size; }

    // The pixels that drawing may touch and reading may see; the whole buffer unless narrowed by within().
    [[nodiscard]] Box clip() const noexcept { return surface_.window; }

    // The same pixels under the same coordinates, clipped to the box too; a box outside leaves an empty clip.
    [[nodiscard]] Pixels within(const Box& box) const noexcept {
        auto narrowed = *this;
        narrowed.surface_.window = intersection(surface_.window, box);
        return narrowed;
    }

    // The same, drawing only on the pixels of a region too (region.hpp), which the view keeps. Reading a picture as a
    // whole goes by the box.
    [[nodiscard]] Pixels within(const Region& region) const {
        return detail::SurfaceAccess::view<Format>(detail::masked(surface_, region));
    }

    // The same, drawing as much as a region with smooth edges covers of each pixel (smooth_region.hpp).
    [[nodiscard]] Pixels within(const SmoothRegion& region) const {
        return detail::SurfaceAccess::view<Format>(detail::masked(surface_, region));
    }

    // The whole buffer as a box, in which (0, 0) is its upper left pixel.
    [[nodiscard]] Box box() const noexcept { return {.at = {}, .size = surface_.size}; }

    // Where the pixels lie, for other libraries: the first byte of pixel (0, 0), how many bytes it is from there to the
    // pixel below, and the first byte of a row, which must lie in the buffer.
    using Byte = std::conditional_t<std::is_const_v<Format>, const std::uint8_t, std::uint8_t>;
    [[nodiscard]] Byte* data() const noexcept { return surface_.top_left; }
    [[nodiscard]] std::ptrdiff_t stride() const noexcept { return surface_.stride; }
    [[nodiscard]] Byte* row(int y) const noexcept { return surface_.top_left + y * surface_.stride; }

    // Of Bit1: the bit of row(y)'s first byte in which its first pixel is, counted from the highest: 0, but for what
    // crop() gives.
    [[nodiscard]] int first_bit() const noexcept requires std::same_as<Layout, Bit1> { return surface_.first_bit; }

    // The colour of a pixel; opaque where the format has no alpha, in 8 bits where it has 16. Throws Error for one
    // outside the clip.
    [[nodiscard]] Color color_at(Point pixel) const { return detail::color_at(surface_, pixel); }

    // The same in 16 bits.
    [[nodiscard]] Color16 color16_at(Point pixel) const { return detail::color16_at(surface_, pixel); }

    // The number of a pixel's colour in the palette. Throws Error for one outside the clip.
    [[nodiscard]] PaletteEntry entry_at(Point pixel) const requires std::same_as<Layout, Index8> {
        return {.number = detail::byte_at(surface_, pixel)};
    }

    // The palette of an Index8 view.
    [[nodiscard]] const Palette& palette() const& requires std::same_as<Layout, Index8> {
        return surface_.palette ? *surface_.palette : palettes::quay();
    }
    [[nodiscard]] Palette palette() const&& requires std::same_as<Layout, Index8> { return palette(); }

  private:
    friend struct detail::SurfaceAccess;
    Pixels() noexcept = default;

    detail::Surface surface_;
};

// Pixels that it owns, row after row without gaps. A copy has pixels of its own. After a move the old one may only be
// assigned to or destroyed.
template <PixelFormat Format>
class Bitmap {
  public:
    // Without pixels, until it is assigned to: nothing can be drawn on it or read from it.
    Bitmap() noexcept = default;

    // All bytes zero: black, or transparent where there is alpha.
    // Throws Error if the size is empty, beyond max_coordinate, or over max_bitmap_bytes.
    explicit Bitmap(Size size) : size_{size}, bytes_{detail::bitmap_bytes(size, bits_per_pixel<Format>)} {}
    explicit Bitmap(int width, int height) : Bitmap{Size{.width = width, .height = height}} {}
    // The same: Bitmap<Rgb8>{640, 480}. Throws Error also if they are not two.
    explicit Bitmap(std::initializer_list<int> sides) : Bitmap{detail::size_of(sides)} {}

    // Numbers of colours in a palette, all of them 0.
    Bitmap(Size size, Palette palette) requires std::same_as<Format, Index8> : Bitmap{size} {
        palette_ = detail::make_shared_value<detail::KeptPalette>(std::move(palette));
    }
    Bitmap(Size size, Palette palette, Color ground) requires std::same_as<Format, Index8>
        : Bitmap{size, std::move(palette)} {
        detail::clear(surface(), ground);
    }

    // All pixels in one colour, which replaces: a translucent one gives translucent pixels where there is alpha.
    Bitmap(Size size, Color ground) : Bitmap{size, detail::PixelBytes::Unset{}} { detail::clear(surface(), ground); }

    [[nodiscard]] Size size() const noexcept { return size_; }
    [[nodiscard]] Box box() const noexcept { return {.at = {}, .size = size_}; }
    [[nodiscard]] bool empty() const noexcept { return size_ == Size{}; }

    // A bitmap is a view wherever one is asked for. Views are valid as long as the bitmap lives and is not assigned to:
    // a temporary one gives none.
    operator Pixels<Format>() & noexcept { return pixels(); }
    operator Pixels<const Format>() const& noexcept { return pixels(); }
    template <class View>
    requires std::same_as<View, Pixels<Format>> || std::same_as<View, Pixels<const Format>>
    operator View() const&& { detail::refuse_view<View>(); }

    // Views of all pixels.
    [[nodiscard]] Pixels<Format> pixels() & noexcept { return detail::SurfaceAccess::view<Format>(surface()); }
    [[nodiscard]] Pixels<const Format> pixels() const& noexcept {
        return detail::SurfaceAccess::view<const Format>(surface());
    }
    template <class View = Pixels<Format>>
    [[nodiscard]] View pixels() const&& {
        detail::refuse_view<View>();
    }

    // A view that draws only inside the box; see Pixels::within.
    [[nodiscard]] Pixels<Format> within(const Box& box) & noexcept { return pixels().within(box); }
    [[nodiscard]] Pixels<const Format> within(const Box& box) const& noexcept { return pixels().within(box); }

    [[nodiscard]] Pixels<Format> within(const Region& region) & { return pixels().within(region); }
    [[nodiscard]] Pixels<Format> within(const SmoothRegion& region) & { return pixels().within(region); }
    template <class Clip>
    [[nodiscard]] Pixels<Format> within(const Clip&) const&& {
        detail::refuse_view<Clip>();
    }

    [[nodiscard]] Color color_at(Point pixel) const { return detail::color_at(surface(), pixel); }
    [[nodiscard]] Color16 color16_at(Point pixel) const { return detail::color16_at(surface(), pixel); }

    [[nodiscard]] PaletteEntry entry_at(Point pixel) const requires std::same_as<Format, Index8> {
        return pixels().entry_at(pixel);
    }
    [[nodiscard]] const Palette& palette() const& requires std::same_as<Format, Index8> {
        return palette_ ? palette_->palette : palettes::quay();
    }
    [[nodiscard]] Palette palette() const&& requires std::same_as<Format, Index8> { return palette(); }

    // Another palette for the same numbers; views that were made before keep the old one. Numbers that it does not have
    // are transparent.
    void set_palette(Palette palette) requires std::same_as<Format, Index8> {
        palette_ = detail::make_shared_value<detail::KeptPalette>(std::move(palette));
    }

    // The bytes, row after row: size().height rows of row_bytes<Format>(size().width). A contiguous range with data()
    // and size(), which can be compared with another bitmap's.
    [[nodiscard]] const detail::PixelBytes& bytes() const& noexcept { return bytes_; }
    [[nodiscard]] detail::PixelBytes bytes() && noexcept { return std::move(bytes_); }

  private:
    friend struct detail::SurfaceAccess;

    // Pixels that are going to be set, all of them: without zeros before, but where bits may be left that belong to
    // none, as formats of one's own may have them too.
    Bitmap(Size size, detail::PixelBytes::Unset unset)
        : size_{size},
          bytes_{detail::BuiltInFormat<Format> && bits_per_pixel<Format> % 8 == 0
                     ? detail::PixelBytes{detail::bitmap_bytes(size, bits_per_pixel<Format>), unset}
                     : detail::PixelBytes{detail::bitmap_bytes(size, bits_per_pixel<Format>)}} {}

    [[nodiscard]] detail::Surface surface() const noexcept {
        return {{.top_left = const_cast<std::uint8_t*>(bytes_.data()),
                 .stride = row_bytes<Format>(size_.width),
                 .size = size_,
                 .window = {.at = {.x = 0, .y = 0}, .size = size_},
                 .kernel = &detail::kernel_of<Format>(),
                 .palette = palette_ ? &palette_->palette : nullptr},
                nullptr,
                palette_};
    }

    Size size_;
    detail::Shared<detail::KeptPalette> palette_;
    detail::PixelBytes bytes_;
};

namespace detail {

template <class T>
inline constexpr bool is_writable = false;
template <PixelFormat Format>
inline constexpr bool is_writable<Pixels<Format>> = true;
template <PixelFormat Format>
inline constexpr bool is_writable<Bitmap<Format>> = true;

template <class T>
inline constexpr bool is_readable = is_writable<T>;
template <PixelFormat Format>
inline constexpr bool is_readable<Pixels<const Format>> = true;

}  // namespace detail

namespace detail {

// Pixels that can be written to: a Bitmap that is not const, or a Pixels view that is not read-only.
template <class T>
concept PixelTarget = is_writable<std::remove_cvref_t<T>> &&
    (!std::is_const_v<std::remove_reference_t<T>> || requires(T view) { view.clip(); });

// What remembers drawing calls instead (drawing.hpp).
template <class T>
concept Recorder = requires(T&& target) {
    target.recorder();
};

}  // namespace detail

// What can be drawn on: a Bitmap that is not const, a Pixels view that is not read-only, or a Drawing.
template <class T>
concept Target = detail::PixelTarget<T> || detail::Recorder<T>;

// One channel of a buffer, as a view of its own that draws gray: Channels::red, green, blue or alpha, as the format has
// them. The other channels stay as they are. Throws Error for other channels.
template <PixelFormat Format>
[[nodiscard]] Pixels<Gray8> channel(const Pixels<Format>& view,
                                    Channels channel) requires detail::AnyOf<Format, Rgb8, Bgr8, Rgba8, Bgra8> {
    return detail::SurfaceAccess::view<Gray8>(detail::channel_of(detail::SurfaceAccess::of(view), channel));
}
template <PixelFormat Format>
[[nodiscard]] Pixels<Gray16> channel(const Pixels<Format>& view,
                                     Channels channel) requires std::same_as<Format, Rgba16> {
    return detail::SurfaceAccess::view<Gray16>(detail::channel_of(detail::SurfaceAccess::of(view), channel));
}
template <PixelFormat Format>
[[nodiscard]] auto channel(Bitmap<Format>& bitmap, Channels which) {
    return channel(bitmap.pixels(), which);
}
template <PixelFormat Format>
Pixels<Gray8> channel(const Bitmap<Format>&&, Channels) {
    detail::refuse_view<Format>();
}

namespace detail {

// What can be drawn on, or is given for it by mistake.
template <class T>
concept DrawnOn = coldbrick::Target<T> || is_readable<std::remove_cvref_t<T>>;

template <class T>
constexpr void check_is_target() noexcept {
    static_assert(coldbrick::Target<T>,
                  "a const Bitmap, and a view of const pixels, can only be read: drawing needs one that can "
                  "be written to");
}

}  // namespace detail

// What can be read: any bitmap or view. Reading sees the pixels of a view's clip.
template <class T>
concept Picture = detail::is_readable<std::remove_cvref_t<T>>;

}  // namespace v0
}  // namespace coldbrick

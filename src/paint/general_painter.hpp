// Blends any ink by any compositing options on pixels of any format.
#pragma once

#include "formats/kernels.hpp"
#include "formats/palette_numbers.hpp"
#include "formats/source_over.hpp"
#include "paint/blending.hpp"
#include "paint/transfer_curves.hpp"

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

#include <algorithm>
#include <optional>
#include <span>
#include <type_traits>
#include <variant>

namespace coldbrick::inline v0::detail {

// Whatever ink, however it is laid: pixels are taken out of the surface some hundreds at a time, laid on, and put back.
class GeneralPainter {
  public:
    GeneralPainter(const Surface& surface, const Ink& ink, const Box& shape)
        : surface_{surface},
          kernel_{*surface.kernel},
          ink_{ink},
          shape_{shape},
          blender_{.how = ink.how(), .has_alpha = kernel_.has_alpha, .is_gray = kernel_.is_gray} {
        if (const auto* const source = std::get_if<Ink::Source>(&ink.of())) source_ = source->get();
        const auto& how = ink.how();
        const auto lays_over = how.blend == Blend::over || how.blend == Blend::replace;
        is_plain_ = source_ != nullptr && source_->is_opaque() && how.opacity == 1 &&
                    takes_all(how.channels, kernel_.has_alpha) && lays_over;
        is_over_ = source_ != nullptr && !is_plain_ && kernel_.is_color && how.opacity == 1 &&
                   how.blend == Blend::over && how.light == Light::encoded && takes_all(how.channels, true);
        // Bytes of a pixel that are not its own stay as they are.
        if (is_plain_ && !kernel_.is_sparse) period_ = source_->row_period();
        is_direct_ = is_plain_ && !kernel_.is_sparse && (kernel_.is_color || period_ == 1);
    }

    [[nodiscard]] SpanSink sink() noexcept {
        const auto take = [](void* context, std::span<const Span> spans) {
            auto& painter = *static_cast<GeneralPainter*>(context);
            for (const auto& [y, x, length] : spans) {
                painter.paint({.y = y, .x = x, .length = length, .each = nullptr, .all = 255});
            }
        };
        const auto take_cover = [](void* context, std::span<const CoverSpan> spans) {
            for (const auto& span : spans) static_cast<GeneralPainter*>(context)->paint(span);
        };
        return {.context = this, .take = take, .repeats = Repeats::never, .take_cover = take_cover};
    }

  private:
    static constexpr int at_once = 256;
    // Texels that are set before they are looked at: setting all of them first would take longer than a small shape.
    template <class Texel>
    union Stretch {
        // NOLINTNEXTLINE(modernize-use-equals-default): a union of what has constructors has none of its own.
        Stretch() noexcept {}
        [[nodiscard]] Texel* data() noexcept { return all; }
        Texel all[at_once];
    };

    void paint(const CoverSpan& span) {
        const auto replaces = is_plain_ && span.each == nullptr && span.all == 255;
        if (replaces && is_direct_) return put_directly(span);
        if (replaces && period_ > 0 && span.length > period_) return put_rounds(span);
        paint_parts(span, replaces);
    }

    void paint_parts(const CoverSpan& span, bool replaces) {
        for (int done = 0; done < span.length; done += at_once) {
            auto part = span;
            part.x += done;
            part.length = std::min(at_once, span.length - done);
            if (part.each != nullptr) part.each += done;
            if (is_over_ && part.each == nullptr && part.all == 255) {
                lay_over(part);
                continue;
            }
            if (kernel_.load_deep != nullptr) {
                replaces ? put(part, deep_ink_, kernel_.store_deep)
                         : lay(part, deep_ink_, deep_below_, kernel_.load_deep, kernel_.store_deep);
            } else {
                replaces ? put(part, ink_colors_, store_) : lay(part, ink_colors_, below_, kernel_.load, store_);
            }
        }
    }

    // Colours that come again: those of the first round, and then their bytes, of twice as many rounds each time.
    void put_rounds(const CoverSpan& span) {
        auto first = span;
        first.length = period_;
        paint_parts(first, true);
        const auto pixel_bytes = static_cast<std::size_t>(kernel_.pixel_bytes());
        const auto all = static_cast<std::size_t>(span.length) * pixel_bytes;
        auto* const bytes = pixel_address(surface_, span.x, span.y);
        for (auto done = static_cast<std::size_t>(period_) * pixel_bytes; done < all;) {
            const auto more = std::min(done, all - done);
            std::memcpy(bytes + done, bytes, more);
            done += more;
        }
    }

    // Without a buffer: as one pixel over and over, or as colours that need no change.
    void put_directly(const CoverSpan& span) {
        auto* const pixels = pixel_address(surface_, span.x, span.y);
        const auto pixel_bytes = kernel_.pixel_bytes();
        const auto from = Point{.x = span.x, .y = span.y};
        if (period_ != 1) {
            // Pixels of four bytes in the order of a Color's members, as is_color says.
            static_assert(sizeof(Color) == 4 && std::is_trivially_copyable_v<Color>);
            source_->fetch(from, span.length, shape_, reinterpret_cast<Color*>(pixels));
            return;
        }
        PixelPattern pattern{pixel_at(from), pixel_bytes};
        pattern.write(pixels, static_cast<std::size_t>(span.length) * static_cast<std::size_t>(pixel_bytes));
    }

    // On pixels that are as colours are, and covered whole.
    void lay_over(const CoverSpan& part) {
        fetch(part, ink_colors_);
        blend_row(reinterpret_cast<const std::uint8_t*>(ink_colors_.data()), pixel_address(surface_, part.x, part.y),
                  static_cast<std::size_t>(part.length));
    }

    // The bytes of one pixel of the ink.
    [[nodiscard]] Pixel pixel_at(Point at) const {
        if (kernel_.load_deep != nullptr) {
            Color16 color;
            source_->fetch(at, 1, shape_, &color);
            return encode(surface_, color);
        }
        Color color;
        source_->fetch(at, 1, shape_, &color);
        return encode(surface_, color);
    }

    template <class Texel, class StoreTexels>
    void put(const CoverSpan& part, Stretch<Texel>& ink, StoreTexels&& store) {
        fetch(part, ink);
        store(surface_, ink.data(), part.length, {.x = part.x, .y = part.y});
    }

    template <class Texel, class Load, class StoreTexels>
    void lay(const CoverSpan& part, Stretch<Texel>& ink, Stretch<Texel>& below, Load load, StoreTexels&& store) {
        const auto first = Point{.x = part.x, .y = part.y};
        load(surface_, first, part.length, below.data());
        if constexpr (std::is_same_v<Texel, Color>) {
            if (lay_by_byte(part, below)) return store(surface_, below.data(), part.length, first);
        }
        fetch(part, ink);
        blender_.lay(ink.data(), {.each = part.each, .all = part.all}, part.length, below.data());
        store(surface_, below.data(), part.length, first);
    }

    // On opaque colours one colour is laid byte by byte, when enough of them have come. Says whether it was.
    bool lay_by_byte(const CoverSpan& part, Stretch<Color>& below) {
        const auto* const color = ink_.color();
        if (color == nullptr || blender_.is_gray || ink_.how().blend == Blend::replace) return false;
        if (part.each != nullptr || part.all != 255) return false;
        constexpr auto few = 64;
        if (!curves_ && laid_ + part.length <= few) {
            laid_ += part.length;
            return false;
        }
        auto* const bytes = reinterpret_cast<std::uint8_t*>(below.data());
        const auto count = static_cast<std::size_t>(part.length);
        if (!are_opaque(bytes, count)) return false;
        if (!curves_) {
            constexpr auto of_colors = Target{.top_left = nullptr,
                                              .stride = 0,
                                              .size = {},
                                              .window = {},
                                              .kernel = &rgba8_kernel,
                                              .palette = nullptr};
            curves_.emplace(of_colors, ink_.how(), *color);
        }
        (*curves_)(bytes, count * sizeof(Color));
        return true;
    }

    // Colours to pixels; those of a palette are remembered.
    struct Store {
        void operator()(const Surface& surface, const Color* colors, int count, Point first) {
            constexpr auto few = 512;  // setting up what remembers takes as long
            stored += count;
            if (surface.kernel != &index8_kernel || stored <= few) {
                return surface.kernel->store(surface, colors, count, first);
            }
            if (!numbers) numbers.emplace(palette_of(surface));
            numbers->find(colors, count, pixel_address<1>(surface, first));
        }
        std::int64_t stored = 0;
        std::optional<PaletteNumbers> numbers = std::nullopt;
    };

    template <class Texel>
    void fetch(const CoverSpan& part, Stretch<Texel>& ink) {
        if (source_ != nullptr) {
            source_->fetch({.x = part.x, .y = part.y}, part.length, shape_, ink.data());
        } else if (filled_ < part.length) {
            std::fill(ink.data() + filled_, ink.data() + part.length, single<Texel>());
            filled_ = part.length;
        }
    }

    // The one colour of the ink.
    template <class Texel>
    [[nodiscard]] Texel single() const {
        if (const auto* const entry = std::get_if<PaletteEntry>(&ink_.of())) {
            return as_texel<Texel>(palette_of(surface_)[static_cast<std::size_t>(entry->number)]);
        }
        if (const auto* const deep = std::get_if<Color16>(&ink_.of())) return as_texel<Texel>(*deep);
        return as_texel<Texel>(*ink_.color());
    }

    template <class Texel, class From>
    static Texel as_texel(From color) noexcept {
        if constexpr (std::is_same_v<Texel, From>) return color;
        if constexpr (std::is_same_v<Texel, Color16> && std::is_same_v<From, Color>) return widened(color);
        if constexpr (std::is_same_v<Texel, Color> && std::is_same_v<From, Color16>) return narrowed(color);
    }

    const Surface& surface_;
    const FormatKernel& kernel_;
    const Ink& ink_;
    Box shape_;
    Blender blender_;
    const InkSource* source_ = nullptr;
    bool is_plain_;   // whether the ink replaces what is below,
    bool is_direct_;  // and its pixels are written at once
    int period_ = 0;  // after how many pixels the bytes of a row come again; 0: never, or it does not replace
    bool is_over_;    // whether colours of its own are laid source-over, on pixels that are as colours are
    Store store_;
    int laid_ = 0;  // how many pixels, before it is worth while to find
    std::optional<TransferCurves> curves_;
    int filled_ = 0;  // how many of the ink's colours are set, if it has one only
    Stretch<Color> ink_colors_;
    Stretch<Color> below_;
    Stretch<Color16> deep_ink_;
    Stretch<Color16> deep_below_;
};

}  // namespace coldbrick::inline v0::detail

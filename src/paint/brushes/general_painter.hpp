// Blends any ink by any compositing options on pixels of any format.
#pragma once

#include "formats/kernels.hpp"
#include "formats/palette_numbers.hpp"
#include "formats/source_over.hpp"
#include "paint/blending/blending.hpp"
#include "paint/blending/transfer_curves.hpp"
#include "paint/brushes/brush.hpp"

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

#include <algorithm>
#include <optional>
#include <span>
#include <type_traits>
#include <variant>

namespace coldbrick::inline v0::detail {

// Whatever ink, however it is laid: most pixels are taken out of the surface some hundreds at a time, laid on, and put
// back; runs that are covered whole by the brush's own loop, where it has one.
class GeneralPainter {
  public:
    GeneralPainter(const Surface& surface, const Brush& brush) noexcept
        : surface_{surface},
          kernel_{*surface.kernel},
          brush_{brush},
          blender_{.how = brush.ink->how(), .has_alpha = kernel_.has_alpha, .is_gray = kernel_.is_gray},
          curves_{brush.curves} {
        if (const auto* const source = std::get_if<Ink::Source>(&brush.ink->of())) source_ = source->get();
    }

    // The box around the shape that comes next, if it matters to the ink.
    void set_shape(const Box& box) noexcept { shape_ = box; }

    [[nodiscard]] SpanSink sink() noexcept {
        const auto take = [](void* context, std::span<const Span> spans) {
            auto& painter = *static_cast<GeneralPainter*>(context);
            for (const auto& span : spans) painter.paint_run(span);
        };
        const auto take_over = [](void* context, std::span<const Span> spans) {
            const auto& painter = *static_cast<const GeneralPainter*>(context);
            painter.kernel_.blend(painter.surface_, spans, painter.brush_.color);
        };
        const auto take_cover = [](void* context, std::span<const CoverSpan> spans) {
            for (const auto& span : spans) static_cast<GeneralPainter*>(context)->paint(span);
        };
        return {.context = this,
                .take = brush_.runs == Brush::Runs::over_weakened ? +take_over : +take,
                .repeats = Repeats::never,
                .take_cover = take_cover};
    }

    // Of some spans, those that are covered in part.
    void paint_parts(std::span<const CoverSpan> spans) {
        for (const auto& span : spans) {
            if (span.each != nullptr || span.all != 255) paint(span);
        }
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
        if (span.each == nullptr && span.all == 255)
            return paint_run({.y = span.y, .x = span.x, .length = span.length});
        in_parts(span, [this](const CoverSpan& part) { blend(part); });
    }

    void paint_run(const Span& run) {
        using Runs = Brush::Runs;
        const auto span = CoverSpan{.y = run.y, .x = run.x, .length = run.length, .each = nullptr, .all = 255};
        const auto blend_all = [&] { in_parts(span, [this](const CoverSpan& part) { blend(part); }); };
        switch (brush_.runs) {
            case Runs::over_weakened:
                return kernel_.blend(surface_, {&run, 1}, brush_.color);
            case Runs::bytes:
                return change_bytes(span);
            case Runs::over_16:
                return std::get<Over16>(brush_.deep).lay(surface_, run) ? void() : blend_all();
            case Runs::lines_16:
                return std::get<Lines16>(brush_.deep).lay(surface_, run) ? void() : blend_all();
            case Runs::direct:
                return put_directly(span);
            case Runs::rounds:
                return put_rounds(span);
            case Runs::stored:
                return in_parts(span, [this](const CoverSpan& part) { put(part); });
            case Runs::over_colors:
                return in_parts(span, [this](const CoverSpan& part) { lay_over(part); });
            default:
                return blend_all();
        }
    }

    template <class Paint>
    void in_parts(const CoverSpan& span, const Paint& paint) {
        for (int done = 0; done < span.length; done += at_once) {
            auto part = span;
            part.x += done;
            part.length = std::min(at_once, span.length - done);
            if (part.each != nullptr) part.each += done;
            paint(part);
        }
    }

    // In the depth of the format.
    void put(const CoverSpan& part) {
        kernel_.load_deep != nullptr ? put(part, deep_ink_, kernel_.store_deep) : put(part, ink_colors_, store_);
    }
    void blend(const CoverSpan& part) {
        if (kernel_.load_deep != nullptr)
            return lay(part, deep_ink_, deep_below_, kernel_.load_deep, kernel_.store_deep);
        lay(part, ink_colors_, below_, kernel_.load, store_);
    }

    // One colour on pixels whose bytes change each by itself, once enough of them have come.
    void change_bytes(const CoverSpan& span) {
        // A palette's nearest colours have to be looked for, of all its numbers.
        const auto few = kernel_.is_indexed ? thresholds::few_for_numbers : thresholds::few_for_curves;
        if (!find_curves(surface_, span.length, few)) {
            return in_parts(span, [this](const CoverSpan& part) { blend(part); });
        }
        const auto pixel_bytes = static_cast<std::size_t>(kernel_.pixel_bytes());
        auto* const bytes = pixel_address(surface_, span.x, span.y);
        if (pixel_bytes < 4) return (*curves_)(bytes, static_cast<std::size_t>(span.length) * pixel_bytes);
        // Opaque pixels, and others, some at a time.
        constexpr auto stretch = 96;
        for (int done = 0; done < span.length; done += stretch) {
            auto part = span;
            part.x += done;
            part.length = std::min(stretch, span.length - done);
            auto* const some = bytes + static_cast<std::size_t>(done) * pixel_bytes;
            const auto count = static_cast<std::size_t>(part.length);
            are_opaque(some, count) ? (*curves_)(some, count * pixel_bytes) : blend(part);
        }
    }

    // Whether the curves are known. They are found when more than a few pixels have come.
    bool find_curves(const Target& of, int more, int few) {
        if (curves_ != nullptr) return true;
        if (seen_ + more <= few) {
            seen_ += more;
            return false;
        }
        curves_ = &own_curves_.emplace(of, brush_.ink->how(), *brush_.ink->color());
        return true;
    }

    // Colours that come again: those of the first round, and then their bytes, of twice as many rounds each time.
    void put_rounds(const CoverSpan& span) {
        const auto period = brush_.period;
        auto first = span;
        first.length = std::min(period, span.length);
        in_parts(first, [this](const CoverSpan& part) { put(part); });
        const auto pixel_bytes = static_cast<std::size_t>(kernel_.pixel_bytes());
        const auto all = static_cast<std::size_t>(span.length) * pixel_bytes;
        auto* const bytes = pixel_address(surface_, span.x, span.y);
        for (auto done = static_cast<std::size_t>(period) * pixel_bytes; done < all;) {
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
        if (brush_.period != 1) {
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
        constexpr auto colors = Target{
            .top_left = nullptr, .stride = 0, .size = {}, .window = {}, .kernel = &rgba8_kernel, .palette = nullptr};
        if (brush_.runs != Brush::Runs::blended_bytes || part.each != nullptr || part.all != 255) return false;
        if (!find_curves(colors, part.length, thresholds::few_for_curves)) return false;
        auto* const bytes = reinterpret_cast<std::uint8_t*>(below.data());
        const auto count = static_cast<std::size_t>(part.length);
        if (!are_opaque(bytes, count)) return false;
        (*curves_)(bytes, count * sizeof(Color));
        return true;
    }

    // Colours to pixels; those of a palette are remembered.
    struct Store {
        void operator()(const Surface& surface, const Color* colors, int count, Point first) {
            stored += count;
            if (!surface.kernel->is_indexed || stored <= thresholds::few_for_numbers) {
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
        if (const auto* const entry = std::get_if<PaletteEntry>(&brush_.ink->of())) {
            return as_texel<Texel>(palette_of(surface_)[static_cast<std::size_t>(entry->number)]);
        }
        if (const auto* const deep = std::get_if<Color16>(&brush_.ink->of())) return as_texel<Texel>(*deep);
        return as_texel<Texel>(*brush_.ink->color());
    }

    template <class Texel, class From>
    static Texel as_texel(From color) noexcept {
        if constexpr (std::is_same_v<Texel, From>) return color;
        if constexpr (std::is_same_v<Texel, Color16> && std::is_same_v<From, Color>) return widened(color);
        if constexpr (std::is_same_v<Texel, Color> && std::is_same_v<From, Color16>) return narrowed(color);
    }

    const Surface& surface_;
    const FormatKernel& kernel_;
    const Brush& brush_;
    Box shape_;
    Blender blender_;
    const InkSource* source_ = nullptr;
    Store store_;
    int seen_ = 0;  // how many pixels, before it is worth while to find the curves
    const TransferCurves* curves_;
    std::optional<TransferCurves> own_curves_;
    int filled_ = 0;  // how many of the ink's colours are set, if it has one only
    Stretch<Color> ink_colors_;
    Stretch<Color> below_;
    Stretch<Color16> deep_ink_;
    Stretch<Color16> deep_below_;
};

}  // namespace coldbrick::inline v0::detail

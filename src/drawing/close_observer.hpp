// Looks closely at what drawing calls do to pixels.
#pragma once

#include "paint/blending/blending_rows.hpp"
#include "paint/surfaces/observer.hpp"
#include "pictures/packed_copy.hpp"

#include "coldbrick/convert.hpp"
#include "coldbrick/ink.hpp"

#include <optional>
#include <span>
#include <vector>

namespace coldbrick::inline v0::detail {

// A picture's pixels, to be drawn on in its place.
class Scratch {
  public:
    explicit Scratch(const Surface& of) : copy_{of, of.size, kernel_for(*of.kernel)} {
        convert(whole(of), copy_.surface);
        copy_.surface.window = of.window;
        copy_.surface.clips = of.clips;
    }

    [[nodiscard]] Surface& surface() noexcept { return copy_.surface; }

  private:
    // The same format, as what is drawn depends on it, also where eight pixels share a byte.
    static const FormatKernel& kernel_for(const FormatKernel& kernel) noexcept {
        return kernel.pixel_bits == 1 ? kernel : packed_kernel(kernel);
    }
    static Surface whole(const Surface& of) {
        auto all = of;
        all.window = {.at = {}, .size = of.size};
        all.clips = nullptr;
        all.observer = nullptr;
        return all;
    }

    PackedCopy copy_;
};

// Asks an ink for its colours, and whether what is covered whole by it is covered completely.
class LaidInk {
  public:
    LaidInk(const Surface& surface, const Ink& ink, const Box& shape);

    // One of its colours as it is laid: with the opacity in its alpha.
    [[nodiscard]] Color laid(Color color) const noexcept { return weakened(color, ink_.how()); }

    // Of all pixels; false where it depends on the pixel.
    [[nodiscard]] bool covers_all() const noexcept { return takes_all_ && (replaces_ || (is_over_ && is_opaque_)); }
    [[nodiscard]] bool is_transparent() const noexcept { return is_transparent_; }

    // Whether the ink's alpha is needed to know what it does to a pixel.
    [[nodiscard]] bool depends_on_pixel() const noexcept {
        return source_ != nullptr && !is_opaque_ && !is_transparent_ && ink_.how().blend != Blend::replace;
    }
    [[nodiscard]] bool covers(Color color) const noexcept {
        return covers_all() || (takes_all_ && is_over_ && color.alpha == 255);
    }

    // Those of so many pixels of a row.
    void colors(Point from, int count, std::vector<Color>& to) const;

  private:
    [[nodiscard]] Color single() const;

    const Surface& surface_;
    Ink ink_;
    Box shape_;
    const InkSource* source_ = nullptr;
    bool takes_all_;
    bool replaces_;
    bool is_over_;
    bool is_opaque_;
    bool is_transparent_;
};

// A observer that looks at every pixel once.
class CloseObserver : public Observer {
  public:
    explicit CloseObserver(const Surface& surface) : surface_{surface} {}

    [[nodiscard]] Repeats repeats() const noexcept final { return Repeats::never; }
    void begin(const Ink& ink, const Box& shape) final { ink_.emplace(surface_, ink, shape); }
    void touched(std::span<const Span> spans) final {
        for (const auto& [y, x, length] : spans) look({.y = y, .x = x, .length = length, .each = nullptr, .all = 255});
    }
    void touched(std::span<const CoverSpan> spans) final {
        for (const auto& span : spans) {
            if (span.each == nullptr && span.all == 0) continue;
            look(span);
        }
    }
    // Come only where pixels may be reported twice.
    void touched_down(const Trace& /*by_row*/) final {}
    void touched_across(const Trace& /*by_column*/) final {}

  protected:
    virtual void look(const CoverSpan& span) = 0;

    [[nodiscard]] const LaidInk& ink() const noexcept { return *ink_; }
    [[nodiscard]] const Surface& surface() const noexcept { return surface_; }

    static int coverage(const CoverSpan& span, int i) noexcept {
        return span.each != nullptr ? span.each[i] : span.all;
    }

  private:
    const Surface& surface_;
    std::optional<LaidInk> ink_;
};

}  // namespace coldbrick::inline v0::detail

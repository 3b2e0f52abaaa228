#include "paint/surfaces/masks.hpp"

#include "formats/kernels.hpp"
#include "paint/surfaces/observer.hpp"
#include "raster/spans/record.hpp"

#include <algorithm>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// Passes on what of spans lies in a region, and keeps the box around it.
class MaskedReceiver {
  public:
    MaskedReceiver(const Region& region, const SpanSink& to) noexcept : region_{region}, to_{to} {}

    [[nodiscard]] SpanSink sink() noexcept {
        const auto take = [](void* context, std::span<const Span> spans) {
            static_cast<MaskedReceiver*>(context)->take(spans);
        };
        const auto take_cover = [](void* context, std::span<const CoverSpan> spans) {
            static_cast<MaskedReceiver*>(context)->take_parts(spans);
        };
        return {.context = this, .take = take, .repeats = to_.repeats, .take_cover = take_cover};
    }

    [[nodiscard]] const Box& touched() const noexcept { return touched_; }

  private:
    // Calls use(left, right) for what of a run lies in the region.
    template <class Use>
    void for_each_part(const Span& run, const Use& use) {
        if (run.y != row_y_ || row_.empty()) {
            row_ = region_.row(run.y);
            row_y_ = run.y;
        }
        const auto end = run.x + run.length;
        auto part =
            std::partition_point(row_.begin(), row_.end(), [&](const Span& of) { return of.x + of.length <= run.x; });
        for (; part != row_.end() && part->x < end; ++part) {
            const auto left = std::max(run.x, part->x);
            const auto right = std::min(end, part->x + part->length);
            touched_ = enclosing(touched_, Box{.at = {.x = left, .y = run.y}, .size = {right - left, 1}});
            use(left, right);
        }
    }

    void take(std::span<const Span> spans) {
        inside_.clear();
        for (const auto& run : spans) {
            for_each_part(
                run, [&](int left, int right) { inside_.push_back({.y = run.y, .x = left, .length = right - left}); });
        }
        if (!inside_.empty()) to_.take(to_.context, inside_);
    }

    void take_parts(std::span<const CoverSpan> spans) {
        parts_.clear();
        for (const auto& span : spans) {
            for_each_part({.y = span.y, .x = span.x, .length = span.length}, [&](int left, int right) {
                auto part = span;
                part.x = left;
                part.length = right - left;
                if (part.each != nullptr) part.each += left - span.x;
                parts_.push_back(part);
            });
        }
        if (!parts_.empty()) to_.take_cover(to_.context, parts_);
    }

    const Region& region_;
    SpanSink to_;
    std::span<const Span> row_;
    int row_y_ = 0;
    std::vector<Span> inside_;
    std::vector<CoverSpan> parts_;
    Box touched_;
};

// Passes on spans and coverage, weakened by what a smooth region covers.
class SmoothMaskedReceiver {
  public:
    SmoothMaskedReceiver(const SmoothRegion& region, const SpanSink& to) noexcept : region_{region}, to_{to} {}

    [[nodiscard]] SpanSink sink() noexcept {
        const auto take = [](void* context, std::span<const Span> spans) {
            for (const auto& [y, x, length] : spans) {
                static_cast<SmoothMaskedReceiver*>(context)->take(
                    {.y = y, .x = x, .length = length, .each = nullptr, .all = 255});
            }
        };
        const auto take_cover = [](void* context, std::span<const CoverSpan> spans) {
            for (const auto& span : spans) static_cast<SmoothMaskedReceiver*>(context)->take(span);
        };
        return {.context = this, .take = take, .repeats = Repeats::never, .take_cover = take_cover};
    }

    [[nodiscard]] const Box& touched() const noexcept { return touched_; }

  private:
    void take(const CoverSpan& span) {
        const auto row = region_.row(span.y);
        const auto end = span.x + span.length;
        auto part = std::partition_point(row.begin(), row.end(),
                                         [&](const SmoothRegion::Part& of) { return of.x + of.length <= span.x; });
        for (; part != row.end() && part->x < end; ++part) {
            const auto left = std::max(span.x, part->x);
            const auto right = std::min(end, part->x + part->length);
            hand_over(span, left, right, part->coverage);
        }
    }

    void hand_over(const CoverSpan& span, int left, int right, std::uint8_t coverage) {
        auto part = span;
        part.x = left;
        part.length = right - left;
        part.all = product_255(span.all, coverage);
        if (span.each != nullptr) {
            const auto* const first = span.each + (left - span.x);
            weakened_.assign(first, first + part.length);
            for (auto& of : weakened_) of = product_255(of, coverage);
            part.each = weakened_.data();
        }
        touched_ = enclosing(touched_, Box{.at = {.x = left, .y = span.y}, .size = {part.length, 1}});
        to_.take_cover(to_.context, {&part, 1});
    }

    const SmoothRegion& region_;
    SpanSink to_;
    std::vector<std::uint8_t> weakened_;
    Box touched_;
};

}  // namespace

namespace {

Box scan_narrowed(const Surface& surface, const AreaRef& area, const SpanSink& sink) {
    const auto scan_cut = [&](const SpanSink& to) {
        if (!surface.mask()) {
            scan(area, surface.window, to);
            return Box{};
        }
        MaskedReceiver masked{*surface.mask(), to};
        scan(area, surface.window, masked.sink());
        return masked.touched();
    };
    if (!surface.cover()) return scan_cut(sink);
    SmoothMaskedReceiver masked{*surface.cover(), sink};
    scan_cut(masked.sink());
    return masked.touched();
}

}  // namespace

namespace {

Box scan_clipped(const Surface& surface, const AreaRef& area, const SpanSink& sink) {
    if (!surface.mask() && !surface.cover()) return scan(area, surface.window, sink);
    // What a mask leaves takes memory while it is found.
    Record record{sink};
    const auto touched = scan_narrowed(surface, area, record.sink());
    record.replay();
    return touched;
}

}  // namespace

Box scan_observed(const Surface& surface, const AreaRef& area, const SpanSink& sink) {
    if (surface.observer == nullptr) return scan_clipped(surface, area, sink);
    Observed observed{sink, *surface.observer};
    return scan_clipped(surface, area, observed.sink());
}

}  // namespace coldbrick::inline v0::detail

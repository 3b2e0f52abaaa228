#include "pixels/masks.hpp"

#include "pixels/kernels.hpp"

#include <algorithm>
#include <array>
#include <limits>
#include <memory_resource>
#include <vector>

namespace coldbrick::detail {

namespace {

// Passes on what of spans lies in a region, and keeps the box around it.
class MaskedReceiver {
  public:
    MaskedReceiver(const Region& region, const SpanReceiver& to) noexcept : region_{region}, to_{to} {}

    [[nodiscard]] SpanReceiver receiver() noexcept {
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
    SpanReceiver to_;
    std::span<const Span> row_;
    int row_y_ = 0;
    std::vector<Span> inside_;
    std::vector<CoverSpan> parts_;
    Box touched_;
};

// Passes on spans and coverage, weakened by what a smooth region covers.
class SmoothMaskedReceiver {
  public:
    SmoothMaskedReceiver(const SmoothRegion& region, const SpanReceiver& to) noexcept : region_{region}, to_{to} {}

    [[nodiscard]] SpanReceiver receiver() noexcept {
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
    SpanReceiver to_;
    std::vector<std::uint8_t> weakened_;
    Box touched_;
};

}  // namespace

namespace {

// Keeps what is told until all of it has been, so that a scan that runs out of memory has painted nothing.
class Record {
  public:
    explicit Record(const SpanReceiver& to) noexcept : to_{to} {}

    // Of spans that cover whole pixels, a scan that is not masked has its memory before it tells the first one: they
    // may go through.
    [[nodiscard]] SpanReceiver receiver(bool keeps_spans) noexcept {
        auto own = SpanReceiver{.context = this, .take = pass_spans, .repeats = to_.repeats};
        if (keeps_spans) {
            own.take = keep_spans;
        } else {
            if (to_.take_down != nullptr) own.take_down = pass_down;
            if (to_.take_across != nullptr) own.take_across = pass_across;
        }
        if (to_.take_cover != nullptr) own.take_cover = keep_cover;
        return own;
    }

    void replay() {
        if (!spans_.empty()) to_.take(to_.context, spans_);
        constexpr std::size_t at_once = 64;
        std::array<CoverSpan, at_once> told;
        for (std::size_t i = 0; i < parts_.size();) {
            std::size_t count = 0;
            for (; i < parts_.size() && count < at_once; ++i, ++count) {
                const auto& [y, x, length, place, all] = parts_[i];
                told[count] = {y, x, length, place == alike ? nullptr : bytes_.data() + place, all};
            }
            to_.take_cover(to_.context, {told.data(), count});
        }
    }

  private:
    static Record& of(void* context) noexcept { return *static_cast<Record*>(context); }
    static void pass_spans(void* context, std::span<const Span> spans) {
        of(context).to_.take(of(context).to_.context, spans);
    }
    static void pass_down(void* context, const Trace& trace) {
        of(context).to_.take_down(of(context).to_.context, trace);
    }
    static void pass_across(void* context, const Trace& trace) {
        of(context).to_.take_across(of(context).to_.context, trace);
    }
    static void keep_spans(void* context, std::span<const Span> spans) {
        auto& kept = of(context).spans_;
        kept.insert(kept.end(), spans.begin(), spans.end());
    }
    static void keep_cover(void* context, std::span<const CoverSpan> spans) {
        auto& record = of(context);
        for (const auto& [y, x, length, each, all] : spans) {
            record.parts_.push_back({y, x, length, each != nullptr ? record.bytes_.size() : alike, all});
            if (each != nullptr) record.bytes_.insert(record.bytes_.end(), each, each + length);
        }
    }

    // As a CoverSpan; its bytes, which move while there come more of them, by their place.
    struct Part {
        int y;
        int x;
        int length;
        std::size_t place;
        std::uint8_t all;
    };
    static constexpr auto alike = std::numeric_limits<std::size_t>::max();

    SpanReceiver to_;
    std::array<std::byte, 8192> nearby_;  // small shapes need no other memory
    std::pmr::monotonic_buffer_resource memory_{nearby_.data(), nearby_.size()};
    std::vector<Span> spans_;
    std::pmr::vector<Part> parts_{&memory_};
    std::pmr::vector<std::uint8_t> bytes_{&memory_};
};

Box scan_narrowed(const Surface& surface, const AreaRef& area, const SpanReceiver& receiver) {
    const auto scan_cut = [&](const SpanReceiver& to) {
        if (!surface.mask) {
            area.scan(area.area, surface.clip, to);
            return Box{};
        }
        MaskedReceiver masked{*surface.mask, to};
        area.scan(area.area, surface.clip, masked.receiver());
        return masked.touched();
    };
    if (!surface.cover) return scan_cut(receiver);
    SmoothMaskedReceiver masked{*surface.cover, receiver};
    scan_cut(masked.receiver());
    return masked.touched();
}

}  // namespace

Box scan_masked(const Surface& surface, const AreaRef& area, const SpanReceiver& receiver) {
    const auto is_masked = surface.mask || surface.cover;
    if (!is_masked && receiver.take_cover == nullptr) return area.scan(area.area, surface.clip, receiver);
    Record record{receiver};
    const auto own = record.receiver(is_masked);
    const auto touched = is_masked ? scan_narrowed(surface, area, own) : area.scan(area.area, surface.clip, own);
    record.replay();
    return touched;
}

}  // namespace coldbrick::detail

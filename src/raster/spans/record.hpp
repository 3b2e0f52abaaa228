// Keeps what a scan reports.
#pragma once

#include "geometry/budget_memory.hpp"
#include "raster/spans/span_batch.hpp"

#include "coldbrick/detail/span_sink.hpp"

#include <array>
#include <limits>
#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// Buffers all that a scan reports, so that a scan that runs out of memory has painted nothing.
class Record {
  public:
    explicit Record(const SpanSink& to) noexcept : to_{to} {}

    [[nodiscard]] SpanSink sink() noexcept {
        auto own = SpanSink{.context = this, .take = keep_spans, .repeats = to_.repeats};
        if (to_.take_cover != nullptr) own.take_cover = keep_cover;
        return own;
    }

    void replay() {
        const UnaskedScope unasked;
        if (!spans_.empty()) to_.take(to_.context, spans_);
        constexpr std::size_t at_once = 64;
        std::array<CoverSpan, at_once> batch;
        for (std::size_t i = 0; i < parts_.size();) {
            std::size_t count = 0;
            for (; i < parts_.size() && count < at_once; ++i, ++count) {
                const auto& [y, x, length, place, all] = parts_[i];
                batch[count] = {y, x, length, place == alike ? nullptr : bytes_.data() + place, all};
            }
            to_.take_cover(to_.context, {batch.data(), count});
        }
    }

  private:
    static Record& of(void* context) noexcept { return *static_cast<Record*>(context); }
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

    SpanSink to_;
    std::array<std::byte, 8192> nearby_;  // small shapes need no other memory
    std::pmr::monotonic_buffer_resource memory_{nearby_.data(), nearby_.size(), counted_memory()};
    CountedVector<Span> spans_;
    std::pmr::vector<Part> parts_{&memory_};
    std::pmr::vector<std::uint8_t> bytes_{&memory_};
};

// Work that is done without asking the budget in between: some milliseconds.
inline constexpr std::uint64_t unasked_work = std::uint64_t{1} << 19U;

// Has scan(sink) report spans. If the thread has a budget and the work may take long, they are recorded first, so
// that a scan that meets a limit has drawn nothing; shorter ones do not check the budget in between.
template <class Scan>
Box scan_in_budget(std::uint64_t work, const SpanSink& to, const Scan& scan) {
    if (!has_budget()) return scan(to);
    if (work <= unasked_work) {
        spend_work(work);
        const UnaskedScope unasked;
        return scan(to);
    }
    Record record{to};
    const auto touched = scan(record.sink());
    record.replay();
    return touched;
}

// Has scan(sink) report spans in any order and with repeats, of a scan that takes no memory between them. Where
// repeats are harmless they go to the sink at once, else they are merged first.
template <class Scan>
Box scan_directly(std::uint64_t work, const SpanSink& sink, const Scan& scan) {
    if (sink.repeats == Repeats::harmless) return scan_in_budget(work, sink, scan);
    return scan_merged(sink, scan);
}

}  // namespace coldbrick::inline v0::detail

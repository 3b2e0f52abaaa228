#include "raster/spans/span_batch.hpp"

#include "geometry/budget_memory.hpp"

#include <algorithm>
#include <limits>

namespace coldbrick::inline v0::detail {

void SpanBatch::deliver() {
    if (count_ == 0) return;
    if (top_ == bottom_) top_ = spans_[0].y;
    bottom_ = spans_[count_ - 1].y + 1;
    sink_.take(sink_.context, {spans_, count_});
    count_ = 0;
}

SpanSink SpanMerger::sink() noexcept {
    const auto gather = [](void* context, std::span<const Span> spans) {
        auto& gathered = *static_cast<CountedVector<Span>*>(context);
        gathered.insert(gathered.end(), spans.begin(), spans.end());
    };
    return {.context = &spans_, .take = gather, .repeats = Repeats::harmless};
}

Box SpanMerger::pass_on(const SpanSink& sink) {
    sort_in_budget(spans_.begin(), spans_.end(),
                   [](const Span& a, const Span& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; });
    constexpr auto whole = Window{.left = std::numeric_limits<int>::min(),
                                  .top = std::numeric_limits<int>::min(),
                                  .right = std::numeric_limits<int>::max(),
                                  .bottom = std::numeric_limits<int>::max()};
    SpanBatch batch{whole, sink};
    for (auto run = spans_.begin(); run != spans_.end();) {
        const auto y = run->y;
        const auto left = run->x;
        auto right = left;
        for (; run != spans_.end() && run->y == y && run->x <= right; ++run) {
            right = std::max(right, run->x + run->length);
        }
        batch.add(y, left, right);
    }
    return batch.finish();
}

}  // namespace coldbrick::inline v0::detail

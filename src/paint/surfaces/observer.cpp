#include "paint/surfaces/observer.hpp"

namespace coldbrick::inline v0::detail {

SpanSink Observed::sink() noexcept {
    const auto is_repeating = to_.repeats == Repeats::harmless && observer_.repeats() == Repeats::harmless;
    SpanSink sink{.context = this,
                  .take =
                      [](void* context, std::span<const Span> spans) {
                          const auto& [to, observer] = *static_cast<Observed*>(context);
                          to.take(to.context, spans);
                          observer.touched(spans);
                      },
                  .repeats = is_repeating ? Repeats::harmless : Repeats::never};
    if (to_.take_cover != nullptr) {
        sink.take_cover = [](void* context, std::span<const CoverSpan> spans) {
            const auto& [to, observer] = *static_cast<Observed*>(context);
            to.take_cover(to.context, spans);
            observer.touched(spans);
        };
    }
    if (to_.take_box != nullptr) {
        sink.take_box = [](void* context, const Box& box) {
            const auto& [to, observer] = *static_cast<Observed*>(context);
            to.take_box(to.context, box);
            for_rows_of(box, [&, &reported = observer](std::span<const Span> rows) { reported.touched(rows); });
        };
    }
    if (is_repeating && to_.take_down != nullptr) {
        sink.take_down = [](void* context, const Trace& trace) {
            const auto& [to, observer] = *static_cast<Observed*>(context);
            to.take_down(to.context, trace);
            observer.touched_down(trace);
        };
    }
    if (is_repeating && to_.take_across != nullptr) {
        sink.take_across = [](void* context, const Trace& trace) {
            const auto& [to, observer] = *static_cast<Observed*>(context);
            to.take_across(to.context, trace);
            observer.touched_across(trace);
        };
    }
    return sink;
}

void report_box(const Surface& surface, const Box& box) {
    if (surface.observer == nullptr || box.empty()) return;
    for_rows_of(box, [&](std::span<const Span> rows) { surface.observer->touched(rows); });
}

}  // namespace coldbrick::inline v0::detail

#include "paint/witness.hpp"

namespace coldbrick::inline v0::detail {

SpanReceiver Witnessed::receiver() noexcept {
    const auto is_repeating = to_.repeats == Repeats::harmless && witness_.repeats() == Repeats::harmless;
    SpanReceiver receiver{.context = this,
                          .take =
                              [](void* context, std::span<const Span> spans) {
                                  const auto& [to, witness] = *static_cast<Witnessed*>(context);
                                  to.take(to.context, spans);
                                  witness.touched(spans);
                              },
                          .repeats = is_repeating ? Repeats::harmless : Repeats::never};
    if (to_.take_cover != nullptr) {
        receiver.take_cover = [](void* context, std::span<const CoverSpan> spans) {
            const auto& [to, witness] = *static_cast<Witnessed*>(context);
            to.take_cover(to.context, spans);
            witness.touched(spans);
        };
    }
    if (is_repeating && to_.take_down != nullptr) {
        receiver.take_down = [](void* context, const Trace& trace) {
            const auto& [to, witness] = *static_cast<Witnessed*>(context);
            to.take_down(to.context, trace);
            witness.touched_down(trace);
        };
    }
    if (is_repeating && to_.take_across != nullptr) {
        receiver.take_across = [](void* context, const Trace& trace) {
            const auto& [to, witness] = *static_cast<Witnessed*>(context);
            to.take_across(to.context, trace);
            witness.touched_across(trace);
        };
    }
    return receiver;
}

void tell_box(const Surface& surface, const Box& box) {
    if (surface.witness == nullptr || box.empty()) return;
    for_rows_of(box, [&](std::span<const Span> rows) { surface.witness->touched(rows); });
}

}  // namespace coldbrick::inline v0::detail

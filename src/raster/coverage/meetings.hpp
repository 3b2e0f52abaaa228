// What waits to happen to strands, by the height at which it does.
#pragma once

#include <cstdint>
#include <limits>
#include <memory_resource>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

inline constexpr auto waits_nowhere = std::numeric_limits<std::uint32_t>::max();

// A heap with one event for each strand at most: one comes before those at twice its place and one behind. A strand
// keeps the place of its event (waits_at).
template <class Strand>
class Meetings {
  public:
    struct Event {
        double y;
        Strand* strand;
        bool is_look;
    };

    explicit Meetings(std::pmr::memory_resource* memory) : heap_{memory} {}

    [[nodiscard]] bool empty() const noexcept { return heap_.empty(); }
    [[nodiscard]] const Event& first() const noexcept { return heap_.front(); }

    // In place of the strand's event, if it has one.
    void set(const Event& event) {
        auto& strand = *event.strand;
        if (strand.waits_at == waits_nowhere) {
            strand.waits_at = static_cast<std::uint32_t>(heap_.size());
            heap_.push_back(event);
        }
        put_at(event, strand.waits_at);
    }

    void forget(Strand& strand) {
        const auto at = std::exchange(strand.waits_at, waits_nowhere);
        if (at == waits_nowhere) return;
        const auto last = heap_.back();
        heap_.pop_back();
        if (last.strand != &strand) put_at(last, at);
    }

  private:
    // Puts one whose place is free up or down to where it belongs.
    void put_at(const Event& event, std::uint32_t at) {
        const auto put = [&](const Event& which, std::uint32_t where) {
            heap_[where] = which;
            which.strand->waits_at = where;
        };
        for (; at > 0 && heap_[(at - 1) / 2].y > event.y; at = (at - 1) / 2) put(heap_[(at - 1) / 2], at);
        const auto count = static_cast<std::uint32_t>(heap_.size());
        for (auto below = 2 * at + 1; below < count; below = 2 * at + 1) {
            if (below + 1 < count && heap_[below + 1].y < heap_[below].y) ++below;
            if (heap_[below].y >= event.y) break;
            put(heap_[below], at);
            at = below;
        }
        put(event, at);
    }

    std::pmr::vector<Event> heap_;
};

}  // namespace coldbrick::inline v0::detail

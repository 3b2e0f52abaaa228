#include "raster/span_sets.hpp"

#include <algorithm>
#include <limits>

namespace coldbrick::detail {

namespace {

// Goes along the ends of one set's spans: places at which it is entered or left, as (row, column) in one number.
class Ends {
  public:
    explicit Ends(const SpanSet& spans) noexcept : at_{spans.data()}, end_{spans.data() + spans.size()} {}

    // The next place, or the largest number after the last.
    [[nodiscard]] std::int64_t next() const noexcept {
        if (at_ == end_) return std::numeric_limits<std::int64_t>::max();
        return place(at_->y, std::int64_t{at_->x} + (inside_ ? at_->length : 0));
    }

    void advance() noexcept {
        if (inside_) ++at_;
        inside_ = !inside_;
    }

    [[nodiscard]] bool inside() const noexcept { return inside_; }

  private:
    static constexpr std::int64_t place(int y, std::int64_t x) noexcept { return (std::int64_t{y} << 32U) + x; }

    const Span* at_;
    const Span* end_;
    bool inside_ = false;
};

// The set whose pixels are those for which keep(in a, in b).
template <class Keep>
SpanSet combine(const SpanSet& a, const SpanSet& b, const Keep& keep) {
    SpanSet result;
    result.reserve(std::max(a.size(), b.size()));
    Ends in_a{a};
    Ends in_b{b};
    auto begun = std::int64_t{0};
    auto kept = false;
    constexpr auto finished = std::numeric_limits<std::int64_t>::max();
    for (auto place = std::min(in_a.next(), in_b.next()); place != finished;
         place = std::min(in_a.next(), in_b.next())) {
        // A set may be left and entered again in one place only at the turn of a row.
        while (in_a.next() == place) in_a.advance();
        while (in_b.next() == place) in_b.advance();
        const auto keeps = keep(in_a.inside(), in_b.inside());
        if (keeps == kept) continue;
        if (keeps) {
            begun = place;
        } else {
            const auto y = static_cast<int>((begun + (std::int64_t{1} << 31U)) >> 32U);
            const auto x = static_cast<int>(begun - (std::int64_t{y} << 32U));
            result.push_back({.y = y, .x = x, .length = static_cast<int>(place - begun)});
        }
        kept = keeps;
    }
    return result;
}

}  // namespace

SpanSet intersection_of(const SpanSet& a, const SpanSet& b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a && in_b; });
}

SpanSet difference_of(const SpanSet& a, const SpanSet& b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a && !in_b; });
}

SpanSet union_of(const SpanSet& a, const SpanSet& b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a || in_b; });
}

SpanSet symmetric_difference_of(const SpanSet& a, const SpanSet& b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a != in_b; });
}

Box box_around(std::span<const Span> spans) noexcept {
    if (spans.empty()) return {};
    auto left = spans.front().x;
    auto right = left;
    for (const auto& run : spans) {
        left = std::min(left, run.x);
        right = std::max(right, run.x + (run.length - 1));
    }
    return Box::between({.from = {.x = left, .y = spans.front().y}, .to = {.x = right, .y = spans.back().y}});
}

Box pass_on(const SpanSet& spans, const SpanReceiver& receiver) {
    if (!spans.empty()) receiver.take(receiver.context, spans);
    return box_around(spans);
}

}  // namespace coldbrick::detail

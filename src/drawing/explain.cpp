// What has become of a drawing's calls.
#include "coldbrick/explain.hpp"

#include "drawing/calls.hpp"
#include "drawing/close_observer.hpp"
#include "formats/kernels.hpp"

#include <algorithm>
#include <cstring>
#include <limits>
#include <map>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

std::size_t index_in(const Size& size, Point pixel) noexcept {
    return static_cast<std::size_t>(pixel.y) * static_cast<std::size_t>(size.width) + static_cast<std::size_t>(pixel.x);
}

// For each pixel the number, from 1, of the last call that covers it completely; 0 for none.
class CoverObserver final : public CloseObserver {
  public:
    explicit CoverObserver(const Surface& surface)
        : CloseObserver{surface}, last_(index_in(surface.size, {.x = 0, .y = surface.size.height})) {}

    void next_call() noexcept { ++number_; }
    [[nodiscard]] std::vector<std::uint32_t> take() noexcept { return std::move(last_); }

  private:
    void look(const CoverSpan& span) override {
        const auto all = ink().covers_all();
        if (!all && !ink().depends_on_pixel()) return;
        auto* const row = last_.data() + index_in(surface().size, {.x = span.x, .y = span.y});
        if (all && span.each == nullptr) {
            if (span.all == 255) std::fill_n(row, span.length, number_);
            return;
        }
        if (!all) ink().colors({.x = span.x, .y = span.y}, span.length, colors_);
        for (int i = 0; i < span.length; ++i) {
            if (coverage(span, i) != 255) continue;
            if (all || ink().covers(colors_[static_cast<std::size_t>(i)])) row[i] = number_;
        }
    }

    std::vector<std::uint32_t> last_;
    std::vector<Color> colors_;
    std::uint32_t number_ = 1;
};

// Compares what lies on a surface with what was there before, and keeps that up to date.
class Comparer {
  public:
    Comparer(const Surface& now, const Surface& before) : now_{now}, before_{before} {
        const auto& kernel = *now.kernel;
        const auto is_whole = kernel.pixel_bytes() > 0 && !kernel.is_sparse && kernel.pixel_bits != 1;
        bytes_ = is_whole && now.kernel == before.kernel && !kernel.is_indexed
                     ? static_cast<std::size_t>(kernel.pixel_bytes())
                     : 0;
    }

    // Calls use(i) for those of a span that have another colour now.
    template <class Use>
    void for_each_changed(const Span& span, const Use& use) {
        bytes_ != 0 ? by_bytes(span, use) : by_colors(span, use);
    }

  private:
    template <class Use>
    void by_bytes(const Span& span, const Use& use) const {
        const auto* const now = pixel_address(now_, span.x, span.y);
        auto* const before = pixel_address(before_, span.x, span.y);
        const auto all = static_cast<std::size_t>(span.length) * bytes_;
        if (std::memcmp(now, before, all) == 0) return;
        for (int i = 0; i < span.length; ++i) {
            const auto offset = static_cast<std::size_t>(i) * bytes_;
            if (std::memcmp(now + offset, before + offset, bytes_) != 0) use(i);
        }
        std::memcpy(before, now, all);
    }

    template <class Use>
    void by_colors(const Span& span, const Use& use) {
        const auto first = Point{.x = span.x, .y = span.y};
        const auto count = static_cast<std::size_t>(span.length);
        colors_now_.resize(count);
        colors_before_.resize(count);
        read_colors(now_, first, span.length, colors_now_.data());
        read_colors(before_, first, span.length, colors_before_.data());
        for (int i = 0; i < span.length; ++i) {
            const auto k = static_cast<std::size_t>(i);
            if (colors_now_[k] != colors_before_[k]) use(i);
        }
        write_colors(before_, colors_now_.data(), span.length, first);
    }

    const Surface& now_;
    const Surface& before_;
    std::size_t bytes_;  // of a pixel; 0: colours are compared
    std::vector<Color16> colors_now_;
    std::vector<Color16> colors_before_;
};

// Says of each call in how many pixels it is seen.
class SeenObserver final : public CloseObserver {
  public:
    SeenObserver(const Surface& surface, const Surface& before, const std::vector<std::uint32_t>& last_cover)
        : CloseObserver{surface}, last_cover_{last_cover}, compared_{surface, before}, layers_(last_cover.size()) {}

    [[nodiscard]] CallStory take(const Box& touched) {
        story_.box = touched;
        keep_greatest();
        if (story_.touched > 0) {
            const auto without = is_transparent_ ? Showing::transparent : Showing::unchanged;
            story_.showing = story_.seen > 0 ? Showing::seen : story_.changed > 0 ? Showing::covered : without;
        }
        is_transparent_ = true;
        ++number_;
        return std::exchange(story_, CallStory{});
    }

    [[nodiscard]] Bitmap<Gray16> layers() const {
        Bitmap<Gray16> shown{surface().size};
        std::memcpy(shown.pixels().row(0), layers_.data(), shown.bytes().size());
        return shown;
    }

  private:
    void look(const CoverSpan& span) override {
        count(span);
        if (is_transparent_) look_for_ink(span);
        const auto first = index_in(surface().size, {.x = span.x, .y = span.y});
        compared_.for_each_changed({.y = span.y, .x = span.x, .length = span.length}, [&](int i) {
            ++story_.changed;
            const auto last = last_cover_[first + static_cast<std::size_t>(i)];
            last <= number_ ? ++story_.seen : ++hidden_by_[last];
        });
    }

    void count(const CoverSpan& span) {
        constexpr auto most = std::numeric_limits<std::uint16_t>::max();
        auto* const row = layers_.data() + index_in(surface().size, {.x = span.x, .y = span.y});
        for (int i = 0; i < span.length; ++i) {
            if (coverage(span, i) == 0) continue;
            ++story_.touched;
            if (row[i] < most) ++row[i];
        }
    }

    void look_for_ink(const CoverSpan& span) {
        if (ink().is_transparent()) return;
        if (!ink().depends_on_pixel()) {
            is_transparent_ = false;
            return;
        }
        ink().colors({.x = span.x, .y = span.y}, span.length, colors_);
        is_transparent_ =
            std::all_of(colors_.begin(), colors_.end(), [](const Color& color) { return color.alpha == 0; });
    }

    // Those that cover the most.
    void keep_greatest() {
        for (const auto& [number, pixels] : hidden_by_) story_.covered_by.push_back({std::size_t{number} - 1, pixels});
        hidden_by_.clear();
        std::stable_sort(story_.covered_by.begin(), story_.covered_by.end(),
                         [](const auto& a, const auto& b) { return a.pixels > b.pixels; });
        if (story_.covered_by.size() > CallStory::most_told) story_.covered_by.resize(CallStory::most_told);
    }

    const std::vector<std::uint32_t>& last_cover_;
    Comparer compared_;
    std::vector<std::uint16_t> layers_;
    std::vector<Color> colors_;
    std::map<std::uint32_t, std::int64_t> hidden_by_;
    CallStory story_;
    bool is_transparent_ = true;
    std::uint32_t number_ = 1;
};

std::vector<std::uint32_t> last_covers(const Surface& surface, const DrawCalls& draw) {
    Scratch scratch{surface};
    CoverObserver observer{scratch.surface()};
    auto watched = scratch.surface();
    watched.observer = &observer;
    draw(watched, [&](std::size_t, const Box&) { observer.next_call(); });
    return observer.take();
}

// By how much a box reaches over the sides of another.
Margins reach_over(const Box& box, const Box& of) {
    if (box.empty() || of.empty()) return {};
    const auto over = [](int a, int b) {
        return static_cast<int>(std::clamp<std::int64_t>(std::int64_t{a} - b, 0, std::numeric_limits<int>::max()));
    };
    return {.left = over(of.at.x, box.at.x),
            .top = over(of.at.y, box.at.y),
            .right = over(box.last().x, of.last().x),
            .bottom = over(box.last().y, of.last().y)};
}

// Why a call touches no pixel.
Showing without_pixels(const RecordedCall& call, const Box& bounds, const Box& target) {
    if (bounds.empty()) return Showing::nothing;
    const auto clip = call.clip();
    const auto is_on_target = !intersection(bounds, target).empty();
    return clip && is_on_target ? Showing::clipped : Showing::outside;
}

}  // namespace

Explanation explain(const Drawing& drawing, const Surface& surface, const DrawCalls& draw) {
    const auto covers = last_covers(surface, draw);
    Scratch before{surface};
    SeenObserver observer{surface, before.surface(), covers};
    auto watched = surface;
    watched.observer = &observer;
    Explanation all;
    all.calls.reserve(drawing.size());
    draw(watched, [&](std::size_t number, const Box& touched) {
        auto story = observer.take(touched);
        const auto call = drawing[number];
        const auto target = Box{.at = {}, .size = surface.size};
        const auto bounds = call.bounds();
        if (story.touched == 0) story.showing = without_pixels(call, bounds, target);
        // A clear is everywhere.
        if (bounds != everything) story.over = reach_over(bounds, target);
        all.calls.push_back(std::move(story));
    });
    all.layers = observer.layers();
    return all;
}

Explanation explain_copy(const Drawing& drawing, const Surface& ground, const DrawCalls& draw) {
    Scratch scratch{ground};
    return explain(drawing, scratch.surface(), draw);
}

}  // namespace coldbrick::inline v0::detail

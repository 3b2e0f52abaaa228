// What happened to one pixel.
#include "drawing/close_observer.hpp"
#include "formats/kernels.hpp"
#include "paint/surfaces/masks.hpp"

#include "coldbrick/explain.hpp"

#include <optional>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// Keeps what a call does to one pixel.
class StoryObserver final : public CloseObserver {
  public:
    StoryObserver(const Surface& surface, Point pixel) : CloseObserver{surface}, pixel_{pixel} {}

    // What it has seen since it was asked before.
    [[nodiscard]] std::optional<PixelStep> take() noexcept { return std::exchange(step_, std::nullopt); }

  private:
    void look(const CoverSpan& span) override {
        if (span.y != pixel_.y || pixel_.x < span.x || pixel_.x - span.x >= span.length) return;
        const auto covered = coverage(span, pixel_.x - span.x);
        if (covered == 0) return;
        ink().colors(pixel_, 1, colors_);
        step_ = PixelStep{.coverage = covered, .ink = ink().laid(colors_[0]), .before = {}, .after = {}};
        step_->covers = covered == 255 && ink().covers(colors_[0]);
    }

    Point pixel_;
    std::vector<Color> colors_;
    std::optional<PixelStep> step_;
};

}  // namespace

PixelStory explain(const Drawing& drawing, const Surface& ground, Point pixel, const DrawCalls& draw) {
    check_seen("explain", ground, pixel);
    PixelStory story{.at = pixel, .ground = color_at(ground, pixel), .steps = {}};
    Scratch scratch{ground};
    auto& surface = scratch.surface();
    // All other pixels matter only to floods.
    if (!drawing.has_flood()) {
        surface.window = intersection(surface.window, {.at = pixel, .size = {.width = 1, .height = 1}});
    }
    StoryObserver observer{surface, pixel};
    auto watched = surface;
    watched.observer = &observer;
    auto before = decode_deep(surface, pixel);
    draw(watched, [&](std::size_t number, const Box&) {
        auto step = observer.take();
        if (!step) return;
        const auto after = decode_deep(surface, pixel);
        step->call = number;
        step->before = narrowed(before);
        step->after = narrowed(after);
        step->changes = before != after;
        before = after;
        story.steps.push_back(*step);
    });
    return story;
}

DrawCalls draw_calls(const Drawing& drawing) {
    return {&drawing, [](const void* of, const Surface& surface, const ReportTouched& report) {
                const auto& calls = *static_cast<const Drawing*>(of);
                CallRenderer renderer{calls, surface};
                for (std::size_t number = 0; number < calls.size(); ++number) report(number, renderer.draw(number));
            }};
}

}  // namespace coldbrick::inline v0::detail

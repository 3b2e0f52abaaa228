// coldbrick/explain.hpp - which call painted this pixel, and why is nothing of that one to be seen?
//
//     Drawing plan;                                          // drawn on instead of a bitmap
//     fill(plan, moon, gold);
//     const PixelStory story = explain(plan, chart, {236, 148});         // on a picture as it is before drawing
//     for (const PixelStep& step : story.steps) {
//         std::cout << plan[step.call].place().line << ": " << nearest_name(step.after) << '\n';
//     }
//     const Explanation all = explain(plan, chart);
//     if (all.calls[0].showing == Showing::covered) use(all.calls[0].covered_by.front().call);
//
//     Owners owners;                                         // the call on top of each pixel, found while drawing
//     render(plan, chart, owners);
//     if (const auto number = owners.at({236, 148})) use(plan[*number].place().line);
//
// A call touches a pixel if it covers some of it, inside its clip and on the target. It changes the pixel if that has
// another colour after than before. It covers it completely if the pixel's new colour does not depend on the old one:
// the pixel is covered whole by ink that is opaque there and laid source-over, or laid to replace, in all channels.
// A call is seen at a pixel that it changes and that no later call covers completely. docs/pixel-rules.md,
// "Explaining".
#pragma once

#include "coldbrick/compose.hpp"
#include "coldbrick/detail/function_ref.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/drawing.hpp"
#include "coldbrick/pixels.hpp"

#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {

class OwnerObserver;

// Draws all calls on a surface, and reports each, with the box that it touched.
using ReportTouched = FunctionRef<void(std::size_t number, const Box& touched)>;
using DrawCalls = FunctionRef<void(const Surface& surface, const ReportTouched& report)>;

}  // namespace detail

// For each pixel of a target, the number of the last call that touched it. Its memory, four bytes a pixel and a little
// more, is used again for a target of the same size.
class Owners {
  public:
    // Of the target that was drawn on.
    [[nodiscard]] Size size() const noexcept { return size_; }

    // Nothing where no call touched the pixel, and outside of the target.
    [[nodiscard]] std::optional<std::size_t> at(Point pixel) const noexcept {
        if (!contains(Box{.at = {}, .size = size_}, pixel)) return std::nullopt;
        const auto block = static_cast<std::size_t>(pixel.y) * blocks_in_row_ + static_cast<std::size_t>(pixel.x) / 16;
        const auto of_block = blocks_[block];
        const auto owner = of_block == mixed ? each_[block * 16 + static_cast<std::size_t>(pixel.x) % 16] : of_block;
        if (owner == 0) return std::nullopt;
        return std::size_t{owner} - 1;
    }

  private:
    friend class detail::OwnerObserver;

    // Numbers of calls from 1, of 16 pixels of a row together where they are alike; 0 for none.
    static constexpr std::uint32_t mixed = 0xffffffffU;
    Size size_;
    std::size_t blocks_in_row_ = 0;
    std::vector<std::uint32_t> blocks_;
    std::unique_ptr<std::uint32_t[]> each_;  // of blocks that are mixed
};

// What one call did to one pixel.
struct PixelStep {
    std::size_t call = 0;
    int coverage = 0;  // how much of the pixel it covers, clip considered, in 255ths; 1 or more
    Color ink;         // the colour of its ink there, its alpha times the opacity; in 8 bits
    Color before;      // the pixel's colour before and after it, in 8 bits
    Color after;
    bool changes = false;  // whether they differ, in the format's own bits
    bool covers = false;   // whether nothing of what is below is left
};

// What happened to one pixel: the calls that touched it, in the order in which they were made.
struct PixelStory {
    Point at;
    Color ground;  // its colour before the first of them
    std::vector<PixelStep> steps;
};

// What has become of a call. outside: it has pixels, none of them on the target. clipped: it has pixels on the target,
// none of them inside its clip. nothing: it has no pixel at all. transparent: its ink is, or its opacity is 0.
// unchanged: every pixel that it touches had the colour already. covered: later calls cover all that it changed.
enum class Showing { seen, outside, clipped, nothing, transparent, unchanged, covered };

struct CallStory {
    Showing showing = Showing::nothing;
    std::int64_t touched = 0;  // how many pixels it touches,
    std::int64_t changed = 0;  // changes,
    std::int64_t seen = 0;     // and is seen in
    Box box;                   // around the pixels that it touches

    // By how many columns and rows its own box, without its clip, reaches over the sides of the target.
    Margins over;

    // The calls that cover what it changed: the most_told of them that cover the most, in that order. A pixel counts
    // for the last call that covers it.
    struct Cover {
        std::size_t call;
        std::int64_t pixels;
    };
    static constexpr std::size_t most_told = 3;
    std::vector<Cover> covered_by;
};

// What has become of a drawing's calls, by their numbers, and how many calls touched each pixel, up to 65,535.
struct Explanation {
    std::vector<CallStory> calls;
    Bitmap<Gray16> layers;
};

namespace detail {

Box render_owned(const Drawing& drawing, const Surface& surface, Owners& owners, const DrawCalls& draw);
PixelStory explain(const Drawing& drawing, const Surface& ground, Point pixel, const DrawCalls& draw);
// Draws on the surface.
Explanation explain(const Drawing& drawing, const Surface& surface, const DrawCalls& draw);
// The same on a copy of it.
Explanation explain_copy(const Drawing& drawing, const Surface& ground, const DrawCalls& draw);
DrawCalls draw_calls(const Drawing& drawing);

}  // namespace detail

// Draws the calls, as render() does, and says which lies on top of each pixel. A drawing may have 2^32 - 3 calls.
template <detail::PixelTarget T>
Box render(const Drawing& drawing, T&& target, Owners& owners) {
    return detail::render_owned(drawing, detail::SurfaceAccess::of(target), owners, detail::draw_calls(drawing));
}

// Draws the calls, as render() does, and says what has become of each. It takes some three times as long, and memory
// for two copies of the target and six bytes for each of its pixels.
template <detail::PixelTarget T>
Explanation render_explained(const Drawing& drawing, T&& target) {
    return detail::explain(drawing, detail::SurfaceAccess::of(target), detail::draw_calls(drawing));
}

// The same without drawing: what would become of the calls on a picture as it is.
template <Picture P>
[[nodiscard]] Explanation explain(const Drawing& drawing, const P& ground) {
    return detail::explain_copy(drawing, detail::SurfaceAccess::of(ground), detail::draw_calls(drawing));
}

// The calls that would touch one pixel, and what they would do to it. Throws Error if it lies outside the picture.
template <Picture P>
[[nodiscard]] PixelStory explain(const Drawing& drawing, const P& ground, Point pixel) {
    return detail::explain(drawing, detail::SurfaceAccess::of(ground), pixel, detail::draw_calls(drawing));
}

// How often each pixel was touched, as a picture: black for never, then from blue through green and yellow to red
// for the pixels that were touched the most.
[[nodiscard]] Bitmap<Rgb8> overdraw_shown(const Explanation& of);

}  // namespace v0
}  // namespace coldbrick

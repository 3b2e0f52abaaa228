// coldbrick/drawing.hpp - a list of drawing calls: a target that remembers instead of painting.
//
//     Drawing plan;
//     fill  (plan, Circle{.center = {236, 148}, .radius = 34}, gold);             // as on a bitmap
//     stroke(plan.within(sky), mast, {.width = 3}, colors::white);                // clipped
//     fill  (plan.under(Transform{}.turn(5_deg)).tagged(7), shoal, teal);         // turned; with a number for it
//     render(plan, chart);                                                        // paints it all
//     render(plan, chart, {.threads = 0});                                        // the same pixels, on all processors
//     render(plan, chart.within({.at = {200, 100}, .size = {80, 60}}));           // a part of it, the same pixels
//     if (const auto number = topmost(plan, Point{236, 148})) use(plan[*number].place().line);
//
// Every call is kept with what it draws, how, in which ink, under which clip and transform, and with the place in the
// source that made it. What a call cannot mean is refused when it is made, as on a bitmap. Shapes and pictures are
// copied; what an ink refers to is shared. A simple call takes some 110 bytes.
#pragma once

#include "coldbrick/detail/call_recorder.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/figure.hpp"
#include "coldbrick/threads.hpp"

#include <concepts>
#include <cstddef>
#include <cstdint>
#include <optional>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// A drawing as seen under a clip, a transform, a tag: what is drawn on it goes into the drawing, which must outlive it.
class DrawingView {
  public:
    // The same, clipped to the pixels of a box, of a region, or as much as a region with smooth edges covers.
    [[nodiscard]] DrawingView within(const Box& box) const;
    [[nodiscard]] DrawingView within(const Region& region) const;
    [[nodiscard]] DrawingView within(const SmoothRegion& region) const;

    // The same, under a transform, which comes before those that it is under already. Clips stay where they are; of
    // gradients and patterns, too, the ink stays in the drawing's coordinates.
    [[nodiscard]] DrawingView under(const Transform& by) const;

    // The same clip and tag without a transform.
    [[nodiscard]] DrawingView unmoved() const {
        auto view = *this;
        view.by_ = Transform{};
        return view;
    }

    // Calls made through it have this number.
    [[nodiscard]] DrawingView tagged(std::uint64_t tag) const;

    [[nodiscard]] detail::CallRecorder recorder() const noexcept { return {*drawing_, clips_, by_, tag_}; }

  private:
    friend class Drawing;
    explicit DrawingView(Drawing& drawing) noexcept : drawing_{&drawing} {}

    Drawing* drawing_;
    std::uint32_t clips_ = 0;
    Transform by_;
    std::uint64_t tag_ = 0;
};

// One call of a drawing, to be asked; valid until the drawing is changed.
class RecordedCall {
  public:
    [[nodiscard]] const SourcePlace& place() const noexcept;
    [[nodiscard]] std::uint64_t tag() const noexcept;

    // What fills or strokes a shape, as it comes to lie, without its clip; nothing for a paste, a flood or a clear.
    [[nodiscard]] std::optional<Figure> figure() const;
    [[nodiscard]] Ink ink() const;

    // Of a paste, the first byte of the picture that is kept: the same for calls that share one. Null for others.
    [[nodiscard]] const void* picture() const noexcept;

    // The smallest box around the pixels that it would touch without its clip; of a flood the pixel where it begins, of
    // a clear a box of all coordinates.
    [[nodiscard]] Box bounds() const;

    // The box around its clip, if it has one.
    [[nodiscard]] std::optional<Box> clip() const;

    // Whether it would touch the pixel. What a flood would reach is not known: false.
    [[nodiscard]] bool contains(Point pixel) const;

  private:
    friend class Drawing;
    RecordedCall(const detail::Calls& calls, std::size_t number) noexcept : calls_{&calls}, number_{number} {}

    const detail::Calls* calls_;
    std::size_t number_;
};

// After a move the old one may only be assigned to or destroyed.
class Drawing {
  public:
    Drawing();
    Drawing(const Drawing& other);
    Drawing(Drawing&& other) noexcept;
    Drawing& operator=(const Drawing& other);
    Drawing& operator=(Drawing&& other) noexcept;
    ~Drawing();

    [[nodiscard]] DrawingView within(const Box& box) { return DrawingView{*this}.within(box); }
    [[nodiscard]] DrawingView within(const Region& region) { return DrawingView{*this}.within(region); }
    [[nodiscard]] DrawingView within(const SmoothRegion& region) { return DrawingView{*this}.within(region); }
    [[nodiscard]] DrawingView under(const Transform& by) { return DrawingView{*this}.under(by); }
    [[nodiscard]] DrawingView tagged(std::uint64_t tag) { return DrawingView{*this}.tagged(tag); }
    [[nodiscard]] detail::CallRecorder recorder() noexcept { return {*this, 0, Transform{}, 0}; }

    // How many calls it has, and each by its number, from 0, in the order in which they were made.
    [[nodiscard]] std::size_t size() const noexcept;
    [[nodiscard]] bool empty() const noexcept { return size() == 0; }
    [[nodiscard]] RecordedCall operator[](std::size_t number) const noexcept { return {*calls_, number}; }

    // Whether one of its calls looks at the target's pixels before it draws: a flood.
    [[nodiscard]] bool has_flood() const noexcept;

    // About how much memory it takes.
    [[nodiscard]] std::size_t bytes() const noexcept;

  private:
    friend class DrawingView;
    friend class detail::CallRecorder;
    friend class detail::CallRenderer;
    friend class detail::BandedCalls;
    friend Box bounds(const Drawing& drawing);

    detail::Calls* calls_;
};

// Draws the calls in turn on pixels, and calls report(number, box) for each with the box that it touched, empty where
// it touched nothing. Of a view, what lies in its clip is drawn: the same pixels as in the whole. Throws Error for an
// ink that the target cannot take, before anything is drawn; what comes up only where a call is seen, as with too many
// dashes, after the calls before have been drawn.
template <detail::PixelTarget T, class Report>
requires std::invocable<const Report&, std::size_t, const Box&>
void render(const Drawing& drawing, T&& target, const Report& report) {
    detail::CallRenderer renderer{drawing, detail::SurfaceAccess::of(target)};
    for (std::size_t number = 0; number < drawing.size(); ++number) report(number, renderer.draw(number));
}

// The same, and gives the box around all that was touched.
template <detail::PixelTarget T>
Box render(const Drawing& drawing, T&& target) {
    auto all = Box{};
    render(drawing, target, [&](std::size_t, const Box& touched) { all = enclosing(all, touched); });
    return all;
}

// The same on several threads, each of which draws some rows at a time with all calls that reach into them. Functions
// of one's own that are inks or shapes are then called on several threads at once. Throws Error for another number of
// threads than is allowed. A call that cannot be drawn where it is seen ends it when all rows have been gone through:
// what lies on top of it may have been drawn.
template <detail::PixelTarget T>
Box render(const Drawing& drawing, T&& target, const Threads& on) {
    return detail::render_in_bands(drawing, detail::SurfaceAccess::of(target), on.threads);
}

// The number of the last call that would touch the pixel; nothing if there is none.
[[nodiscard]] std::optional<std::size_t> topmost(const Drawing& drawing, Point pixel);

// The smallest box around the pixels that its calls would touch, clips considered; of floods and clears as their bounds
// are reported. Of a clip with smooth edges, a box that contains them.
[[nodiscard]] Box bounds(const Drawing& drawing);

}  // namespace v0
}  // namespace coldbrick

// coldbrick/drawing.hpp - a list of drawing calls: a target that remembers instead of painting.
//
//     Drawing plan;
//     fill  (plan, Circle{.center = {236, 148}, .radius = 34}, gold);             // as on a bitmap
//     stroke(plan.within(sky), mast, {.width = 3}, colors::white);                // clipped
//     fill  (plan.under(Transform{}.turn(5_deg)).tagged(7), shoal, teal);         // turned; with a number for it
//     render(plan, chart);                                                        // paints it all
//     render(plan, chart.within({.at = {200, 100}, .size = {80, 60}}));           // a part of it, the same pixels
//     if (const auto number = topmost(plan, Point{236, 148})) use(plan[*number].place().line);
//
// Every call is kept with what it draws, how, in which ink, under which clip and transform, and with the place in the
// source that made it. What a call cannot mean is refused when it is made, as on a bitmap. Shapes and pictures are
// copied; what an ink refers to is shared. A simple call takes some 120 bytes.
#pragma once

#include "coldbrick/compose.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/draw_each.hpp"
#include "coldbrick/figure.hpp"
#include "coldbrick/flood.hpp"
#include "coldbrick/smooth_region.hpp"

#include <cstdint>
#include <deque>
#include <memory>
#include <optional>
#include <variant>
#include <vector>

namespace coldbrick {

class Drawing;

namespace detail {

class CallRenderer;

// What clips a call.
struct CallClips {
    std::optional<Box> box = std::nullopt;
    std::shared_ptr<const Region> mask = nullptr;
    std::shared_ptr<const SmoothRegion> cover = nullptr;
};

// A picture that is kept, with the pixels that it has.
using SharedPicture = std::shared_ptr<const Surface>;

struct KeptPaste {
    SharedPicture picture;
    Paste how;
};

// Colours are kept as they are, other inks by number.
struct InkNumber {
    std::uint32_t number;
};

struct KeptCall {
    std::variant<ShapeValue, FloodFrom, std::shared_ptr<const KeptPaste>, Color> what;  // a colour: all pixels
    std::variant<Color, InkNumber> ink;
    std::uint32_t how = 0;
    std::uint32_t by = 0;
    std::uint32_t clips = 0;
    SourcePlace place;
    std::uint64_t tag = 0;
};

// Adds calls to a drawing, under clips and a transform.
class CallRecorder {
  public:
    CallRecorder(Drawing& drawing, std::uint32_t clips, const Transform& by, std::uint64_t tag) noexcept
        : drawing_{drawing}, clips_{clips}, by_{by}, tag_{tag} {}

    template <class Area>
    Box area(const Area& area, const Ink& ink, SourcePlace where) const {
        auto figure = Figure{area}.then(by_);
        const auto box = seen(bounds(figure));  // which checks it
        keep(std::move(figure), ink, where);
        return box;
    }
    void figure(const Figure& figure, const Ink& ink, SourcePlace where) const;
    Box clear(Color color, SourcePlace where) const;
    Box flood(const FloodFrom& from, const Ink& ink, SourcePlace where) const;
    Box paste(const Surface& picture, const Paste& how, const Transform& by, SourcePlace where) const;
    Box paste(SharedPicture picture, const Paste& how, const Transform& by, SourcePlace where) const;

  private:
    void keep(Figure figure, const Ink& ink, SourcePlace where) const;
    void add(KeptCall call, SourcePlace where) const;
    [[nodiscard]] Box seen(const Box& box) const;

    Drawing& drawing_;
    std::uint32_t clips_;
    Transform by_;
    std::uint64_t tag_;
};

}  // namespace detail

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

    // Calls made by way of it have this number.
    [[nodiscard]] DrawingView tagged(std::uint64_t tag) const;

    [[nodiscard]] detail::CallRecorder recorder() const noexcept { return {*drawing_, clips_, by_, tag_}; }

  private:
    friend class Drawing;
    explicit DrawingView(Drawing& drawing) noexcept : drawing_{&drawing} {}
    [[nodiscard]] DrawingView clipped(detail::CallClips clips) const;

    Drawing* drawing_;
    std::uint32_t clips_ = 0;
    Transform by_;
    std::uint64_t tag_ = 0;
};

// One call of a drawing, to be asked; valid until the drawing is changed.
class RecordedCall {
  public:
    [[nodiscard]] const SourcePlace& place() const noexcept { return call_->place; }
    [[nodiscard]] std::uint64_t tag() const noexcept { return call_->tag; }

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
    RecordedCall(const Drawing& drawing, const detail::KeptCall& call) noexcept : drawing_{&drawing}, call_{&call} {}

    const Drawing* drawing_;
    const detail::KeptCall* call_;
};

class Drawing {
  public:
    Drawing();

    [[nodiscard]] DrawingView within(const Box& box) { return DrawingView{*this}.within(box); }
    [[nodiscard]] DrawingView within(const Region& region) { return DrawingView{*this}.within(region); }
    [[nodiscard]] DrawingView within(const SmoothRegion& region) { return DrawingView{*this}.within(region); }
    [[nodiscard]] DrawingView under(const Transform& by) { return DrawingView{*this}.under(by); }
    [[nodiscard]] DrawingView tagged(std::uint64_t tag) { return DrawingView{*this}.tagged(tag); }
    [[nodiscard]] detail::CallRecorder recorder() noexcept { return {*this, 0, Transform{}, 0}; }

    // How many calls it has, and each by its number, from 0, in the order in which they were made.
    [[nodiscard]] std::size_t size() const noexcept { return calls_.size(); }
    [[nodiscard]] bool empty() const noexcept { return calls_.empty(); }
    [[nodiscard]] RecordedCall operator[](std::size_t number) const noexcept { return {*this, calls_[number]}; }

    // About how much memory it takes.
    [[nodiscard]] std::size_t bytes() const noexcept;

  private:
    friend class DrawingView;
    friend class RecordedCall;
    friend class detail::CallRecorder;
    friend Box bounds(const Drawing& drawing);
    friend class detail::CallRenderer;

    std::deque<detail::KeptCall> calls_;
    // What calls refer to by number; what several calls in turn have in common is kept once.
    std::vector<std::variant<Fill, Stroke>> hows_;
    std::vector<Ink> inks_;
    std::vector<Transform> transforms_;
    std::vector<detail::CallClips> clips_;
    std::size_t bytes_besides_ = 0;
};

namespace detail {

// Draws the calls of a drawing, which it keeps by reference, on a surface.
class CallRenderer {
  public:
    // Throws Error for an ink that the surface cannot take.
    CallRenderer(const Drawing& drawing, const Surface& surface);

    // Draws one call, and gives the box that was touched.
    Box draw(std::size_t number);

  private:
    const Drawing& drawing_;
    Surface surface_;
    Surface clipped_;
    std::uint32_t clipped_by_ = 0;
};

}  // namespace detail

// Draws the calls in turn on pixels, and calls tell(number, box) for each with the box that it touched, empty where it
// touched nothing. Of a view, what lies in its clip is drawn: the same pixels as in the whole. Throws Error for an ink
// that the target cannot take, before anything is drawn; what comes up only where a call is seen, as with too many
// dashes, after the calls before have been drawn.
template <detail::PixelTarget T, class Tell>
void render(const Drawing& drawing, T&& target, const Tell& tell) {
    detail::CallRenderer renderer{drawing, detail::SurfaceAccess::of(target)};
    for (std::size_t number = 0; number < drawing.size(); ++number) tell(number, renderer.draw(number));
}

// The same, and gives the box around all that was touched.
template <detail::PixelTarget T>
Box render(const Drawing& drawing, T&& target) {
    auto all = Box{};
    render(drawing, target, [&](std::size_t, const Box& touched) { all = enclosing(all, touched); });
    return all;
}

// The number of the last call that would touch the pixel; nothing if there is none.
[[nodiscard]] std::optional<std::size_t> topmost(const Drawing& drawing, Point pixel);

// The smallest box around the pixels that its calls would touch, clips considered; of floods and clears as their bounds
// are told. Of a clip with smooth edges, a box that contains them.
[[nodiscard]] Box bounds(const Drawing& drawing);

}  // namespace coldbrick

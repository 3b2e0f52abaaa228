// Drawings to pixels, and what is asked of them.
#include "drawing/calls.hpp"
#include "paint/brushes/brush.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/draw_each.hpp"

#include <optional>
#include <variant>

namespace coldbrick::inline v0 {

namespace detail {

namespace {

Surface clipped(const Surface& surface, const CallClips& clips) {
    auto narrowed = surface;
    if (clips.box) narrowed.window = intersection(surface.window, *clips.box);
    if (clips.shapes && clips.shapes->mask) narrowed = masked(narrowed, *clips.shapes->mask);
    if (clips.shapes && clips.shapes->cover) narrowed = masked(narrowed, *clips.shapes->cover);
    return narrowed;
}

const KeptPaste* paste_of(const KeptCall& call) noexcept {
    const auto* const paste = std::get_if<Shared<KeptPaste>>(&call.what);
    return paste != nullptr ? paste->get() : nullptr;
}

bool has_shape(const KeptCall& call) noexcept { return std::holds_alternative<ShapeValue>(call.what); }

Box draw_call(const Calls& calls, const KeptCall& call, const Surface& surface, Brushes& brushes) {
    if (has_shape(call)) {
        const auto area = calls.area_of(call);
        if (const auto* const number = std::get_if<InkNumber>(&call.ink)) {
            return paint(surface, brushes.by_number[number->number], area);
        }
        return brushes.paint(surface, std::get<Color>(call.ink), area);
    }
    if (const auto* const flood = std::get_if<FloodFrom>(&call.what)) {
        return fill_flood(surface, *flood, calls.ink_of(call));
    }
    if (const auto* const paste = paste_of(call)) {
        return detail::paste(surface, paste->picture->surface, paste->how, calls.transforms[call.by]);
    }
    clear(surface, std::get<Color>(call.what));
    return surface.window;
}

}  // namespace

Box CallClips::bounds() const noexcept {
    auto around = box.value_or(everything);
    if (shapes && shapes->mask) around = intersection(around, shapes->mask->bounds());
    if (shapes && shapes->cover) around = intersection(around, shapes->cover->bounds());
    return around;
}

bool CallClips::contains(Point pixel) const noexcept {
    if (box && !coldbrick::contains(*box, pixel)) return false;
    if (!shapes) return true;
    if (shapes->mask && !shapes->mask->contains(pixel)) return false;
    return !shapes->cover || shapes->cover->coverage_at(pixel) > 0;
}

AreaRef Calls::area_of(const KeptCall& call) const noexcept {
    const auto& how = hows[call.how];
    return {.shape = std::get_if<ShapeValue>(&call.what)->ref(),
            .fill = std::get_if<Fill>(&how),
            .stroke = std::get_if<Stroke>(&how),
            .by = &transforms[call.by]};
}

Ink Calls::ink_of(const KeptCall& call) const {
    if (const auto* const color = std::get_if<Color>(&call.what)) return *color;
    if (const auto* const number = std::get_if<InkNumber>(&call.ink)) return inks[number->number];
    return std::get<Color>(call.ink);
}

Box Calls::outer_bounds_of(const KeptCall& call) const {
    const auto around = clips[call.clips].bounds();
    return intersection(around, has_shape(call) ? detail::outer_bounds_of(area_of(call)) : bounds_of(call));
}

Box Calls::bounds_of(const KeptCall& call) const {
    if (has_shape(call)) return detail::bounds_of(area_of(call));
    if (const auto* const flood = std::get_if<FloodFrom>(&call.what)) {
        return {.at = flood->from, .size = {.width = 1, .height = 1}};
    }
    if (const auto* const paste = paste_of(call)) {
        return pasted_box(paste->picture->surface, paste->how, transforms[call.by]);
    }
    return everything;
}

CallRenderer::CallRenderer(const Drawing& drawing, const Surface& surface)
    : calls_{*drawing.calls_}, surface_{surface}, clipped_{surface}, brushes_{new Brushes{surface, calls_.inks}} {}

CallRenderer::~CallRenderer() { delete brushes_; }

void CallRenderer::look_at(const Surface& surface) {
    surface_ = surface;
    clipped_ = surface;
    clipped_by_ = 0;
}

Box CallRenderer::draw(std::size_t number) {
    // The pixels of the call before are paid for now: a call that has begun ends.
    constexpr auto pixels_of_step = 16U;
    const auto& [width, height] = touched_.size;
    const auto pixels =
        static_cast<std::uint64_t>(std::max(width, 0)) * static_cast<std::uint64_t>(std::max(height, 0));
    spend_work(pixels / pixels_of_step + pixels_of_step);
    const auto& call = calls_.list[number];
    if (call.clips != clipped_by_) {
        clipped_ = clipped(surface_, calls_.clips[call.clips]);
        clipped_by_ = call.clips;
    }
    return touched_ = draw_call(calls_, call, clipped_, *brushes_);
}

}  // namespace detail

const SourcePlace& RecordedCall::place() const noexcept { return calls_->list[number_].place; }

std::uint64_t RecordedCall::tag() const noexcept { return calls_->list[number_].tag; }

std::optional<Figure> RecordedCall::figure() const {
    const auto& call = calls_->list[number_];
    const auto* const shape = std::get_if<detail::ShapeValue>(&call.what);
    if (shape == nullptr) return std::nullopt;
    return detail::FigureParts::figure(*shape, calls_->hows[call.how], calls_->transforms[call.by]);
}

Ink RecordedCall::ink() const { return calls_->ink_of(calls_->list[number_]); }

const void* RecordedCall::picture() const noexcept {
    const auto* const paste = detail::paste_of(calls_->list[number_]);
    return paste != nullptr ? paste->picture->surface.top_left : nullptr;
}

Box RecordedCall::bounds() const { return calls_->bounds_of(calls_->list[number_]); }

std::optional<Box> RecordedCall::clip() const {
    const auto clips = calls_->list[number_].clips;
    if (clips == 0) return std::nullopt;
    return calls_->clips[clips].bounds();
}

bool RecordedCall::contains(Point pixel) const {
    const auto& call = calls_->list[number_];
    if (!calls_->clips[call.clips].contains(pixel)) return false;
    if (std::holds_alternative<FloodFrom>(call.what)) return false;
    if (std::holds_alternative<Color>(call.what)) return true;
    if (detail::has_shape(call)) return coldbrick::contains(calls_->area_of(call), pixel);
    // Of a picture that is turned, what lies under it, and not the box around that.
    const auto& paste = *detail::paste_of(call);
    const auto box = Box{.at = paste.how.at, .size = paste.picture->surface.window.size};
    const auto& by = calls_->transforms[call.by];
    if (by.is_identity()) return coldbrick::contains(box, pixel);
    return coldbrick::contains(transformed(filled(box, {.edge = Edge::smooth}), by), pixel);
}

std::optional<std::size_t> topmost(const Drawing& drawing, Point pixel) {
    for (auto number = drawing.size(); number-- > 0;) {
        if (drawing[number].contains(pixel)) return number;
    }
    return std::nullopt;
}

Box bounds(const Drawing& drawing) {
    const auto& calls = *drawing.calls_;
    auto all = Box{};
    for (const auto& call : calls.list) {
        const auto& clips = calls.clips[call.clips];
        auto seen = intersection(calls.bounds_of(call), clips.bounds());
        if (call.clips != 0 && detail::has_shape(call)) {
            const auto area = calls.area_of(call);
            const auto* const mask = clips.shapes ? clips.shapes->mask.get() : nullptr;
            seen = mask != nullptr ? intersection(Region{area, seen}, *mask).bounds()
                                   : for_each_span(area, seen, [](const Span&) {});
        }
        all = enclosing(all, seen);
    }
    return all;
}

}  // namespace coldbrick::inline v0

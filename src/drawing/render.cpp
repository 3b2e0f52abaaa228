// Drawings to pixels, and what is asked of them.
#include "coldbrick/drawing.hpp"
#include "coldbrick/error.hpp"

namespace coldbrick {

namespace {

using detail::AreaRef;
using detail::KeptCall;
using detail::KeptPaste;
using detail::Surface;

// A call's parts, by the tables of its drawing.
struct Tables {
    const std::vector<std::variant<Fill, Stroke>>& hows;
    const std::vector<Ink>& inks;
    const std::vector<Transform>& transforms;
    const std::vector<detail::CallClips>& clips;
};

constexpr Box everything = Box::between(
    {.from = {.x = -max_coordinate, .y = -max_coordinate}, .to = {.x = max_coordinate, .y = max_coordinate}});

AreaRef area_of(const Tables& tables, const KeptCall& call) {
    AreaRef area{.shape = {}, .how = &detail::usual_fill, .by = &tables.transforms[call.by]};
    std::visit([&](const auto& how) { area.how = &how; }, tables.hows[call.how]);
    detail::refer(area, *std::get_if<detail::ShapeValue>(&call.what));
    return area;
}

Surface clipped(const Surface& surface, const detail::CallClips& clips) {
    auto narrowed = surface;
    if (clips.box) narrowed.window = intersection(surface.window, *clips.box);
    if (clips.mask) narrowed = detail::masked(narrowed, *clips.mask);
    if (clips.cover) narrowed = detail::masked(narrowed, *clips.cover);
    return narrowed;
}

Ink ink_of(const Tables& tables, const KeptCall& call) {
    const auto* const number = std::get_if<detail::InkNumber>(&call.ink);
    return number != nullptr ? tables.inks[number->number] : Ink{std::get<Color>(call.ink)};
}

Box draw(const Tables& tables, const KeptCall& call, const Surface& surface) {
    if (const auto* const flood = std::get_if<FloodFrom>(&call.what)) {
        return detail::fill_flood(surface, *flood, ink_of(tables, call));
    }
    if (const auto* const paste = std::get_if<std::shared_ptr<const KeptPaste>>(&call.what)) {
        return detail::paste(surface, *(*paste)->picture, (*paste)->how, tables.transforms[call.by]);
    }
    if (const auto* const color = std::get_if<Color>(&call.what)) {
        detail::clear(surface, *color);
        return surface.window;
    }
    const auto area = area_of(tables, call);
    if (const auto* const number = std::get_if<detail::InkNumber>(&call.ink)) {
        return detail::paint(surface, tables.inks[number->number], area);
    }
    return detail::paint(surface, Ink{std::get<Color>(call.ink)}, area);
}

Box clip_of(const detail::CallClips& clips) {
    auto box = clips.box.value_or(everything);
    if (clips.mask) box = intersection(box, clips.mask->bounds());
    if (clips.cover) box = intersection(box, clips.cover->bounds());
    return box;
}

bool lets_through(const detail::CallClips& clips, Point pixel) {
    return (!clips.box || contains(*clips.box, pixel)) && (!clips.mask || clips.mask->contains(pixel)) &&
           (!clips.cover || clips.cover->coverage_at(pixel) > 0);
}

Box bounds_of(const Tables& tables, const KeptCall& call) {
    if (const auto* const flood = std::get_if<FloodFrom>(&call.what)) {
        return {.at = flood->from, .size = {.width = 1, .height = 1}};
    }
    if (const auto* const paste = std::get_if<std::shared_ptr<const KeptPaste>>(&call.what)) {
        return detail::pasted_box(*(*paste)->picture, (*paste)->how, tables.transforms[call.by]);
    }
    if (std::holds_alternative<Color>(call.what)) return everything;
    return detail::bounds_of(area_of(tables, call));
}

}  // namespace

std::optional<Figure> RecordedCall::figure() const {
    const auto* const shape = std::get_if<detail::ShapeValue>(&call_->what);
    if (shape == nullptr) return std::nullopt;
    return detail::FigureParts::figure(*shape, drawing_->hows_[call_->how], drawing_->transforms_[call_->by]);
}

Ink RecordedCall::ink() const {
    const auto* const number = std::get_if<detail::InkNumber>(&call_->ink);
    if (const auto* const color = std::get_if<Color>(&call_->what)) return *color;
    return number != nullptr ? drawing_->inks_[number->number] : Ink{std::get<Color>(call_->ink)};
}

const void* RecordedCall::picture() const noexcept {
    const auto* const paste = std::get_if<std::shared_ptr<const KeptPaste>>(&call_->what);
    return paste != nullptr ? (*paste)->picture->top_left : nullptr;
}

Box RecordedCall::bounds() const {
    const Tables tables{drawing_->hows_, drawing_->inks_, drawing_->transforms_, drawing_->clips_};
    return bounds_of(tables, *call_);
}

std::optional<Box> RecordedCall::clip() const {
    if (call_->clips == 0) return std::nullopt;
    return clip_of(drawing_->clips_[call_->clips]);
}

bool RecordedCall::contains(Point pixel) const {
    const Tables tables{drawing_->hows_, drawing_->inks_, drawing_->transforms_, drawing_->clips_};
    if (!lets_through(tables.clips[call_->clips], pixel)) return false;
    if (std::holds_alternative<FloodFrom>(call_->what)) return false;
    if (std::holds_alternative<Color>(call_->what)) return true;
    if (std::holds_alternative<detail::ShapeValue>(call_->what)) {
        return coldbrick::contains(area_of(tables, *call_), pixel);
    }
    // Of a picture that is turned, what lies under it, and not the box around that.
    const auto& paste = *std::get<std::shared_ptr<const KeptPaste>>(call_->what);
    const auto box = Box{.at = paste.how.at, .size = paste.picture->window.size};
    const auto& by = tables.transforms[call_->by];
    if (by.is_identity()) return coldbrick::contains(box, pixel);
    return coldbrick::contains(transformed(filled(box, {.edge = Edge::smooth}), by), pixel);
}

detail::CallRenderer::CallRenderer(const Drawing& drawing, const Surface& surface)
    : drawing_{drawing}, surface_{surface}, clipped_{surface} {
    for (const auto& ink : drawing.inks_) check_ink(surface, ink);
}

Box detail::CallRenderer::draw(std::size_t number) {
    const auto& call = drawing_.calls_[number];
    if (call.clips != clipped_by_) {
        clipped_ = clipped(surface_, drawing_.clips_[call.clips]);
        clipped_by_ = call.clips;
    }
    return coldbrick::draw({drawing_.hows_, drawing_.inks_, drawing_.transforms_, drawing_.clips_}, call, clipped_);
}

std::optional<std::size_t> topmost(const Drawing& drawing, Point pixel) {
    for (auto number = drawing.size(); number-- > 0;) {
        if (drawing[number].contains(pixel)) return number;
    }
    return std::nullopt;
}

Box bounds(const Drawing& drawing) {
    const Tables tables{drawing.hows_, drawing.inks_, drawing.transforms_, drawing.clips_};
    auto all = Box{};
    for (const auto& call : drawing.calls_) {
        const auto& clips = tables.clips[call.clips];
        auto seen = intersection(bounds_of(tables, call), clip_of(clips));
        if (call.clips != 0 && std::holds_alternative<detail::ShapeValue>(call.what)) {
            const auto area = area_of(tables, call);
            seen = clips.mask ? intersection(Region{area, seen}, *clips.mask).bounds()
                              : for_each_span(area, seen, [](const Span&) {});
        }
        all = enclosing(all, seen);
    }
    return all;
}

}  // namespace coldbrick

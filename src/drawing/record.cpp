// Calls into a drawing.
#include "coldbrick/drawing.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <string>

namespace coldbrick {

namespace {

// The number of an entry that is equal to one of the last few, or of a new one.
template <class Entry>
std::uint32_t number_of(std::vector<Entry>& entries, const Entry& entry) {
    constexpr std::size_t looked_at = 8;
    const auto first = entries.size() > looked_at ? entries.size() - looked_at : 0;
    for (auto i = entries.size(); i-- > first;) {
        if (entries[i] == entry) return static_cast<std::uint32_t>(i);
    }
    entries.push_back(entry);
    return static_cast<std::uint32_t>(entries.size() - 1);
}

}  // namespace

Drawing::Drawing() : hows_{Fill{}, Stroke{}}, transforms_{Transform{}}, clips_{detail::CallClips{}} {}

std::size_t Drawing::bytes() const noexcept {
    return calls_.size() * sizeof(detail::KeptCall) + hows_.capacity() * sizeof(hows_[0]) +
           inks_.capacity() * sizeof(inks_[0]) + transforms_.capacity() * sizeof(Transform) +
           clips_.capacity() * sizeof(detail::CallClips) + bytes_besides_;
}

DrawingView DrawingView::clipped(detail::CallClips clips) const {
    auto view = *this;
    auto& all = drawing_->clips_;
    all.push_back(std::move(clips));
    view.clips_ = static_cast<std::uint32_t>(all.size() - 1);
    return view;
}

DrawingView DrawingView::within(const Box& box) const {
    auto clips = drawing_->clips_[clips_];
    clips.box = clips.box ? intersection(*clips.box, box) : box;
    return clipped(std::move(clips));
}

DrawingView DrawingView::within(const Region& region) const {
    auto clips = drawing_->clips_[clips_];
    clips.mask = std::make_shared<const Region>(clips.mask ? intersection(*clips.mask, region) : region);
    return clipped(std::move(clips));
}

DrawingView DrawingView::within(const SmoothRegion& region) const {
    auto clips = drawing_->clips_[clips_];
    clips.cover = std::make_shared<const SmoothRegion>(clips.cover ? intersection(*clips.cover, region) : region);
    return clipped(std::move(clips));
}

DrawingView DrawingView::under(const Transform& by) const {
    auto view = *this;
    view.by_ = by.then(by_);
    return view;
}

DrawingView DrawingView::tagged(std::uint64_t tag) const {
    auto view = *this;
    view.tag_ = tag;
    return view;
}

namespace detail {

void CallRecorder::add(KeptCall call, SourcePlace where) const {
    call.place = where;
    call.tag = tag_;
    call.clips = clips_;
    drawing_.calls_.push_back(std::move(call));
}

Box CallRecorder::seen(const Box& box) const {
    const auto& clip = drawing_.clips_[clips_].box;
    return clip ? intersection(*clip, box) : box;
}

void CallRecorder::figure(const Figure& figure, const Ink& ink, SourcePlace where) const {
    auto placed = figure.then(by_);
    (void)coldbrick::contains(placed, Point{});  // which checks it
    keep(std::move(placed), ink, where);
}

void CallRecorder::keep(Figure figure, const Ink& ink, SourcePlace where) const {
    KeptCall call;
    call.how = number_of(drawing_.hows_, figure.how());
    call.by = figure.transform().is_identity() ? 0 : number_of(drawing_.transforms_, figure.transform());
    if (ink.color() != nullptr && ink.how() == Laying{}) {
        call.ink = *ink.color();
    } else {
        call.ink = InkNumber{number_of(drawing_.inks_, ink)};
    }
    const auto besides = figure.bytes_besides();
    call.what = std::move(FigureParts::shape(figure));
    add(std::move(call), where);
    drawing_.bytes_besides_ += besides;
}

Box CallRecorder::clear(Color color, SourcePlace where) const {
    KeptCall call;
    call.what = color;
    add(std::move(call), where);
    return drawing_.clips_[clips_].box.value_or(Box{});
}

Box CallRecorder::flood(const FloodFrom& from, const Ink& ink, SourcePlace where) const {
    check_flood(from);
    auto placed = from;
    placed.from = place_pixel(from.from, by_);
    KeptCall call;
    call.what = placed;
    call.ink = InkNumber{number_of(drawing_.inks_, ink)};
    add(std::move(call), where);
    return {.at = placed.from, .size = {.width = 1, .height = 1}};
}

Box CallRecorder::paste(const Surface& picture, const Paste& how, const Transform& by, SourcePlace where) const {
    return paste(prepared_picture(picture, how), how, by, where);
}

Box CallRecorder::paste(SharedPicture picture, const Paste& how, const Transform& by, SourcePlace where) const {
    auto kept = how;
    kept.part = std::nullopt;
    kept.mirrored = Mirror::none;
    kept.turned = Quarters::none;
    kept.size = {};
    const auto moved = by.then(by_);
    const auto box = pasted_box(*picture, kept, moved);  // which checks it
    KeptCall call;
    drawing_.bytes_besides_ += sizeof(KeptPaste);
    call.what = std::make_shared<const KeptPaste>(KeptPaste{.picture = std::move(picture), .how = kept});
    call.by = moved.is_identity() ? 0 : number_of(drawing_.transforms_, moved);
    add(std::move(call), where);
    return seen(box);
}

}  // namespace detail

}  // namespace coldbrick

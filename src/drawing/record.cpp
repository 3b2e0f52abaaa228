// Calls into a drawing.
#include "drawing/calls.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <optional>
#include <utility>

namespace coldbrick::inline v0 {

namespace {

using detail::CallClips;
using detail::Calls;
using detail::KeptCall;

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

std::uint32_t number_of(std::vector<Transform>& entries, const Transform& entry) {
    return entry.is_identity() ? 0 : number_of<Transform>(entries, entry);
}

// Most calls fill, and have nothing more to say about how.
std::uint32_t number_of_how(std::vector<std::variant<Fill, Stroke>>& hows, const std::variant<Fill, Stroke>& how) {
    const auto* const fill = std::get_if<Fill>(&how);
    return fill != nullptr && *fill == Fill{} ? 0 : number_of(hows, how);
}

std::uint32_t add_clips(Calls& calls, CallClips clips) {
    calls.clips.push_back(std::move(clips));
    return static_cast<std::uint32_t>(calls.clips.size() - 1);
}

// Keeps what a figure draws, in an ink.
void keep_in(KeptCall& call, Calls& calls, Figure&& figure, const Ink& ink) {
    call.how = number_of_how(calls.hows, figure.how());
    call.by = number_of(calls.transforms, figure.transform());
    if (ink.color() != nullptr && ink.how() == Compositing{}) {
        call.ink = *ink.color();
    } else {
        call.ink = detail::InkNumber{number_of(calls.inks, ink)};
    }
    call.what = std::move(detail::FigureParts::shape(figure));
}

}  // namespace

Drawing::Drawing() : calls_{new Calls} {}
Drawing::Drawing(const Drawing& other) : calls_{new Calls{*other.calls_}} {}
Drawing::Drawing(Drawing&& other) noexcept : calls_{std::exchange(other.calls_, nullptr)} {}
Drawing& Drawing::operator=(const Drawing& other) { return *this = Drawing{other}; }
Drawing& Drawing::operator=(Drawing&& other) noexcept {
    std::swap(calls_, other.calls_);
    return *this;
}
Drawing::~Drawing() { delete calls_; }

std::size_t Drawing::size() const noexcept { return calls_->list.size(); }

bool Drawing::has_flood() const noexcept {
    return std::any_of(calls_->list.begin(), calls_->list.end(),
                       [](const KeptCall& call) { return std::holds_alternative<FloodFrom>(call.what); });
}

std::size_t Drawing::bytes() const noexcept {
    const auto& [list, hows, inks, transforms, clips, besides] = *calls_;
    return list.size() * sizeof(list[0]) + hows.capacity() * sizeof(hows[0]) + inks.capacity() * sizeof(inks[0]) +
           transforms.capacity() * sizeof(transforms[0]) + clips.capacity() * sizeof(clips[0]) + besides;
}

DrawingView DrawingView::within(const Box& box) const {
    auto view = *this;
    auto& calls = *drawing_->calls_;
    auto clips = calls.clips[clips_];
    clips.box = clips.box ? intersection(*clips.box, box) : box;
    view.clips_ = add_clips(calls, std::move(clips));
    return view;
}

DrawingView DrawingView::within(const Region& region) const {
    auto view = *this;
    auto& calls = *drawing_->calls_;
    const auto& [box, shapes] = calls.clips[clips_];
    view.clips_ = add_clips(calls, {.box = box, .shapes = detail::clipped(shapes, region)});
    return view;
}

DrawingView DrawingView::within(const SmoothRegion& region) const {
    auto view = *this;
    auto& calls = *drawing_->calls_;
    const auto& [box, shapes] = calls.clips[clips_];
    view.clips_ = add_clips(calls, {.box = box, .shapes = detail::clipped(shapes, region)});
    return view;
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

const std::size_t bytes_of_call = sizeof(KeptCall);
const std::size_t bytes_of_paste = sizeof(KeptPaste);

Calls& CallRecorder::calls() const noexcept { return *drawing_.calls_; }

Box CallRecorder::seen(const Box& box) const {
    const auto& clip = calls().clips[clips_].box;
    return clip ? intersection(*clip, box) : box;
}

void CallRecorder::add(KeptCall&& call, SourcePlace where) const {
    call.place = where;
    call.tag = tag_;
    call.clips = clips_;
    calls().list.push_back(std::move(call));
}

void CallRecorder::keep(Figure&& figure, const Ink& ink, SourcePlace where) const {
    auto& all = calls();
    const auto besides = figure.bytes_besides();
    auto& call = all.list.emplace_back();
    try {
        keep_in(call, all, std::move(figure), ink);
    } catch (...) {
        all.list.pop_back();
        throw;
    }
    call.place = where;
    call.tag = tag_;
    call.clips = clips_;
    all.bytes_besides += besides;
}

Box CallRecorder::bounded(Figure figure, const Ink& ink, SourcePlace where) const {
    const auto box = seen(bounds(figure));  // which checks it
    keep(std::move(figure), ink, where);
    return box;
}

namespace {

// Whether all checks come before the first row. Places that a transform gives, and dashes, are checked on the way.
bool is_checked_first(const Figure& figure) noexcept {
    const auto* const stroke = std::get_if<Stroke>(&figure.how());
    return figure.transform().is_identity() && (stroke == nullptr || stroke->dash.empty());
}

}  // namespace

void CallRecorder::figure(Figure&& figure, const Ink& ink, SourcePlace where) const {
    if (!by_.is_identity()) figure = std::move(figure).then(by_);
    const auto looked_at = is_checked_first(figure) ? Box{} : Box{.at = {}, .size = {.width = 1, .height = 1}};
    (void)for_each_span(figure, looked_at, [](const Span&) {});  // which checks it
    keep(std::move(figure), ink, where);
}

Box CallRecorder::clear(Color color, SourcePlace where) const {
    KeptCall call;
    call.what = color;
    add(std::move(call), where);
    return seen(Box{});
}

Box CallRecorder::flood(const FloodFrom& from, const Ink& ink, SourcePlace where) const {
    check_flood(from);
    auto placed = from;
    placed.from = place_pixel(from.from, by_);
    KeptCall call;
    call.what = placed;
    call.ink = InkNumber{number_of(calls().inks, ink)};
    add(std::move(call), where);
    return {.at = placed.from, .size = {.width = 1, .height = 1}};
}

Box CallRecorder::paste(const Surface& picture, const Paste& how, const Transform& by, SourcePlace where) const {
    return paste(prepared_picture(picture, how), how, by, where);
}

Box CallRecorder::paste(Shared<KeptPicture> picture, const Paste& how, const Transform& by, SourcePlace where) const {
    auto prepared = how;
    prepared.part = std::nullopt;
    prepared.mirrored = Mirror::none;
    prepared.turned = Quarters::none;
    prepared.size = {};
    const auto moved = by.then(by_);
    const auto box = pasted_box(picture->surface, prepared, moved);  // which checks it
    KeptCall call;
    call.what = make_shared_value<KeptPaste>(std::move(picture), prepared);
    call.by = number_of(calls().transforms, moved);
    add(std::move(call), where);
    calls().bytes_besides += sizeof(KeptPaste);
    return seen(box);
}

}  // namespace detail

}  // namespace coldbrick::inline v0

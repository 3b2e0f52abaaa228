#include "drawing/bands.hpp"

#include "drawing/calls.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/detail/jobs.hpp"

#include <algorithm>
#include <bit>
#include <limits>
#include <memory>

namespace coldbrick::inline v0::detail {

BandedCalls::BandedCalls(const Drawing& drawing, std::size_t first, std::size_t end, const Box& window, int band_rows,
                         unsigned threads)
    : window_{window},
      band_rows_{band_rows},
      count_{static_cast<std::size_t>((std::int64_t{window.size.height} + band_rows - 1) / band_rows)},
      first_{first} {
    const auto& calls = *drawing.calls_;
    // Numbers are counted from the first, in 32 bits.
    constexpr std::size_t most = std::numeric_limits<std::uint32_t>::max();
    if (end - first > most) throw Error{"render: over 4,294,967,295 calls; several threads take no more"};
    constexpr std::size_t least_part = 4096;
    // Each part has a list for every node: together not many more than there are calls.
    const auto most_parts = std::min(4 * std::size_t{threads}, (end - first) / count_ + 1);
    const auto parts = std::clamp<std::size_t>((end - first) / least_part, 1, most_parts);
    parts_.resize(parts);
    for_each_number(parts, threads, [&](std::size_t part) {
        parts_[part].nodes.resize(2 * std::bit_ceil(count_));
        const auto from = first + (end - first) * part / parts;
        const auto to = first + (end - first) * (part + 1) / parts;
        for (auto number = from; number < to; ++number) {
            const auto [top, bottom] = bands_of(calls.outer_bounds_of(calls.list[number]));
            parts_[part].add(top, bottom, static_cast<std::uint32_t>(number - first));
        }
    });
}

Box BandedCalls::band(std::size_t number) const noexcept {
    const auto& [at, size] = window_;
    const auto first = static_cast<int>(number) * band_rows_;
    return {.at = {.x = at.x, .y = at.y + first},
            .size = {.width = size.width, .height = std::min(band_rows_, size.height - first)}};
}

std::pair<std::size_t, std::size_t> BandedCalls::bands_of(const Box& box) const noexcept {
    const auto seen = intersection(box, window_);
    if (seen.empty()) return {0, 0};
    const auto band_of = [&](int y) { return static_cast<std::size_t>((y - window_.at.y) / band_rows_); };
    return {band_of(seen.at.y), band_of(seen.last().y) + 1};
}

void BandedCalls::Part::add(std::size_t top, std::size_t bottom, std::uint32_t number) {
    const auto leaves = nodes.size() / 2;
    for (auto [left, right] = std::pair{top + leaves, bottom + leaves}; left < right; left /= 2, right /= 2) {
        if (left % 2 != 0) nodes[left++].push_back(number);
        if (right % 2 != 0) nodes[--right].push_back(number);
    }
}

BandedCalls::Numbers BandedCalls::Part::at(std::size_t band) const {
    Numbers all;
    for (auto node = band + nodes.size() / 2; node > 0; node /= 2) {
        const auto& more = nodes[node];
        const auto middle = static_cast<std::ptrdiff_t>(all.size());
        all.insert(all.end(), more.begin(), more.end());
        std::inplace_merge(all.begin(), all.begin() + middle, all.end());
    }
    return all;
}

BandedCalls::Drawn BandedCalls::draw(std::size_t band, CallRenderer& renderer, const DrawingHooks& hooks) const {
    Drawn drawn;
    for (const auto& part : parts_) {
        for (const auto number : part.at(band)) {
            try {
                drawn.touched = enclosing(drawn.touched, hooks.draw(hooks.context, renderer, first_ + number));
            } catch (...) {
                drawn.failed = first_ + number;
                drawn.thrown = std::current_exception();
                return drawn;
            }
        }
    }
    return drawn;
}

std::size_t BandedCalls::next_flood(const Drawing& drawing, std::size_t from) noexcept {
    const auto& list = drawing.calls_->list;
    if (!drawing.has_flood()) return list.size();
    while (from < list.size() && !std::holds_alternative<FloodFrom>(list[from].what)) ++from;
    return from;
}

Box all_touched(const std::vector<BandedCalls::Drawn>& bands) {
    auto all = Box{};
    const BandedCalls::Drawn* failed = nullptr;
    for (const auto& band : bands) {
        all = enclosing(all, band.touched);
        if (band.thrown && (failed == nullptr || band.failed < failed->failed)) failed = &band;
    }
    if (failed != nullptr) std::rethrow_exception(failed->thrown);
    return all;
}

Box render_in_bands(const Drawing& drawing, const Surface& surface, int threads, const DrawingHooks& hooks) {
    const auto allowed = allowed_threads("render", threads);
    const auto& window = surface.window;
    CallRenderer alone{drawing, surface};
    auto all = Box{};
    const auto draw_alone = [&](std::size_t first, std::size_t end) {
        for (; first < end; ++first) all = enclosing(all, hooks.draw(hooks.context, alone, first));
    };
    // A few bands for each thread, so that all come to an end at about the same time.
    constexpr auto bands_of_thread = 4;
    constexpr auto least_rows = 16;
    const auto bands = static_cast<int>(allowed) * bands_of_thread;
    const auto rows = std::max(least_rows, (window.size.height + bands - 1) / bands);
    if (allowed == 1 || window.size.height <= rows || surface.observer != nullptr) {
        draw_alone(0, drawing.size());
        return all;
    }
    for (std::size_t first = 0; first < drawing.size();) {
        const auto end = BandedCalls::next_flood(drawing, first);
        const BandedCalls banded{drawing, first, end, window, rows, allowed};
        std::vector<BandedCalls::Drawn> drawn(banded.count());
        for_each_number(banded.count(), allowed, [&](std::size_t band) {
            auto part = surface;
            part.window = banded.band(band);
            CallRenderer renderer{drawing, part};
            drawn[band] = banded.draw(band, renderer, hooks);
        });
        all = enclosing(all, all_touched(drawn));
        first = std::min(end + 1, drawing.size());
        draw_alone(end, first);
    }
    return all;
}

}  // namespace coldbrick::inline v0::detail

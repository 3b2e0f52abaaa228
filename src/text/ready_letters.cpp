#include "text/ready_letters.hpp"

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/smooth_region.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

// A box in which all is that letters cover.
Box reach_of(const Lettering& letters) {
    auto least = Position{1e9, 1e9};
    auto most = Position{-1e9, -1e9};
    const auto take = [&](Position at) {
        least = {.x = std::min(least.x, at.x), .y = std::min(least.y, at.y)};
        most = {.x = std::max(most.x, at.x), .y = std::max(most.y, at.y)};
    };
    for (const auto* const path : {&letters.outlines, &letters.lines}) {
        for (const auto& step : path->steps()) {
            take(step.to);
            if (step.kind != Path::Step::Kind::cubic) continue;
            take(step.control_1);
            take(step.control_2);
        }
    }
    if (least.x > most.x) return {};
    const auto margin = letters.weight / 2 + 2;
    const auto pixel = [](double at) { return static_cast<int>(std::floor(at)); };
    return Box::between({.from = {pixel(least.x - margin), pixel(least.y - margin)},
                         .to = {pixel(most.x + margin), pixel(most.y + margin)}});
}

}  // namespace

ReadyLetters::ReadyLetters(const Lettering& letters, const Fill& how) {
    rows_.push_back(0);
    bounds_ = for_each_coverage(Filled<Lettering>{.shape = letters, .how = how}, reach_of(letters),
                                [this](int y, int x, int length, int coverage) { add(y, x, length, coverage); });
    if (bounds_.empty()) return;
    // The rows reported so far begin with the uppermost one.
    while (rows_.size() <= static_cast<std::size_t>(bounds_.size.height)) {
        rows_.push_back(static_cast<std::uint32_t>(parts_.size()));
    }
    rows_.back() = static_cast<std::uint32_t>(parts_.size());
}

void ReadyLetters::add(int y, int x, int length, int coverage) {
    if (parts_.empty()) bounds_.at.y = y;
    const auto row = static_cast<std::size_t>(y - bounds_.at.y);
    const auto is_new_row = rows_.size() <= row;
    while (rows_.size() <= row) rows_.push_back(static_cast<std::uint32_t>(parts_.size()));
    constexpr auto full = 255;
    constexpr auto long_run = 8;
    if (coverage == full && length >= long_run) {
        parts_.push_back({.x = x, .length = length, .each = 0, .all = full});
        return;
    }
    const auto is_next = !parts_.empty() && !is_new_row && parts_.size() > rows_.back() && parts_.back().all == 0 &&
                         parts_.back().x + parts_.back().length == x;
    if (!is_next) {
        parts_.push_back({.x = x, .length = 0, .each = static_cast<std::uint32_t>(coverage_.size()), .all = 0});
    }
    parts_.back().length += length;
    coverage_.insert(coverage_.end(), static_cast<std::size_t>(length), static_cast<std::uint8_t>(coverage));
}

std::size_t ReadyLetters::bytes() const noexcept {
    return sizeof *this + rows_.capacity() * sizeof(std::uint32_t) + parts_.capacity() * sizeof(Part) +
           coverage_.capacity();
}

}  // namespace coldbrick::inline v0::detail

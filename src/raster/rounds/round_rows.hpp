// The rows of bands around ellipses and boxes.
#pragma once

#include "raster/rounds/quarter_areas.hpp"
#include "raster/rounds/round_cover.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cstdint>
#include <optional>
#include <vector>

namespace coldbrick::inline v0::detail {

// Reports the left half of the rows of a band's upper half: calls emit(begin, end, each, all) for columns that are
// covered by bytes of their own or, where that is null, all alike.
class RoundRows {
  public:
    RoundRows(const RoundBand& band, const QuarterPart& part)
        : half_{(band.box.size.width + 1) / 2},
          outer_room_{part},
          bytes_(static_cast<std::size_t>(half_)),
          outer_{find_quarter(band.outer, band.box.size, part, outer_room_.room())} {
        if (!band.inner) return;
        inner_room_.emplace(part);
        inner_ = find_quarter(*band.inner, band.box.size, part, inner_room_->room());
    }

    template <class Emit>
    void take(int row, const Emit& emit) {
        const auto edge = outer_.of_row(row);
        const auto hole =
            inner_ ? inner_->of_row(row) : QuarterRows::Columns{.begin = half_, .end = half_, .areas = nullptr};
        for (auto i = edge.begin; i < edge.end; ++i) set(i, edge.areas[i - edge.begin] - hole.area_of(i));
        // Where both are covered in part, all is one stretch.
        const auto end = edge.end > hole.begin ? std::max(edge.end, hole.end) : edge.end;
        for (auto i = edge.end; i < end; ++i) set(i, whole_area - hole.area_of(i));
        report(edge.begin, end, emit);
        if (end >= hole.end) return;
        if (end < hole.begin) emit(end, hole.begin, nullptr, std::uint8_t{255});
        for (auto i = hole.begin; i < hole.end; ++i) set(i, whole_area - hole.area_of(i));
        report(hole.begin, hole.end, emit);
    }

  private:
    void set(int i, std::int32_t area) noexcept {
        bytes_[static_cast<std::size_t>(i)] = byte_of_area(std::max(area, 0));
    }

    template <class Emit>
    void report(int begin, int end, const Emit& emit) {
        if (begin < end) emit(begin, end, &bytes_[static_cast<std::size_t>(begin)], std::uint8_t{255});
    }

    int half_;
    LargeQuarterRoom outer_room_;
    std::optional<LargeQuarterRoom> inner_room_;
    CountedVector<std::uint8_t> bytes_;
    QuarterRows outer_;
    std::optional<QuarterRows> inner_;
};

}  // namespace coldbrick::inline v0::detail

// What a row is covered by where edges begin, end or cross: pixel by pixel.
//
// A pixel's coverage follows from the edges in it and from what lies to its left: the winding numbers along its left
// side, which change only at heights where a contour crosses that side. So it is the same in every window. Edges begin
// and end in corners where others go on; those left of a pixel cancel each other out but for such heights.
#pragma once

#include "raster/coverage/cover.hpp"
#include "raster/coverage/cover_batch.hpp"
#include "raster/coverage/cover_row.hpp"
#include "raster/coverage/pixel_cover.hpp"
#include "raster/rows/row_sweep.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <span>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

// Goes along a row from column to column.
class CoverCells {
  public:
    CoverCells(const Window& window, const CoverTruth& covers, CoverBatch& batch) noexcept
        : window_{window}, covers_{covers}, batch_{batch}, pixel_{covers} {}

    // A row of the window, with the edges that have a part in it. Hands its coverage over.
    void take_row(std::span<const CoverEdge> active, int row) {
        row_ = row;
        splits_ = 0;
        left_.clear();
        find_parts(active);
        here_.clear();
        std::size_t next = 0;
        for (std::int64_t column = 0; column < width();) {
            if (here_.empty()) {
                const auto end = next < parts_.size() ? std::min(parts_[next].first, width()) : width();
                if (column < end) emit_alike(column, end, byte_of_coverage(coverage_of(column)));
                column = end;
            }
            for (; next < parts_.size() && parts_[next].first == column; ++next) here_.push_back(parts_[next]);
            if (here_.empty()) continue;
            const auto end = end_of_run(column, next);
            spend_work(here_.size());
            take_columns(column, end);
            column = end;
            leave_behind(column);
        }
        flush();
    }

  private:
    // A part, and the columns in which it is, of those of the window and some beside it.
    struct Part : RowPart {
        std::int64_t first = 0;
        std::int64_t last = 0;
    };

    // At which heights a part goes over the left side of some columns, and over the right side.
    struct Sides {
        double from;
        double to;
    };

    [[nodiscard]] std::int64_t width() const noexcept { return std::int64_t{window_.right} - window_.left; }

    void find_parts(std::span<const CoverEdge> active) {
        parts_.clear();
        parts_.reserve(active.size());
        const auto top = double{1} * row_;
        for (const auto& edge : active) {
            const auto begin = std::max(edge.top, top);
            const auto end = std::min(edge.bottom, top + 1);
            if (!(begin < end)) continue;
            Part part{{.top = begin - top,
                       .bottom = end - top,
                       .x_top = edge.x_at(begin),
                       .x_bottom = edge.x_at(end),
                       .direction = edge.direction,
                       .group = edge.group}};
            const auto [least, most] = std::minmax(part.x_top, part.x_bottom);
            if (least >= static_cast<double>(width())) continue;
            if (most < 0) {
                add_whole(part);
                continue;
            }
            part.first = least < 0 ? 0 : static_cast<std::int64_t>(least);
            part.last = most < static_cast<double>(width()) ? static_cast<std::int64_t>(most) : width();
            parts_.push_back(part);
        }
        sort_nearly_sorted(parts_, [](const Part& a, const Part& b) { return a.first < b.first; });
    }

    // Up to which column there are the same parts, all of which go over the columns from side to side; the next column
    // if some begin or end in this one.
    [[nodiscard]] std::int64_t end_of_run(std::int64_t column, std::size_t next) const noexcept {
        auto end = next < parts_.size() ? std::min(parts_[next].first, width()) : width();
        for (const auto& part : here_) {
            if (part.first == column) return column + 1;
            end = std::min(end, part.last);
        }
        return std::max(end, column + 1);
    }

    void leave_behind(std::int64_t column) {
        std::size_t kept = 0;
        for (const auto& part : here_) {
            if (part.last < column) {
                add_whole(part);
            } else {
                here_[kept++] = part;
            }
        }
        here_.resize(kept);
    }

    void add_whole(const Part& part) { left_.add(part.top, part.bottom, part, covers_); }

    // Columns with the same parts: one, or several that all of these go over from side to side.
    void take_columns(std::int64_t begin, std::int64_t end) {
        constexpr std::int64_t few = 4;
        if (end - begin <= few) {
            for (auto column = begin; column < end; ++column) emit(column, coverage_of(column));
            return;
        }
        // Where none of the parts cross each other, coverage goes evenly from column to column.
        const auto crossed = ++splits_ < most_splits ? crossed_column(begin, end) : begin - 1;
        if (crossed < begin) return emit_evenly(begin, end);
        if (crossed > begin) take_columns(begin, crossed);
        emit(crossed, coverage_of(crossed));
        if (crossed + 1 < end) take_columns(crossed + 1, end);
    }

    // A column between begin and end in which two of the parts cross; below begin if there is none.
    [[nodiscard]] std::int64_t crossed_column(std::int64_t begin, std::int64_t end) {
        const auto height_at = [](const Part& part, std::int64_t column) {
            const auto along = (static_cast<double>(column) - part.x_top) / (part.x_bottom - part.x_top);
            return part.top + along * (part.bottom - part.top);
        };
        spend_work(here_.size());
        sides_.clear();
        for (const auto& part : here_) sides_.push_back({height_at(part, begin), height_at(part, end)});
        std::sort(sides_.begin(), sides_.end(),
                  [](const Sides& a, const Sides& b) { return a.from != b.from ? a.from < b.from : a.to < b.to; });
        constexpr auto hardly = 1e-9;
        for (std::size_t i = 1; i < sides_.size(); ++i) {
            const auto under = sides_[i - 1].to - sides_[i].to;
            if (under <= hardly) continue;
            const auto over = sides_[i].from - sides_[i - 1].from;
            const auto place = static_cast<double>(end - begin) * (over / (over + under));
            return std::clamp(begin + static_cast<std::int64_t>(place), begin, end - 1);
        }
        return begin - 1;
    }

    void emit_evenly(std::int64_t begin, std::int64_t end) {
        const auto first = coverage_of(begin);
        const auto slope = (coverage_of(end - 1) - first) / static_cast<double>(end - 1 - begin);
        constexpr std::int64_t few = 256;
        if (end - begin <= few) {
            for (auto column = begin; column < end; ++column) {
                emit(column, first + slope * static_cast<double>(column - begin));
            }
            return;
        }
        const auto byte_at = [&](std::int64_t column) {
            return byte_of_coverage(first + slope * static_cast<double>(column - begin));
        };
        for_each_alike(begin, end, byte_at, [&](auto from, auto to, std::uint8_t byte) { emit_alike(from, to, byte); });
    }

    double coverage_of(std::int64_t column) {
        pixel_.begin(left_);
        for (const auto& part : here_) pixel_.add(part, static_cast<double>(column));
        return pixel_.coverage();
    }

    void emit(std::int64_t column, double coverage) {
        constexpr std::size_t many = 1024;
        if (!bytes_.empty() &&
            (bytes_from_ + static_cast<std::int64_t>(bytes_.size()) != column || bytes_.size() == many)) {
            flush();
        }
        if (bytes_.empty()) bytes_from_ = column;
        bytes_.push_back(byte_of_coverage(coverage));
    }

    void emit_alike(std::int64_t begin, std::int64_t end, std::uint8_t all) {
        if (all == 0) return;
        flush();
        batch_.add_alike(window_.top + row_, static_cast<int>(window_.left + begin),
                         static_cast<int>(window_.left + end), all);
    }

    void flush() {
        if (bytes_.empty()) return;
        batch_.add_each(window_.top + row_, static_cast<int>(window_.left + bytes_from_), bytes_.data(),
                        static_cast<int>(bytes_.size()));
        bytes_.clear();
    }

    Window window_;
    const CoverTruth& covers_;
    CoverBatch& batch_;
    int row_ = 0;
    CountedVector<Part> parts_;  // of the row, by their first columns
    CountedVector<Part> here_;   // in the columns at hand
    LeftSide left_;              // of these, by what lies to their left
    PixelCover pixel_;
    CountedVector<Sides> sides_;
    // How often columns of the row have been parted where parts cross. Beyond that, in rows that are far wider than
    // they are looked at, coverage is taken as going evenly.
    static constexpr int most_splits = 4096;
    int splits_ = 0;
    CountedVector<std::uint8_t> bytes_;
    std::int64_t bytes_from_ = 0;
};

}  // namespace coldbrick::inline v0::detail

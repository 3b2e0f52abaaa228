// The rows of bands around ellipses and boxes, by formulas or by chords.
#pragma once

#include "geometry/trigonometry.hpp"
#include "raster/coverage/cover_row.hpp"
#include "raster/edges/fine.hpp"
#include "raster/strokes/quarter_areas.hpp"
#include "raster/strokes/round_cover.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>
#include <optional>
#include <vector>

namespace coldbrick::inline v0::detail {

// The quarter of a curve beside an ellipse that goes from its top to its left end, by chords at equal steps of the
// angle on the circle that the ellipse is made from.
class QuarterCurve {
  public:
    explicit QuarterCurve(const QuarterEdge& edge)
        : center_{edge.center}, axes_{edge.half_axes}, distance_{edge.distance} {
        const auto longer = std::max(axes_.x, axes_.y);
        const auto ratio = longer / std::min(axes_.x, axes_.y);
        // The second derivative by the angle reaches at most so far along the normal, which turns up to `ratio` times
        // as fast as the angle.
        const auto bend = longer + std::fabs(distance_) * ratio * ratio;
        steps_ = static_cast<int>(std::ceil(std::numbers::pi / 2 * std::sqrt(bend / (8 * smooth_flatness))));
        step_ = direction_of(Angle::degrees(-90.0 / steps_));
        // The corners lie outside by two thirds of how far a chord is from its arc, which gives chords the area of
        // arcs.
        const auto angle = std::numbers::pi / 2 / steps_;
        outward_ = angle * angle / 12;
        before_ = {center_.x, center_.y - axes_.y - distance_};
        next_ = before_;
    }

    // Calls add(from, to) for what is left of the curve above the bottom of a row, from the top down.
    template <class Add>
    void go_down_to(double bottom, const Add& add) {
        for (;;) {
            if (next_.y > bottom) {
                if (before_.y >= bottom) return;
                const auto slope = (next_.x - before_.x) / (next_.y - before_.y);
                const auto cut = Vec{before_.x + (bottom - before_.y) * slope, bottom};
                add(before_, cut);
                before_ = cut;
                return;
            }
            if (next_.y > before_.y) add(before_, next_);
            before_ = next_;
            if (taken_ == steps_) return;
            take_step();
        }
    }

  private:
    void take_step() {
        on_circle_ = ++taken_ == steps_ ? Vec{-1, 0} : turned(on_circle_, step_);
        const auto corner = taken_ == steps_ ? Vec{-(axes_.x + distance_), 0} : place();
        next_ = {std::max(center_.x + corner.x, 0.0), std::clamp(center_.y + corner.y, before_.y, center_.y)};
    }

    [[nodiscard]] Vec place() const {
        const auto on_ellipse = Vec{axes_.x * on_circle_.x, axes_.y * on_circle_.y};
        const auto [a, b] = axes_;
        const auto square = Vec{b * on_circle_.x, a * on_circle_.y};
        const auto length_2 = dot(square, square);
        const auto turning = a * b / length_2;
        return on_ellipse * (1 + outward_) +
               square * (distance_ * (1 + outward_ * turning * turning) / std::sqrt(length_2));
    }

    Vec center_;
    Vec axes_;
    double distance_;
    int steps_ = 0;
    Vec step_{};
    double outward_ = 0;
    Vec on_circle_{0, -1};
    int taken_ = 0;
    Vec before_{};
    Vec next_{};
};

// What tells the left half of the rows of a band's upper half, from the top down: calls emit(begin, end, each, all) for
// columns that are covered by bytes of their own or, where that is null, all alike.

// By formulas, where both edges are quarters of ellipses.
class RowsByAreas {
  public:
    RowsByAreas(const RoundBand& band, int first, int end)
        : half_{(band.box.size.width + 1) / 2},
          rooms_(2 * QuarterAreas::needed(band.box.size, end - first)),
          inner_areas_(static_cast<std::size_t>(half_)),
          bytes_(static_cast<std::size_t>(half_)),
          outer_{band.outer, band.box.size, first, end, rooms_.data()} {
        if (!band.inner) return;
        inner_.emplace(*band.inner, band.box.size, first, end, rooms_.data() + rooms_.size() / 2);
    }

    template <class Emit>
    void take(int row, const Emit& emit) {
        const auto edge = outer_.of_row(row);
        const auto hole = inner_ ? inner_->of_row(row) : QuarterAreas::Columns{.begin = half_, .end = half_};
        if (inner_) inner_->for_each_area(row, hole, [&](int i, double area) { inner_areas_[index(i)] = area; });
        const auto in_hole = [&](int i) {
            if (i < hole.begin) return 0.0;
            return i < hole.end ? inner_areas_[index(i)] : 1.0;
        };
        outer_.for_each_area(row, edge, [&](int i, double area) { set(i, area - in_hole(i)); });
        // Where both are covered in part, all is one stretch.
        const auto end = edge.end > hole.begin ? std::max(edge.end, hole.end) : edge.end;
        for (auto i = edge.end; i < end; ++i) set(i, 1 - in_hole(i));
        tell(edge.begin, end, emit);
        if (end >= hole.end) return;
        if (end < hole.begin) emit(end, hole.begin, nullptr, std::uint8_t{255});
        for (auto i = hole.begin; i < hole.end; ++i) set(i, 1 - in_hole(i));
        tell(hole.begin, hole.end, emit);
    }

  private:
    static std::size_t index(int i) noexcept { return static_cast<std::size_t>(i); }
    void set(int i, double area) noexcept { bytes_[index(i)] = byte_of_coverage(area); }

    template <class Emit>
    void tell(int begin, int end, const Emit& emit) {
        if (begin < end) emit(begin, end, &bytes_[index(begin)], std::uint8_t{255});
    }

    int half_;
    std::vector<double> rooms_;
    std::vector<double> inner_areas_;
    std::vector<std::uint8_t> bytes_;
    QuarterAreas outer_;
    std::optional<QuarterAreas> inner_;
};

// By chords.
class RowsByChords {
  public:
    RowsByChords(const RoundBand& band, int first, int)
        : size_{band.box.size}, row_{(band.box.size.width + 1) / 2}, outer_{band.outer} {
        if (band.inner) inner_.emplace(*band.inner);
        // Past the rows before, as if they were taken.
        const auto nothing = [](Vec, Vec) {};
        for (auto row = 0; row < first; ++row) {
            outer_.go_down_to(row + 1, nothing);
            if (inner_) inner_->go_down_to(row + 1, nothing);
        }
    }

    // Rows are taken in turn.
    template <class Emit>
    void take(int row, const Emit& emit) {
        outer_.go_down_to(row + 1, [&](Vec from, Vec to) { add(from, to, 1); });
        if (inner_) inner_->go_down_to(row + 1, [&](Vec from, Vec to) { add(from, to, -1); });
        row_.flush(emit);
    }

  private:
    // A line of the edge; in the middle row also the one below, in the middle column also the one on the right.
    void add(Vec from, Vec to, double covered) {
        const auto height_half = size_.height / 2.0;
        const auto is_doubled = size_.height % 2 == 1 && from.y >= height_half - 0.5;
        const auto share = (is_doubled ? 2 * covered : covered) * (to.y - from.y);
        row_.add(from.x, to.x, share);
        const auto middle = size_.width / 2.0 - 0.5;
        if (size_.width % 2 == 0 || from.x <= middle) return;
        const auto part = to.x >= middle ? 1 : (from.x - middle) / (from.x - to.x);
        row_.add(size_.width - from.x, size_.width - std::max(to.x, middle), -share * part);
    }

    Size size_;
    CoverRow<DenseSteps> row_;
    QuarterCurve outer_;
    std::optional<QuarterCurve> inner_;
};

}  // namespace coldbrick::inline v0::detail

// The coverage of one row of pixels, summed up from the differences between neighbours (steps).
#pragma once

#include "geometry/budget_memory.hpp"
#include "geometry/integers.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// What is added to coverage in 255ths before it is cut to a whole number. Halves go up, however their sums are rounded.
inline constexpr double half_of_byte = 0.5 + 0x1p-24;

// The sums lie between 0 and 1, but for their rounding.
inline std::uint8_t byte_of_coverage(double coverage) noexcept {
    const auto rounded = static_cast<int>(coverage * 255 + half_of_byte);
    return static_cast<std::uint8_t>(std::clamp(rounded, 0, 255));
}

// Adds to the steps from a column on: a height that is covered right of a place at a distance from the column's left
// side; so many columns of which each is crossed by so much of a line.
inline void add_height(double* step, double height, double distance) noexcept {
    step[0] += height * (1 - distance);
    step[1] += height * distance;
}
inline void add_evenly(double* step, int count, double per_column) noexcept {
    for (auto i = 0; i < count; ++i, ++step) {
        step[0] += per_column / 2;
        step[1] += per_column / 2;
    }
}

// Calls use(from, to, byte) for runs of columns whose bytes are the same, of columns in which they go up or down.
template <class Column, class ByteAt, class Use>
void for_each_alike(Column begin, Column end, const ByteAt& byte_at, const Use& use) {
    for (auto at = begin; at < end;) {
        const auto byte = byte_at(at);
        auto same = at;
        for (auto other = end; other - same > 1;) {
            const auto middle = same + (other - same) / 2;
            (byte_at(middle) == byte ? same : other) = middle;
        }
        use(at, same + 1, byte);
        at = same + 1;
    }
}

// A step for each column.
class DenseSteps {
  public:
    explicit DenseSteps(int width, std::pmr::memory_resource* memory = counted_memory())
        : width_{width}, steps_(static_cast<std::size_t>(width) + 2, 0.0, memory), parts_{memory}, bytes_{memory} {}

    void add_at(int column, double height, double distance) {
        add_height(&steps_[static_cast<std::size_t>(column)], height, distance);
        note(column, column + 2);
    }

    void add_ramp(int first, int count, double per_column) {
        add_evenly(&steps_[static_cast<std::size_t>(first)], count, per_column);
        note(first, first + count + 1);
    }

    // Hands the row over and forgets it: calls emit(begin, end, each, all) for columns that are covered by bytes of
    // their own, which may be 0, or, where that is null, all alike.
    template <class Emit>
    void flush(const Emit& emit) {
        if (parts_.empty()) return;
        const auto is_before = [](const Part& a, const Part& b) { return a.begin < b.begin; };
        if (!std::is_sorted(parts_.begin(), parts_.end(), is_before)) {
            std::sort(parts_.begin(), parts_.end(), is_before);
        }
        auto sum = 0.0;
        auto at = 0;
        for (std::size_t i = 0; i < parts_.size();) {
            const auto begin = parts_[i].begin;
            auto end = parts_[i].end;
            for (; i < parts_.size() && parts_[i].begin <= end; ++i) end = std::max(end, parts_[i].end);
            if (begin > at) emit_even(at, begin, sum, emit);
            end = std::min(end, width_);
            emit_varied(begin, end, sum, emit);
            at = end;
        }
        if (at < width_) emit_even(at, width_, sum, emit);
        steps_[static_cast<std::size_t>(width_)] = 0;
        steps_[static_cast<std::size_t>(width_) + 1] = 0;
        parts_.clear();
    }

  private:
    struct Part {
        int begin;
        int end;
    };

    void note(int begin, int end) {
        if (!parts_.empty() && begin >= parts_.back().begin && begin <= parts_.back().end) {
            parts_.back().end = std::max(parts_.back().end, end);
        } else {
            parts_.push_back({.begin = begin, .end = end});
        }
    }

    template <class Emit>
    void emit_even(int begin, int end, double sum, const Emit& emit) {
        const auto coverage = byte_of_coverage(sum);
        if (coverage != 0) emit(begin, end, nullptr, coverage);
    }

    template <class Emit>
    void emit_varied(int begin, int end, double& sum, const Emit& emit) {
        if (bytes_.size() < static_cast<std::size_t>(end - begin)) bytes_.resize(static_cast<std::size_t>(end - begin));
        auto running = sum;
        auto* step = steps_.data() + begin;
        auto* byte = bytes_.data();
        for (auto column = begin; column < end; ++column) {
            running += *step;
            *step++ = 0;
            *byte++ = byte_of_coverage(running);
        }
        sum = running;
        emit(begin, end, bytes_.data(), std::uint8_t{255});
    }

    int width_;
    std::pmr::vector<double> steps_;
    std::pmr::vector<Part> parts_;  // where there are steps
    std::pmr::vector<std::uint8_t> bytes_;
};

// Only the columns where something changes, for rows that are so wide that there is no time or memory for each.
class SparseSteps {
  public:
    explicit SparseSteps(int width) noexcept : width_{width} {}

    // Columns behind the last one, which need not be numbers, do not matter.
    void add_at(int column, double height, double distance) {
        if (column >= width_) return;
        changes_.push_back({.column = column, .step = height * (1 - distance)});
        if (column + 1 < width_) changes_.push_back({.column = column + 1, .step = height * distance});
    }

    void add_ramp(int first, int count, double per_column) {
        if (count < 1) return;
        changes_.push_back({.column = first, .step = -per_column / 2, .slope = per_column});
        changes_.push_back({.column = first + count, .step = per_column / 2, .slope = -per_column});
    }

    // As DenseSteps does, all alike only.
    template <class Emit>
    void flush(const Emit& emit) {
        std::sort(changes_.begin(), changes_.end(),
                  [](const Change& a, const Change& b) { return a.column < b.column; });
        auto sum = 0.0;
        auto slope = 0.0;
        for (std::size_t i = 0; i < changes_.size() && changes_[i].column < width_;) {
            const auto begin = changes_[i].column;
            for (; i < changes_.size() && changes_[i].column == begin; ++i) {
                sum += changes_[i].step;
                slope += changes_[i].slope;
            }
            const auto end = i < changes_.size() ? std::min(changes_[i].column, width_) : width_;
            emit_ramp(begin, end, sum + slope, slope, emit);
            sum += slope * (end - begin);
        }
        changes_.clear();
    }

  private:
    struct Change {
        int column;
        double step;       // in this column
        double slope = 0;  // of the step in it and in each further one
    };

    // Runs of columns whose bytes are the same: coverage goes up or down from one to the other.
    template <class Emit>
    void emit_ramp(int begin, int end, double first, double slope, const Emit& emit) {
        const auto byte_at = [&](int column) { return byte_of_coverage(first + slope * (column - begin)); };
        for_each_alike(begin, end, byte_at, [&](int from, int to, std::uint8_t byte) {
            if (byte != 0) emit(from, to, nullptr, byte);
        });
    }

    int width_;
    CountedVector<Change> changes_;
};

// What one row of pixels is covered by.
template <class Steps>
class CoverRow {
  public:
    // What its steps need besides comes behind the width.
    template <class... More>
    explicit CoverRow(int width, More... more) : width_{width}, steps_{width, more...} {}

    // What lies right of a line from one x to another over a part of the row's height is covered so much more.
    void add(double from, double to, double height) {
        auto [left, right] = std::minmax(from, to);
        if (left >= width_) return;
        if (right <= 0) return steps_.add_at(0, height, 0);
        if (left < 0 || right > width_) return add_cut(left, right, height);
        const auto column = static_cast<int>(left);
        if (right <= column + 1) return steps_.add_at(column, height, (left + right) / 2 - column);
        add_across(left, right, column, height);
    }

    // Hands the row over to emit, as its steps do, and forgets it.
    template <class Emit>
    void flush(const Emit& emit) {
        steps_.flush(emit);
    }

  private:
    // Of the first column and the last one only parts are crossed.
    void add_across(double left, double right, int first, double height) {
        const auto per_column = height / (right - left);
        const auto in_first = first + 1 - left;
        steps_.add_at(first, in_first * per_column, 1 - in_first / 2);
        const auto last = static_cast<int>(right);
        steps_.add_ramp(first + 1, last - first - 1, per_column);
        const auto in_last = right - last;
        steps_.add_at(last, in_last * per_column, in_last / 2);
    }

    // A line that goes over the left or the right side.
    void add_cut(double left, double right, double height) {
        const auto per_column = height / (right - left);
        if (left < 0) steps_.add_at(0, -left * per_column, 0);
        const auto inside_left = std::max(left, 0.0);
        const auto inside_right = std::min(right, static_cast<double>(width_));
        add(inside_left, inside_right, (inside_right - inside_left) * per_column);
    }

    int width_;
    Steps steps_;
};

}  // namespace coldbrick::inline v0::detail

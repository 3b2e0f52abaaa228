// Rows of coverage, summed up from the areas right of edges (signed areas).
//
// What lies right of an edge in a row of pixels is covered so much more, or less. That is kept as differences between
// neighbouring pixels (steps), whose sums along the row are the coverage.
#pragma once

#include "geometry/budget_memory.hpp"
#include "geometry/thresholds.hpp"

#include <algorithm>
#include <bit>
#include <cstdint>
#include <memory_resource>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

// Coverage is summed up in 255ths, from this on, and cut to whole numbers. Halves go up, however the sums are rounded:
// these lie between 0 and 255, but for far less than a half.
inline constexpr double whole_coverage = 255;
inline constexpr double half_of_byte = 0.5 + 0x1p-20;
inline std::uint8_t byte_of_sum(double sum) noexcept { return static_cast<std::uint8_t>(static_cast<int>(sum)); }

// Some rows of so many columns, with a step for each. In wide rows, those in which nothing changes are passed over and
// have no steps, some at a time.
class DenseRows {
  public:
    DenseRows(int columns, int rows, std::pmr::memory_resource* memory)
        : columns_{columns},
          rows_{rows},
          stride_{(static_cast<std::size_t>(columns) + 2 + together - 1) / together * together},
          words_{(stride_ / together + 63) / 64},
          memory_{memory},
          steps_{static_cast<double*>(memory->allocate(bytes(), alignof(double)))},
          marks_(words_ * static_cast<std::size_t>(rows), memory) {}

    DenseRows(const DenseRows&) = delete;
    DenseRows(DenseRows&& other) noexcept
        : columns_{other.columns_},
          rows_{other.rows_},
          stride_{other.stride_},
          words_{other.words_},
          memory_{other.memory_},
          steps_{std::exchange(other.steps_, nullptr)},
          marks_{std::move(other.marks_)} {}
    DenseRows& operator=(const DenseRows&) = delete;
    DenseRows& operator=(DenseRows&&) = delete;
    ~DenseRows() {
        if (steps_ != nullptr) memory_->deallocate(steps_, bytes(), alignof(double));
    }

    [[nodiscard]] int rows() const noexcept { return rows_; }

    // What lies right of a line from one x to another, not left of the first column nor right of the last one, over a
    // part of the row's height in 255ths, is covered so much more.
    void add(int row, double from, double to, double height) noexcept {
        const auto left = from < to ? from : to;
        const auto right = from < to ? to : from;
        const auto whole = static_cast<int>(left);
        const auto begin = left - whole;
        if (right <= whole + 1) {
            auto* const first = steps_from(row, whole, whole);
            const auto beyond = height * ((begin + (right - whole)) * 0.5);
            first[0] += height - beyond;
            first[1] += beyond;
            return;
        }
        // Of the first column and the last one only parts are crossed.
        const auto last = static_cast<int>(right);
        auto* const first = steps_from(row, whole, last);
        auto* const behind = first + (last - whole);
        const auto per_column = height / (right - left);
        const auto in_first = (1 - begin) * (1 - begin) * 0.5 * per_column;
        const auto end = right - last;
        const auto in_last = end * end * 0.5 * per_column;
        first[0] += in_first;
        first[1] += (1 - begin) * per_column - in_first;
        for (auto* step = first + 1; step < behind; ++step) {
            step[0] += per_column * 0.5;
            step[1] += per_column * 0.5;
        }
        behind[0] += end * per_column - in_last;
        behind[1] += in_last;
    }

    // Reports a row from left to right: varied(begin, end, set) for columns of which set(bytes) sets the bytes that
    // they are covered by, even(begin, end, byte) for those that are all alike.
    template <class Varied, class Even>
    void take(int row, const Varied& varied, const Even& even) {
        auto* const steps = steps_ + static_cast<std::size_t>(row) * stride_;
        auto sum = half_of_byte;
        const auto take_steps = [&](int begin, int end) {
            varied(begin, end, [&](int from, int to, std::uint8_t* bytes) {
                // (Bytes may alias all that is not local.)
                auto covered = sum;
                const auto* const step = steps + from;
                for (auto i = 0; i < to - from; ++i) {
                    covered += step[i];
                    bytes[i] = byte_of_sum(covered);
                }
                sum = covered;
            });
        };
        auto* const marks = &marks_[static_cast<std::size_t>(row) * words_];
        if (is_narrow()) {
            const auto bits = std::exchange(*marks, 0);
            if (bits == 0) return;
            const auto end = std::min(64 - std::countl_zero(bits), columns_);
            take_steps(std::countr_zero(bits), end);
            if (end < columns_) even(end, columns_, byte_of_sum(sum));
            return;
        }
        auto at = 0;
        for (std::size_t word = 0; word < words_; ++word) {
            // Columns side by side, from the first one that is marked.
            for (auto rest = std::exchange(marks[word], 0); rest != 0;) {
                const auto first = std::countr_zero(rest);
                const auto count = std::countr_one(rest >> first);
                rest = first + count < 64 ? rest >> (first + count) << (first + count) : 0;
                const auto begin = (static_cast<int>(word) * 64 + first) * static_cast<int>(together);
                const auto end = begin + count * static_cast<int>(together);
                if (begin > at && at < columns_) even(at, std::min(begin, columns_), byte_of_sum(sum));
                if (begin < columns_) take_steps(begin, std::min(end, columns_));
                at = end;
            }
        }
        if (at < columns_) even(at, columns_, byte_of_sum(sum));
    }

  private:
    [[nodiscard]] std::size_t bytes() const noexcept {
        return stride_ * static_cast<std::size_t>(rows_) * sizeof(double);
    }
    [[nodiscard]] bool is_narrow() const noexcept { return stride_ <= most_narrow; }

    // The steps from one column on, after those up to the one behind another are marked.
    double* steps_from(int row, int first, int last) noexcept {
        auto* const marks = &marks_[static_cast<std::size_t>(row) * words_];
        auto* const steps = steps_ + static_cast<std::size_t>(row) * stride_;
        if (is_narrow()) {
            if (*marks == 0) std::fill_n(steps, stride_, 0.0);
            *marks |= std::uint64_t{1} << first | std::uint64_t{2} << last;
            return steps + first;
        }
        const auto block_of = [](int column) { return static_cast<std::size_t>(column) / together; };
        for (auto block = block_of(first); block <= block_of(last + 1); ++block) {
            const auto bit = std::uint64_t{1} << block % 64;
            if ((marks[block / 64] & bit) != 0) continue;
            marks[block / 64] |= bit;
            std::fill_n(steps + block * together, together, 0.0);
        }
        return steps + first;
    }
    static constexpr std::size_t together = 4;  // columns that have a mark in wide rows
    static constexpr auto most_narrow = thresholds::narrow_sum;

    int columns_;
    int rows_;
    std::size_t stride_;
    std::size_t words_;
    std::pmr::memory_resource* memory_;
    double* steps_;
    std::pmr::vector<std::uint64_t> marks_;  // where there are steps
};

// One row that is so wide that there is no time or memory for each column: only those where something changes.
class SparseRow {
  public:
    SparseRow(int columns, std::pmr::memory_resource* memory) : columns_{columns}, changes_{memory} {}

    static constexpr int rows() noexcept { return 1; }

    // As DenseRows does.
    void add(int, double from, double to, double height) {
        const auto left = std::min(from, to);
        const auto right = std::max(from, to);
        const auto first = static_cast<int>(left);
        const auto last = static_cast<int>(right);
        if (right <= first + 1.0) return add_at(first, height, (left + right) / 2 - first);
        const auto per_column = height / (right - left);
        const auto in_first = first + 1.0 - left;
        add_at(first, in_first * per_column, 1 - in_first / 2);
        if (last - first > 1) {
            changes_.push_back({.column = first + 1, .step = -per_column / 2, .slope = per_column});
            changes_.push_back({.column = last, .step = per_column / 2, .slope = -per_column});
        }
        const auto in_last = right - last;
        add_at(last, in_last * per_column, in_last / 2);
    }

    // As DenseRows does, in runs that are all alike.
    template <class Varied, class Even>
    void take(int, const Varied&, const Even& even) {
        std::sort(changes_.begin(), changes_.end(),
                  [](const Change& a, const Change& b) { return a.column < b.column; });
        auto sum = half_of_byte;
        auto slope = 0.0;
        for (std::size_t i = 0; i < changes_.size() && changes_[i].column < columns_;) {
            const auto begin = changes_[i].column;
            for (; i < changes_.size() && changes_[i].column == begin; ++i) {
                sum += changes_[i].step;
                slope += changes_[i].slope;
            }
            const auto end = i < changes_.size() ? std::min(changes_[i].column, columns_) : columns_;
            take_ramp(begin, end, sum + slope, slope, even);
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

    void add_at(int column, double height, double distance) {
        if (column >= columns_) return;
        changes_.push_back({.column = column, .step = height * (1 - distance)});
        changes_.push_back({.column = column + 1, .step = height * distance});
    }

    // Runs of columns whose bytes are the same: coverage goes up or down from one to the other.
    template <class Even>
    void take_ramp(int begin, int end, double first, double slope, const Even& even) {
        const auto byte_at = [&](int column) { return byte_of_sum(first + slope * (column - begin)); };
        for (auto at = begin; at < end;) {
            const auto byte = byte_at(at);
            auto same = at;
            for (auto other = end; other - same > 1;) {
                const auto middle = same + (other - same) / 2;
                (byte_at(middle) == byte ? same : other) = middle;
            }
            even(at, same + 1, byte);
            at = same + 1;
        }
    }

    int columns_;
    std::pmr::vector<Change> changes_;
};

}  // namespace coldbrick::inline v0::detail

// The coverage of one row of pixels.
#pragma once

#include "geometry/integers.hpp"

#include <algorithm>
#include <cstdint>
#include <vector>

namespace coldbrick::detail {

// What is added to coverage in 255ths before it is cut to a whole number. Halves go up, however their sums are rounded.
inline constexpr double half_of_byte = 0.5 + 0x1p-24;

// What one row of pixels is covered by. Coverage is summed up from the differences between neighbours.
class CoverRow {
  public:
    explicit CoverRow(int width) : width_{width}, steps_(static_cast<std::size_t>(width) + 2, 0.0) {}

    // What lies right of a line from one x to another over a part of the row's height is covered so much more.
    void add(double from, double to, double height) {
        auto [left, right] = std::minmax(from, to);
        if (left >= width_) return;
        if (right <= 0) return add_at(0, height, 0);
        if (left < 0 || right > width_) return add_cut(left, right, height);
        const auto column = static_cast<int>(left);
        if (right <= column + 1) return add_at(column, height, (left + right) / 2 - column);
        add_across(left, right, column, height);
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

    // The sums lie between 0 and 1, but for their rounding.
    static std::uint8_t byte_of(double coverage) noexcept {
        const auto rounded = static_cast<int>(coverage * 255 + half_of_byte);
        return static_cast<std::uint8_t>(std::clamp(rounded, 0, 255));
    }

    // In one column, at a mean distance from its left side.
    void add_at(int column, double height, double distance) {
        auto* const step = &steps_[static_cast<std::size_t>(column)];
        step[0] += height * (1 - distance);
        step[1] += height * distance;
        note(column, column + 2);
    }

    void note(int begin, int end) {
        if (!parts_.empty() && begin >= parts_.back().begin && begin <= parts_.back().end) {
            parts_.back().end = std::max(parts_.back().end, end);
        } else {
            parts_.push_back({.begin = begin, .end = end});
        }
    }

    void add_across(double left, double right, int first, double height) {
        const auto per_column = height / (right - left);
        auto* step = &steps_[static_cast<std::size_t>(first)];
        // Of the first column and the last one only parts are crossed.
        const auto in_first = first + 1 - left;
        const auto first_height = in_first * per_column;
        step[0] += first_height * (in_first / 2);
        step[1] += first_height * (1 - in_first / 2);
        auto column = first + 1;
        for (; column + 1 <= right; ++column) {
            ++step;
            step[0] += per_column / 2;
            step[1] += per_column / 2;
        }
        const auto in_last = right - column;
        const auto last_height = in_last * per_column;
        step[1] += last_height * (1 - in_last / 2);
        step[2] += last_height * (in_last / 2);
        note(first, column + 2);
    }

    // A line that goes over the left or the right side.
    void add_cut(double left, double right, double height) {
        const auto per_column = height / (right - left);
        if (left < 0) add_at(0, -left * per_column, 0);
        const auto inside_left = std::max(left, 0.0);
        const auto inside_right = std::min(right, static_cast<double>(width_));
        add(inside_left, inside_right, (inside_right - inside_left) * per_column);
    }

    template <class Emit>
    void emit_even(int begin, int end, double sum, const Emit& emit) {
        const auto coverage = byte_of(sum);
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
            *byte++ = byte_of(running);
        }
        sum = running;
        emit(begin, end, bytes_.data(), std::uint8_t{255});
    }

    int width_;
    std::vector<double> steps_;
    std::vector<Part> parts_;  // where there are steps
    std::vector<std::uint8_t> bytes_;
};

}  // namespace coldbrick::detail

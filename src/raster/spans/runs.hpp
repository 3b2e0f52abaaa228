// Rows of runs: the pixels of a row as a short list, and the rows of a shape as a table.
#pragma once

#include "raster/spans/convex_rows.hpp"

#include <algorithm>
#include <array>
#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// A few runs of a row, from left to right, apart from each other.
class Runs {
  public:
    Runs() noexcept = default;
    explicit Runs(const Run& run) noexcept { add(run); }

    // Adds a run that begins at or right of those that are there; where they touch they become one.
    void add(const Run& run) noexcept {
        if (run.left >= run.right) return;
        if (count_ > 0 && run.left <= runs_[count_ - 1].right) {
            runs_[count_ - 1].right = std::max(runs_[count_ - 1].right, run.right);
        } else {
            runs_[count_++] = run;
        }
    }

    [[nodiscard]] const Run* begin() const noexcept { return runs_.data(); }
    [[nodiscard]] const Run* end() const noexcept { return runs_.data() + count_; }

    // What is in both.
    friend Runs operator&(const Runs& a, const Runs& b) noexcept {
        Runs result;
        const auto* in_a = a.begin();
        const auto* in_b = b.begin();
        while (in_a != a.end() && in_b != b.end()) {
            result.add({.left = std::max(in_a->left, in_b->left), .right = std::min(in_a->right, in_b->right)});
            (in_a->right < in_b->right ? in_a : in_b)++;
        }
        return result;
    }

    // What is in the first and not in the second.
    friend Runs operator-(const Runs& a, const Runs& b) noexcept {
        Runs result;
        for (auto run : a) {
            for (const auto& taken : b) {
                result.add({.left = run.left, .right = std::min(run.right, taken.left)});
                run.left = std::max(run.left, taken.right);
            }
            result.add(run);
        }
        return result;
    }

    // What is in either.
    friend Runs operator|(const Runs& a, const Runs& b) noexcept {
        Runs result;
        const auto* in_a = a.begin();
        const auto* in_b = b.begin();
        while (in_a != a.end() || in_b != b.end()) {
            const auto from_a = in_b == b.end() || (in_a != a.end() && in_a->left <= in_b->left);
            result.add(*(from_a ? in_a : in_b)++);
        }
        return result;
    }

    // Without the first and the last pixel of each run.
    [[nodiscard]] Runs shrunk() const noexcept {
        Runs result;
        for (const auto& [left, right] : *this) result.add({.left = left + 1, .right = right - 1});
        return result;
    }

  private:
    static constexpr std::size_t most = 12;
    std::array<Run, most> runs_;  // the first count_ are set
    std::size_t count_ = 0;
};

// The rows of a shape that has one run in each, as far as they are asked for.
class RunTable {
  public:
    explicit RunTable(std::pmr::memory_resource* memory) : runs_{memory} {}

    // Takes rows first to end - 1 of a shape: its top(), bottom() and run(y), which is called from row to row.
    template <class Rows>
    void take(Rows&& rows, int first, int end) {
        if (prepare(rows, first, end)) {
            for (std::size_t i = 0; i < runs_.size(); ++i) runs_[i] = rows.run(top_ + static_cast<int>(i));
        }
    }

    // The same for one that is its own mirror image from top to bottom.
    template <class Rows>
    void take_symmetric(Rows&& rows, int first, int end) {
        if (!prepare(rows, first, end)) return;
        const auto bottom = this->bottom();
        auto* const runs = runs_.data();
        // The lower half of a symmetric shape is the upper one, as far as that is there.
        const auto first_mirrored = std::int64_t{rows.top()} + rows.bottom() - 1;
        for (auto y = top_; y < bottom; ++y) {
            const auto mirrored = first_mirrored - y;
            runs[y - top_] = mirrored < y && mirrored >= top_ ? runs[mirrored - top_] : rows.run(y);
        }
    }

    // Of a shape without pixels.
    void take_nothing() noexcept { runs_.clear(); }

    [[nodiscard]] int top() const noexcept { return top_; }
    [[nodiscard]] int bottom() const noexcept { return top_ + static_cast<int>(runs_.size()); }
    // The rows from the top on.
    [[nodiscard]] const Run* data() const noexcept { return runs_.data(); }
    [[nodiscard]] Run run(int y) const noexcept {
        if (y < top_ || y >= bottom()) return {.left = 0, .right = 0};
        return runs_[static_cast<std::size_t>(y - top_)];
    }

  private:
    // Makes room for the rows that there are; says whether there are any.
    template <class Rows>
    bool prepare(const Rows& rows, int first, int end) {
        top_ = std::max(first, rows.top());
        const auto rows_end = std::min(end, rows.bottom());
        runs_.clear();
        if (top_ >= rows_end) return false;
        runs_.resize(static_cast<std::size_t>(std::int64_t{rows_end} - top_));
        return true;
    }

    int top_ = 0;
    std::pmr::vector<Run> runs_;
};

}  // namespace coldbrick::inline v0::detail

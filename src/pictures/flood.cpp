// The connected region around a pixel.
#include "coldbrick/flood.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <map>
#include <string>
#include <unordered_map>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// Goes from run to run: a run that is found is looked around on the rows above and below.
class Flooder {
  public:
    Flooder(const Surface& surface, const FloodFrom& how)
        : surface_{surface},
          tolerance_{how.tolerance},
          corners_{how.neighbors == Neighbors::eight ? 1 : 0},
          color_{decode(surface, how.from)},
          first_{surface.kernel->is_sparse || (tolerance_ > 0 && surface.kernel->blend == nullptr)
                     ? nullptr
                     : pixel_address(surface, how.from.x, how.from.y)},
          right_{surface.window.last().x + 1} {
        waiting_.push_back(how.from);
    }

    Region run() {
        while (!waiting_.empty()) {
            const auto [x, y] = waiting_.back();
            waiting_.pop_back();
            if (end_of_found(x, y) > x) continue;
            auto left = x;
            auto right = x + 1;
            while (left > surface_.window.at.x && is_like(left - 1, y)) --left;
            while (right < right_ && is_like(right, y)) ++right;
            found_[y].emplace(left, right);
            look(left, right, y - 1);
            look(left, right, y + 1);
        }
        std::vector<Span> spans;
        for (const auto& [y, runs] : found_) {
            for (const auto& [left, right] : runs) spans.push_back({.y = y, .x = left, .length = right - left});
        }
        std::sort(spans.begin(), spans.end(),
                  [](const Span& a, const Span& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; });
        return Region::of_spans(std::move(spans));
    }

  private:
    [[nodiscard]] bool is_like(int x, int y) const noexcept {
        if (first_ == nullptr) return is_near(decode(surface_, {.x = x, .y = y})) && is_shown(x, y);
        const auto* const pixel = pixel_address(surface_, x, y);
        for (auto i = 0; i < surface_.kernel->pixel_bytes(); ++i) {
            if (std::abs(pixel[i] - first_[i]) > tolerance_) return false;
        }
        return is_shown(x, y);
    }

    [[nodiscard]] bool is_shown(int x, int y) const noexcept {
        return surface_.mask() == nullptr || surface_.mask()->contains({.x = x, .y = y});
    }

    [[nodiscard]] bool is_near(Color color) const noexcept {
        const auto away = [](int a, int b) { return std::abs(a - b); };
        return std::max({away(color.red, color_.red), away(color.green, color_.green), away(color.blue, color_.blue),
                         away(color.alpha, color_.alpha)}) <= tolerance_;
    }

    // Where the run that was found at a pixel ends; the pixel itself if there is none.
    [[nodiscard]] int end_of_found(int x, int y) const {
        const auto row = found_.find(y);
        if (row == found_.end()) return x;
        const auto after = row->second.upper_bound(x);
        return after == row->second.begin() ? x : std::max(x, std::prev(after)->second);
    }

    // Notes the beginning of each run in a row that touches one beside it.
    void look(int left, int right, int y) {
        if (y < surface_.window.at.y || y > surface_.window.last().y) return;
        const auto end = std::min(right + corners_, right_);
        for (auto x = std::max(left - corners_, surface_.window.at.x); x < end; ++x) {
            const auto known = end_of_found(x, y);
            if (known > x) {
                x = known;  // which is not like the first pixel, or outside
                continue;
            }
            if (!is_like(x, y)) continue;
            waiting_.push_back({.x = x, .y = y});
            while (x < end && is_like(x, y)) ++x;
        }
    }

    const Surface& surface_;
    int tolerance_;
    int corners_;
    Color color_;
    const std::uint8_t* first_;  // the first pixel's bytes; null where pixels cannot be compared byte by byte
    int right_;
    std::vector<Point> waiting_;
    std::unordered_map<int, std::map<int, int>> found_;  // for each row, runs by their left end
};

}  // namespace

namespace {

[[noreturn]] void refuse_start(const Surface& surface, Point from) {
    const auto words = [](Point p) { return std::to_string(p.x) + "," + std::to_string(p.y); };
    throw Error{"flood: from is " + words(from) + "; allowed is " +
                (surface.window.empty() ? "no pixel, as the view's clip is empty"
                                        : words(surface.window.at) + " to " + words(surface.window.last()))};
}

}  // namespace

void check_flood(const FloodFrom& how) {
    check_choice("flood", "neighbors", how.neighbors, {"four", "eight"});
    constexpr auto most = 255;
    if (how.tolerance < 0 || how.tolerance > most) refuse("flood", "tolerance", how.tolerance, 0, most);
}

Region flood(const Surface& surface, const FloodFrom& how) {
    if (!coldbrick::contains(surface.window, how.from)) refuse_start(surface, how.from);
    check_flood(how);
    if (surface.mask() != nullptr && !surface.mask()->contains(how.from)) {
        throw Error{"flood: from is outside the region of the view"};
    }
    return Flooder{surface, how}.run();
}

Box fill_flood(const Surface& surface, const FloodFrom& how, const Ink& ink) {
    check_flood(how);
    if (!contains(surface, how.from)) return {};
    const auto region = flood(surface, how);
    return paint(surface, ink, area_ref(region));
}

}  // namespace coldbrick::inline v0::detail

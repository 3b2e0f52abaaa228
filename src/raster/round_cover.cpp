#include "raster/round_cover.hpp"

#include "geometry/trigonometry.hpp"
#include "raster/cover.hpp"
#include "raster/cover_row.hpp"
#include "raster/fine.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coldbrick::detail {

namespace {

// The rows of the upper half from the top down: along the edge from its top to its left end, by chords at equal steps
// of the angle that the ellipse takes from a circle, and their mirror images. The lower half is the upper one upside
// down.
class RoundCover {
  public:
    RoundCover(const Box& box, const Window& window, const SpanReceiver& receiver)
        : box_{box},
          window_{window},
          receiver_{receiver},
          width_{double{1} * box.size.width},
          offset_{double{1} * box.at.x - window.left},
          row_{window.right - window.left} {
        half_ = {width_ / 2, box.size.height / 2.0};
    }

    Box run() {
        const auto upper_rows = (box_.size.height + 1) / 2;
        draw_edge(upper_rows);
        std::reverse(kept_.begin(), kept_.end());
        for (const auto& kept : kept_) hand_over_mirrored(kept);
        return touched_;
    }

  private:
    // What is remembered of a row for its mirror image: its spans, whose bytes lie in bytes_.
    struct Kept {
        int row;
        std::size_t first_span;
        std::size_t end_span;
    };
    struct KeptSpan {
        int x;
        int length;
        std::size_t bytes;
        bool varies;
        std::uint8_t all;
    };

    void draw_edge(int rows) {
        const auto longer = std::max(half_.x, half_.y);
        const auto steps =
            static_cast<int>(std::ceil(std::numbers::pi / 2 * std::sqrt(longer / (8 * smooth_flatness))));
        const auto step = direction_of(Angle::degrees(-90.0 / steps));
        // The corners lie outside by as much as gives the chords the area of the arcs.
        const auto angle = std::numbers::pi / 2 / steps;
        const auto outward = std::sqrt(angle / std::sin(angle));
        auto on_circle = Vec{0, -1};
        auto before = Vec{half_.x, 0};
        auto row = 0;
        for (auto i = 1; i <= steps; ++i) {
            on_circle = i == steps ? Vec{-1, 0} : turned(on_circle, step);
            const auto corner = on_circle * outward;
            const auto at =
                Vec{std::max(half_.x + half_.x * corner.x, 0.0), std::max(half_.y + half_.y * corner.y, before.y)};
            const auto slope = at.y > before.y ? (at.x - before.x) / (at.y - before.y) : 0.0;
            while (at.y >= row + 1) {
                const auto cut = Vec{before.x + (row + 1 - before.y) * slope, double{1} * row + 1};
                add(before, cut);
                hand_over(row++);
                before = cut;
            }
            add(before, at);
            before = at;
        }
        // The middle row of an odd number is its own mirror image.
        if (row < rows) {
            is_middle_ = true;
            hand_over(row);
        }
    }

    // A line of the edge, its image on the right, and in the middle row those below.
    void add(Vec from, Vec to) {
        const auto height = to.y - from.y;
        if (height <= 0) return;
        const auto is_doubled = box_.size.height % 2 == 1 && from.y >= half_.y - 0.5;
        const auto share = is_doubled ? 2 * height : height;
        row_.add(offset_ + from.x, offset_ + to.x, share);
        row_.add(offset_ + width_ - from.x, offset_ + width_ - to.x, -share);
    }

    void hand_over(int row) {
        const auto y = box_.at.y + row;
        const auto mirrored = box_.at.y + (box_.size.height - 1 - row);
        const auto is_shown = y >= window_.top && y < window_.bottom;
        const auto is_mirror_shown =
            !is_middle_ && mirrored != y && mirrored >= window_.top && mirrored < window_.bottom;
        const auto first_span = spans_.size();
        row_.flush([&](int begin, int end, const std::uint8_t* each, std::uint8_t all) {
            const auto span =
                CoverSpan{.y = y, .x = window_.left + begin, .length = end - begin, .each = each, .all = all};
            if (is_shown) tell(span);
            if (!is_mirror_shown) return;
            spans_.push_back(
                {.x = span.x, .length = span.length, .bytes = bytes_.size(), .varies = each != nullptr, .all = all});
            if (each != nullptr) bytes_.insert(bytes_.end(), each, each + span.length);
        });
        if (is_mirror_shown) kept_.push_back({.row = mirrored, .first_span = first_span, .end_span = spans_.size()});
    }

    void hand_over_mirrored(const Kept& kept) {
        for (auto i = kept.first_span; i < kept.end_span; ++i) {
            const auto& span = spans_[i];
            tell({.y = kept.row,
                  .x = span.x,
                  .length = span.length,
                  .each = span.varies ? bytes_.data() + span.bytes : nullptr,
                  .all = span.all});
        }
    }

    void tell(const CoverSpan& span) {
        take_cover(receiver_, span);
        const auto left = touched_.empty() ? span.x : std::min(touched_.at.x, span.x);
        const auto right =
            std::max(touched_.empty() ? span.x : touched_.at.x + touched_.size.width, span.x + span.length);
        const auto top = touched_.empty() ? span.y : touched_.at.y;
        touched_ = {.at = {.x = left, .y = top}, .size = {right - left, span.y + 1 - top}};
    }

    Box box_;
    Window window_;
    SpanReceiver receiver_;
    double width_;
    double offset_;
    Vec half_;
    CoverRow row_;
    bool is_middle_ = false;
    std::vector<Kept> kept_;
    std::vector<KeptSpan> spans_;
    std::vector<std::uint8_t> bytes_;
    Box touched_;
};

}  // namespace

bool is_quick_round(const Box& box) noexcept {
    constexpr auto most = 16384;
    constexpr auto far = 1 << 29;
    return box.size.width <= most && box.size.height <= most && box.at.x > -far && box.at.x < far && box.at.y > -far &&
           box.at.y < far;
}

Box scan_round_cover(const Box& box, const Box& clip, const SpanReceiver& receiver) {
    const auto seen = intersection(box, clip);
    if (seen.empty()) return {};
    return RoundCover{box, window_of(seen), receiver}.run();
}

}  // namespace coldbrick::detail

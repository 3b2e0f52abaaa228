#include "raster/strokes/round_cover.hpp"

#include "geometry/trigonometry.hpp"
#include "raster/coverage/cover_batch.hpp"
#include "raster/coverage/cover_row.hpp"
#include "raster/edges/fine.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coldbrick::detail {

namespace {

// The rows of the upper half from the top down: along the edge from its top to its left end, by chords at equal steps
// of the angle that the ellipse takes from a circle. The right half is the left one mirrored, the lower half the upper
// one upside down.
class RoundCover {
  public:
    RoundCover(const Box& box, const Window& window, const SpanReceiver& receiver)
        : box_{box},
          half_{box.size.width / 2.0, box.size.height / 2.0},
          row_{half_columns()},
          batch_{window, receiver} {}

    Box run() {
        draw_edge();
        for (const auto& kept : kept_) tell(kept, kept.row);
        // The middle row of an odd number is its own mirror image.
        for (auto i = kept_.size(); i-- > 0;) {
            const auto mirrored = box_.size.height - 1 - kept_[i].row;
            if (mirrored != kept_[i].row) tell(kept_[i], mirrored);
        }
        return batch_.finish();
    }

  private:
    // A row of the upper half: the columns that the edge goes over. Their bytes lie in bytes_, and then those of their
    // mirror images.
    struct Kept {
        int row;
        int begin;
        int end;
        int mirrored;  // how many of them
        std::size_t bytes;
    };

    // A middle column belongs to both halves.
    [[nodiscard]] int half_columns() const noexcept { return (box_.size.width + 1) / 2; }

    void draw_edge() {
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
                keep(row++);
                before = cut;
            }
            add(before, at);
            before = at;
        }
        if (2 * row < box_.size.height) keep(row);
    }

    // A line of the edge; in the middle row also the one below, in the middle column also the one on the right.
    void add(Vec from, Vec to) {
        const auto height = to.y - from.y;
        if (height <= 0) return;
        const auto is_doubled = box_.size.height % 2 == 1 && from.y >= half_.y - 0.5;
        const auto share = is_doubled ? 2 * height : height;
        row_.add(from.x, to.x, share);
        const auto middle = half_.x - 0.5;
        if (box_.size.width % 2 == 0 || from.x <= middle) return;
        const auto part = to.x >= middle ? 1 : (from.x - middle) / (from.x - to.x);
        row_.add(2 * half_.x - from.x, 2 * half_.x - std::max(to.x, middle), -share * part);
    }

    void keep(int row) {
        row_.flush([&](int begin, int end, const std::uint8_t* each, std::uint8_t) {
            if (each == nullptr) return;
            for (; begin < end && *each == 0; ++begin) ++each;
            while (end > begin && each[end - begin - 1] == 255) --end;
            const auto mirrored = std::min(end, box_.size.width - end) - begin;
            kept_.push_back({.row = row, .begin = begin, .end = end, .mirrored = mirrored, .bytes = bytes_.size()});
            for (auto i = 0; i < end - begin; ++i) bytes_.push_back(each[i]);
            for (auto i = mirrored; i-- > 0;) bytes_.push_back(each[i]);
        });
    }

    // Tells a row like one that is kept.
    void tell(const Kept& kept, int row) {
        const auto y = box_.at.y + row;
        if (y < batch_.window().top || y >= batch_.window().bottom) return;
        const auto left = box_.at.x;
        const auto right = left + box_.size.width;
        const auto* const bytes = bytes_.data() + kept.bytes;
        const auto count = kept.end - kept.begin;
        batch_.add_kept(y, left + kept.begin, bytes, count);
        batch_.add_alike(y, left + kept.end, right - kept.end, 255);
        batch_.add_kept(y, right - kept.begin - kept.mirrored, bytes + count, kept.mirrored);
    }

    Box box_;
    Vec half_;
    CoverRow<DenseSteps> row_;
    CoverBatch batch_;
    std::vector<Kept> kept_;
    std::vector<std::uint8_t> bytes_;
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

#include "raster/coverage/convex_cover.hpp"

#include "raster/coverage/cover_batch.hpp"
#include "raster/coverage/cover_line.hpp"
#include "raster/coverage/cover_row.hpp"

#include <algorithm>
#include <array>
#include <cstddef>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto most_pixels = 512;

// A side of the polygon, from its top to its bottom, in pixels of the polygon's box.
struct Side {
    double top;
    double bottom;
    double x;  // at the top
    double slope;
    RowLine line;  // from row 0 on

    [[nodiscard]] double at(double y) const noexcept { return x + slope * (y - top); }
    [[nodiscard]] bool goes_through(int row) const noexcept { return top <= row && bottom >= row + 1; }
};

// All on the left or on the right, from above.
class Sides {
  public:
    void add(const Side& side) noexcept {
        auto at = count_++;
        for (; at > 0 && sides_[at - 1].top > side.top; --at) sides_[at] = sides_[at - 1];
        sides_[at] = side;
    }

    // Leaves out those that end above a row.
    void come_to(int row) noexcept {
        while (first_ < count_ && sides_[first_].bottom <= row) ++first_;
    }

    [[nodiscard]] bool empty() const noexcept { return first_ == count_; }
    [[nodiscard]] Side& first() noexcept { return sides_[first_]; }
    // Those that have a part in a row.
    [[nodiscard]] std::span<const Side> in_row(int row) const noexcept {
        auto end = first_;
        while (end < count_ && sides_[end].top < row + 1) ++end;
        return {sides_.data() + first_, end - first_};
    }

  private:
    std::array<Side, most_convex_corners> sides_;
    std::size_t first_ = 0;
    std::size_t count_ = 0;
};

struct FineBox {
    FinePoint least;
    FinePoint most;
};

FineBox fine_box_around(std::span<const FinePoint> corners) noexcept {
    auto box = FineBox{.least = corners.front(), .most = corners.front()};
    for (const auto& [x, y] : corners) {
        box.least = {.x = std::min(box.least.x, x), .y = std::min(box.least.y, y)};
        box.most = {.x = std::max(box.most.x, x), .y = std::max(box.most.y, y)};
    }
    return box;
}

// Of differences that are small enough.
int turn_of(std::span<const FinePoint> corners) noexcept {
    auto turn = 0;
    auto changes = 0;
    const auto difference = [](const FinePoint& a, const FinePoint& b) {
        return FinePoint{.x = b.x - a.x, .y = b.y - a.y};
    };
    const auto sign = [](std::int64_t value) { return value > 0 ? 1 : (value < 0 ? -1 : 0); };
    const auto count = corners.size();
    auto last = difference(corners[count - 2], corners[count - 1]);
    auto was_down = 0;
    for (std::size_t i = 0; i <= count; ++i) {
        const auto edge = difference(corners[(i + count - 1) % count], corners[i % count]);
        if (edge.x == 0 && edge.y == 0) return 0;
        const auto cross = sign(last.x * edge.y - last.y * edge.x);
        if (cross == 0 && sign(last.x * edge.x + last.y * edge.y) < 0) return 0;
        if (cross != 0 && turn != 0 && cross != turn) return 0;
        if (cross != 0) turn = cross;
        const auto is_down = sign(edge.y);
        // Once round: the first edge comes again at the end.
        if (is_down != 0) {
            changes += was_down != 0 && is_down != was_down ? 1 : 0;
            was_down = is_down;
        }
        last = edge;
    }
    return changes <= 2 ? turn : 0;
}

// Steps of a row (cover_row.hpp) that need no memory, as they lie side by side in few columns.
class NearbySteps {
  public:
    explicit NearbySteps(int width) noexcept : width_{width}, first_{width} {
        std::fill_n(steps_.begin(), width + 3, 0.0);
    }

    void add_at(int column, double height, double distance) noexcept {
        add_height(&steps_[static_cast<std::size_t>(column)], height, distance);
        note(column, column + 2);
    }

    void add_ramp(int first, int count, double per_column) noexcept {
        add_evenly(&steps_[static_cast<std::size_t>(first)], count, per_column);
        note(first, first + count + 1);
    }

    // Calls emit(first, count, set) if there are any: set(bytes) sets what covers so many columns.
    template <class Emit>
    void flush(const Emit& emit) {
        const auto count = std::min(last_, width_) - first_;
        auto* const steps = steps_.data() + first_;
        const auto set = [&](std::uint8_t* bytes) {
            auto sum = 0.0;
            for (auto i = 0; i < count; ++i) {
                sum += steps[i];
                bytes[i] = byte_of_coverage(sum);
            }
        };
        if (count > 0) emit(first_, count, set);
        if (last_ > first_) std::fill_n(steps, last_ - first_, 0.0);
        first_ = width_;
        last_ = 0;
    }

  private:
    void note(int first, int last) noexcept {
        first_ = std::min(first_, first);
        last_ = std::max(last_, last);
    }

    int width_;
    int first_;  // of the columns with steps
    int last_ = 0;
    std::array<double, most_pixels + 4> steps_;
};

class ConvexCover {
  public:
    ConvexCover(std::span<const FinePoint> corners, int turn, const Box& box, const SpanReceiver& receiver) noexcept
        : box_{box}, batch_{window_of(box), receiver}, row_{box.size.width} {
        auto from = corners.back();
        for (const auto& to : corners) {
            add(from, to, turn);
            from = to;
        }
    }

    Box run() {
        for (int row = 0; row < box_.size.height; ++row) {
            left_.come_to(row);
            right_.come_to(row);
            if (!tell_through(row)) sum_up(row);
        }
        return batch_.finish();
    }

  private:
    void add(const FinePoint& from, const FinePoint& to, int turn) noexcept {
        if (from.y == to.y) return;
        const auto is_down = from.y < to.y;
        const auto& [upper, lower] = is_down ? std::pair{from, to} : std::pair{to, from};
        constexpr auto unit = static_cast<double>(fine_unit);
        // A pixel begins half a pixel before its centre.
        const auto offset =
            FinePoint{.x = box_.at.x * fine_unit - fine_unit / 2, .y = box_.at.y * fine_unit - fine_unit / 2};
        auto side = Side{.top = static_cast<double>(upper.y - offset.y) / unit,
                         .bottom = static_cast<double>(lower.y - offset.y) / unit,
                         .x = static_cast<double>(upper.x - offset.x) / unit,
                         .slope = static_cast<double>(lower.x - upper.x) / static_cast<double>(lower.y - upper.y),
                         .line = {}};
        const auto is_right = (turn > 0) == is_down;
        side.line = row_line(side.at(0), side.slope, !is_right);
        (is_right ? right_ : left_).add(side);
    }

    // A row that one side on the left and one on the right go through, apart from each other. Says whether it is one.
    bool tell_through(int row) {
        if (left_.empty() || right_.empty()) return false;
        if (!left_.first().goes_through(row) || !right_.first().goes_through(row)) return false;
        auto& left = left_.first().line;
        auto& right = right_.first().line;
        // Both lie in the box.
        left.left = left.start + row * left.slope;
        left.begin = static_cast<int>(left.left);
        right.left = right.start + row * right.slope;
        right.begin = static_cast<int>(right.left + right.width) + 1 - right.columns;
        if (left.begin < 0 || left.end() > right.begin || right.end() > box_.size.width) return false;
        const auto y = box_.at.y + row;
        const auto column = [&](std::int64_t at) { return box_.at.x + static_cast<int>(at); };
        const auto tell = [&](const RowLine& line) {
            batch_.add_set(y, column(line.begin), line.columns,
                           [&](std::uint8_t* bytes) { set_bytes_along(line, bytes); });
        };
        tell(left);
        batch_.add_alike(y, column(left.end()), column(right.begin), 255);
        tell(right);
        return true;
    }

    // Any row, from the areas right of its sides.
    void sum_up(int row) {
        const auto add_sides = [&](std::span<const Side> sides, double sign) {
            for (const auto& side : sides) {
                const auto top = std::max(side.top, double{1} * row);
                const auto bottom = std::min(side.bottom, double{1} * row + 1);
                const auto place = [&](double y) { return std::clamp(side.at(y), 0.0, double{1} * box_.size.width); };
                if (top < bottom) row_.add(place(top), place(bottom), sign * (bottom - top));
            }
        };
        add_sides(left_.in_row(row), 1);
        add_sides(right_.in_row(row), -1);
        row_.flush([&](int first, int count, const auto& set) {
            batch_.add_set(box_.at.y + row, box_.at.x + first, count, set);
        });
    }

    Box box_;
    CoverBatch batch_;
    CoverRow<NearbySteps> row_;
    Sides left_;
    Sides right_;
};

}  // namespace

int convex_turn(std::span<const FinePoint> corners) noexcept {
    if (corners.size() < 3) return 0;
    const auto [least, most] = fine_box_around(corners);
    constexpr auto most_units = (most_pixels - 1) * fine_unit;
    const auto is_small = most.x - least.x <= most_units && most.y - least.y <= most_units;
    return is_small ? turn_of(corners) : 0;
}

std::optional<Box> scan_convex_cover(std::span<const FinePoint> corners, const Box& clip,
                                     const SpanReceiver& receiver) {
    if (corners.size() < 3 || corners.size() > most_convex_corners || receiver.take_cover == nullptr) {
        return std::nullopt;
    }
    const auto [least, most] = fine_box_around(corners);
    // The pixels whose squares have places in between.
    const auto pixel = [](std::int64_t units) { return static_cast<int>((units + fine_unit / 2) >> fine_bits); };
    const auto box = Box::between(
        {.from = {.x = pixel(least.x), .y = pixel(least.y)}, .to = {.x = pixel(most.x), .y = pixel(most.y)}});
    if (intersection(box, clip) != box) return std::nullopt;
    const auto turn = convex_turn(corners);
    if (turn == 0) return std::nullopt;
    return ConvexCover{corners, turn, box, receiver}.run();
}

}  // namespace coldbrick::inline v0::detail

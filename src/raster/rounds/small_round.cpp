#include "raster/rounds/small_round.hpp"

#include <algorithm>
#include <cstring>
#include <memory>
#include <mutex>

namespace coldbrick::inline v0::detail {

SmallRound::SmallRound(const Size& size, const QuarterRows& rows, const QuarterRows* inner) noexcept
    : size_{size}, left_{size.width}, top_{end()} {
    for (auto row = end(); row-- > 0;) {
        inner != nullptr ? set_row_with_hole(rows.of_row(row), inner->of_row(row), row)
                         : set_row(rows.of_row(row), row);
        const auto& kept = rows_[static_cast<std::size_t>(row)];
        const auto begin = int{kept.begin};
        if (2 * begin >= size_.width + 1 || (kept.has_hole && begin == kept.end)) continue;
        left_ = std::min(left_, begin);
        top_ = row;
    }
}

// Behind the bytes of the left half, those of the right one. The middle column of an odd number is not mirrored.
void SmallRound::mirror(Row& row, std::uint8_t* end) const noexcept {
    auto* const first = row.bytes.data();
    const auto between = size_.width - 2 * row.end;
    const auto* from = between < 0 && end > first ? end - 1 : end;
    if (between > 0 && !row.is_split) {
        std::memset(end, 255, static_cast<std::size_t>(between));
        end += between;
    }
    while (from > first) *end++ = *--from;
}

void SmallRound::set_row(const QuarterRows::Columns& columns, int row) noexcept {
    auto& kept = rows_[static_cast<std::size_t>(row)];
    auto [begin, end, areas] = columns;
    for (; begin < end && byte_of_area(*areas) == 0; ++begin) ++areas;
    auto* to = kept.bytes.data();
    for (auto i = 0; i < end - begin; ++i) *to++ = byte_of_area(areas[i]);
    kept.begin = static_cast<std::uint8_t>(begin);
    kept.end = static_cast<std::uint8_t>(end);
    kept.is_split = size_.width - 2 * kept.end >= thresholds::split_round;
    kept.has_hole = false;
    mirror(kept, to);
}

void SmallRound::set_row_with_hole(const QuarterRows::Columns& columns, const QuarterRows::Columns& hole,
                                   int row) noexcept {
    if (2 * hole.begin >= size_.width) return set_row(columns, row);
    auto& kept = rows_[static_cast<std::size_t>(row)];
    auto begin = columns.begin;
    const auto last = std::max(columns.end, hole.end);
    auto* const first = kept.bytes.data();
    auto* to = first;
    for (auto i = columns.begin; i < columns.end; ++i) {
        *to = byte_of_area(std::max(columns.areas[i - columns.begin] - hole.area_of(i), 0));
        if (to == first && *to == 0) {
            ++begin;
        } else {
            ++to;
        }
    }
    for (auto i = columns.end; i < std::min(last, hole.begin); ++i) *to++ = 255;
    for (auto i = std::max(columns.end, hole.begin); i < last; ++i) *to++ = byte_of_area(whole_area - hole.area_of(i));
    // What reaches the middle is one stretch with its mirror image.
    const auto half = (size_.width + 1) / 2;
    auto end = last;
    while (end > begin && end < half && to[-1] == 0) {
        --end;
        --to;
    }
    kept.begin = static_cast<std::uint8_t>(begin);
    kept.end = static_cast<std::uint8_t>(end);
    kept.is_split = end < half;
    kept.has_hole = true;
    if (begin < end) mirror(kept, to);
}

namespace {

// All of a small quarter.
QuarterRows find_small(const QuarterEdge& edge, const Size& box, SmallQuarterRoom<SmallRound::largest>& room) noexcept {
    SmallQuarterNumbers<SmallRound::largest> numbers;
    return find_quarter(edge, box, QuarterPart::all_of(box),
                        {.numbers = numbers.numbers.data(), .rows = room.rows.data(), .areas = room.areas.data()});
}

// The upper left quarter of a circle, in a box of its own.
class KeptQuarter {
  public:
    explicit KeptQuarter(int diameter) noexcept {
        const auto half = Vec{diameter / 2.0, diameter / 2.0};
        rows = find_small({.center = half, .half_axes = half}, {.width = diameter, .height = diameter}, room_);
    }
    KeptQuarter(const KeptQuarter&) = delete;
    KeptQuarter& operator=(const KeptQuarter&) = delete;
    KeptQuarter(KeptQuarter&&) = delete;
    KeptQuarter& operator=(KeptQuarter&&) = delete;
    ~KeptQuarter() = default;

    QuarterRows rows;

  private:
    SmallQuarterRoom<SmallRound::largest> room_;
};

// One for each diameter, found out once for all, when it is first asked for.
template <class Kept, int largest>
const Kept& kept_of(int diameter) {
    struct Entry {
        std::once_flag once;
        std::unique_ptr<const Kept> kept;
    };
    static std::array<Entry, std::size_t{largest} + 1> all;
    auto& entry = all[static_cast<std::size_t>(diameter)];
    std::call_once(entry.once, [&] { entry.kept = std::make_unique<const Kept>(diameter); });
    return *entry.kept;
}

// The rows within an edge of a box: out of those of a circle, where it is a quarter of one that begins at a pixel's
// corner, else found in the room.
class SmallQuarter {
  public:
    SmallQuarter(const QuarterEdge& edge, const Size& box) {
        const auto [a, b] = edge.half_axes;
        const auto corner = edge.center - edge.half_axes;
        const auto diameter = static_cast<int>(2 * a);
        const auto is_kept = edge.distance == 0 && a == b && a > 0 && 2 * a == diameter &&
                             diameter <= SmallRound::largest && corner.x == corner.y &&
                             corner.x == static_cast<int>(corner.x) && fits(edge, diameter, box);
        if (is_kept) {
            rows_ = kept_of<KeptQuarter, SmallRound::largest>(diameter).rows;
            rows_.shift = static_cast<int>(corner.x);
            rows_.columns = (box.width + 1) / 2;
            return;
        }
        rows_ = find_small(edge, box, room_);
    }
    SmallQuarter(const SmallQuarter&) = delete;
    SmallQuarter& operator=(const SmallQuarter&) = delete;
    SmallQuarter(SmallQuarter&&) = delete;
    SmallQuarter& operator=(SmallQuarter&&) = delete;
    ~SmallQuarter() = default;

    [[nodiscard]] const QuarterRows& rows() const noexcept { return rows_; }

  private:
    // A circle's middle column and row are halves, which must be the box's as well.
    static bool fits(const QuarterEdge& edge, int diameter, const Size& box) noexcept {
        const auto is_middle = 2 * edge.center.x == box.width && 2 * edge.center.y == box.height;
        return diameter % 2 == 0 || is_middle;
    }

    QuarterRows rows_;
    SmallQuarterRoom<SmallRound::largest> room_;
};

struct KeptCircle {
    explicit KeptCircle(int diameter)
        : circle{{.width = diameter, .height = diameter},
                 kept_of<KeptQuarter, SmallRound::largest>(diameter).rows,
                 nullptr} {}
    SmallRound circle;
};

}  // namespace

SmallRound small_round(const Size& size, const QuarterEdge& edge, const QuarterEdge* inner) {
    const SmallQuarter outer{edge, size};
    if (inner == nullptr) return SmallRound{size, outer.rows(), nullptr};
    const SmallQuarter hole{*inner, size};
    return SmallRound{size, outer.rows(), &hole.rows()};
}

const SmallRound& small_circle(int diameter) { return kept_of<KeptCircle, largest_kept_circle>(diameter).circle; }

SmallRoundSpans::SmallRoundSpans(const SmallRound& shape, Point at) noexcept {
    const auto width = shape.size().width;
    const auto height = shape.size().height;
    const auto report = [&](const SmallRound::Row& row, int y) {
        const auto add = [&](int begin, int end, const std::uint8_t* each) {
            spans_[count_++] = {.y = y, .x = at.x + begin, .length = end - begin, .each = each, .all = 255};
        };
        const auto& [begin, end, is_split, has_hole, bytes] = row;
        const auto* const each = bytes.data();
        const auto in_part = end - begin;
        if (!is_split) {
            if (2 * begin < width) add(begin, width - begin, each);
            return;
        }
        if (in_part > 0) add(begin, end, each);
        if (!has_hole) add(end, width - end, nullptr);
        if (in_part > 0) add(width - end, width - begin, each + in_part);
    };
    const auto end = shape.end();
    for (auto row = shape.top(); row < end; ++row) report(shape.row(row), at.y + row);
    for (auto row = height - end; row-- > shape.top();) report(shape.row(row), at.y + height - 1 - row);
}

}  // namespace coldbrick::inline v0::detail

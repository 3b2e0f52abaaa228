#include "raster/strokes/small_round.hpp"

#include "raster/coverage/cover_row.hpp"

#include <algorithm>
#include <cstring>
#include <mutex>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

// Fewer columns than that are told sooner by bytes.
constexpr auto long_run = 5;

}  // namespace

SmallRound::SmallRound(const Size& size, const QuarterEdge& edge, const QuarterEdge* inner) noexcept
    : size_{size}, left_{size.width}, top_{end()} {
    std::array<double, largest + 2> room;
    std::array<double, largest + 2> hole_room;
    const QuarterAreas areas{edge, size_, 0, end(), room.data()};
    std::optional<QuarterAreas> hole;
    if (inner != nullptr) hole.emplace(*inner, size_, 0, end(), hole_room.data());
    for (auto row = end(); row-- > 0;) {
        hole ? set_row_with_hole(areas, *hole, row) : set_row(areas, row);
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

void SmallRound::set_row(const QuarterAreas& areas, int row) noexcept {
    auto& kept = rows_[static_cast<std::size_t>(row)];
    const auto columns = areas.of_row(row);
    auto skipped = 0;
    auto* const first = kept.bytes.data();
    auto* end = first;
    areas.for_each_area(row, columns, [&](int, double area) {
        *end = byte_of_coverage(area);
        if (end == first && *end == 0) {
            ++skipped;
        } else {
            ++end;
        }
    });
    kept.begin = static_cast<std::uint8_t>(columns.begin + skipped);
    kept.end = static_cast<std::uint8_t>(columns.end);
    kept.is_split = size_.width - 2 * kept.end >= long_run;
    kept.has_hole = false;
    mirror(kept, end);
}

void SmallRound::set_row_with_hole(const QuarterAreas& areas, const QuarterAreas& hole, int row) noexcept {
    const auto in_hole = hole.of_row(row);
    if (2 * in_hole.begin >= size_.width) return set_row(areas, row);
    auto& kept = rows_[static_cast<std::size_t>(row)];
    const auto columns = areas.of_row(row);
    std::array<double, largest / 2> covered;
    const auto last = std::max(columns.end, in_hole.end);
    std::fill(covered.begin() + columns.begin, covered.begin() + last, 1.0);
    const auto at = [&](int column) -> double& { return covered[static_cast<std::size_t>(column)]; };
    areas.for_each_area(row, columns, [&](int column, double area) { at(column) = area; });
    hole.for_each_area(row, in_hole, [&](int column, double area) {
        if (column >= columns.begin) at(column) -= area;
    });
    for (auto column = in_hole.end; column < last; ++column) at(column) -= 1;
    auto begin = columns.begin;
    auto end = last;
    while (begin < end && byte_of_coverage(at(begin)) == 0) ++begin;
    // What reaches the middle is one stretch with its mirror image.
    const auto half = (size_.width + 1) / 2;
    while (end > begin && end < half && byte_of_coverage(at(end - 1)) == 0) --end;
    auto* to = kept.bytes.data();
    for (auto column = begin; column < end; ++column) *to++ = byte_of_coverage(at(column));
    kept.begin = static_cast<std::uint8_t>(begin);
    kept.end = static_cast<std::uint8_t>(end);
    kept.is_split = end < half;
    kept.has_hole = true;
    if (begin < end) mirror(kept, to);
}

const SmallRound& small_circle(int diameter) noexcept {
    struct Kept {
        std::once_flag once;
        std::optional<SmallRound> circle;
    };
    static std::array<Kept, largest_kept_circle + 1> all;
    auto& kept = all[static_cast<std::size_t>(diameter)];
    std::call_once(kept.once, [&] {
        const auto half = Vec{diameter / 2.0, diameter / 2.0};
        kept.circle.emplace(Size{.width = diameter, .height = diameter},
                            QuarterEdge{.center = half, .half_axes = half});
    });
    return *kept.circle;
}

SmallRoundSpans::SmallRoundSpans(const SmallRound& shape, Point at) noexcept {
    const auto width = shape.size().width;
    const auto height = shape.size().height;
    const auto tell = [&](const SmallRound::Row& row, int y) {
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
    for (auto row = shape.top(); row < end; ++row) tell(shape.row(row), at.y + row);
    for (auto row = height - end; row-- > shape.top();) tell(shape.row(row), at.y + height - 1 - row);
}

}  // namespace coldbrick::inline v0::detail

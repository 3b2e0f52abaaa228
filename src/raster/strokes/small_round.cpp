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

SmallRound::SmallRound(const Size& size, const QuarterEdge& edge) noexcept
    : size_{size}, left_{size.width}, top_{end()} {
    std::array<double, largest + 2> room;
    const QuarterAreas areas{edge, size_, 0, end(), room.data()};
    for (auto row = end(); row-- > 0;) {
        set_row(areas, row);
        const auto begin = int{rows_[static_cast<std::size_t>(row)].begin};
        if (2 * begin >= size_.width + 1) continue;
        left_ = std::min(left_, begin);
        top_ = row;
    }
}

void SmallRound::set_row(const QuarterAreas& areas, int row) noexcept {
    auto& [begin, whole, is_split, bytes] = rows_[static_cast<std::size_t>(row)];
    const auto columns = areas.of_row(row);
    auto skipped = 0;
    auto* const first = bytes.data();
    auto* end = first;
    areas.for_each_area(row, columns, [&](int, double area) {
        *end = byte_of_coverage(area);
        if (end == first && *end == 0) {
            ++skipped;
        } else {
            ++end;
        }
    });
    begin = static_cast<std::uint8_t>(columns.begin + skipped);
    whole = static_cast<std::uint8_t>(columns.end);
    const auto between = size_.width - 2 * whole;
    is_split = between >= long_run;
    // The middle column of an odd number is not mirrored.
    const auto* from = between < 0 && end > first ? end - 1 : end;
    if (between > 0 && !is_split) {
        std::memset(end, 255, static_cast<std::size_t>(between));
        end += between;
    }
    while (from > first) *end++ = *--from;
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
        const auto& [begin, whole, is_split, bytes] = row;
        const auto* const each = bytes.data();
        if (!is_split) return add(begin, width - begin, each);
        const auto in_part = whole - begin;
        if (in_part > 0) add(begin, whole, each);
        add(whole, width - whole, nullptr);
        if (in_part > 0) add(width - whole, width - begin, each + in_part);
    };
    const auto end = shape.end();
    for (auto row = shape.top(); row < end; ++row) tell(shape.row(row), at.y + row);
    for (auto row = height - end; row-- > shape.top();) tell(shape.row(row), at.y + height - 1 - row);
}

}  // namespace coldbrick::inline v0::detail

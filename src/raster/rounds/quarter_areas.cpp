#include "raster/rounds/quarter_areas.hpp"

#include "geometry/integers.hpp"
#include "raster/rounds/ellipse_offset.hpp"

#include <limits>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

// Of a pixel's area, the steps that it is measured in.
std::int32_t steps_of(double area) noexcept {
    return nearest_whole<std::int32_t>(std::clamp(area, 0.0, 1.0) * whole_area);
}

// The pieces of a curve, a pixel each: the places where they begin and end, one after the other, and what of its pixel
// lies below each.
struct CurvePieces {
    Vec center;
    Vec axes;
    double distance;
    int count;
    double* x;  // of count + 1 places
    double* y;
    double* p;  // on the unit circle, how far to the left and up
    double* q;
    double* bottom;
    double* rest;      // what lies to the right of its end
    double* per_area;  // one through what there is of the pixel
    double* square;    // of half of how far its ends are apart on the unit circle
    double* found;     // how much of the pixel is covered, in steps and half of one
    std::int32_t* areas;
};

// Between a chord and its arc. On the unit circle, a chord of length 2s cuts off asin(s) - s sqrt(1 - s^2), which is a
// series in s for short ones.
constexpr auto short_square = 0.15;
COLDBRICK_INLINE double short_arc_area(double square) noexcept {
    constexpr auto first = 2.0 / 3;
    constexpr auto second = 1.0 / 5;
    constexpr auto third = 3.0 / 28;
    constexpr auto fourth = 5.0 / 72;
    return square * std::sqrt(square) * (first + square * (second + square * (third + square * fourth)));
}
double long_arc_area(double square) noexcept {
    const auto s = std::min(std::sqrt(square), 1.0);
    return std::asin(s) - s * std::sqrt((1 - s) * (1 + s));
}

// Between a chord and a curve beside an ellipse: a parabola through its ends and its middle, which is two thirds of
// the parallelogram. One through the length of the middle of two unit vectors is a series in how far they are apart.
constexpr auto narrow_square = 0.06;
COLDBRICK_INLINE double beside_area(const CurvePieces& of, Vec from, Vec to, Vec from_circle, Vec to_circle,
                                    double square) noexcept {
    const auto per_length = 0.5 * (1 + square * (1.0 / 2 + square * (3.0 / 8 + square * (5.0 / 16))));
    const auto p = from_circle.x + to_circle.x;
    const auto q = from_circle.y + to_circle.y;
    const auto [a, b] = of.axes;
    const auto per_normal = of.distance / std::sqrt(b * b * p * p + a * a * q * q);
    const auto x = of.center.x - p * (a * per_length + b * per_normal) - from.x;
    const auto y = of.center.y - q * (b * per_length + a * per_normal) - from.y;
    return 2.0 / 3 * (x * (to.y - from.y) - y * (to.x - from.x));
}

COLDBRICK_INLINE double square_between(double p, double q) noexcept { return (p * p + q * q) / 4; }

// What lies below a piece that bends far: by pieces of it.
double area_below_far(const CurvePieces& of, int k, double square) noexcept {
    const auto from = Vec{of.x[k], of.y[k]};
    const auto to = Vec{of.x[k + 1], of.y[k + 1]};
    const auto below = [&](Vec a, Vec b) { return (b.x - a.x) * (of.bottom[k] - (a.y + b.y) / 2); };
    if (of.distance == 0) return below(from, to) + of.axes.x * of.axes.y * long_arc_area(square);
    const auto first = Vec{of.p[k], of.q[k]};
    const auto last = Vec{of.p[k + 1], of.q[k + 1]};
    constexpr auto parts = 3;
    auto sum = 0.0;
    auto before = from;
    auto on_circle = first;
    for (auto i = 1; i <= parts; ++i) {
        const auto part = double{1} * i / parts;
        const auto next_circle = i == parts ? last : unit(first * (1 - part) + last * part);
        const auto next = [&] {
            if (i == parts) return to;
            const auto [a, b] = of.axes;
            const auto normal = Vec{b * next_circle.x, a * next_circle.y};
            const auto per_normal = of.distance / length(normal);
            return of.center -
                   Vec{a * next_circle.x + normal.x * per_normal, b * next_circle.y + normal.y * per_normal};
        }();
        const auto apart = next_circle - on_circle;
        sum += below(before, next) +
               beside_area(of, before, next, on_circle, next_circle, square_between(apart.x, apart.y));
        before = next;
        on_circle = next_circle;
    }
    return sum;
}

// Finds how much of all pixels is covered.
template <bool is_beside>
void find_numbers(const CurvePieces& of) noexcept {
    run_in_vectors([=, of = of, end = filled_up(of.count)]() COLDBRICK_KERNEL {
        const auto* const x = of.x;
        const auto* const y = of.y;
        const auto* const p = of.p;
        const auto* const q = of.q;
        const auto* const bottom = of.bottom;
        const auto* const per_area = of.per_area;
        const auto* const rest = of.rest;
        auto* const found = of.found;
        auto* const squares = of.square;
        const auto whole = of.axes.x * of.axes.y;
        COLDBRICK_APART
        for (int k = 0; k < end; ++k) {
            const auto square = square_between(p[k + 1] - p[k], q[k + 1] - q[k]);
            const auto arc = is_beside ? beside_area(of, {x[k], y[k]}, {x[k + 1], y[k + 1]}, {p[k], q[k]},
                                                     {p[k + 1], q[k + 1]}, square)
                                       : whole * short_arc_area(square);
            const auto area = (x[k + 1] - x[k]) * (bottom[k] - (y[k] + y[k + 1]) / 2) + arc + rest[k];
            found[k] = std::min(std::max(area * per_area[k], 0.0), 1.0) * whole_area + 0.5;
            squares[k] = square;
        }
    });
}

void find_areas(const CurvePieces& of) noexcept {
    const auto is_beside = of.distance != 0;
    is_beside ? find_numbers<true>(of) : find_numbers<false>(of);
    run_in_vectors([count = of.count, from = of.found, to = of.areas]() COLDBRICK_KERNEL {
        for (int k = 0; k < count; ++k) to[k] = static_cast<std::int32_t>(from[k]);
    });
}

void find_far_area(const CurvePieces& of, int k) noexcept {
    const auto area = (area_below_far(of, k, of.square[k]) + of.rest[k]) * of.per_area[k];
    of.areas[k] = steps_of(area);
}

// Those again that bend too far for that: on an ellipse there are none but on very small ones.
void find_far_areas(const CurvePieces& of) noexcept {
    const auto per_axis = Vec{1 / of.axes.x, 1 / of.axes.y};
    if (square_between(per_axis.x, per_axis.y) <= short_square) return;
    for (int k = 0; k < of.count; ++k) {
        if (of.square[k] > short_square) find_far_area(of, k);
    }
}

// The same beside an ellipse, and where the curve nearly turns back, so that it is no parabola.
void find_far_areas_beside(const CurvePieces& of, const CurveAxis& axis) noexcept {
    constexpr auto much = 0.5;
    const auto turns_back = std::min(axis.turn(axis.least), axis.turn(axis.most)) < much;
    for (int k = 0; k < of.count; ++k) {
        const auto is_far =
            of.square[k] > narrow_square || (turns_back && std::min(axis.turn(of.p[k]), axis.turn(of.p[k + 1])) < much);
        if (is_far) find_far_area(of, k);
    }
}

// All of a quarter, pixel by pixel.
class QuarterWalk {
  public:
    QuarterWalk(const QuarterEdge& edge, const Size& box, const QuarterPart& part, const QuarterRoom& room) noexcept
        : edge_{edge},
          center_{edge.center},
          middle_{box.width / 2.0, box.height / 2.0},
          part_{part},
          room_{room},
          columns_{(box.width + 1) / 2},
          left_{center_.x},
          top_{center_.y} {
        const auto [a, b] = edge.half_axes;
        if (!(a > 0 && b > 0)) return;
        curve_ = axes_of_curve(a, b, edge.distance);
        left_ = center_.x - curve_.across.reach();
        top_ = center_.y - curve_.up.reach();
    }

    QuarterRows find() noexcept {
        const auto left = static_cast<int>(std::floor(left_));
        const auto beside = right_of(left);
        const auto straight = beside > left ? (beside - left_) / (beside - left) : 1.0;
        const QuarterRows rows{.rows = room_.rows,
                               .areas = room_.areas,
                               .first = part_.first_row,
                               .top = static_cast<int>(std::floor(top_)),
                               .straight_from = static_cast<int>(std::ceil(center_.y)),
                               .left = left,
                               .straight = steps_of(straight),
                               .columns = columns_};
        const auto first = std::max(part_.first_row, rows.top);
        const auto end = std::min(part_.end_row, rows.straight_from);
        if (first < end) walk(first, end);
        return rows;
    }

  private:
    // What there is of a column and a row in the quarter of the box.
    [[nodiscard]] double right_of(int column) const noexcept { return std::min(column + 1.0, middle_.x); }
    [[nodiscard]] double bottom_of(int row) const noexcept { return std::min(row + 1.0, middle_.y); }

    [[nodiscard]] double* take(std::size_t count) noexcept {
        auto* const taken = room_.numbers;
        room_.numbers += count;
        return taken;
    }
    [[nodiscard]] CurvePlaces take_places(int count) noexcept {
        const auto room = static_cast<std::size_t>(filled_up(count));
        return {.along = take(room), .across = take(room), .p = take(room), .q = take(room)};
    }

    struct Place {
        double x;
        double y;
        double p;
        double q;
    };

    // Where the curve crosses the sides of rows, from the lowest one up, and of columns, from left to right.
    struct Sides {
        CurvePlaces places;
        int first;
        int count;
    };
    [[nodiscard]] Place at_row_side(const Sides& rows, int k) const noexcept {
        return {.x = center_.x - rows.places.across[k],
                .y = double{1} * rows.first - k,
                .p = rows.places.q[k],
                .q = rows.places.p[k]};
    }
    [[nodiscard]] Place at_column_side(const Sides& columns, int k) const noexcept {
        return {.x = double{1} * columns.first + k,
                .y = center_.y - columns.places.across[k],
                .p = columns.places.p[k],
                .q = columns.places.q[k]};
    }

    [[nodiscard]] Sides row_sides(int lowest, int uppermost) noexcept {
        const auto count = std::max(lowest - uppermost + 1, 0);
        const Sides sides{.places = take_places(count), .first = lowest, .count = count};
        for (int k = 0; k < count; ++k) sides.places.along[k] = center_.y - (lowest - k);
        find_places(curve_.up, count, sides.places);
        return sides;
    }
    // As far as they are asked for.
    [[nodiscard]] Sides column_sides(double begin, double stop) noexcept {
        const auto first = std::max(static_cast<int>(std::floor(begin)) + 1, part_.first_column);
        const auto end = std::min(static_cast<int>(std::ceil(stop)), part_.end_column + 1);
        const auto count = std::max(end - first, 0);
        const Sides sides{.places = take_places(count), .first = first, .count = count};
        for (int k = 0; k < count; ++k) sides.places.along[k] = center_.x - (first + k);
        find_places(curve_.across, count, sides.places);
        return sides;
    }

    void walk(int first, int end) noexcept {
        // It begins and ends at the side of a row, if it goes on.
        const auto begins_at_side = end < center_.y;
        const auto ends_at_side = first > top_;
        const auto rows = row_sides(begins_at_side ? end : static_cast<int>(std::ceil(center_.y)) - 1,
                                    ends_at_side ? first : static_cast<int>(std::floor(top_)) + 1);
        const auto begin = begins_at_side
                               ? at_row_side(rows, 0)
                               : Place{.x = left_, .y = center_.y, .p = curve_.across.most, .q = curve_.up.least};
        const auto stop = ends_at_side
                              ? at_row_side(rows, rows.count - 1)
                              : Place{.x = center_.x, .y = top_, .p = curve_.across.least, .q = curve_.up.most};
        const auto columns = column_sides(begin.x, stop.x);
        take_pieces(rows.count + columns.count + 1);
        is_within_ = begin.x >= part_.first_column && begin.x < part_.end_column;
        if (is_within_) add_place(begin);
        begin_row(end - 1, std::clamp(static_cast<int>(std::floor(begin.x)), part_.first_column, part_.end_column));
        follow(rows, begins_at_side ? 1 : 0, ends_at_side ? rows.count - 1 : rows.count, columns);
        if (is_within_) add_piece(stop, (right_of(column_) - stop.x) * (bottom_ - stop.y));
        finish(ends_at_side);
    }

    // From side to side, whichever comes next.
    void follow(const Sides& rows, int row, int row_end, const Sides& columns) noexcept {
        constexpr auto farther = std::numeric_limits<double>::infinity();
        const auto next_of = [&] { return row < row_end ? center_.x - rows.places.across[row] : farther; };
        auto column = 0;
        for (auto next = next_of(); column < columns.count || row < row_end;) {
            if (column < columns.count && columns.first + column < next) {
                come_to_column(columns.first + column, at_column_side(columns, column));
                ++column;
            } else {
                if (is_within_) add_piece(at_row_side(rows, row), (right_of(column_) - next) * (bottom_ - row_));
                ++row;
                begin_row(row_ - 1, column_);
                next = next_of();
            }
        }
    }

    void take_pieces(int count) noexcept {
        const auto room = static_cast<std::size_t>(filled_up(count)) + together;
        pieces_ = {.center = center_,
                   .axes = edge_.half_axes,
                   .distance = edge_.distance,
                   .count = 0,
                   .x = take(room),
                   .y = take(room),
                   .p = take(room),
                   .q = take(room),
                   .bottom = take(room),
                   .rest = take(room),
                   .per_area = take(room),
                   .square = take(room),
                   .found = take(room),
                   .areas = room_.areas};
    }

    // Where the piece before ends, and the next one begins.
    void add_place(const Place& at) noexcept {
        const auto k = pieces_.count;
        pieces_.x[k] = at.x;
        pieces_.y[k] = at.y;
        pieces_.p[k] = at.p;
        pieces_.q[k] = at.q;
    }

    void begin_row(int row, int column) noexcept {
        row_ = row;
        column_ = column;
        room_.rows[row - part_.first_row] = {.column = column, .count = 0, .area = pieces_.count};
        bottom_ = bottom_of(row);
        per_height_ = 1 / (bottom_ - row);
    }

    // A piece to a place, and what of the pixel lies to the right of that.
    void add_piece(const Place& to, double rest) noexcept {
        const auto k = pieces_.count++;
        pieces_.bottom[k] = bottom_;
        pieces_.rest[k] = rest;
        // A middle column has half of its width.
        pieces_.per_area[k] = column_ + 1 > middle_.x ? 2 * per_height_ : per_height_;
        add_place(to);
        ++room_.rows[row_ - part_.first_row].count;
    }

    // To the side of the next column: the first one that is asked for, another one, or the end of them.
    void come_to_column(int column, const Place& at) noexcept {
        is_within_ ? add_piece(at, 0) : add_place(at);
        is_within_ = column < part_.end_column;
        column_ = column;
    }

    void finish(bool ends_at_side) noexcept {
        auto& pieces = pieces_;
        for (auto k = pieces.count; k < filled_up(pieces.count); ++k) {
            pieces.x[k + 1] = pieces.x[k];
            pieces.y[k + 1] = pieces.y[k];
            pieces.p[k + 1] = pieces.p[k];
            pieces.q[k + 1] = pieces.q[k];
            pieces.bottom[k] = pieces.rest[k] = pieces.per_area[k] = 0;
        }
        find_areas(pieces);
        edge_.distance == 0 ? find_far_areas(pieces) : find_far_areas_beside(pieces, curve_.across);
        // Where the shape begins within a row, no pixel is covered whole.
        if (ends_at_side || top_ <= row_) return;
        const auto part = (bottom_ - top_) / (bottom_ - row_);
        auto& last = room_.rows[row_ - part_.first_row];
        const auto columns_end = std::min(columns_, part_.end_column);
        for (auto i = last.column + last.count; i < columns_end; ++i) {
            room_.areas[last.area + last.count++] = steps_of(part);
        }
    }

    QuarterEdge edge_;
    Vec center_;
    Vec middle_;
    QuarterPart part_;
    QuarterRoom room_;
    int columns_;
    double left_;
    double top_;
    CurveAxes curve_{};
    CurvePieces pieces_{};
    bool is_within_ = false;  // whether it has come to the columns that are asked for, and not yet past them
    int row_ = 0;
    int column_ = 0;
    double bottom_ = 0;
    double per_height_ = 1;
};

}  // namespace

QuarterRows find_quarter(const QuarterEdge& edge, const Size& box, const QuarterPart& part,
                         const QuarterRoom& room) noexcept {
    return QuarterWalk{edge, box, part, room}.find();
}

}  // namespace coldbrick::inline v0::detail

#include "raster/edges/contours.hpp"

#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "geometry/wide.hpp"
#include "raster/rows/row_sweep.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

constexpr std::int64_t place_unit = std::int64_t{1} << FixedEdge::fraction_bits;

// What makes the whole part of a crossing the next whole number, but for a little less than all that rounding may add:
// so that a crossing exactly at a pixel's centre is that pixel, and one behind it by 2^-16 or more the next.
constexpr std::int64_t round_up = place_unit - 1 - (1 << 10);
constexpr auto places_in_fixed = place_unit / fixed_unit;

// Edges over more rows than this are cut into pieces of as many rows, from rows that do not depend on the window, so
// that the steps' rounding stays below 2^-16 pixel.
constexpr std::int64_t most_rows = 4096;

// Of a * b, where b is not negative.
constexpr std::int64_t floor_ratio(std::int64_t a, std::int64_t b, std::int64_t denominator) noexcept {
    const auto size = static_cast<std::uint64_t>(a < 0 ? -a : a);
    const auto product = Uint128{size} * Uint128{static_cast<std::uint64_t>(b)};
    const auto divisor = Uint128{static_cast<std::uint64_t>(denominator)};
    const auto quotient = static_cast<std::int64_t>(product / divisor);
    if (a >= 0) return quotient;
    return product % divisor == Uint128{0} ? -quotient : -quotient - 1;
}

// The first row whose centre line is at the place or below.
constexpr std::int64_t row_from(std::int64_t y) noexcept { return (y + fixed_unit - 1) >> fixed_bits; }

}  // namespace

void FixedEdges::add(FixedPoint from, FixedPoint to) {
    const auto downward = from.y < to.y;
    const auto& [upper, lower] = downward ? std::pair{from, to} : std::pair{to, from};
    const auto first_of_all = row_from(upper.y);
    const auto first = std::max<std::int64_t>(first_of_all, window_.top);
    const auto last = std::min<std::int64_t>(row_from(lower.y), window_.bottom) - 1;
    if (first > last || (std::min(from.x, to.x) >> fixed_bits) >= window_.right) return;
    const auto direction = downward ? 1 : -1;
    if (lower.y - upper.y > most_rows * fixed_unit) {
        add_tall(upper, lower, static_cast<int>(first), static_cast<int>(last), direction);
        return;
    }
    const auto slope = static_cast<double>(lower.x - upper.x) / static_cast<double>(lower.y - upper.y);
    const auto x = static_cast<double>(upper.x) + static_cast<double>(first_of_all * fixed_unit - upper.y) * slope;
    const auto place = floor_of(x * static_cast<double>(places_in_fixed));
    const auto step = first_of_all == row_from(lower.y) - 1 ? 0 : floor_of(slope * static_cast<double>(place_unit));
    edges_.push_back({.first_row = static_cast<int>(first),
                      .last_row = static_cast<int>(last),
                      .direction = direction,
                      .place = place + round_up + (first - first_of_all) * step,
                      .step = step});
}

void FixedEdges::add_tall(FixedPoint upper, FixedPoint lower, int first, int last, int direction) {
    const auto dx = lower.x - upper.x;
    const auto dy = lower.y - upper.y;
    const auto step = floor_ratio(dx, place_unit, dy);
    const auto first_of_all = row_from(upper.y);
    for (auto row = std::int64_t{first}; row <= last;) {
        const auto block = floor_div(row, most_rows) * most_rows;
        const auto anchor = std::max(block, first_of_all);
        const auto end = std::min(block + most_rows - 1, std::int64_t{last});
        const auto down = (anchor * fixed_unit - upper.y) * places_in_fixed;
        const auto place = upper.x * places_in_fixed + floor_ratio(dx, down, dy);
        edges_.push_back({.first_row = static_cast<int>(row),
                          .last_row = static_cast<int>(end),
                          .direction = direction,
                          .place = place + round_up + (row - anchor) * step,
                          .step = step});
        row = end + 1;
    }
}

namespace {

// Goes down the rows with the edges that cross each, as row_sweep.hpp does. Most edges of a contour are short and go on
// where another ends: an edge's place in the row is taken over by the next, so that the order seldom changes.
class ContourSweep {
  public:
    ContourSweep(FixedEdges& edges, FillRule rule)
        : edges_{edges.edges()},
          next_(edges_.size(), none, edges_.get_allocator()),
          starts_{edges_.get_allocator()},
          active_{edges_.get_allocator()},
          winding_mask_{rule == FillRule::even_odd ? 1 : -1} {
        starts_.reserve(edges_.size() / 4);
        link();
        sort_by_first_row(starts_, edges.window());
        active_.reserve(edges_.size());
    }

    void run(SpanBatch& batch) {
        const auto bottom = batch.window().bottom;
        std::size_t started = 0;
        auto y = bottom;
        while (!active_.empty() || started < starts_.size()) {
            if (active_.empty()) y = starts_[started].first_row;
            if (y >= bottom) return;
            for (; started < starts_.size() && starts_[started].first_row == y; ++started) {
                active_.push_back(edge_in_row(starts_[started].edge));
                sorted_ = false;
            }
            if (!sorted_) {
                spend_work(active_.size());
                sort_nearly_sorted(active_, [](const Active& a, const Active& b) { return a.place < b.place; });
                sorted_ = true;
            }
            y = add_rows(batch, y, started < starts_.size() ? starts_[started].first_row : bottom);
        }
    }

  private:
    static constexpr auto none = std::numeric_limits<std::uint32_t>::max();

    struct Start {
        int first_row;
        std::uint32_t edge;
    };

    struct Active {
        std::int64_t place;
        std::int64_t step;
        int last_row;
        int direction;
        std::uint32_t edge;
    };

    [[nodiscard]] Active edge_in_row(std::uint32_t number) const noexcept {
        const auto& edge = edges_[number];
        return {.place = edge.place,
                .step = edge.step,
                .last_row = edge.last_row,
                .direction = edge.direction,
                .edge = number};
    }

    // Finds the edge that goes on below each: drawn next if they go down, drawn before if they go up.
    void link() {
        std::pmr::vector<bool> is_start(edges_.size(), true, edges_.get_allocator());
        for (std::uint32_t i = 0; i + 1 < edges_.size(); ++i) {
            const auto is_down = edges_[i].direction > 0;
            const auto above = is_down ? i : i + 1;
            const auto below = is_down ? i + 1 : i;
            const auto goes_on = edges_[above].direction == edges_[below].direction &&
                                 edges_[above].last_row + 1 == edges_[below].first_row;
            if (!goes_on || next_[above] != none || !is_start[below]) continue;
            next_[above] = below;
            is_start[below] = false;
        }
        for (std::uint32_t i = 0; i < edges_.size(); ++i) {
            if (is_start[i]) starts_.push_back({.first_row = edges_[i].first_row, .edge = i});
        }
    }

    // Rows up to the end, or until the edges must be sorted. Gives the next row.
    int add_rows(SpanBatch& batch, int y, int end) {
        const auto window_end = batch.window().right;
        const auto goes_on = [this] { return sorted_ && !active_.empty(); };
        if (active_.size() < SpanBatch::most_in_row) {
            return batch.add_rows(y, end, [&](int row, const auto& emit) {
                add_row(row, window_end, emit);
                return goes_on();
            });
        }
        do {
            spend_work(active_.size());
            add_row(y, window_end, [&](int left, int right) { batch.add(y, left, right); });
            ++y;
        } while (y < end && goes_on());
        return y;
    }

    // What lies between the edges where the winding number, cut to the bits of the mask, is not 0. Each edge goes on to
    // the next row.
    template <class Emit>
    void add_row(int y, int window_end, const Emit& emit) {
        auto winding = 0;
        // The run that is not handed over yet, as the next one may begin where it ends.
        auto begin = std::numeric_limits<int>::min();
        auto end = begin;
        auto before = std::numeric_limits<std::int64_t>::min();
        auto* kept = active_.data();
        for (auto& edge : active_) {
            const auto was_inside = (winding & winding_mask_) != 0;
            winding += edge.direction;
            const auto is_inside = (winding & winding_mask_) != 0;
            if (is_inside != was_inside) {
                const auto x = column(edge.place);
                if (is_inside && x > end) {
                    emit(begin, end);
                    begin = x;
                }
                end = std::max(end, x);
            }
            if (edge.last_row != y) {
                edge.place += edge.step;
            } else if (next_[edge.edge] != none) {
                edge = edge_in_row(next_[edge.edge]);
            } else {
                continue;
            }
            sorted_ = sorted_ && edge.place >= before;
            before = edge.place;
            if (kept != &edge) *kept = edge;
            ++kept;
        }
        // Edges right of the window are not among the active ones.
        emit(begin, (winding & winding_mask_) != 0 ? window_end : end);
        active_.resize(static_cast<std::size_t>(kept - active_.data()));
    }

    static int column(std::int64_t place) noexcept {
        constexpr auto least = std::int64_t{std::numeric_limits<int>::min()};
        constexpr auto most = std::int64_t{std::numeric_limits<int>::max()};
        return static_cast<int>(std::clamp(place >> FixedEdge::fraction_bits, least, most));
    }

    const std::pmr::vector<FixedEdge>& edges_;
    std::pmr::vector<std::uint32_t> next_;
    std::pmr::vector<Start> starts_;
    std::pmr::vector<Active> active_;
    bool sorted_ = true;
    int winding_mask_;
};

}  // namespace

Box sweep_contours(FixedEdges& edges, FillRule rule, const SpanSink& sink) {
    SpanBatch batch{edges.window(), sink};
    ContourSweep{edges, rule}.run(batch);
    return batch.finish();
}

double cosine_of_flat_arc(double radius, double flatness) noexcept {
    // The sagitta of an arc of angle a is radius * (1 - cos(a / 2)).
    const auto cosine_of_half = radius <= flatness ? 0.0 : 1 - resolved_flatness(flatness, radius) / radius;
    return std::max(2 * cosine_of_half * cosine_of_half - 1, 0.0);
}

void Contours::refuse_mapped(Vec at) {
    throw Error{"transform: it takes a corner of the shape to " + in_digits(at.x) + "," + in_digits(at.y) +
                "; allowed are places up to " + std::to_string(max_coordinate)};
}

Surroundings Contours::seen() const noexcept {
    const auto place = [&](int x, int y) {
        return Vec{static_cast<double>(x) - origin_.x, static_cast<double>(y) - origin_.y};
    };
    constexpr auto margin = Vec{2, 2};
    const auto least = place(window_.left, window_.top) - margin;
    const auto most = place(window_.right, window_.bottom) + margin;
    const auto window = Surroundings{.least = least, .most = most};
    if (!is_mapped_) return window;
    const auto& [xx, xy, yx, yy, shift] = mapping_;
    return window.mapped(Transform{{.xx = xx, .xy = xy, .dx = shift.x, .yx = yx, .yy = yy, .dy = shift.y}}.inverse());
}

namespace {

// Halves an arc until its parts have few chords, or cannot be seen.
class ArcDrawer {
  public:
    ArcDrawer(Contours& contours, Vec center, double radius)
        : contours_{contours},
          center_{center},
          radius_{radius},
          least_cosine_{cosine_of_flat_arc(radius, contours.flatness())},
          seen_{contours.seen()} {}

    void draw(Vec from, Vec to) {
        const auto cosine = dot(from, to);
        if (cosine < least_cosine_ && is_near(from, to)) {
            const auto angle = angle_of({cosine, cross(from, to)}).in_radians();
            // The cosine of an angle is 1 - angle^2 / 2 at least.
            const auto count = std::ceil(angle / std::sqrt(2 * (1 - least_cosine_)));
            constexpr auto few = 32;
            if (count > few) {
                const auto middle = unit(from + to);
                draw(from, middle);
                return draw(middle, to);
            }
            const auto step = direction_of(Angle::radians(angle / count));
            auto at = from;
            for (auto i = static_cast<int>(count); i > 1; --i) {
                at = turned(at, step);
                contours_.to(center_ + at * radius_);
            }
        }
        contours_.to(center_ + to * radius_);
    }

  private:
    // Whether the triangle between an arc's ends and their tangents has a part among the places that are seen.
    [[nodiscard]] bool is_near(Vec from, Vec to) const noexcept {
        const auto a = center_ + from * radius_;
        const auto b = center_ + to * radius_;
        const auto tip = center_ + (from + to) * (radius_ / (1 + dot(from, to)));
        return std::min({a.x, b.x, tip.x}) <= seen_.most.x && std::max({a.x, b.x, tip.x}) >= seen_.least.x &&
               std::min({a.y, b.y, tip.y}) <= seen_.most.y && std::max({a.y, b.y, tip.y}) >= seen_.least.y;
    }

    Contours& contours_;
    Vec center_;
    double radius_;
    double least_cosine_;
    Surroundings seen_;
};

}  // namespace

void Contours::arc(Vec center, double radius, Vec from, Vec to) { ArcDrawer{*this, center, radius}.draw(from, to); }

void Contours::circle(Vec center, double radius) {
    ArcDrawer drawer{*this, center, radius};
    to(center + Vec{radius, 0});
    drawer.draw({1, 0}, {0, 1});
    drawer.draw({0, 1}, {-1, 0});
    drawer.draw({-1, 0}, {0, -1});
    drawer.draw({0, -1}, {1, 0});
    close();
}

}  // namespace coldbrick::inline v0::detail

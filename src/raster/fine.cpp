#include "raster/fine.hpp"

#include "geometry/integers.hpp"
#include "raster/row_sweep.hpp"

#include <cmath>

namespace coldbrick::detail {

namespace {

__extension__ using Int128 = __int128;

constexpr std::int64_t place_unit = std::int64_t{1} << FineEdge::fraction_bits;

// What makes the whole part of a crossing the next whole number, but for a little less than all that rounding may add:
// so that a crossing exactly at a pixel's centre is that pixel, and one behind it by 2^-16 or more the next.
constexpr std::int64_t round_up = place_unit - 1 - (1 << 10);
constexpr auto places_in_fine = place_unit / fine_unit;

// Edges over more rows than this are cut into pieces of as many rows, from rows that do not depend on the window, so
// that the steps' rounding stays below 2^-16 pixel.
constexpr std::int64_t most_rows = 4096;

constexpr std::int64_t floor_ratio(Int128 numerator, std::int64_t denominator) noexcept {
    const auto quotient = static_cast<std::int64_t>(numerator / denominator);
    return numerator % denominator < 0 ? quotient - 1 : quotient;
}

// The first row whose centre line is at the place or below.
constexpr std::int64_t row_from(std::int64_t y) noexcept { return (y + fine_unit - 1) >> fine_bits; }

}  // namespace

void FineEdges::add(FinePoint from, FinePoint to) {
    const auto downward = from.y < to.y;
    const auto& [upper, lower] = downward ? std::pair{from, to} : std::pair{to, from};
    const auto first_of_all = row_from(upper.y);
    const auto first = std::max<std::int64_t>(first_of_all, window_.top);
    const auto last = std::min<std::int64_t>(row_from(lower.y), window_.bottom) - 1;
    if (first > last || (std::min(from.x, to.x) >> fine_bits) >= window_.right) return;
    const auto direction = downward ? 1 : -1;
    if (lower.y - upper.y > most_rows * fine_unit) {
        add_tall(upper, lower, static_cast<int>(first), static_cast<int>(last), direction);
        return;
    }
    const auto slope = static_cast<double>(lower.x - upper.x) / static_cast<double>(lower.y - upper.y);
    const auto x = static_cast<double>(upper.x) + static_cast<double>(first_of_all * fine_unit - upper.y) * slope;
    const auto place = floor_of(x * static_cast<double>(places_in_fine));
    const auto step = first_of_all == row_from(lower.y) - 1 ? 0 : floor_of(slope * static_cast<double>(place_unit));
    edges_.push_back({.first_row = static_cast<int>(first),
                      .last_row = static_cast<int>(last),
                      .direction = direction,
                      .place = place + round_up + (first - first_of_all) * step,
                      .step = step});
}

void FineEdges::add_tall(FinePoint upper, FinePoint lower, int first, int last, int direction) {
    const auto dx = Int128{lower.x - upper.x};
    const auto dy = lower.y - upper.y;
    const auto step = floor_ratio(dx * place_unit, dy);
    const auto first_of_all = row_from(upper.y);
    for (auto row = std::int64_t{first}; row <= last;) {
        const auto block = floor_div(row, most_rows) * most_rows;
        const auto anchor = std::max(block, first_of_all);
        const auto end = std::min(block + most_rows - 1, std::int64_t{last});
        const auto along = dx * (anchor * fine_unit - upper.y) * places_in_fine;
        const auto place = upper.x * places_in_fine + floor_ratio(along, dy);
        edges_.push_back({.first_row = static_cast<int>(row),
                          .last_row = static_cast<int>(end),
                          .direction = direction,
                          .place = place + round_up + (row - anchor) * step,
                          .step = step});
        row = end + 1;
    }
}

namespace {

struct FineKind {
    using Waiting = FineEdge;
    struct Active {
        std::int64_t place;
        std::int64_t step;
        int last_row;
        int direction;

        [[nodiscard]] Run run() const noexcept {
            constexpr auto least = std::int64_t{std::numeric_limits<int>::min()};
            constexpr auto most = std::int64_t{std::numeric_limits<int>::max()};
            const auto x = static_cast<int>(std::clamp(place >> FineEdge::fraction_bits, least, most));
            return {.left = x, .right = x};
        }
        void advance() noexcept { place += step; }
    };
    static constexpr bool crosses_last_row = true;
    static Active activate(const FineEdge& edge) noexcept {
        return {.place = edge.place, .step = edge.step, .last_row = edge.last_row, .direction = edge.direction};
    }
};

}  // namespace

void sweep_contours(FineEdges& edges, FillRule rule, SpanBatch& batch) {
    RowSweep<FineKind>{edges.edges(), edges.window(), rule}.run(batch);
}

Box bounds_from_corners(std::vector<FinePoint> corners, const std::function<Box(const Box&)>& scan) {
    if (corners.empty()) return {};
    constexpr auto whole = Window{.left = std::numeric_limits<int>::min() / 2,
                                  .top = std::numeric_limits<int>::min() / 2,
                                  .right = std::numeric_limits<int>::max() / 2,
                                  .bottom = std::numeric_limits<int>::max() / 2};
    const auto row_at = [&](std::int64_t y) {
        return static_cast<int>(std::clamp<std::int64_t>(row_from(y), whole.top, whole.bottom - 1));
    };
    const auto scan_rows = [&](int first, int last) {
        return scan(box_of({.left = whole.left, .top = first, .right = whole.right, .bottom = last + 1}));
    };
    const auto [highest, lowest] =
        std::minmax_element(corners.begin(), corners.end(), [](const auto& a, const auto& b) { return a.y < b.y; });
    auto top = row_at(highest->y);
    auto bottom = row_at(lowest->y);
    auto known = Box{};
    while (known.empty() && top <= bottom) known = scan_rows(top, top), ++top;
    for (auto row = bottom; row >= top; --row) {
        const auto found = scan_rows(row, row);
        known = enclosing(known, found);
        if (!found.empty()) break;
    }
    if (known.empty()) return {};
    // An edge reaches furthest to the side in the rows next to one of its corners.
    const auto look = [&](const auto& further, const auto& is_known) {
        std::sort(corners.begin(), corners.end(), further);
        for (const auto& corner : corners) {
            if (is_known(row_from(corner.x))) return;
            known = enclosing(known, scan_rows(row_at(corner.y) - 2, row_at(corner.y) + 1));
        }
    };
    look([](const auto& a, const auto& b) { return a.x < b.x; }, [&](std::int64_t x) { return x >= known.at.x; });
    look([](const auto& a, const auto& b) { return a.x > b.x; },
         [&](std::int64_t x) { return x - 1 <= known.last().x; });
    return known;
}

double cosine_of_flat_arc(double radius) noexcept {
    // The sagitta of an arc of angle a is radius * (1 - cos(a / 2)).
    const auto cosine_of_half = radius <= flatness ? 0.0 : 1 - flatness / radius;
    return std::max(2 * cosine_of_half * cosine_of_half - 1, 0.0);
}

void Contours::circle(Vec center, double radius) {
    // A polygon of 4 * 2^n corners, each halfway between two others. Its corners lie on the circle.
    const auto least_cosine = cosine_of_flat_arc(radius);
    std::vector<Vec> corners{{1, 0}, {0, 1}, {-1, 0}, {0, -1}};
    while (dot(corners[0], corners[1]) < least_cosine) {
        std::vector<Vec> finer;
        finer.reserve(2 * corners.size());
        for (std::size_t i = 0; i < corners.size(); ++i) {
            finer.push_back(corners[i]);
            finer.push_back(unit(corners[i] + corners[(i + 1) % corners.size()]));
        }
        corners.swap(finer);
    }
    for (const auto corner : corners) to(center + corner * radius);
    close();
}

}  // namespace coldbrick::detail

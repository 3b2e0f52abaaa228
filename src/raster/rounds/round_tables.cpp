#include "raster/rounds/round_tables.hpp"

#include "raster/rounds/ellipse_offset.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

// The turned ellipse: in each row what lies between the two crossings of its edge. With the half-axes a and b in
// directions (c, s) and (-s, c), H its half-height: x = (c * s * (a*a - b*b) * y -+ a * b * sqrt(H*H - y*y)) / (H*H).
class TurnedRows {
  public:
    explicit TurnedRows(const EllipseGeometry& geometry) noexcept : form_{geometry} {
        const auto [c, s] = geometry.direction();
        const auto [a, b] = std::pair{geometry.a(), geometry.b()};
        height_square_ = geometry.half_height() * geometry.half_height();
        lean_ = c * s * (a * a - b * b) / height_square_;
        width_ = a * b / height_square_;
        const auto middle = geometry.origin().y + geometry.center().y;
        top_ = static_cast<int>(std::ceil(middle - geometry.half_height() - fixed_slack));
        bottom_ = static_cast<int>(std::floor(middle + geometry.half_height() + fixed_slack)) + 1;
    }

    [[nodiscard]] int top() const noexcept { return top_; }
    [[nodiscard]] int bottom() const noexcept { return bottom_; }

    [[nodiscard]] Run run(int y) const noexcept {
        const auto down = static_cast<double>(std::int64_t{y} - form_.origin().y) - form_.center().y;
        const auto middle = form_.center().x + lean_ * down;
        const auto reach = width_ * std::sqrt(std::max(0.0, height_square_ - down * down)) + fixed_slack;
        const auto column = [&](double x) { return static_cast<int>(form_.origin().x + static_cast<std::int64_t>(x)); };
        return {.left = column(std::ceil(middle - reach)), .right = column(std::floor(middle + reach) + 1)};
    }

  private:
    const EllipseGeometry& form_;
    double height_square_;
    double lean_;
    double width_;
    int top_;
    int bottom_;
};

// The rows of one closed convex contour, from the top down.
class ContourRows {
  public:
    explicit ContourRows(std::pmr::vector<FixedEdge>& edges) : edges_{edges} {
        const auto earlier = [](const FixedEdge& a, const FixedEdge& b) {
            return a.direction != b.direction ? a.direction < b.direction : a.first_row < b.first_row;
        };
        std::sort(edges.begin(), edges.end(), earlier);
        const auto is_left = [](const FixedEdge& edge) { return edge.direction < 0; };
        right_ = static_cast<std::size_t>(std::partition_point(edges.begin(), edges.end(), is_left) - edges.begin());
        left_end_ = right_;
        for (std::size_t i = 0; i < left_end_; ++i) {
            top_ = std::min(top_, edges[i].first_row);
            bottom_ = std::max(bottom_, edges[i].last_row + 1);
        }
    }

    [[nodiscard]] int top() const noexcept { return top_; }
    [[nodiscard]] int bottom() const noexcept { return bottom_; }

    // Where there is no edge, it lies right of the window.
    [[nodiscard]] Run run(int y) noexcept {
        while (left_ < left_end_ && edges_[left_].last_row < y) ++left_;
        while (right_ < edges_.size() && edges_[right_].last_row < y) ++right_;
        if (left_ == left_end_ || edges_[left_].first_row > y) return {.left = 0, .right = 0};
        const auto has_right = right_ < edges_.size() && edges_[right_].first_row <= y;
        return {.left = column(edges_[left_], y), .right = has_right ? column(edges_[right_], y) : whole_row.right};
    }

  private:
    static int column(const FixedEdge& edge, int y) noexcept {
        const auto x = (edge.place + (std::int64_t{y} - edge.first_row) * edge.step) >> FixedEdge::fraction_bits;
        return static_cast<int>(std::clamp<std::int64_t>(x, whole_row.left, whole_row.right));
    }

    std::pmr::vector<FixedEdge>& edges_;
    std::size_t left_ = 0;
    std::size_t left_end_ = 0;
    std::size_t right_ = 0;
    int top_ = std::numeric_limits<int>::max();
    int bottom_ = std::numeric_limits<int>::min();
};

// The curve parallel to an ellipse that is not turned, of moderate size. It is symmetric, so that a quarter of it says
// all: where each row crosses it.
class ParallelRows {
  public:
    // Null if it is too large or too thin.
    static std::optional<ParallelRows> of(const WholeEllipse& ellipse, double distance,
                                          std::pmr::memory_resource* memory) {
        const auto [width, height] = ellipse.box.size;
        const auto [shorter, longer] = std::minmax(width, height);
        constexpr auto most = 16384;
        if (std::max(double{1} * longer, std::fabs(distance)) > most) return std::nullopt;
        if (longer > thinnest_offset * shorter || distance <= -shorter / 2.0) return std::nullopt;
        return ParallelRows{ellipse.box, distance, memory};
    }

    [[nodiscard]] int top() const noexcept { return box_.at.y - beyond_; }
    [[nodiscard]] int bottom() const noexcept { return box_.at.y + box_.size.height + beyond_; }

    [[nodiscard]] Run run(int y) const noexcept {
        const auto from_middle = std::abs(2 * (y - box_.at.y) - (box_.size.height - 1)) / 2;
        if (from_middle >= rows_) return {.left = 0, .right = 0};
        const auto reach = reaches_[static_cast<std::size_t>(from_middle)];
        const auto middle = (box_.size.width - 1) / 2.0;
        return {.left = box_.at.x + static_cast<int>(ceil_of(middle - reach)),
                .right = box_.at.x + static_cast<int>(floor_of(middle + reach)) + 1};
    }

  private:
    ParallelRows(const Box& box, double distance, std::pmr::memory_resource* memory)
        : box_{box}, beyond_{std::max(static_cast<int>(std::ceil(distance)), -box.size.height / 2)}, reaches_{memory} {
        const auto axes = axes_of_curve(box.size.width / 2.0, box.size.height / 2.0, distance);
        const auto half_row = box.size.height % 2 == 0 ? 0.5 : 0.0;
        rows_ = std::max(static_cast<int>(std::floor(axes.up.reach() - half_row)) + 1, 0);
        const auto room = static_cast<std::size_t>(filled_up(rows_));
        reaches_.resize(4 * room);
        auto* const along = reaches_.data() + room;
        for (auto i = 0; i < rows_; ++i) along[i] = i + half_row;
        find_places(axes.up, rows_,
                    {.along = along, .across = reaches_.data(), .p = along + room, .q = along + 2 * room});
    }

    Box box_;
    int beyond_;
    int rows_ = 0;                      // from the middle on
    std::pmr::vector<double> reaches_;  // of each, how far to both sides; behind them is what was needed to find them
};

constexpr auto most_extent = std::int64_t{std::numeric_limits<int>::max()};

// A side of a box after the box has grown.
constexpr std::int64_t grown_extent(int size, int by) noexcept { return std::int64_t{size} + std::int64_t{2} * by; }

// The box grown on all sides, or shrunk; empty if nothing is left.
Box resized(const Box& box, int by) noexcept {
    const auto extent = [by](int size) { return grown_extent(size, by); };
    if (extent(box.size.width) <= 0 || extent(box.size.height) <= 0) return {};
    return {.at = {.x = box.at.x - by, .y = box.at.y - by},
            .size = {.width = static_cast<int>(std::min(extent(box.size.width), most_extent)),
                     .height = static_cast<int>(std::min(extent(box.size.height), most_extent))}};
}

// A box whose corners are cut: row by row by as much as the corner says.
template <class Corner>
class CutBoxRows {
  public:
    CutBoxRows(const Box& box, int corner_height, const Corner& margin) noexcept
        : window_{window_of(box)}, corner_height_{corner_height}, margin_{margin} {}

    [[nodiscard]] int top() const noexcept { return window_.top; }
    [[nodiscard]] int bottom() const noexcept { return window_.bottom; }
    [[nodiscard]] Run run(int y) const noexcept {
        const auto from_edge = std::min(y - window_.top, window_.bottom - 1 - y);
        const auto margin = from_edge < corner_height_ ? margin_(from_edge) : 0;
        return {.left = window_.left + margin, .right = window_.right - margin};
    }

  private:
    Window window_;
    int corner_height_;
    Corner margin_;
};

}  // namespace

void tabulate(const WholeEllipse& ellipse, int distance, const Window& rows, RunTable& table) {
    const auto& box = ellipse.box;
    const auto is_circle = box.size.width == box.size.height;
    const auto is_turned = !is_circle && std::fmod(ellipse.turn.in_degrees(), 180) != 0;
    // Circles too large for whole numbers are drawn as other ellipses are.
    const auto is_exact = is_circle && grown_extent(box.size.width, distance) <= most_extent;
    if (is_exact || (distance == 0 && !is_turned)) {
        const auto disc = resized(box, distance);
        if (disc.empty()) return table.take_nothing();
        if (is_exact) return table.take_symmetric(SteppingCircleRows{disc}, rows.top, rows.bottom);
        return with_ellipse_rows(disc, [&](const auto& of) { table.take(of, rows.top, rows.bottom); });
    }
    const EllipseGeometry geometry{ellipse};
    if (distance == 0) return table.take(TurnedRows{geometry}, rows.top, rows.bottom);
    ContourMemory memory;
    if (!is_turned && !is_circle) {
        const auto parallel = ParallelRows::of(ellipse, distance + fixed_slack, &memory);
        if (parallel) return table.take_symmetric(*parallel, rows.top, rows.bottom);
    }
    FixedEdges edges{rows, &memory};
    Contours contours{edges, geometry.origin()};
    if (!geometry.draw_parallel(distance + fixed_slack, contours)) return table.take_nothing();
    table.take(ContourRows{edges.edges()}, rows.top, rows.bottom);
}

void tabulate(const CornerBox& shape, int distance, Join join, const Window& rows, RunTable& table) {
    const auto box = resized(shape.box, distance);
    if (box.empty()) return table.take_nothing();
    const auto is_sharp = shape.corner_radius == 0 && (distance < 0 || join != Join::round);
    const auto radius = is_sharp ? 0 : std::max(shape.corner_radius + distance, 0);
    if (radius > 0) {
        const auto disc = Box{.at = {}, .size = {.width = 2 * radius, .height = 2 * radius}};
        return with_ellipse_rows(disc, [&](const auto& of) {
            table.take(CutBoxRows{box, radius, [&](int y) { return of.run(y).left; }}, rows.top, rows.bottom);
        });
    }
    const auto cut = shape.corner_radius == 0 && join == Join::bevel ? std::max(distance, 0) : 0;
    table.take(CutBoxRows{box, cut, [&](int y) { return cut - 1 - y; }}, rows.top, rows.bottom);
}

}  // namespace coldbrick::inline v0::detail

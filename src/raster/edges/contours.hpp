// Contours with corners between the pixels, and the rows that their edges cross.
#pragma once

#include "geometry/budget_memory.hpp"
#include "geometry/trigonometry.hpp"
#include "raster/coverage/cover.hpp"
#include "raster/edges/subpath.hpp"
#include "raster/spans/convex_rows.hpp"
#include "raster/spans/record.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/fill.hpp"
#include "coldbrick/geometry.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// Strokes are wider than their rule by this on each side, in pixels, so that pixel centres that lie exactly on the edge
// belong to them, whatever the rounding to fine units.
inline constexpr double fixed_slack = 2.0 / static_cast<double>(fixed_unit);

// How far the chords of a curve may be from it, in pixels. With the rounding it stays below 1/64.
inline constexpr double crisp_flatness = 1.0 / 96;

// The same where coverage is measured: a chord takes at most 2/3 of that times its length in a pixel, so that the area
// of one that two edges cross is wrong by less than half of 1/255.
inline constexpr double smooth_flatness = 1.0 / 1024;

// In the detail that is needed in a clip, where a stroke is drawn or a fill.
Tolerance detail_in(const Box& clip, double flatness, const Stroke& how) noexcept;
Tolerance detail_in(const Box& clip, double flatness) noexcept;

// What a stroke needs beside it: as far out as the pen reaches, and lengths for dashes. These also have shorter chords,
// as what a wide pen covers along one, beyond the curve's centre, ends with the dash.
Tolerance for_stroke(Tolerance tolerance, const Stroke& how) noexcept;

// The nearest fine point to a place relative to an origin.
inline FixedPoint fixed_point(Vec place, Point origin) noexcept {
    const auto nearest = [](double pixels) {
        const auto units = pixels * static_cast<double>(fixed_unit);
        return static_cast<std::int64_t>(units + std::copysign(0.5, units));
    };
    return {.x = nearest(place.x) + origin.x * fixed_unit, .y = nearest(place.y) + origin.y * fixed_unit};
}

// The part of an edge that crosses rows of a window: in each row from first_row to last_row, before which pixel. That
// is the whole part of (place + k * step) / 2^28 in the k-th of these rows.
struct FixedEdge {
    static constexpr int fraction_bits = 28;

    int first_row;
    int last_row;
    int direction;  // 1 down, -1 up
    std::int64_t place;
    std::int64_t step;
};

// Edges of closed contours that have a part in a window.
class FixedEdges {
  public:
    explicit FixedEdges(const Window& window, std::pmr::memory_resource* memory) : window_{window}, edges_{memory} {}

    // Makes room for as many more edges.
    void expect(std::size_t count) {
        const auto wanted = edges_.size() + count;
        if (wanted > edges_.capacity()) edges_.reserve(std::max(wanted, 2 * edges_.capacity()));
    }

    // A straight edge of a contour. Those right of the window are left out.
    void add(FixedPoint from, FixedPoint to);

    [[nodiscard]] const Window& window() const noexcept { return window_; }
    [[nodiscard]] std::pmr::vector<FixedEdge>& edges() noexcept { return edges_; }

    // Edges, and rows that they cross.
    [[nodiscard]] std::uint64_t work() const noexcept {
        auto sum = std::uint64_t{2} * edges_.size();
        for (const auto& edge : edges_) sum += static_cast<std::uint64_t>(edge.last_row - edge.first_row);
        return sum;
    }

  private:
    void add_tall(FixedPoint upper, FixedPoint lower, int first, int last, int direction);

    Window window_;
    std::pmr::vector<FixedEdge> edges_;
};

// A transform of places relative to an origin: to places relative to another.
struct Mapping {
    double xx = 1, xy = 0, yx = 0, yy = 1;
    Vec shift = {};

    [[nodiscard]] Vec operator()(Vec at) const noexcept {
        return {xx * at.x + xy * at.y + shift.x, yx * at.x + yy * at.y + shift.y};
    }
};

// More edges than there is time and memory for.
struct TooManyEdges : Error {
    using Error::Error;
};

// Draws one closed contour after the other: into the rows that their edges cross, or into edges whose coverage is to be
// measured.
class Contours {
  public:
    Contours(FixedEdges& edges, Point origin) noexcept : edges_{&edges}, window_{edges.window()}, origin_{origin} {}
    Contours(Chains& chains, Point origin) noexcept
        : chains_{&chains}, window_{chains.window()}, origin_{origin}, flatness_{smooth_flatness} {}

    // From now on places are mapped, and the origin is another; one pixel becomes `scale` pixels at most.
    void map(const Mapping& mapping, Point origin, double scale) noexcept {
        mapping_ = mapping;
        origin_ = origin;
        flatness_ = flatness_ / scale;
        is_mapped_ = true;
    }

    // The contours from now on belong to another group (outline.hpp).
    void begin_group(int group) noexcept { group_ = group; }

    // The next corner of a contour, relative to the origin; the first one begins it. Throws Error if a mapping takes it
    // too far.
    void to(Vec corner) {
        const auto next = fixed_point(is_mapped_ ? mapped(corner) : corner, origin_);
        if (begun_) {
            add(at_, next);
        } else {
            first_ = next;
        }
        begun_ = true;
        at_ = next;
    }

    // Back to the first corner.
    void close() {
        if (begun_) add(at_, first_);
        begun_ = false;
    }

    // Makes room for contours of as many corners.
    void expect(std::size_t corners) {
        if (edges_ != nullptr) edges_->expect(corners);
        if (chains_ != nullptr) chains_->expect(corners);
    }

    // A whole circle, clockwise, as further contour. None may be begun.
    void circle(Vec center, double radius);

    // A quarter of a circle or less, clockwise from one direction to another as seen from the centre; all but its first
    // corner.
    void arc(Vec center, double radius, Vec from, Vec to);

    // The places, before they are mapped, that may come into the window; none left out, some more.
    [[nodiscard]] Surroundings seen() const noexcept;

    // How far from a curve its chords may be.
    [[nodiscard]] double flatness() const noexcept { return flatness_; }

    // Whether coverage is measured.
    [[nodiscard]] bool is_smooth() const noexcept { return chains_ != nullptr; }

  private:
    // Throws Error if it lies further out than fine units go.
    [[nodiscard]] Vec mapped(Vec corner) const {
        const auto at = mapping_(corner);
        if (!(std::fabs(at.x) < farthest && std::fabs(at.y) < farthest)) refuse_mapped(at);
        return at;
    }
    [[noreturn]] static void refuse_mapped(Vec at);
    static constexpr double farthest = 8589934592.0;

    void add(FixedPoint from, FixedPoint to) {
        constexpr auto between_checks = 256U;
        if (++drawn_ % between_checks == 0) spend_work(between_checks);
        if (chains_ != nullptr) return chains_->add(from, to, group_);
        edges_->add(from, to);
    }

    FixedEdges* edges_ = nullptr;
    Chains* chains_ = nullptr;
    Window window_;
    Point origin_;
    double flatness_ = detail::crisp_flatness;
    unsigned drawn_ = 0;
    int group_ = 0;
    bool is_mapped_ = false;
    Mapping mapping_;
    bool begun_ = false;
    FixedPoint first_{};
    FixedPoint at_{};
};

// Hands over what lies inside the contours, by the rule.
Box sweep_contours(FixedEdges& edges, FillRule rule, const SpanSink& sink);

// What lies inside the contours that draw(contours) draws around the origin, in the clip.
template <class Draw>
Box scan_contours(Point origin, FillRule rule, const Box& clip, const SpanSink& sink, const Draw& draw) {
    const auto window = window_of(clip);
    if (window.empty()) return {};
    ContourMemory memory;
    FixedEdges edges{window, &memory};
    Contours contours{edges, origin};
    draw(contours);
    return scan_in_budget(has_budget() ? edges.work() : 0, sink,
                          [&](const SpanSink& to) { return sweep_contours(edges, rule, to); });
}

// The largest angle whose arc of that radius is flat enough, as the cosine of it.
double cosine_of_flat_arc(double radius, double flatness) noexcept;

}  // namespace coldbrick::inline v0::detail

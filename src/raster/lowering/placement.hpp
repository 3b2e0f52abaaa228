// Where a transform takes shapes.
#pragma once

#include "raster/edges/contours.hpp"
#include "raster/edges/flat_path.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/fill.hpp"
#include "coldbrick/transform.hpp"

#include <optional>
#include <utility>

namespace coldbrick::inline v0::detail {

// How far a fill may reach beyond the places that it is made of, in pixels: by the outline that belongs to it.
constexpr double reach_of(const Fill&) noexcept { return 4; }

// A transform of places relative to an origin, and how much longer it makes anything at most. Keeps the transform by
// reference.
class Placement {
  public:
    // Where it is.
    Placement() noexcept : by_{identity} {}
    // Throws Error if the transform has numbers that are none, or flattens everything.
    explicit Placement(const Transform& by);

    [[nodiscard]] double scale() const noexcept { return scale_; }
    [[nodiscard]] bool is_identity() const noexcept { return is_identity_; }
    // By how many pixels it moves, if it does nothing else; and if they are whole.
    [[nodiscard]] std::optional<Position> move() const noexcept;
    [[nodiscard]] std::optional<Point> whole_move() const noexcept {
        return is_identity_ ? std::optional{Point{}} : find_whole_move();
    }
    [[nodiscard]] Vec operator()(Vec at) const noexcept {
        const auto [x, y] = by_(Position{at.x, at.y});
        return {x, y};
    }

    // The new origin, in whole pixels, and what relative places become. Throws Error if it takes the origin beyond
    // max_coordinate.
    [[nodiscard]] std::pair<Point, Mapping> around(Point origin) const;

    void apply(Contours& contours, Point origin) const;

    // The nodes of subpaths where they come to lie.
    [[nodiscard]] FlatPath operator()(FlatPath flat) const;

    // In what detail a shape is followed, before it is placed, that is seen in a clip.
    template <class How>
    [[nodiscard]] Tolerance detail_in(const Box& clip, double flatness, const How& how) const noexcept {
        auto tolerance = seen_in(clip, flatness);
        if constexpr (requires { how.dash; }) return for_stroke(tolerance, how);
        tolerance.seen = tolerance.seen.grown(reach_of(how));
        return tolerance;
    }

  private:
    [[nodiscard]] Tolerance seen_in(const Box& clip, double flatness) const noexcept;
    [[nodiscard]] std::optional<Point> find_whole_move() const noexcept;

    static constexpr Transform identity{};

    const Transform& by_;
    double scale_ = 1;
    bool is_identity_ = true;
};

}  // namespace coldbrick::inline v0::detail

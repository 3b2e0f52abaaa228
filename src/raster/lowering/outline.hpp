// The outlines of geometries and of their strokes, as what is smooth, transformed or between the pixels is drawn from
// them.
#pragma once

#include "raster/coverage/cover.hpp"
#include "raster/lowering/geometries.hpp"
#include "raster/lowering/placement.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/fill.hpp"

#include <array>
#include <cstddef>
#include <new>
#include <optional>
#include <type_traits>
#include <utility>

namespace coldbrick::inline v0::detail {

// Draws contours by a function that is kept in place with what it captured, so that it takes no memory.
class DrawContours {
  public:
    template <class Draw>
    requires std::is_invocable_v<const Draw&, Contours&> DrawContours(Draw draw)
    noexcept : calls_{&calls_of<Draw>} {
        static_assert(sizeof(Draw) <= most_bytes && std::is_nothrow_move_constructible_v<Draw>);
        new (kept_.data()) Draw{std::move(draw)};
    }
    DrawContours(const DrawContours&) = delete;
    DrawContours(DrawContours&& other) noexcept : calls_{other.calls_} {
        calls_->move(other.kept_.data(), kept_.data());
    }
    DrawContours& operator=(const DrawContours&) = delete;
    DrawContours& operator=(DrawContours&& other) noexcept {
        calls_->destroy(kept_.data());
        calls_ = other.calls_;
        calls_->move(other.kept_.data(), kept_.data());
        return *this;
    }
    ~DrawContours() { calls_->destroy(kept_.data()); }

    void operator()(Contours& contours) const { calls_->draw(kept_.data(), contours); }

  private:
    struct Calls {
        void (*draw)(const std::byte*, Contours&);
        void (*move)(std::byte* from, std::byte* to);
        void (*destroy)(std::byte*);
    };
    template <class Draw>
    static constexpr Calls calls_of{
        .draw = [](const std::byte* kept, Contours& to) { (*reinterpret_cast<const Draw*>(kept))(to); },
        .move = [](std::byte* from, std::byte* to) { new (to) Draw{std::move(*reinterpret_cast<Draw*>(from))}; },
        .destroy = [](std::byte* kept) { reinterpret_cast<Draw*>(kept)->~Draw(); }};

    static constexpr std::size_t most_bytes = 256;
    const Calls* calls_;
    alignas(std::max_align_t) std::array<std::byte, most_bytes> kept_;
};

// Up to most_groups groups of contours, relative to an origin, and what is covered by the groups in which a place is
// inside.
struct Outline {
    struct Group {
        FillRule rule;
        DrawContours draw;
        bool only_counterclockwise = false;  // smooth: what contours enclose clockwise is not inside
    };
    class Groups {
      public:
        template <class... Each>
        requires(std::is_same_v<Each, Group>&&...) Groups(Each&&... each)
        noexcept { (push_back(std::move(each)), ...); }
        void push_back(Group&& group) noexcept { all_[count_++].emplace(std::move(group)); }
        [[nodiscard]] std::size_t size() const noexcept { return count_; }
        [[nodiscard]] Group& operator[](std::size_t number) noexcept { return *all_[number]; }
        [[nodiscard]] const Group& operator[](std::size_t number) const noexcept { return *all_[number]; }

      private:
        std::array<std::optional<Group>, most_groups> all_;
        std::size_t count_ = 0;
    };
    Point origin;
    Groups groups;
    GroupTruth truth = CoverRule{}.truth;
    bool is_simple = false;  // smooth: its contour is one that goes clockwise and encloses nothing twice
    static constexpr auto in_first_only = group_truth([](unsigned inside) { return inside == 1; });
    static constexpr auto in_either = group_truth([](unsigned inside) { return inside < 4; });
    static constexpr auto in_both = group_truth([](unsigned inside) { return inside == 3; });
    static constexpr auto in_second_only = group_truth([](unsigned inside) { return inside == 2; });
    static constexpr auto in_first_only_or_fourth_only =
        group_truth([](unsigned inside) { return (inside & 3U) == 1 || (inside & 12U) == 8; });
    static constexpr auto in_third_or_both_others =
        group_truth([](unsigned inside) { return inside < 8 && inside >= 3; });
};

// Draws what is at most a distance away from a box, or at least so far inside if it is negative.
void draw_box(const BoxGeometry& box, double distance, Join join, Contours& contours);

// What goes on beyond the rays at the ends of an arc's stroke: half a disc, or half a square.
void draw_arc_caps(const EllipseGeometry& geometry, const Turn& turn, const Stroke& how, Contours& contours);

// The outline of a fill, and of a stroke, with curves in so much detail where they become chords beforehand. They look
// at the geometry when they are drawn, and at its lines.
[[nodiscard]] Outline outline_of(const Geometry& geometry, const Fill& how, const Tolerance& tolerance);
[[nodiscard]] Outline outline_of(const Geometry& geometry, const Stroke& how, const Tolerance& tolerance);

// Draws all its groups where they are placed, and returns what is covered then.
CoverRule draw_outline(const Outline& outline, const Placement& placement, Chains& chains);

// A pen along lines, which are looked at when it is drawn.
[[nodiscard]] Outline stroke_along(const FlatPath& lines, const Pen& pen, const Stroke& how);

}  // namespace coldbrick::inline v0::detail

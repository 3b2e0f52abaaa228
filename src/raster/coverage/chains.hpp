// Contours as chains: runs of edges that only go down, or only go up.
#pragma once

#include "geometry/budget_memory.hpp"
#include "raster/coverage/windings.hpp"
#include "raster/spans/window.hpp"

#include <cmath>
#include <cstdint>
#include <limits>
#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// A place in units of 2^-14 pixel, up to 2^33 pixels from the origin.
struct FixedPoint {
    std::int64_t x;
    std::int64_t y;
    friend constexpr bool operator==(const FixedPoint&, const FixedPoint&) = default;
};

inline constexpr int fixed_bits = 14;
inline constexpr std::int64_t fixed_unit = std::int64_t{1} << fixed_bits;

// Rounded to 2^-32, so that it can be moved by whole pixels without being rounded: what is drawn at a pixel does not
// depend on the window then.
inline double in_grid(double pixels) noexcept {
    constexpr auto large = 0x1p19;
    constexpr auto rounding = 0x1.8p20;
    return pixels > -large && pixels < large ? (pixels + rounding) - rounding : pixels;
}

// A part of an edge in the rows of a window. Pixels from the window's upper left corner on: pixel (i, j) of it is the
// square from there to (i + 1, j + 1).
struct ChainEdge {
    double top;
    double bottom;
    double first_x;  // where it begins, above the window perhaps
    double first_y;
    double slope;

    [[nodiscard]] double x_at(double y) const noexcept { return first_x + in_grid((y - first_y) * slope); }
};

// Edges from the first on, from top to bottom: each begins where another one ends, or beside it at the same height.
struct Chain {
    std::uint32_t first;
    std::uint32_t end;
    double least_x;
    double most_x;
    std::int16_t direction;  // of the contour: 1 down, -1 up
    std::uint16_t group;
};

// Takes the edges of closed contours, in turn, and keeps what of them matters in a window. Edges left of it lie at its
// left side, and those right of it at its right side.
class Chains {
  public:
    explicit Chains(const Window& window, std::pmr::memory_resource* memory)
        : window_{window}, memory_{memory}, all_{memory} {}
    Chains(const Chains&) = delete;
    Chains(Chains&&) = delete;
    Chains& operator=(const Chains&) = delete;
    Chains& operator=(Chains&&) = delete;
    ~Chains() { free_edges(); }

    // What of finished chains matters in a part of their window.
    Chains(const Chains& of, const Window& part, std::pmr::memory_resource* memory);

    // Makes room for as many more edges.
    void expect(std::size_t count) {
        const auto wanted = count_ + count;
        if (wanted > room_) grow_to(std::max(wanted, 2 * room_));
    }

    void add(FixedPoint from, FixedPoint to, int group);

    // No more edges come.
    void finish() { end_chain(); }

    [[nodiscard]] const Window& window() const noexcept { return window_; }
    [[nodiscard]] const ChainEdge* edges() const noexcept { return edges_; }
    [[nodiscard]] const std::pmr::vector<Chain>& all() const noexcept { return all_; }

    // Whether there were chains right of the window, of any group or of one, so that what is covered in a row may go on
    // up to there.
    [[nodiscard]] bool reaches_right() const noexcept { return reaching_right_ != 0; }
    [[nodiscard]] bool reaches_right(std::size_t group) const noexcept { return (reaching_right_ >> group & 1U) != 0; }

    // The winding numbers at the window's left side, but for what chains do there. If there are any, that side is an
    // edge of no chain.
    [[nodiscard]] const Windings& left_of_all() const noexcept { return left_of_all_; }
    [[nodiscard]] std::uint32_t left_side() const noexcept { return left_side_; }

    [[nodiscard]] double top_of(const Chain& chain) const noexcept { return edges_[chain.first].top; }
    [[nodiscard]] double bottom_of(const Chain& chain) const noexcept { return edges_[chain.end - 1].bottom; }

  private:
    // From the window's upper left corner on, in pixels: exact.
    struct Place {
        double x;
        double y;
    };
    [[nodiscard]] Place place_of(FixedPoint at) const noexcept {
        constexpr auto pixels = 1 / static_cast<double>(fixed_unit);
        return {static_cast<double>(at.x) * pixels - left_, static_cast<double>(at.y) * pixels - top_};
    }
    // How far chains reach to the left and to the right.
    struct Reach {
        double least = std::numeric_limits<double>::infinity();
        double most = -std::numeric_limits<double>::infinity();
    };
    void reach(double least, double most) noexcept {
        reached_.least = least < reached_.least ? least : reached_.least;
        reached_.most = most > reached_.most ? most : reached_.most;
    }
    void append(const ChainEdge& edge) {
        if (count_ == room_) expect(least_room);
        edges_[count_++] = edge;
    }
    void grow_to(std::size_t count);
    void free_edges() noexcept {
        if (edges_ != nullptr) memory_->deallocate(edges_, room_ * sizeof(ChainEdge), alignof(ChainEdge));
    }
    void push(const ChainEdge& edge);
    void push_beside(const ChainEdge& edge);
    void end_chain();

    Window window_;
    // A pixel begins half a pixel before its centre.
    double left_ = window_.left - 0.5;
    double top_ = window_.top - 0.5;
    double width_ = double{1} * window_.right - window_.left;
    double height_ = double{1} * window_.bottom - window_.top;
    static constexpr std::size_t least_room = 32;
    std::pmr::memory_resource* memory_;
    ChainEdge* edges_ = nullptr;  // the first count_ are set
    std::size_t room_ = 0;
    std::uint32_t count_ = 0;
    std::pmr::vector<Chain> all_;
    unsigned reaching_right_ = 0;  // a bit for each group
    Windings left_of_all_;
    std::uint32_t left_side_ = 0;
    // Of the chain at hand: its first edge, how it goes, and where it has come to.
    std::uint32_t first_ = 0;
    int direction_ = 0;
    int group_ = 0;
    FixedPoint at_{};
    Place place_ = place_of(at_);
    Reach reached_;
};

}  // namespace coldbrick::inline v0::detail

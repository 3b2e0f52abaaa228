// The rows of circles and ellipses, and of what is made from them.
#pragma once

#include "geometry/integers.hpp"
#include "geometry/thresholds.hpp"
#include "geometry/wide.hpp"
#include "raster/spans/convex_rows.hpp"

#include "coldbrick/angle.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>

namespace coldbrick::inline v0::detail {

// An ellipse that fits a box, turned about its centre.
struct WholeEllipse {
    Box box;
    Angle turn = {};
};

// The ellipse that fits a box, which is not checked.
Box scan_ellipse(const Box& box, const Box& clip, const SpanSink& sink);

// Rule 2: with X = 2(px - x) - (w - 1) and Y = 2(py - y) - (h - 1), the pixels with X*X*h*h + Y*Y*w*w <= w*w*h*h, and
// those of the middle rows and columns. Reach says what |X| may be in the row Y: the largest of the parity of w - 1.
// A floating-point root is only the first guess; whole numbers decide.
template <class Reach>
class EllipseRows {
  public:
    explicit EllipseRows(const Box& box) noexcept
        : at_{box.at}, width_{box.size.width}, height_{box.size.height}, reach_{width_, height_} {}

    [[nodiscard]] int top() const noexcept { return at_.y; }
    [[nodiscard]] int bottom() const noexcept { return static_cast<int>(at_.y + height_); }
    [[nodiscard]] Run columns() const noexcept { return {.left = at_.x, .right = static_cast<int>(at_.x + width_)}; }

    [[nodiscard]] Run run(int y) const noexcept {
        const auto across = std::int64_t{2} * (y - std::int64_t{at_.y}) - (height_ - 1);
        const auto reach = across >= -1 && across <= 1 ? width_ - 1 : reach_in_row(across);
        return {.left = static_cast<int>(at_.x + (width_ - 1 - reach) / 2),
                .right = static_cast<int>(at_.x + (width_ + 1 + reach) / 2)};
    }

  private:
    [[nodiscard]] std::int64_t reach_in_row(std::int64_t across) const noexcept {
        const auto row = reach_.row(across);
        const auto parity = (width_ - 1) & 1;
        auto reach = row.guess();
        reach -= (reach & 1) ^ parity;
        while (reach > parity && !row.has(reach)) reach -= 2;
        while (row.has(reach + 2)) reach += 2;
        return std::max(reach, parity);
    }

    Point at_;
    std::int64_t width_;
    std::int64_t height_;
    Reach reach_;
};

// w = h: X*X <= w*w - Y*Y.
struct CircleReach {
    CircleReach(std::int64_t width, std::int64_t) noexcept : square{width * width} {}

    struct Row {
        std::int64_t most;
        [[nodiscard]] std::int64_t guess() const noexcept {
            return static_cast<std::int64_t>(std::sqrt(static_cast<double>(most)));
        }
        [[nodiscard]] bool has(std::int64_t x) const noexcept { return x * x <= most; }
    };
    [[nodiscard]] Row row(std::int64_t y) const noexcept { return {square - y * y}; }

    std::int64_t square;
};

// The same rows one after the other: each begins at what the last one was, and is exact all the same.
class SteppingCircleRows {
  public:
    explicit SteppingCircleRows(const Box& box) noexcept
        : at_{box.at}, diameter_{box.size.width}, square_{diameter_ * diameter_}, parity_{(diameter_ - 1) & 1} {}

    [[nodiscard]] int top() const noexcept { return at_.y; }
    [[nodiscard]] int bottom() const noexcept { return static_cast<int>(at_.y + diameter_); }

    [[nodiscard]] Run run(int y) noexcept {
        const auto across = std::int64_t{2} * (y - std::int64_t{at_.y}) - (diameter_ - 1);
        const auto most = square_ - across * across;
        if (!begun_) {
            reach_ = static_cast<std::int64_t>(std::sqrt(static_cast<double>(most)));
            reach_ -= (reach_ & 1) ^ parity_;
            begun_ = true;
        }
        while ((reach_ + 2) * (reach_ + 2) <= most) reach_ += 2;
        while (reach_ > parity_ && reach_ * reach_ > most) reach_ -= 2;
        reach_ = std::max(reach_, parity_);
        return {.left = static_cast<int>(at_.x + (diameter_ - 1 - reach_) / 2),
                .right = static_cast<int>(at_.x + (diameter_ + 1 + reach_) / 2)};
    }

  private:
    Point at_;
    std::int64_t diameter_;
    std::int64_t square_;
    std::int64_t parity_;
    std::int64_t reach_ = 0;
    bool begun_ = false;
};

// X*X*h*h <= w*w*(h*h - Y*Y), in numbers wide enough for the product: Wide.
template <class Wide>
struct EllipseReach {
    EllipseReach(std::int64_t width, std::int64_t height) noexcept
        : width_square{width * width},
          height_square{height * height},
          ratio{static_cast<double>(width) / static_cast<double>(height)} {}

    struct Row {
        Wide most;
        std::int64_t height_square;
        double root;
        [[nodiscard]] std::int64_t guess() const noexcept { return static_cast<std::int64_t>(root); }
        [[nodiscard]] bool has(std::int64_t x) const noexcept {
            return static_cast<Wide>(x * x) * static_cast<Wide>(height_square) <= most;
        }
    };
    [[nodiscard]] Row row(std::int64_t y) const noexcept {
        const auto rest = height_square - y * y;
        return {.most = static_cast<Wide>(width_square) * static_cast<Wide>(rest),
                .height_square = height_square,
                .root = ratio * std::sqrt(static_cast<double>(rest))};
    }

    std::int64_t width_square;
    std::int64_t height_square;
    double ratio;
};

// For each diameter up to this, how many pixels of each row of the box lie left of the circle: counted by the rule
// once, as small circles are drawn by the thousand.
inline constexpr int largest_small = thresholds::small_circle;

struct SmallCircles {
    std::uint8_t margins[largest_small + 1][largest_small]{};

    constexpr SmallCircles() noexcept {
        for (int diameter = 1; diameter <= largest_small; ++diameter) {
            for (int row = 0; row < diameter; ++row) margins[diameter][row] = margin(diameter, row);
        }
    }

    static constexpr std::uint8_t margin(int diameter, int row) noexcept {
        const auto y = 2 * row - (diameter - 1);
        auto x = diameter - 1;
        while (x > 1 && y * y > 1 && x * x + y * y > diameter * diameter) x -= 2;
        return static_cast<std::uint8_t>((diameter - 1 - x) / 2);
    }
};
inline constexpr SmallCircles small_circles;

class SmallCircleRows {
  public:
    explicit SmallCircleRows(const Box& box) noexcept
        : at_{box.at}, diameter_{box.size.width}, margins_{small_circles.margins[box.size.width]} {}

    [[nodiscard]] int top() const noexcept { return at_.y; }
    [[nodiscard]] int bottom() const noexcept { return at_.y + diameter_; }
    [[nodiscard]] Run columns() const noexcept { return {.left = at_.x, .right = at_.x + diameter_}; }
    [[nodiscard]] Run run(int y) const noexcept {
        const auto margin = margins_[y - at_.y];
        return {.left = at_.x + margin, .right = at_.x + diameter_ - margin};
    }

  private:
    Point at_;
    int diameter_;
    const std::uint8_t* margins_;
};

// Calls use(rows) with the rows of the ellipse that fits a box.
template <class Use>
auto with_ellipse_rows(const Box& box, const Use& use) {
    if (box.size.width == box.size.height) {
        if (box.size.width <= largest_small) return use(SmallCircleRows{box});
        return use(EllipseRows<CircleReach>{box});
    }
    const auto product = std::int64_t{box.size.width} * box.size.height;
    if (product < std::int64_t{1} << 29U) return use(EllipseRows<EllipseReach<std::uint64_t>>{box});
    return use(EllipseRows<EllipseReach<Uint128>>{box});
}

}  // namespace coldbrick::inline v0::detail

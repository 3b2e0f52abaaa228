// What a face is: letters of one size, and how they are drawn.
#pragma once

#include "geometry/trigonometry.hpp"

#include "coldbrick/face.hpp"
#include "coldbrick/lettering.hpp"

#include <cmath>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace coldbrick::inline v0::detail {

// Where a letter comes to lie: its origin on the baseline, and the direction of that, slanted besides.
struct LetterPlace {
    Vec at;
    Vec along = {1, 0};
    double slant = 0;  // how far to the right for each pixel up

    [[nodiscard]] Position operator()(Vec own) const noexcept {
        const auto [x, y] = at + turned(Vec{own.x - slant * own.y, own.y}, along);
        // On a grid of 1/1024 pixel, so that a text that is moved by whole pixels is the same to the last bit.
        constexpr auto grid = 1024.0;
        const auto rounded = [](double value) { return std::floor(value * grid + 0.5) / grid; };
        return {.x = rounded(x), .y = rounded(y)};
    }
};

// Letters of one size, y down from the baseline, which is the lower edge of the pixels that stand on it.
class SizedFace {
  public:
    SizedFace() noexcept = default;
    SizedFace(const SizedFace&) = delete;
    SizedFace(SizedFace&&) = delete;
    SizedFace& operator=(const SizedFace&) = delete;
    SizedFace& operator=(SizedFace&&) = delete;
    virtual ~SizedFace() = default;

    // How far it reaches from its left edge to its right one, without the space to the next.
    [[nodiscard]] virtual double width(char32_t letter) const = 0;
    // The space between two letters.
    [[nodiscard]] virtual double gap(char32_t before, char32_t after) const = 0;
    // From baseline to baseline.
    [[nodiscard]] virtual double line_height() const noexcept = 0;
    [[nodiscard]] virtual double height() const noexcept = 0;
    [[nodiscard]] virtual double weight() const noexcept = 0;  // 0: it has no pen
    // Whether places are to be whole pixels.
    [[nodiscard]] virtual bool is_fitted() const noexcept = 0;

    // Adds a letter to what is drawn.
    virtual void draw(char32_t letter, const LetterPlace& place, Lettering& to) const = 0;
};

// What all sizes have in common.
class FaceSource : public Counted {
  public:
    [[nodiscard]] virtual std::string name() const = 0;
    [[nodiscard]] virtual bool has(char32_t letter) const = 0;
    [[nodiscard]] virtual std::vector<char32_t> characters() const = 0;
    // Throws Error for a height or a breadth that it does not have.
    [[nodiscard]] virtual std::unique_ptr<SizedFace> sized(double height, std::optional<double> weight) const = 0;
    // Heights are whole multiples of a step, or, of faces that have every height, become smaller by it; from a least
    // one on.
    [[nodiscard]] virtual double step() const noexcept = 0;
    [[nodiscard]] virtual double least_height() const noexcept = 0;
};

}  // namespace coldbrick::inline v0::detail

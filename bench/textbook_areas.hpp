// The loop for smooth edges that every textbook has: each edge adds to a row of numbers how much of each pixel lies to
// its right, and the sums along the row are the coverage. It is right for simple outlines only.
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <span>
#include <vector>

namespace bench {

struct Place {
    float x;
    float y;
};

class TextbookAreas {
  public:
    // Of so many pixels, into rows of so many 32-bit pixels.
    TextbookAreas(int width, int height)
        : width_{width}, height_{height}, steps_(static_cast<std::size_t>((width + 1) * height + 1)) {}

    // A straight edge within the pixels; pixel (i, j) is the square from there to (i + 1, j + 1).
    void line(Place from, Place to) {
        if (from.y == to.y) return;
        const auto direction = from.y < to.y ? 1.0F : -1.0F;
        if (direction < 0) std::swap(from, to);
        const auto slope = (to.x - from.x) / (to.y - from.y);
        auto x = from.x;
        for (auto row = static_cast<int>(from.y); row < std::min(height_, static_cast<int>(std::ceil(to.y))); ++row) {
            const auto top = std::max(from.y, static_cast<float>(row));
            const auto bottom = std::min(to.y, static_cast<float>(row + 1));
            const auto height = bottom - top;
            const auto next = x + slope * height;
            const auto left = std::min(x, next);
            const auto right = std::max(x, next);
            auto* const steps = &steps_[static_cast<std::size_t>(row * (width_ + 1))];
            const auto first = static_cast<int>(left);
            const auto last = static_cast<int>(std::ceil(right));
            const auto area = direction * height;
            if (last <= first + 1) {
                const auto beyond = (left + right) / 2 - static_cast<float>(first);
                steps[first] += area * (1 - beyond);
                steps[first + 1] += area * beyond;
            } else {
                const auto per_column = area / (right - left);
                const auto in_first = 1 - (left - static_cast<float>(first));
                auto before = in_first * in_first / 2 * per_column;
                steps[first] += before;
                auto sum = before;
                for (auto column = first + 1; column < last - 1; ++column) {
                    const auto reached = (static_cast<float>(column) + 0.5F - left) * per_column;
                    steps[column] += reached - before;
                    before = reached;
                    sum = reached;
                }
                const auto in_last = right - static_cast<float>(last - 1);
                const auto reached = area - in_last * in_last / 2 * per_column;
                steps[last - 1] += reached - sum;
                steps[last] += area - reached;
            }
            x = next;
        }
    }

    void contour(std::span<const Place> corners) {
        for (std::size_t i = 0; i < corners.size(); ++i) line(corners[i], corners[(i + 1) % corners.size()]);
    }

    // Calls use(x, y, coverage) for each pixel that has any, and clears.
    template <class Use>
    void take(const Use& use) {
        for (auto y = 0; y < height_; ++y) {
            auto sum = 0.0F;
            for (auto x = 0; x < width_; ++x) {
                auto& step = steps_[static_cast<std::size_t>(y * (width_ + 1) + x)];
                sum += step;
                step = 0;
                const auto coverage = std::min(std::fabs(sum), 1.0F);
                if (coverage > 0) use(x, y, coverage);
            }
            steps_[static_cast<std::size_t>(y * (width_ + 1) + width_)] = 0;
        }
    }

    // Lays a colour on pixels of four channels, of which the last one is alpha.
    void paint(std::uint32_t* pixels, std::size_t stride, std::uint32_t color) {
        take([&](int x, int y, float coverage) {
            auto& pixel = pixels[static_cast<std::size_t>(y) * stride + static_cast<std::size_t>(x)];
            const auto part = static_cast<std::uint32_t>(coverage * 255 + 0.5F);
            if (part == 255) {
                pixel = color;
                return;
            }
            auto mixed = 0U;
            for (auto shift = 0U; shift < 32; shift += 8) {
                const auto below = pixel >> shift & 255U;
                const auto above = color >> shift & 255U;
                mixed |= (below * (255 - part) + above * part + 127) / 255 << shift;
            }
            pixel = mixed;
        });
    }

  private:
    int width_;
    int height_;
    std::vector<float> steps_;
};

}  // namespace bench

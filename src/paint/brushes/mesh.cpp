// Meshes with smooth edges, each element in a colour of its own.
#include "coldbrick/draw_each.hpp"
#include "coldbrick/smooth_region.hpp"

#include <memory>

namespace coldbrick::inline v0::detail {

namespace {

// In each pixel the mean of some colours, weighted by how much of it they cover, and by their alpha.
class MeanColors final : public InkSource {
  public:
    explicit MeanColors(const Box& box)
        : box_{box}, sums_(static_cast<std::size_t>(box.size.width) * static_cast<std::size_t>(box.size.height)) {}

    void add(Point at, int coverage, Color color) noexcept {
        auto& sum = sums_[index(at)];
        const auto weight = static_cast<std::uint64_t>(coverage);
        const auto alpha = weight * color.alpha;
        sum.weight += weight;
        sum.alpha += alpha;
        sum.red += alpha * color.red;
        sum.green += alpha * color.green;
        sum.blue += alpha * color.blue;
    }

    void fetch(Point from, int count, const Box&, Color* colors) const override {
        for (int i = 0; i < count; ++i) colors[i] = mean({.x = from.x + i, .y = from.y});
    }
    void fetch(Point from, int count, const Box&, Color16* colors) const override {
        for (int i = 0; i < count; ++i) colors[i] = widened(mean({.x = from.x + i, .y = from.y}));
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return false; }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    struct Sum {
        std::uint64_t weight = 0;
        std::uint64_t alpha = 0;
        std::uint64_t red = 0;
        std::uint64_t green = 0;
        std::uint64_t blue = 0;
    };

    [[nodiscard]] std::size_t index(Point at) const noexcept {
        return static_cast<std::size_t>(at.y - box_.at.y) * static_cast<std::size_t>(box_.size.width) +
               static_cast<std::size_t>(at.x - box_.at.x);
    }

    [[nodiscard]] Color mean(Point at) const noexcept {
        const auto& [weight, alpha, red, green, blue] = sums_[index(at)];
        if (alpha == 0) return {.alpha = 0};
        const auto part = [](std::uint64_t sum, std::uint64_t of) {
            return static_cast<std::uint8_t>((2 * sum + of) / (2 * of));
        };
        return {.red = part(red, alpha),
                .green = part(green, alpha),
                .blue = part(blue, alpha),
                .alpha = part(alpha, weight)};
    }

    Box box_;
    std::vector<Sum> sums_;
};

}  // namespace

Ink mesh_ink(const VertexList& list, const std::vector<Color>& colors, const Box& box) {
    constexpr auto smooth = Fill{.edge = Edge::smooth};
    auto mean = std::make_unique<MeanColors>(box);
    for (std::size_t i = 0; i < colors.size(); ++i) {
        const VertexElement element{.list = list, .number = i};
        for_each_coverage(filled(element, smooth), box, [&](int y, int x, int length, int coverage) {
            for (int k = 0; k < length; ++k) mean->add({.x = x + k, .y = y}, coverage, colors[i]);
        });
    }
    return Ink{Ink::Source{mean.release()}};
}

}  // namespace coldbrick::inline v0::detail

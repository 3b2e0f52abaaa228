// Shapes that figures keep.
#include "coldbrick/figure.hpp"

namespace coldbrick::detail {

namespace {

class HeldVertices final : public HeldShape {
  public:
    explicit HeldVertices(const VertexList& list) : indices_{list.indices.begin(), list.indices.end()} {
        places_.reserve(list.at.size());
        for (std::size_t i = 0; i < list.at.size(); ++i) places_.push_back(list.transform(list.at[i]));
        list_ = {.as = list.as, .at = places_, .indices = indices_};
    }
    void refer(AreaRef& area) const noexcept override { area.shape = &list_; }
    [[nodiscard]] bool is_equal(const HeldShape& other) const override {
        const auto* const same = dynamic_cast<const HeldVertices*>(&other);
        return same != nullptr && list_.as == same->list_.as && places_ == same->places_ && indices_ == same->indices_;
    }

  private:
    std::vector<Position> places_;
    std::vector<std::uint32_t> indices_;
    VertexList list_{.as = Elements::points, .at = std::span<const Position>{}};
};

}  // namespace

SharedShape held(const VertexList& list) { return std::make_shared<const HeldVertices>(list); }

SharedShape held(const VertexElement& element) {
    const auto [as, vertices] = element_vertices(element);
    return held(VertexList{.as = as, .at = vertices});
}

std::size_t bytes_besides(const ShapeValue& shape) noexcept {
    return std::visit(
        [](const auto& of) -> std::size_t {
            if constexpr (requires { of.rings(); }) {
                std::size_t bytes = 0;
                for (const auto& ring : of.rings()) bytes += sizeof(ring) + ring.size() * sizeof(ring[0]);
                return bytes;
            } else if constexpr (requires { of.through; }) {
                return of.through.size() * sizeof(of.through[0]);
            } else if constexpr (requires { of.spans(); }) {
                return of.spans().size() * sizeof(Span);
            } else if constexpr (requires { of.steps(); }) {
                return of.steps().size() * sizeof(Path::Step);
            } else {
                return 0;
            }
        },
        shape);
}

bool are_equal(const ShapeValue& a, const ShapeValue& b) {
    const auto* const held_a = std::get_if<SharedShape>(&a);
    const auto* const held_b = std::get_if<SharedShape>(&b);
    if (held_a == nullptr || held_b == nullptr) return a == b;
    return *held_a == *held_b || (*held_a)->is_equal(**held_b);
}

}  // namespace coldbrick::detail

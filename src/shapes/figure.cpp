// Shapes that figures keep.
#include "coldbrick/figure.hpp"

#include "shapes/visit_shape.hpp"

#include "coldbrick/path.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

namespace {

class HeldVertices final : public HeldShape {
  public:
    explicit HeldVertices(const VertexList& list) : indices_{list.indices.begin(), list.indices.end()} {
        places_.reserve(list.at.size());
        for (std::size_t i = 0; i < list.at.size(); ++i) places_.push_back(list.transform(list.at[i]));
        list_ = {.as = list.as, .at = places_, .indices = indices_};
        hold(shape_ref(list_));
    }

  private:
    std::vector<Position> places_;
    std::vector<std::uint32_t> indices_;
    VertexList list_{.as = Elements::points, .at = std::span<const Position>{}};
};

bool are_equal(const VertexList& a, const VertexList& b) {
    if (a.as != b.as || a.at.size() != b.at.size()) return false;
    for (std::size_t i = 0; i < a.at.size(); ++i) {
        if (a.at[i] != b.at[i]) return false;
    }
    return std::ranges::equal(a.indices, b.indices);
}
// These are kept as lists.
bool are_equal(const VertexElement&, const VertexElement&) { return false; }

template <class Shape>
bool are_equal(const Shape& a, const Shape& b) {
    return a == b;
}

std::size_t bytes_beside(const ShapeRef& ref) noexcept {
    return visit_shape(ref, [](const auto& of) -> std::size_t {
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
        } else if constexpr (requires { of.outlines; }) {
            return (of.outlines.steps().size() + of.lines.steps().size()) * sizeof(Path::Step);
        } else if constexpr (requires { of.indices; }) {
            return of.at.size() * sizeof(Position) + of.indices.size() * sizeof(of.indices[0]);
        } else {
            return 0;
        }
    });
}

}  // namespace

Shared<HeldShape> held(const VertexList& list) { return make_shared_value<HeldVertices>(list); }

Shared<HeldShape> held(const VertexElement& element) {
    const auto [as, vertices] = element_vertices(element);
    return held(VertexList{.as = as, .at = vertices});
}

std::size_t ShapeValue::bytes_besides() const noexcept {
    const auto shape = ref();
    if (shape.own_calls != nullptr) return 0;
    return bytes_beside(shape);
}

bool operator==(const ShapeValue& a, const ShapeValue& b) {
    const auto first = a.ref();
    const auto second = b.ref();
    if (first.kind != second.kind || first.own_calls != second.own_calls) return false;
    if (first.shape == second.shape) return true;
    if (first.own_calls != nullptr) return first.own_calls->are_equal(first.shape, second.shape);
    return visit_shape(first, [&](const auto& shape) {
        using Shape = std::remove_cvref_t<decltype(shape)>;
        return are_equal(shape, *static_cast<const Shape*>(second.shape));
    });
}

}  // namespace coldbrick::inline v0::detail

// Any shape as a value.
#pragma once

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/shared.hpp"

#include <array>
#include <cstddef>
#include <cstring>
#include <utility>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

// A shape that is kept for its owners.
class HeldShape : public Counted {
  public:
    [[nodiscard]] const ShapeRef& ref() const noexcept { return ref_; }

  protected:
    // It does not change and lies in what is derived.
    void hold(const ShapeRef& ref) noexcept { ref_ = ref; }

  private:
    ShapeRef ref_;
};

template <AnyShape Shape>
class Held final : public HeldShape {
  public:
    explicit Held(Shape shape) : shape_{std::move(shape)} { hold(shape_ref(shape_)); }

  private:
    Shape shape_;
};

// The vertices are copied, as they come to lie.
Shared<HeldShape> held(const VertexList& list);
Shared<HeldShape> held(const VertexElement& element);
template <AnyShape Shape>
Shared<HeldShape> held(Shape shape) {
    return make_shared_value<Held<Shape>>(std::move(shape));
}

// Small shapes are kept in it, others beside it, where copies share them.
class ShapeValue {
  public:
    // A box, an empty one.
    ShapeValue() noexcept : kind_{number_in<Box, AllShapes>} {}

    template <AnyShape Shape>
    explicit ShapeValue(Shape shape) : kind_{number_in<Shape, AllShapes>} {
        if constexpr (is_one_of<Shape, LastingShapes> && std::is_trivially_copyable_v<Shape> && sizeof(Shape) <= room) {
            std::memcpy(small_.data(), &shape, sizeof shape);
        } else {
            held_ = held(std::move(shape));
        }
    }

    // The shape, as long as this lives.
    [[nodiscard]] ShapeRef ref() const noexcept {
        return held_ ? held_->ref() : ShapeRef{.shape = small_.data(), .kind = kind_};
    }

    // About how many bytes it takes beside its own: of points, steps, spans.
    [[nodiscard]] std::size_t bytes_besides() const noexcept;

    // By numbers; shapes of one's own that cannot be compared are equal to copies of themselves alone.
    friend bool operator==(const ShapeValue& a, const ShapeValue& b);

  private:
    // Of a rounded box with fractional coordinates, or a sector in whole pixels.
    static constexpr std::size_t room = 40;

    alignas(double) std::array<std::byte, room> small_{};
    Shared<HeldShape> held_;
    std::uint8_t kind_;
};

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick

// From a shape of any kind to its type.
#pragma once

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/lettering.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/vertices.hpp"

namespace coldbrick::inline v0::detail {

template <class Use, class... Shapes>
auto visit_one_of(TypeList<Shapes...>, const ShapeRef& ref, const Use& use) {
    using Result = decltype(use(std::declval<const Box&>()));
    using Call = Result (*)(const void* shape, const Use& use);
    static constexpr Call calls[] = {
        [](const void* shape, const Use& called) -> Result { return called(*static_cast<const Shapes*>(shape)); }...};
    return calls[ref.kind](ref.shape, use);
}

// Calls use(shape) with a shape of the library's, whichever it is.
template <class Use>
auto visit_shape(const ShapeRef& ref, const Use& use) {
    return visit_one_of(AllShapes{}, ref, use);
}

}  // namespace coldbrick::inline v0::detail

// Clips beside the box that is a target's window.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/shared.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/smooth_region.hpp"

#include <memory>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

struct Clips : Counted {
    std::shared_ptr<const Region> mask;         // if set, drawing touches only its pixels
    std::shared_ptr<const SmoothRegion> cover;  // if set, drawing is as weak as its pixels are covered
};

// The clips, or none, narrowed to a region too.
Shared<Clips> clipped(const Shared<Clips>& clips, const Region& region);
Shared<Clips> clipped(const Shared<Clips>& clips, const SmoothRegion& region);

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick

#include "coldbrick/transform.hpp"

#include "geometry/trigonometry.hpp"

namespace coldbrick {

Transform Transform::turn(Angle angle) const noexcept {
    const auto [c, s] = detail::direction_of(angle);
    return then(Transform{{.xx = c, .xy = -s, .dx = 0, .yx = s, .yy = c, .dy = 0}});
}

}  // namespace coldbrick

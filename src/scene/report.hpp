// Faults as text.
#pragma once

#include "coldbrick/scene.hpp"

#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

// Throws SceneError with the first max_faults of the faults and their reports. `count` is how many there were.
[[noreturn]] void throw_scene_error(std::vector<Fault> faults, std::size_t count, std::string_view text,
                                    std::string_view name);

}  // namespace coldbrick::inline v0::detail

// Faults to messages.
#pragma once

#include "scene/program.hpp"

#include "coldbrick/scene.hpp"

#include <deque>
#include <string_view>

namespace coldbrick::inline v0::detail {

// Throws SceneError with the first faults, and how many more there are.
[[noreturn]] void throw_scene_error(Faults&& found, const std::deque<SourceText>& sources, std::string_view name);

}  // namespace coldbrick::inline v0::detail

// Inks of a scene: gradients, hatches, and how any ink is laid.
#pragma once

#include "scene/arguments.hpp"

#include "coldbrick/ink.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// A gradient: linear from somewhere to somewhere, radial with a radius, else conic.
[[nodiscard]] std::optional<Ink> read_gradient(Arguments& given);

[[nodiscard]] std::optional<Ink> read_hatch(Arguments& given);

// The ink of a drawing statement, with opacity, blend mode and channels.
[[nodiscard]] std::optional<Ink> read_ink(Arguments& given);

// How it is laid, alone.
[[nodiscard]] std::optional<Compositing> read_compositing(Arguments& given);

[[nodiscard]] std::optional<Placing> read_placing(Arguments& given);

}  // namespace coldbrick::inline v0::detail

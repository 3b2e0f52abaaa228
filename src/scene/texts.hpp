// Words in scenes.
#pragma once

#include "scene/arguments.hpp"

#include "coldbrick/path.hpp"
#include "coldbrick/text.hpp"

#include <optional>
#include <variant>

namespace coldbrick::inline v0::detail {

// A text; remarks on what it has no room or no drawing for.
[[nodiscard]] std::optional<std::variant<Text>> read_text(Arguments& given);

// Path data between quotes.
[[nodiscard]] std::optional<Path> read_path_data(Arguments& given, Key key);

}  // namespace coldbrick::inline v0::detail

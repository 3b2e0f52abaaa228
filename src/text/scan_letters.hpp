// A text to the pixels of its letters, each drawn once and kept.
#pragma once

#include "coldbrick/detail/span_sink.hpp"
#include "coldbrick/fill.hpp"
#include "coldbrick/text.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// Hands the spans or the coverage of a text, filled and moved, inside a clip to the sink, and says the box around
// them. Nothing for texts whose letters are large, follow a path, or lie in lines that touch: these are drawn as a
// whole.
[[nodiscard]] std::optional<Box> scan_letters(const Text& text, const Fill& how, Position by, const Box& clip,
                                              const SpanSink& sink);

}  // namespace coldbrick::inline v0::detail

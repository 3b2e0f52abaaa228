// The components of TrueType glyphs.
#pragma once

#include <string>

#include <hb.h>

namespace coldbrick::inline v0::detail {

// Of one glyph, all those of its components counted with it. Honest fonts come to some dozens.
inline constexpr unsigned most_glyph_parts = 1024;

// Throws Error "<from>: ..." if a glyph of a font has more components than that, or is one of its own: to load it takes
// time and memory that grow with their number, which may double with each level (OpenType 1.9, "glyf").
void check_glyph_parts(hb_face_t* face, const std::string& from);

}  // namespace coldbrick::inline v0::detail

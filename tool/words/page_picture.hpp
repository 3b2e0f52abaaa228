// A page's pictures: its scene, and what its words change.
#pragma once

#include "words/reference_page.hpp"

#include <coldbrick/coldbrick.hpp>

#include <optional>
#include <string_view>

namespace coldbrick::tool {

// What the C++ of a page draws that is about a call without a statement; nothing for other pages.
[[nodiscard]] std::optional<Bitmap<Rgb8>> call_picture(std::string_view name);

// The page's scene, and below it a row for each word that shows what it changes: with each of its values.
[[nodiscard]] Bitmap<Rgb8> page_picture(const ReferencePage& page);

// Only the scene; only the row of one word, which has values.
[[nodiscard]] Bitmap<Rgb8> page_scene(const ReferencePage& page);
[[nodiscard]] Bitmap<Rgb8> word_picture(const ReferencePage& page, const PageWord& word);

}  // namespace coldbrick::tool

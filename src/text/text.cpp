#include "coldbrick/text.hpp"

#include "text/layout.hpp"

#include <set>
#include <utility>

namespace coldbrick::inline v0 {

TextLayout lay_out(const Text& text) { return detail::laid(text).layout; }

TextLayout measure(const Text& text) {
    auto laid = detail::laid(text);
    laid.layout.pixels = bounds(text);
    return std::move(laid.layout);
}

std::vector<char32_t> missing(const Text& text) {
    std::vector<char32_t> found;
    std::set<char32_t> known;
    for (const auto& [character, at] : detail::characters_of(text.words)) {
        const auto is_drawn = character >= U' ' && character != 0x2028 && character != 0x2029 && character != 0x85 &&
                              character != 0x200b && character != 0x200c && character != 0x200d && character != 0xfeff;
        if (!is_drawn || text.face.has(character)) continue;
        if (known.insert(character).second) found.push_back(character);
    }
    return found;
}

Lettering lettering(const Text& text) {
    const auto laid = detail::laid(text);
    Lettering all;
    for (const auto& [letter, place] : laid.letters) {
        if (letter >= U' ' || letter == U'\t') laid.face->draw(letter, place, all);
    }
    return all;
}

}  // namespace coldbrick::inline v0

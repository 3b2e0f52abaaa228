#include "coldbrick/text.hpp"

#include "text/layout.hpp"
#include "text/scan_letters.hpp"
#include "text/unicode.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <set>
#include <string>
#include <utility>

namespace coldbrick::inline v0 {

bool scan_ready(const Text& text, const Fill& how, Position moved, const Box& clip, const detail::SpanSink& sink,
                Box& touched) {
    const auto box = detail::scan_letters(text, how, moved, clip, sink);
    touched = box.value_or(Box{});
    return box.has_value();
}

TextLayout lay_out(const Text& text) { return detail::laid(text, detail::Carets::all).layout; }

TextLayout measure(const Text& text) {
    auto laid = detail::laid(text, detail::Carets::all);
    laid.layout.pixels = bounds(text);
    return std::move(laid.layout);
}

std::vector<PlacedGlyph> glyphs(const Text& text) {
    const auto laid = detail::laid(text);
    std::vector<PlacedGlyph> all;
    all.reserve(laid.letters.size());
    for (const auto& [face, glyph, at, place] : laid.letters) {
        all.push_back(
            {.face = laid.all_faces[face], .number = glyph, .origin = {.x = place.at.x, .y = place.at.y}, .at = at});
    }
    return all;
}

std::vector<char32_t> missing(const Text& text) {
    const auto faces = detail::all_faces(text.face);
    std::vector<char32_t> found;
    std::set<char32_t> known;
    for (const auto& [character, at] : detail::characters_of(text.words)) {
        detail::spend_work(4);
        if (character < U' ' || detail::ends_line(character) || detail::is_invisible(character)) continue;
        const auto has = [c = character](const Face& face) { return face.source().has(c); };
        if (known.insert(character).second && std::none_of(faces.begin(), faces.end(), has)) found.push_back(character);
    }
    return found;
}

Lettering lettering(const Text& text) {
    const auto laid = detail::laid(text);
    Lettering all;
    constexpr std::uint64_t steps_of_letter = 32;
    for (const auto& letter : laid.letters) {
        detail::spend_work(steps_of_letter);
        laid.faces[letter.face]->draw(letter.glyph, letter.place, all);
        detail::check_steps(all);
    }
    return all;
}

}  // namespace coldbrick::inline v0

// By FriBidi (directions), HarfBuzz (scripts and marks) and ICU (lines).
#include "text/unicode.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <memory>
#include <new>
#include <string>

#include <fribidi.h>
#include <hb.h>
#include <unicode/ubrk.h>

namespace coldbrick::inline v0::detail {

namespace {

struct CloseBreaks {
    void operator()(UBreakIterator* breaks) const noexcept { ubrk_close(breaks); }
};

}  // namespace

BidiLevels bidi_levels(std::u32string_view paragraph, TextDirection direction) {
    BidiLevels levels{.paragraph = 0, .each = std::vector<std::uint8_t>(paragraph.size(), 0)};
    const auto is_plain =
        std::all_of(paragraph.begin(), paragraph.end(), [](char32_t c) { return c < first_leftward; });
    if (direction != TextDirection::right_to_left && is_plain) return levels;
    auto base = direction == TextDirection::by_words        ? FriBidiParType{FRIBIDI_PAR_ON}
                : direction == TextDirection::left_to_right ? FriBidiParType{FRIBIDI_PAR_LTR}
                                                            : FriBidiParType{FRIBIDI_PAR_RTL};
    if (paragraph.empty())
        return {.paragraph = base == FRIBIDI_PAR_RTL ? std::uint8_t{1} : std::uint8_t{0}, .each = {}};
    const auto length = static_cast<FriBidiStrIndex>(paragraph.size());
    const std::vector<FriBidiChar> characters(paragraph.begin(), paragraph.end());
    std::vector<FriBidiCharType> types(paragraph.size());
    std::vector<FriBidiBracketType> brackets(paragraph.size());
    std::vector<FriBidiLevel> found(paragraph.size());
    fribidi_get_bidi_types(characters.data(), length, types.data());
    fribidi_get_bracket_types(characters.data(), length, types.data(), brackets.data());
    if (fribidi_get_par_embedding_levels_ex(types.data(), brackets.data(), length, &base, found.data()) == 0) {
        throw std::bad_alloc{};
    }
    std::transform(found.begin(), found.end(), levels.each.begin(),
                   [](FriBidiLevel level) { return static_cast<std::uint8_t>(level); });
    levels.paragraph = FRIBIDI_IS_RTL(base) ? 1 : 0;
    return levels;
}

char32_t mirrored(char32_t c) noexcept {
    FriBidiChar other = c;
    fribidi_get_mirror_char(c, &other);
    return other;
}

std::uint32_t script_of(char32_t c) noexcept {
    const auto script = hb_unicode_script(hb_unicode_funcs_get_default(), c);
    const auto is_of_many = script == HB_SCRIPT_COMMON || script == HB_SCRIPT_INHERITED || script == HB_SCRIPT_UNKNOWN;
    return is_of_many ? 0 : static_cast<std::uint32_t>(hb_script_to_iso15924_tag(script));
}

bool is_mark(char32_t c) noexcept {
    if (c < 0x300) return false;
    const auto category = hb_unicode_general_category(hb_unicode_funcs_get_default(), c);
    return category == HB_UNICODE_GENERAL_CATEGORY_NON_SPACING_MARK ||
           category == HB_UNICODE_GENERAL_CATEGORY_ENCLOSING_MARK ||
           category == HB_UNICODE_GENERAL_CATEGORY_SPACING_MARK;
}

std::vector<bool> line_begins(std::u32string_view paragraph) {
    std::vector<bool> begins(paragraph.size(), false);
    // In UTF-16, and which character each of its units belongs to.
    std::u16string units;
    std::vector<std::size_t> of_unit;
    for (std::size_t i = 0; i < paragraph.size(); ++i) {
        const auto c = paragraph[i];
        if (c < 0x10000) {
            units += static_cast<char16_t>(c);
        } else {
            units += static_cast<char16_t>(0xd7c0 + (c >> 10U));
            units += static_cast<char16_t>(0xdc00 + (c & 0x3ffU));
        }
        of_unit.resize(units.size(), i);
    }
    auto status = U_ZERO_ERROR;
    // The root's rules, which do not depend on where a program runs.
    const std::unique_ptr<UBreakIterator, CloseBreaks> breaks{
        ubrk_open(UBRK_LINE, "", units.data(), static_cast<int32_t>(units.size()), &status)};
    if (status == U_MEMORY_ALLOCATION_ERROR) throw std::bad_alloc{};
    if (U_FAILURE(status)) throw Error{std::string{"text: ICU finds no rules to break lines: "} + u_errorName(status)};
    for (auto at = ubrk_first(breaks.get()); at != UBRK_DONE; at = ubrk_next(breaks.get())) {
        const auto unit = static_cast<std::size_t>(at);
        if (unit > 0 && unit < of_unit.size()) begins[of_unit[unit]] = true;
    }
    return begins;
}

}  // namespace coldbrick::inline v0::detail

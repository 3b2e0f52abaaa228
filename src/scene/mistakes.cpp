// What is wrong with the words of expressions.
#include "scene/expressions.hpp"
#include "scene/functions.hpp"

#include "coldbrick/color_names.hpp"

#include <algorithm>
#include <array>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

constexpr bool is_hex(char c) noexcept { return is_digit(c) || (c >= 'a' && c <= 'f') || (c >= 'A' && c <= 'F'); }

// Digits that would be a colour behind a #.
bool is_bare_hex(std::string_view text) noexcept {
    const auto is_long = text.size() == 3 || text.size() == 4 || text.size() == 6 || text.size() == 8;
    return is_long && std::all_of(text.begin(), text.end(), is_hex);
}

std::string did_you_mean(std::string_view near) { return "did you mean " + in_quotes(near) + "?"; }

}  // namespace

// 3px, 12pt: numbers are pixels anyway. 39466b: a colour without #.
Mistake wrong_unit(std::string_view all, std::string_view unit, Reads reads) {
    constexpr auto units = std::to_array<std::string_view>({"px", "pt", "mm", "cm", "em", "in"});
    if (std::find(units.begin(), units.end(), unit) != units.end()) {
        return {in_quotes(all) + " has a unit; numbers are pixels",
                "write " + std::string{all.substr(0, all.size() - unit.size())}};
    }
    if (is_bare_hex(all) && reads != Reads::number) {
        return {in_quotes(all) + " is no colour", did_you_mean(std::string{"#"}.append(all))};
    }
    return {in_quotes(all) + " is no number and no known name", expression_advice};
}

Mistake unfinished_name(const KnownName& known) {
    const auto name = in_quotes(known.word.text);
    if (known.level > 0 || known.slot >= first_own_slot) {
        return {name + " is the pattern that is drawn here; it can be used after its end", ""};
    }
    if (known.slot == frame_slot || known.slot == progress_slot) {
        return {name + " has no value before the scene says how many frames it has", "for example: frames 40 rate 20"};
    }
    return {name + " is the sheet's, and there is none before this line",
            "write it behind the sheet, or give the number a name: let wide = 720"};
}

Mistake unknown_name(std::string_view name, Reads reads, const Scope& scope, const Faults& faults) {
    const auto is_color = reads == Reads::color;
    if (is_color && is_bare_hex(name))
        return {in_quotes(name) + " is no colour", did_you_mean(std::string{"#"}.append(name))};
    const auto what = in_quotes(name) + (is_color ? " is no colour" : " is no number and no known name");
    auto near = std::string_view{};
    if (!faults.is_enough()) {
        auto known = scope.names();
        for (const auto& entry : named_colors) {
            if (reads != Reads::number) known.push_back(entry.name);
        }
        for (const auto& form : functions) {
            if (!is_color) known.push_back(form.name);
        }
        near = nearest_word(name, known);
    }
    if (!near.empty()) return {what, did_you_mean(near)};
    return {what, is_color ? "allowed are the CSS colour names, #rrggbb, #rrggbbaa, rgb(11,34,57), rgba(11,34,57,128) "
                             "and gray(196)"
                           : expression_advice};
}

Mistake unknown_function(std::string_view name, Reads reads) {
    const auto is_color = reads == Reads::color;
    std::vector<std::string_view> known;
    for (const auto& each : functions) {
        if (!is_color || makes_color(each.function)) known.push_back(each.name);
    }
    const auto near = nearest_word(name, known);
    const auto what = in_quotes(name) + (is_color ? " is no kind of colour" : " is no function");
    if (!near.empty()) return {what, did_you_mean(near)};
    return {what, is_color ? "allowed are rgb, rgba, gray, hsl and hsv, and mix and lighten of colours"
                           : "allowed are " + in_words(known, "and")};
}

}  // namespace coldbrick::inline v0::detail

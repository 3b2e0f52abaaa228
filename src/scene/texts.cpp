// Words as shapes.
#include "scene/texts.hpp"

#include "coldbrick/error.hpp"

#include <array>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

std::optional<TextAnchor> read_text_anchor(Arguments& given) {
    return given.choice<TextAnchor>("anchor", {{"top_left", TextAnchor::top_left},
                                               {"top", TextAnchor::top},
                                               {"top_right", TextAnchor::top_right},
                                               {"left", TextAnchor::left},
                                               {"center", TextAnchor::center},
                                               {"right", TextAnchor::right},
                                               {"bottom_left", TextAnchor::bottom_left},
                                               {"bottom", TextAnchor::bottom},
                                               {"bottom_right", TextAnchor::bottom_right},
                                               {"baseline", TextAnchor::baseline},
                                               {"baseline_center", TextAnchor::baseline_center},
                                               {"baseline_right", TextAnchor::baseline_right}});
}

// Whether it could be read.
bool read_fit(Arguments& given, Text& text) {
    const auto by = given.choice<Overflow>("overflow", {{"shrink", Overflow::shrink}, {"cut", Overflow::cut}});
    if (!given.has("fit")) {
        if (given.has("overflow")) {
            given.faults().add(given.word("overflow"), "there is no box that the text could be larger than",
                               "say how large: fit 200,40");
        }
        return by.has_value();
    }
    const auto box = given.size("fit");
    if (box && by) text.fit = TextFit{.box = *box, .by = *by};
    return box && by;
}

bool read_along(Arguments& given, Text& text) {
    const auto place = given.choice<TextPath::Place>(
        "place",
        {{"start", TextPath::Place::start}, {"center", TextPath::Place::center}, {"end", TextPath::Place::end}});
    const auto side =
        given.choice<TextPath::Side>("side", {{"left", TextPath::Side::left}, {"right", TextPath::Side::right}});
    const auto offset = given.real_or("offset", 0, -max_coordinate, max_coordinate);
    if (!given.has("along")) return place && side && offset;
    const auto path = read_path_data(given, "along");
    if (!path || !place || !side || !offset) return false;
    text.along = TextPath{.path = *path, .place = *place, .side = *side, .offset = *offset};
    return true;
}

bool read_numbers(Arguments& given, Text& text) {
    constexpr auto most = 16384.0;
    const auto read = [&](Key name, double least, auto& to) {
        if (!given.has(name)) return true;
        const auto value = given.real_or(name, 0, least, most);
        if (value) to = *value;
        return value.has_value();
    };
    auto is_read = read("height", 1, text.height);
    is_read = read("em", 1, text.em) && is_read;
    is_read = read("weight", 1.0 / 256, text.weight) && is_read;
    is_read = read("letter_spacing", -most, text.letter_spacing) && is_read;
    is_read = read("line_spacing", 0, text.line_spacing) && is_read;
    is_read = read("wrap", 1, text.wrap) && is_read;
    const auto slant = given.angle_or("slant", {});
    if (slant) text.slant = *slant;
    return slant && is_read;
}

// "U+0436"
std::string number_of(char32_t character) {
    constexpr std::string_view digits = "0123456789ABCDEF";
    std::string number;
    for (auto shift = 20; shift >= 0; shift -= 4) {
        const auto digit = static_cast<unsigned>(character) >> static_cast<unsigned>(shift) & 15U;
        if (!number.empty() || digit != 0 || shift < 16) number += digits[digit];
    }
    return "U+" + number;
}

void remark(const Text& text, const TextLayout& layout, const Word& word, Faults& faults) {
    const auto unknown = missing(text);
    if (!unknown.empty()) {
        std::string all;
        for (const auto character : unknown) all += (all.empty() ? "" : ", ") + number_of(character);
        faults.remark(word, "face " + text.face.name() + " has no drawing of " + all);
    }
    if (layout.left_out > 0) {
        faults.remark(word, std::to_string(layout.left_out) + (layout.left_out == 1 ? " character" : " characters") +
                                " of this text " + (layout.left_out == 1 ? "has" : "have") + " no room and " +
                                (layout.left_out == 1 ? "is" : "are") + " left out");
    } else if (layout.is_over) {
        faults.remark(word, "this text is larger than its box at the least height of its face");
    }
}

}  // namespace

std::optional<std::variant<Text>> read_text(Arguments& given) {
    Text text;
    auto words = given.values().text(given.value("words"));
    const auto face = given.has("face") ? given.values().face(given.value("face")) : Face{};
    const auto anchor = read_text_anchor(given);
    const auto lines = given.choice<TextLines>("lines", {{"left", TextLines::left},
                                                         {"center", TextLines::center},
                                                         {"right", TextLines::right},
                                                         {"justified", TextLines::justified}});
    const auto direction = given.choice<TextDirection>("direction", {{"by_words", TextDirection::by_words},
                                                                     {"left_to_right", TextDirection::left_to_right},
                                                                     {"right_to_left", TextDirection::right_to_left}});
    const auto at = given.position_or("at", {});
    const auto has_numbers = read_numbers(given, text);
    const auto has_fit = read_fit(given, text);
    const auto has_along = read_along(given, text);
    if (!words || !face || !anchor || !lines || !direction || !at || !has_numbers || !has_fit || !has_along)
        return std::nullopt;
    text.words = std::move(*words);
    text.face = *face;
    text.anchor = *anchor;
    text.lines = *lines;
    text.direction = *direction;
    if (given.has("language")) text.language = given.word("language").text;
    text.at = *at;
    const auto& word = given.word("words");
    try {
        remark(text, lay_out(text), word, given.faults());
        return text;
    } catch (const Error& error) {
        given.faults().add(word, error.what());
        return std::nullopt;
    }
}

}  // namespace coldbrick::inline v0::detail

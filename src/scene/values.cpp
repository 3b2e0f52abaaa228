#include "scene/values.hpp"

#include "scene/budget.hpp"
#include "scene/faces.hpp"

#include "coldbrick/color_models.hpp"
#include "coldbrick/color_names.hpp"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <memory>
#include <optional>
#include <string>

#include <muParser.h>

namespace coldbrick::inline v0::detail {

// The expression reader, made when the first expression comes.
struct ValueReader::Expressions {
    Expressions() {
        parser.ClearFun();
        parser.ClearConst();
        parser.DefineFun("abs", [](double x) { return std::fabs(x); });
        parser.DefineFun("floor", [](double x) { return std::floor(x); });
        parser.DefineFun("ceil", [](double x) { return std::ceil(x); });
        parser.DefineFun("round", [](double x) { return std::round(x); });
        parser.DefineFun("min", [](double a, double b) { return std::fmin(a, b); });
        parser.DefineFun("max", [](double a, double b) { return std::fmax(a, b); });
    }

    [[nodiscard]] std::vector<std::string_view> names() const {
        std::vector<std::string_view> result;
        for (const auto& [name, function] : parser.GetFunDef()) result.emplace_back(name);
        return result;
    }

    mu::Parser parser;
};

namespace {

std::string allowed(int least, int most) {
    return "allowed is " + std::to_string(least) + " to " + std::to_string(most);
}

// The part of the expression that a fault is about, without spaces after it.
std::string_view token_of(const mu::Parser::exception_type& fault) {
    auto token = std::string_view{fault.GetToken()};
    while (token.ends_with(' ')) token.remove_suffix(1);
    return token;
}

// What an expression's fault is, in our words.
std::string describe(const mu::Parser::exception_type& fault) {
    switch (fault.GetCode()) {
        case mu::ecUNASSIGNABLE_TOKEN:
            return in_quotes(token_of(fault)) + " is no number and no known name";
        case mu::ecMISSING_PARENS:
            return "a parenthesis is not closed";
        case mu::ecUNEXPECTED_PARENS:
            return "a parenthesis is closed that was not opened";
        case mu::ecUNEXPECTED_EOF:
            return "the expression ends too early";
        case mu::ecUNEXPECTED_OPERATOR:
            return in_quotes(token_of(fault)) + " stands where a number should";
        case mu::ecUNEXPECTED_VAL:
            return "an operator is missing between two numbers";
        case mu::ecTOO_FEW_PARAMS:
            return "the function has too few values";
        case mu::ecTOO_MANY_PARAMS:
            return "the function has too many values";
        default:
            return "this is no number and no expression";
    }
}

// A number with a point and no more; others are expressions.
std::optional<double> decimal_of(std::string_view text) {
    const auto is_plain = [](char c) { return (c >= '0' && c <= '9') || c == '.'; };
    const auto digits = text.substr(text.starts_with('-') ? 1 : 0);
    if (digits.empty() || !std::all_of(digits.begin(), digits.end(), is_plain)) return std::nullopt;
    auto value = 0.0;
    const auto [read_to, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    return error == std::errc{} && read_to == text.data() + text.size() ? std::optional{value} : std::nullopt;
}

// 3px, 12pt: numbers are pixels anyway.
bool refuse_unit(const Word& word, Faults& faults) {
    constexpr auto units = std::to_array<std::string_view>({"px", "pt", "mm", "cm", "em", "in"});
    const auto end = word.text.find_first_not_of("-.0123456789");
    if (end == std::string::npos || end == 0) return false;
    const auto unit = std::string_view{word.text}.substr(end);
    if (std::find(units.begin(), units.end(), unit) == units.end()) return false;
    faults.add(word, in_quotes(word.text) + " has a unit; numbers are pixels", "write " + word.text.substr(0, end));
    return true;
}

// Digits that would be a colour behind a #.
bool is_bare_hex(std::string_view text) {
    const auto is_hex = [](char c) {
        return (c >= '0' && c <= '9') || (c >= 'a' && c <= 'f') || (c >= 'A' && c <= 'F');
    };
    const auto is_long = text.size() == 3 || text.size() == 4 || text.size() == 6 || text.size() == 8;
    return is_long && std::all_of(text.begin(), text.end(), is_hex);
}

}  // namespace

ValueReader::ValueReader(Faults& faults) : faults_{faults} {}
ValueReader::~ValueReader() = default;

std::optional<double> ValueReader::number(const Word& word) {
    auto whole = 0;
    const auto* const end = word.text.data() + word.text.size();
    const auto [read_to, error] = std::from_chars(word.text.data(), end, whole);
    if (error == std::errc{} && read_to == end) return whole;
    if (const auto decimal = decimal_of(word.text)) return decimal;
    if (refuse_unit(word, faults_)) return std::nullopt;
    if (!expressions_) expressions_ = std::make_unique<Expressions>();
    try {
        expressions_->parser.SetExpr(word.text);
        auto count = 0;
        const auto* const results = expressions_->parser.Eval(count);
        if (count == 1) return results[0];
        faults_.add(word, "one value is needed here; given are " + std::to_string(count));
    } catch (const mu::Parser::exception_type& fault) {
        const auto at = std::min(static_cast<std::size_t>(std::max(0, static_cast<int>(fault.GetPos()))),
                                 word.text.empty() ? 0 : word.text.size() - 1);
        const auto length = std::max<std::size_t>(1, token_of(fault).size());
        const auto near = nearest_word(token_of(fault), expressions_->names());
        const auto is_name = fault.GetCode() == mu::ecUNASSIGNABLE_TOKEN;
        faults_.add(part_of(word, at, std::min(at + length, word.text.size())), describe(fault),
                    is_name && !near.empty() ? "did you mean " + in_quotes(near) + "?"
                                             : "a value is a number, or an expression such as 18+4*25 or (18 + 100)");
    }
    return std::nullopt;
}

std::optional<int> ValueReader::whole(const Word& word, int least, int most) {
    const auto value = number(word);
    if (!value) return std::nullopt;
    if (!std::isfinite(*value)) {
        faults_.add(word, "this has no value (a division by 0, or a number too large)");
    } else if (*value < least || *value > most) {
        faults_.add(word, "this is " + in_digits(*value) + "; " + allowed(least, most));
    } else if (*value != std::trunc(*value)) {
        faults_.add(word, "this is " + in_digits(*value) + "; a whole number is needed",
                    "round(), floor() and ceil() make whole numbers");
    } else {
        return static_cast<int>(*value);
    }
    return std::nullopt;
}

std::optional<Point> ValueReader::pair(const Word& word, int least, int most) {
    const auto values = split_at_commas(word);
    if (values.size() != 2 || values[0].text.empty() || values[1].text.empty()) {
        faults_.add(word, in_quotes(word.text) + " is no pair",
                    "a pair is two values and a comma, without spaces: 236,148");
        return std::nullopt;
    }
    const auto x = whole(values[0], least, most);
    const auto y = whole(values[1], least, most);
    if (!x || !y) return std::nullopt;
    return Point{.x = *x, .y = *y};
}

std::optional<double> ValueReader::real(const Word& word, double least, double most) {
    const auto value = number(word);
    if (!value) return std::nullopt;
    if (*value >= least && *value <= most) return value;
    faults_.add(word, std::isfinite(*value)
                          ? "this is " + in_digits(*value) + "; allowed is " +
                                (least == 1.0 / 256 ? "1/256" : in_digits(least)) + " to " + in_digits(most)
                          : "this has no value (a division by 0, or a number too large)");
    return std::nullopt;
}

std::optional<std::vector<double>> ValueReader::reals(const Word& word, double least, double most) {
    std::vector<double> values;
    auto complete = true;
    for (const auto& part : split_at_commas(word)) {
        const auto value = real(part, least, most);
        complete = complete && value;
        values.push_back(value.value_or(0));
    }
    return complete ? std::optional{std::move(values)} : std::nullopt;
}

std::optional<Angle> ValueReader::angle(const Word& word) {
    struct Unit {
        std::string_view name;
        Angle (*angle)(double) noexcept;
    };
    static constexpr auto units =
        std::to_array<Unit>({{"deg", Angle::degrees}, {"turn", Angle::turns}, {"rad", Angle::radians}});
    auto of = Angle::degrees;
    auto value = word;
    for (const auto& unit : units) {
        if (!word.text.ends_with(unit.name) || word.text.size() == unit.name.size()) continue;
        value = part_of(word, 0, word.text.size() - unit.name.size());
        of = unit.angle;
    }
    constexpr auto most = 1e12;
    const auto size = real(value, -most, most);
    return size ? std::optional{of(*size)} : std::nullopt;
}

std::optional<Position> ValueReader::position(const Word& word, double least, double most) {
    const auto values = split_at_commas(word);
    if (values.size() != 2 || values[0].text.empty() || values[1].text.empty()) {
        faults_.add(word, in_quotes(word.text) + " is no pair",
                    "a pair is two values and a comma, without spaces: 236,148");
        return std::nullopt;
    }
    const auto x = real(values[0], least, most);
    const auto y = real(values[1], least, most);
    return x && y ? std::optional{Position{.x = *x, .y = *y}} : std::nullopt;
}

std::optional<double> ValueReader::part(const Word& word) {
    if (!word.text.ends_with('%')) return real(word, 0, 1);
    constexpr auto percent = 100.0;
    const auto hundredths = real(part_of(word, 0, word.text.size() - 1), 0, percent);
    return hundredths ? std::optional{*hundredths / percent} : std::nullopt;
}

void ValueReader::define(const Word& name, const Ink& ink) {
    std::erase(unfinished_, name.text);
    named_.insert_or_assign(name.text, ink);
}

void ValueReader::define(const Word& name, const Face& face) { faces_.insert_or_assign(name.text, face); }

std::optional<Face> ValueReader::face(const Word& word) {
    if (const auto own = faces_.find(word.text); own != faces_.end()) return own->second;
    if (auto built_in = built_in_face(word.text)) return built_in;
    std::vector<std::string_view> names{"line", "pixel", "tiny"};
    for (const auto& [name, face] : faces_) names.push_back(name);
    const auto near = nearest_word(word.text, names);
    faults_.add(word, "unknown face " + in_quotes(word.text),
                near.empty()
                    ? "allowed are " + in_words(names, "and") + ", or one of your own, as in: face label = \"quay.ttf\""
                    : "did you mean " + in_quotes(near) + "?");
    return std::nullopt;
}

bool ValueReader::check_new(const Word& name) {
    const auto is_taken = named_.contains(name.text) || faces_.contains(name.text) ||
                          std::find(unfinished_.begin(), unfinished_.end(), name.text) != unfinished_.end();
    if (is_taken) {
        faults_.add(name, in_quotes(name.text) + " is the name of something else already", "choose another name");
    }
    return !is_taken;
}

std::optional<Ink> ValueReader::ink(const Word& word) {
    const auto own = named_.find(word.text);
    if (own != named_.end()) return own->second;
    constexpr auto entry = std::string_view{"entry("};
    if (word.text.starts_with(entry) && word.text.ends_with(')')) {
        const auto number = whole(part_of(word, entry.size(), word.text.size() - 1), 0, 255);
        return number ? std::optional<Ink>{PaletteEntry{.number = *number}} : std::nullopt;
    }
    const auto color_of_word = color(word);
    return color_of_word ? std::optional<Ink>{*color_of_word} : std::nullopt;
}

std::vector<std::string_view> ValueReader::color_words() const {
    std::vector<std::string_view> names;
    names.reserve(named_colors.size() + named_.size());
    for (const auto& [name, ink] : named_) names.push_back(name);
    for (const auto& entry : named_colors) names.push_back(entry.name);
    return names;
}

std::optional<Color> ValueReader::color(const Word& word) {
    const auto own = named_.find(word.text);
    if (own != named_.end()) {
        if (const auto* const of = own->second.color()) return *of;
        faults_.add(word, in_quotes(word.text) + " is an ink of more than one colour; a colour is needed here");
        return std::nullopt;
    }
    // Numbers inside parentheses may be expressions here.
    const auto open = word.text.find('(');
    if (open != std::string::npos && word.text.ends_with(')')) return color_function(word, open);
    if (const auto color = find_color(word.text)) return color;
    if (word.text.starts_with('#')) {
        faults_.add(word, in_quotes(word.text) + " is no colour",
                    "allowed are #rgb, #rgba, #rrggbb and #rrggbbaa, in digits and letters a to f");
        return std::nullopt;
    }
    if (std::find(unfinished_.begin(), unfinished_.end(), word.text) != unfinished_.end()) {
        faults_.add(word, in_quotes(word.text) + " is the pattern that is drawn here; it can be used after its end");
        return std::nullopt;
    }
    if (faces_.contains(word.text)) {
        faults_.add(word, in_quotes(word.text) + " is a face; a colour is needed here");
        return std::nullopt;
    }
    if (is_bare_hex(word.text)) {
        faults_.add(word, in_quotes(word.text) + " is no colour", "did you mean " + in_quotes("#" + word.text) + "?");
        return std::nullopt;
    }
    const auto near = faults_.is_enough() ? std::string_view{} : nearest_word(word.text, color_words());
    faults_.add(word, in_quotes(word.text) + " is no colour",
                near.empty()
                    ? "allowed are the CSS colour names, #rrggbb, #rrggbbaa, rgb(11,34,57), rgba(11,34,57,128) "
                      "and gray(196)"
                    : "did you mean " + in_quotes(near) + "?");
    return std::nullopt;
}

std::optional<Color> ValueReader::color_function(const Word& word, std::size_t open) {
    struct Form {
        std::string_view name;
        std::size_t values;
    };
    constexpr auto forms = std::to_array<Form>({{"rgb", 3}, {"rgba", 4}, {"gray", 1}, {"hsl", 3}, {"hsv", 3}});
    const auto name = std::string_view{word.text}.substr(0, open);
    const auto* const form = std::find_if(forms.begin(), forms.end(), [&](const Form& f) { return f.name == name; });
    if (form == forms.end()) {
        faults_.add(part_of(word, 0, open), in_quotes(name) + " is no kind of colour",
                    "allowed are rgb, rgba, gray, hsl and hsv");
        return std::nullopt;
    }
    const auto parts = split_at_commas(part_of(word, open + 1, word.text.size() - 1));
    if (parts.size() != form->values) {
        faults_.add(word, std::string{name} + " takes " + std::to_string(form->values) + " values; given are " +
                              std::to_string(parts.size()));
        return std::nullopt;
    }
    if (name.starts_with("hs")) return hue_color(name, parts);
    auto channels = std::array<std::uint8_t, 4>{0, 0, 0, 255};
    for (std::size_t i = 0; i < parts.size(); ++i) {
        const auto value = whole(parts[i], 0, 255);
        if (!value) return std::nullopt;
        channels[i] = static_cast<std::uint8_t>(*value);
    }
    if (form->values == 1) return gray(channels[0]);
    return Color{.red = channels[0], .green = channels[1], .blue = channels[2], .alpha = channels[3]};
}

// hsl(210,50%,40%): an angle and two parts.
std::optional<Color> ValueReader::hue_color(std::string_view form, const std::vector<Word>& parts) {
    const auto hue = angle(parts[0]);
    const auto second = part(parts[1]);
    const auto third = part(parts[2]);
    if (!hue || !second || !third) return std::nullopt;
    if (form == "hsl") return color_of(Hsl{.hue = *hue, .saturation = *second, .lightness = *third});
    return color_of(Hsv{.hue = *hue, .saturation = *second, .value = *third});
}

std::vector<Word> split_at_commas(const Word& word) {
    std::vector<Word> parts;
    std::size_t begin = 0;
    auto depth = 0;
    auto place = word.place;
    const auto add = [&](std::size_t end) {
        parts.push_back({.text = word.text.substr(begin, end - begin), .place = place});
        place.column +=
            character_count(std::string_view{word.text}.substr(std::min(begin, word.text.size()), end + 1 - begin));
        begin = end + 1;
    };
    for (std::size_t i = 0; i < word.text.size(); ++i) {
        if (word.text[i] == '(') ++depth;
        if (word.text[i] == ')') --depth;
        if (word.text[i] == ',' && depth <= 0) add(i);
    }
    add(word.text.size());
    return parts;
}

}  // namespace coldbrick::inline v0::detail

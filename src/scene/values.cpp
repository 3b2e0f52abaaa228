#include "scene/values.hpp"

#include "scene/budget.hpp"
#include "scene/faces.hpp"

#include "coldbrick/color_names.hpp"

#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto no_value = "this has no value (a division by 0, or a number too large)";

std::string allowed(int least, int most) {
    return "allowed is " + std::to_string(least) + " to " + std::to_string(most);
}

}  // namespace

Word GivenPart::word() const {
    if (of.part_count == 1) return of.word;
    const auto parts = split_at_commas(of.word);
    return number < parts.size() ? parts[number] : of.word;
}

std::optional<GivenPart> ValueReader::single(const GivenValue& value) {
    if (value.size() == 1) return value[0];
    faults_.add(value.word(), "one value is needed here; given are " + std::to_string(value.size()));
    return std::nullopt;
}

void ValueReader::refuse(const GivenPart& part, std::string_view needed) {
    if (part.value.kind == ValueKind::none) return;  // reported already
    const auto word = part.word();
    if (is_cell(part.value)) {
        faults_.add(word, in_quotes(word.text) + " is " + in_quotes(machine_.text_of(part.value)) + " here; " +
                              std::string{needed} + " is needed");
        return;
    }
    const auto what = part.value.kind == ValueKind::number && part.value.unit == Unit::percent ? "a part of a whole"
                      : part.value.kind == ValueKind::number && part.value.unit == Unit::angle
                          ? "an angle"
                          : in_words(part.value.kind);
    faults_.add(word, in_quotes(word.text) + " is " + what + "; " + std::string{needed} + " is needed here");
}

std::optional<double> ValueReader::plain_number(const GivenPart& part, Unit also) {
    const auto& value = part.value;
    if (value.kind == ValueKind::number && (value.unit == Unit::none || value.unit == also)) return value.x;
    if (is_cell(value)) {
        if (const auto number = number_of_text(machine_.text_of(value))) return number;
    }
    refuse(part, "a number");
    return std::nullopt;
}

std::optional<double> ValueReader::number(const GivenPart& part) { return plain_number(part, Unit::none); }

std::optional<int> ValueReader::whole(const GivenPart& part, int least, int most) {
    const auto value = number(part);
    if (!value) return std::nullopt;
    if (!std::isfinite(*value)) {
        faults_.add(part.word(), no_value);
    } else if (*value < least || *value > most) {
        faults_.add(part.word(), "this is " + in_digits(*value) + "; " + allowed(least, most));
    } else if (*value != std::trunc(*value)) {
        faults_.add(part.word(), "this is " + in_digits(*value) + "; a whole number is needed",
                    "round(), floor() and ceil() make whole numbers");
    } else {
        return static_cast<int>(*value);
    }
    return std::nullopt;
}

std::optional<int> ValueReader::whole(const GivenValue& value, int least, int most) {
    const auto one = single(value);
    return one ? whole(*one, least, most) : std::nullopt;
}

namespace {

// The two numbers of a pair: written with a comma, or the value of a name or expression.
struct Both {
    GivenPart x;
    GivenPart y;
};

std::optional<Both> both_of(const GivenValue& value) {
    if (value.size() == 2) return Both{value[0], value[1]};
    if (value.size() != 1 || value[0].value.kind != ValueKind::pair) return std::nullopt;
    const auto& pair = value[0];
    return Both{{pair.of, 0, Value::number(pair.value.x)}, {pair.of, 0, Value::number(pair.value.y)}};
}

// Whether the fault of a value has been reported.
bool has_reported_fault(const GivenValue& value) {
    for (std::size_t i = 0; i < value.size(); ++i) {
        if (value[i].value.kind == ValueKind::none) return true;
    }
    return false;
}

// Both numbers of a pair, by read(part); nothing if one is faulty, or it is no pair.
template <class Result, class Read>
std::optional<Result> read_both(const GivenValue& value, Faults& faults, const Read& read) {
    if (const auto both = both_of(value)) {
        const auto x = read(both->x);
        const auto y = read(both->y);
        return x && y ? std::optional{Result{*x, *y}} : std::nullopt;
    }
    if (!has_reported_fault(value)) {
        faults.add(value.word(), in_quotes(value.word().text) + " is no pair",
                   "a pair is two values and a comma, without spaces: 236,148");
    }
    return std::nullopt;
}

}  // namespace

std::optional<Point> ValueReader::pair(const GivenValue& value, int least, int most) {
    return read_both<Point>(value, faults_, [&](const GivenPart& part) { return whole(part, least, most); });
}

std::optional<Position> ValueReader::checked_position(const GivenValue& value, double least, double most) {
    return read_both<Position>(value, faults_, [&](const GivenPart& part) { return real(part, least, most); });
}

std::optional<double> ValueReader::real(const GivenPart& part, double least, double most) {
    const auto value = number(part);
    if (!value) return std::nullopt;
    if (*value >= least && *value <= most) return value;
    faults_.add(part.word(), std::isfinite(*value)
                                 ? "this is " + in_digits(*value) + "; allowed is " +
                                       (least == 1.0 / 256 ? "1/256" : in_digits(least)) + " to " + in_digits(most)
                                 : no_value);
    return std::nullopt;
}

std::optional<double> ValueReader::checked_real(const GivenValue& value, double least, double most) {
    const auto one = single(value);
    return one ? real(*one, least, most) : std::nullopt;
}

std::optional<std::vector<double>> ValueReader::reals(const GivenValue& value, double least, double most) {
    std::vector<double> values;
    auto complete = true;
    for (std::size_t i = 0; i < value.size(); ++i) {
        const auto one = real(value[i], least, most);
        complete = complete && one;
        values.push_back(one.value_or(0));
    }
    return complete ? std::optional{std::move(values)} : std::nullopt;
}

std::optional<Angle> ValueReader::angle(const GivenPart& part) {
    const auto degrees = plain_number(part, Unit::angle);
    if (!degrees) return std::nullopt;
    constexpr auto most = 1e12;
    const auto size = real({part.of, part.number, Value::number(*degrees)}, -most, most);
    return size ? std::optional{Angle::degrees(*size)} : std::nullopt;
}

std::optional<Angle> ValueReader::angle(const GivenValue& value) {
    const auto one = single(value);
    return one ? angle(*one) : std::nullopt;
}

std::optional<double> ValueReader::part(const GivenPart& part) {
    const auto number = plain_number(part, Unit::percent);
    if (!number) return std::nullopt;
    if (part.value.unit == Unit::percent && !(*number >= 0 && *number <= 1)) {
        constexpr auto hundred = 100.0;
        faults_.add(part.word(), "this is " + in_digits(*number * hundred) + "%; allowed is 0% to 100%");
        return std::nullopt;
    }
    return real({part.of, part.number, Value::number(*number)}, 0, 1);
}

std::optional<double> ValueReader::part(const GivenValue& value) {
    const auto one = single(value);
    return one ? part(*one) : std::nullopt;
}

std::optional<Color> ValueReader::color(const GivenPart& part) {
    const auto& value = part.value;
    if (value.kind == ValueKind::color) return value.color;
    if (value.kind == ValueKind::ink) {
        if (const auto* const of = memory_.inks[value.index].color()) return *of;
    }
    if (is_cell(value)) {
        if (const auto color = find_color(machine_.text_of(value))) return color;
    }
    if (value.kind == ValueKind::number && value.unit == Unit::none) {
        const auto word = part.word();
        faults_.add(word, in_quotes(word.text) + " is no colour",
                    "allowed are the CSS colour names, #rrggbb, #rrggbbaa, rgb(11,34,57), rgba(11,34,57,128) "
                    "and gray(196)");
        return std::nullopt;
    }
    refuse(part, "a colour");
    return std::nullopt;
}

std::optional<Color> ValueReader::color(const GivenValue& value) {
    const auto one = single(value);
    return one ? color(*one) : std::nullopt;
}

std::optional<Ink> ValueReader::ink(const GivenValue& value) {
    if (value.size() == 1 && value.values[0].kind == ValueKind::color) return Ink{value.values[0].color};
    const auto one = single(value);
    if (!one) return std::nullopt;
    if (one->value.kind == ValueKind::ink) return memory_.inks[one->value.index];
    const auto plain = color(*one);
    return plain ? std::optional<Ink>{*plain} : std::nullopt;
}

std::optional<Face> ValueReader::face(const GivenPart& part) {
    if (part.value.kind == ValueKind::face) return memory_.faces[part.value.index];
    if (part.value.kind == ValueKind::none) {
        // One that is always there, by its name.
        return built_in_face(part.word().text);
    }
    if (is_cell(part.value)) {
        if (auto built_in = built_in_face(machine_.text_of(part.value))) return built_in;
    }
    refuse(part, "a face");
    return std::nullopt;
}

std::optional<Face> ValueReader::face(const GivenValue& value) {
    const auto one = single(value);
    return one ? face(*one) : std::nullopt;
}

std::optional<std::string> ValueReader::text(const GivenPart& part) {
    const auto& value = part.value;
    if (value.kind == ValueKind::text || is_cell(value)) return machine_.text_of(value);
    if (value.kind == ValueKind::number && value.unit == Unit::none) return in_digits(value.x);
    refuse(part, "a text");
    return std::nullopt;
}

std::optional<std::string> ValueReader::text(const GivenValue& value) {
    const auto one = single(value);
    return one ? text(*one) : std::nullopt;
}

std::optional<bool> ValueReader::truth(const GivenValue& value) {
    const auto one = single(value);
    const auto number = one ? this->number(*one) : std::nullopt;
    if (!number) return std::nullopt;
    if (std::isnan(*number)) {
        faults_.add(value.word(), no_value);
        return std::nullopt;
    }
    return *number != 0;
}

}  // namespace coldbrick::inline v0::detail

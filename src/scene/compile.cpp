#include "scene/compile.hpp"

#include "scene/expressions.hpp"
#include "scene/faces.hpp"

#include <algorithm>
#include <charconv>
#include <optional>
#include <span>

namespace coldbrick::inline v0::detail {

namespace {

// What is seen at a glance: digits, perhaps with a sign and a point.
std::optional<double> plain_number(std::string_view text) noexcept {
    const auto digits = text.substr(text.starts_with('-') ? 1 : 0);
    if (digits.empty() || digits.size() > 17) return std::nullopt;
    const auto is_plain = [](char c) { return is_digit(c) || c == '.'; };
    if (!std::all_of(digits.begin(), digits.end(), is_plain)) return std::nullopt;
    auto value = 0.0;
    const auto [read_to, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    return error == std::errc{} && read_to == text.data() + text.size() ? std::optional{value} : std::nullopt;
}

// Whether steps are of numbers alone, if their names are, and deep enough for them.
bool is_numeric(std::span<const Step> steps) noexcept {
    std::size_t depth = 0;
    for (const auto& step : steps) {
        const auto is_plain_unit = step.op != Op::constant || step.count == 0;
        const auto is_of_numbers = step.op == Op::call ? is_number_function(static_cast<Function>(step.index))
                                                       : step.op == Op::constant || step.op == Op::load ||
                                                             (step.op >= Op::negate && step.op <= Op::either &&
                                                              step.op != Op::equal && step.op != Op::unequal);
        if (!is_of_numbers || !is_plain_unit) return false;
        if (step.op == Op::constant || step.op == Op::load) ++depth;
        if (step.op >= Op::add && step.op <= Op::either) --depth;
        if (step.op == Op::call) depth -= step.count - 1U;
        if (depth > numeric_depth) return false;
    }
    return true;
}

}  // namespace

std::string unquoted(std::string_view text) {
    std::string result;
    for (std::size_t i = 1; i + 1 < text.size(); ++i) {
        const auto is_escape = text[i] == '\\' && i + 2 < text.size();
        if (is_escape && (text[i + 1] == '\\' || text[i + 1] == '"')) ++i;
        result += text[i];
    }
    return result;
}

Part Compiler::expression(const Word& part, Reads reads) {
    if (reads != Reads::color) {
        if (const auto number = plain_number(part.text)) {
            program_.numbers.push_back(*number);
            return {.kind = Part::Kind::number, .first = static_cast<std::uint32_t>(program_.numbers.size() - 1)};
        }
    }
    const auto begin = part.text.substr(0, 1);
    const auto name = part.text.substr(0, part.text.find_first_of(".+-*/^ "));
    if (reads == Reads::text && begin != "\"" && begin != "(" && scope_.find(name) == nullptr) {
        faults_.add(part, std::string{text_} + (text_ == "words" ? " stand" : " stands") + " between quotes",
                    "for example: " + std::string{text_example_});
        return {};
    }
    const auto first = program_.steps.size();
    try {
        read_expression(part.text, reads, program_, scope_, faults_);
    } catch (const Refusal& refusal) {
        program_.steps.resize(first);
        faults_.add(part_of(part, refusal.begin, refusal.end), refusal.what, refusal.advice);
        return {};
    }
    const auto& steps = program_.steps;
    const auto count = steps.size() - first;
    if (count == 1 && steps[first].op == Op::color) {
        const auto color = steps[first].color;
        program_.steps.resize(first);
        return {.kind = Part::Kind::color, .color = color};
    }
    constexpr std::size_t most = 65535;
    if (count > most) {
        faults_.add(part, "the expression has more than 65535 values and operators");
        return {};
    }
    const auto of = std::span{steps}.subspan(first);
    const auto is_random = std::any_of(of.begin(), of.end(), [](const Step& step) {
        return step.op == Op::call && static_cast<Function>(step.index) == Function::random;
    });
    return {.kind = is_numeric(of) ? Part::Kind::numeric : Part::Kind::steps,
            .is_random = is_random,
            .count = static_cast<std::uint16_t>(count),
            .first = static_cast<std::uint32_t>(first)};
}

// tnum, liga=0, wght=700
Part Compiler::labelled(const Word& part) {
    const auto sign = part.text.find('=');
    if (sign == std::string_view::npos) return {.kind = Part::Kind::raw};
    return expression(part_of(part, sign + 1, part.text.size()), Reads::number);
}

Part Compiler::face(const Word& part) {
    auto* const known = scope_.find(part.text);
    if (known != nullptr && known->shape == no_slot) return expression(part, Reads::any);
    if (part.text.starts_with('"')) return expression(part, Reads::text);
    if (is_built_in_face(part.text)) return {.kind = Part::Kind::raw};
    auto names = scope_.names();
    names.insert(names.end(), {"line", "pixel", "tiny"});
    const auto near = nearest_word(part.text, names);
    faults_.add(part, "unknown face " + in_quotes(part.text),
                near.empty() ? "allowed are line, pixel and tiny, or one of your own, as in: face label = \"quay.ttf\""
                             : "did you mean " + in_quotes(near) + "?");
    return {};
}

Part Compiler::part(const Word& part, Reads reads) {
    switch (reads) {
        case Reads::word:
            return {.kind = Part::Kind::raw};
        case Reads::labels:
            return labelled(part);
        case Reads::faces:
            return face(part);
        default:
            return expression(part, reads);
    }
}

ValueWord Compiler::word(const Word& word, Reads reads) {
    if (reads == Reads::word) {
        program_.parts.push_back({.kind = Part::Kind::raw});
        return {.word = word, .first_part = static_cast<std::uint32_t>(program_.parts.size() - 1), .part_count = 1};
    }
    // Reported as what it is, and not by what is missing between commas.
    const auto has_gap =
        word.text.starts_with(',') || word.text.ends_with(',') || word.text.find(",,") != std::string_view::npos;
    if (has_gap && !word.text.starts_with('"') && reads == Reads::any) {
        faults_.add(word, in_quotes(word.text) + " is no pair",
                    "a pair is two values and a comma, without spaces: 236,148");
        return {.word = word, .first_part = static_cast<std::uint32_t>(program_.parts.size()), .part_count = 0};
    }
    std::vector<Part> parts;
    if (reads == Reads::text || word.text.find_first_of(",\"") == std::string_view::npos) {
        parts.push_back(part(word, reads));
    } else {
        for (const auto& each : split_at_commas(word)) parts.push_back(part(each, reads));
    }
    const auto first = static_cast<std::uint32_t>(program_.parts.size());
    program_.parts.insert(program_.parts.end(), parts.begin(), parts.end());
    return {.word = word, .first_part = first, .part_count = static_cast<std::uint32_t>(parts.size())};
}

}  // namespace coldbrick::inline v0::detail

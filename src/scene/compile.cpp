#include "scene/compile.hpp"

#include "scene/faces.hpp"

#include "coldbrick/color_names.hpp"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <numbers>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

constexpr bool is_digit(char c) noexcept { return c >= '0' && c <= '9'; }
// Also the bytes of letters beyond ASCII: no name has them, but what stands there is told as one.
constexpr bool is_letter(char c) noexcept {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_' || static_cast<unsigned char>(c) >= 0x80U;
}
constexpr bool is_hex(char c) noexcept { return is_digit(c) || (c >= 'a' && c <= 'f') || (c >= 'A' && c <= 'F'); }

// Digits that would be a colour behind a #.
bool is_bare_hex(std::string_view text) noexcept {
    const auto is_long = text.size() == 3 || text.size() == 4 || text.size() == 6 || text.size() == 8;
    return is_long && std::all_of(text.begin(), text.end(), is_hex);
}

// What an expression may not be: thrown to where it is told.
struct Refusal {
    std::size_t begin;
    std::size_t end;
    std::string what;
    std::string advice;
};

constexpr auto general_advice = "a value is a number, or an expression such as 18+4*25 or (18 + 100)";

// Reads one expression and writes its steps.
class ExpressionReader {
  public:
    ExpressionReader(std::string_view text, Reads reads, Program& program, Scope& scope, Faults& faults)
        : text_{text}, reads_{reads}, program_{program}, scope_{scope}, faults_{faults} {}

    void read() {
        either();
        skip();
        if (at_ == text_.size()) return;
        if (text_[at_] == ')') refuse(at_, at_ + 1, "a parenthesis is closed that was not opened");
        if (text_[at_] == ',') refuse(at_, at_ + 1, "one value is needed here, and there are several");
        refuse(at_, token_end(), "an operator is missing before " + in_quotes(text_.substr(at_, token_end() - at_)));
    }

  private:
    [[noreturn]] void refuse(std::size_t begin, std::size_t end, std::string what,
                             std::string advice = general_advice) const {
        throw Refusal{std::min(begin, text_.empty() ? 0 : text_.size() - 1), std::min(end, text_.size()),
                      std::move(what), std::move(advice)};
    }

    void skip() noexcept {
        while (at_ < text_.size() && (text_[at_] == ' ' || text_[at_] == '\t')) ++at_;
    }
    [[nodiscard]] std::size_t token_end() const noexcept {
        auto end = at_;
        while (end < text_.size() && (is_letter(text_[end]) || is_digit(text_[end]) || text_[end] == '.')) ++end;
        return std::max(end, std::min(at_ + 1, text_.size()));
    }
    // Takes a sign, or a word that is no part of a longer one, if it comes next.
    bool take(std::string_view sign) noexcept {
        skip();
        if (!text_.substr(at_).starts_with(sign)) return false;
        const auto end = at_ + sign.size();
        if (is_letter(sign[0]) && end < text_.size() && (is_letter(text_[end]) || is_digit(text_[end]))) return false;
        begin_ = at_;
        at_ = end;
        return true;
    }

    void step(Op op, std::size_t at, std::uint32_t index = 0, std::uint8_t count = 0) {
        program_.steps.push_back({.op = op, .count = count, .at = static_cast<std::uint32_t>(at), .index = index});
    }

    struct Sign {
        std::string_view sign;
        Op op;
    };

    // Operators of one rank, from left to right.
    template <std::size_t count>
    void chain(const std::array<Sign, count>& signs, void (ExpressionReader::*next)()) {
        (this->*next)();
        while (true) {
            const auto* const found =
                std::find_if(signs.begin(), signs.end(), [&](const Sign& sign) { return take(sign.sign); });
            if (found == signs.end()) return;
            const auto at = begin_;
            (this->*next)();
            step(found->op, at);
        }
    }

    void either() { chain(std::array{Sign{"or", Op::either}}, &ExpressionReader::both); }
    void both() { chain(std::array{Sign{"and", Op::both}}, &ExpressionReader::inverted); }
    void inverted() {
        if (!take("not")) return comparison();
        const auto at = begin_;
        const Deeper deeper{*this};
        inverted();
        step(Op::invert, at);
    }
    void comparison() {
        chain(std::array{Sign{"<=", Op::less_equal}, Sign{">=", Op::greater_equal}, Sign{"==", Op::equal},
                         Sign{"!=", Op::unequal}, Sign{"<", Op::less}, Sign{">", Op::greater}},
              &ExpressionReader::sum);
    }
    void sum() { chain(std::array{Sign{"+", Op::add}, Sign{"-", Op::subtract}}, &ExpressionReader::product); }
    void product() {
        chain(std::array{Sign{"*", Op::multiply}, Sign{"/", Op::divide}}, &ExpressionReader::signed_value);
    }
    void signed_value() {
        const Deeper deeper{*this};
        if (!take("-")) return take("+") ? signed_value() : raised();
        const auto at = begin_;
        signed_value();
        step(Op::negate, at);
    }
    void raised() {
        with_members();
        if (!take("^")) return;
        const auto at = begin_;
        signed_value();
        step(Op::power, at);
    }
    void with_members() {
        value();
        while (at_ + 1 < text_.size() && text_[at_] == '.' && is_letter(text_[at_ + 1])) {
            const auto begin = ++at_;
            while (at_ < text_.size() && (is_letter(text_[at_]) || is_digit(text_[at_]))) ++at_;
            auto& names = program_.members;
            const auto name = text_.substr(begin, at_ - begin);
            const auto found = std::find(names.begin(), names.end(), name);
            const auto index = static_cast<std::uint32_t>(found - names.begin());
            if (found == names.end()) names.emplace_back(name);
            step(Op::member, begin, index);
        }
    }

    // Nothing is nested deeper than a stack can bear.
    class Deeper {
      public:
        explicit Deeper(ExpressionReader& reader) : depth_{reader.depth_} {
            constexpr auto most = 100;
            if (++depth_ > most) {
                --depth_;
                reader.refuse(reader.at_, reader.at_ + 1, "the expression is nested deeper than 100 times");
            }
        }
        Deeper(const Deeper&) = delete;
        Deeper(Deeper&&) = delete;
        Deeper& operator=(const Deeper&) = delete;
        Deeper& operator=(Deeper&&) = delete;
        ~Deeper() { --depth_; }

      private:
        int& depth_;
    };

    void value() {
        skip();
        if (at_ == text_.size())
            refuse(at_, at_ + 1, text_.empty() ? "a value is missing" : "the expression ends too early");
        const auto c = text_[at_];
        if (is_digit(c) || (c == '.' && at_ + 1 < text_.size() && is_digit(text_[at_ + 1]))) return number();
        if (c == '#') return hash_color();
        if (c == '"') return quoted();
        if (is_letter(c)) return name();
        if (c == '(') return in_parentheses();
        if (c == ')') refuse(at_, at_ + 1, "a parenthesis is closed that was not opened");
        refuse(at_, at_ + 1, in_quotes(text_.substr(at_, 1)) + " stands where a number should");
    }

    void in_parentheses() {
        const auto open = at_++;
        const Deeper deeper{*this};
        either();
        if (take(",")) {
            const auto at = begin_;
            either();
            step(Op::pair, at);
        }
        if (!take(")")) refuse(open, open + 1, "a parenthesis is not closed");
    }

    void put(std::size_t at, double number, Unit unit) {
        program_.steps.push_back({.op = Op::constant,
                                  .count = static_cast<std::uint8_t>(unit),
                                  .at = static_cast<std::uint32_t>(at),
                                  .number = number});
    }

    void number() {
        const auto begin = at_;
        auto value = 0.0;
        const auto* const end = text_.data() + text_.size();
        const auto [read_to, error] = std::from_chars(text_.data() + at_, end, value);
        if (error != std::errc{}) {
            refuse(begin, token_end(),
                   in_quotes(text_.substr(begin, token_end() - begin)) + " is no number that can be kept");
        }
        at_ = static_cast<std::size_t>(read_to - text_.data());
        if (at_ < text_.size() && text_[at_] == '%') {
            ++at_;
            constexpr auto hundred = 100.0;
            return put(begin, value / hundred, Unit::percent);
        }
        auto unit_end = at_;
        while (unit_end < text_.size() && (is_letter(text_[unit_end]) || is_digit(text_[unit_end]))) ++unit_end;
        const auto unit = text_.substr(at_, unit_end - at_);
        if (unit.empty()) return put(begin, value, Unit::none);
        const auto all = text_.substr(begin, unit_end - begin);
        constexpr auto turn = 360.0;
        at_ = unit_end;
        if (unit == "deg") return put(begin, value, Unit::angle);
        if (unit == "turn") return put(begin, value * turn, Unit::angle);
        if (unit == "rad") return put(begin, value * (turn / 2 / std::numbers::pi), Unit::angle);
        refuse_unit(begin, all, unit);
    }

    // 3px, 12pt: numbers are pixels anyway. 39466b: a colour without #.
    [[noreturn]] void refuse_unit(std::size_t begin, std::string_view all, std::string_view unit) const {
        constexpr auto units = std::to_array<std::string_view>({"px", "pt", "mm", "cm", "em", "in"});
        if (std::find(units.begin(), units.end(), unit) != units.end()) {
            refuse(begin, at_, in_quotes(all) + " has a unit; numbers are pixels",
                   "write " + std::string{all.substr(0, all.size() - unit.size())});
        }
        if (is_bare_hex(all) && reads_ != Reads::number) {
            refuse(begin, at_, in_quotes(all) + " is no colour",
                   "did you mean " + in_quotes("#" + std::string{all}) + "?");
        }
        refuse(begin, at_, in_quotes(all) + " is no number and no known name");
    }

    void hash_color() {
        const auto begin = at_++;
        while (at_ < text_.size() && (is_letter(text_[at_]) || is_digit(text_[at_]))) ++at_;
        const auto color = find_color(text_.substr(begin, at_ - begin));
        if (!color) {
            refuse(begin, at_, in_quotes(text_.substr(begin, at_ - begin)) + " is no colour",
                   "allowed are #rgb, #rgba, #rrggbb and #rrggbbaa, in digits and letters a to f");
        }
        program_.steps.push_back({.op = Op::color, .at = static_cast<std::uint32_t>(begin), .color = *color});
    }

    void name() {
        const auto begin = at_;
        while (at_ < text_.size() && (is_letter(text_[at_]) || is_digit(text_[at_]))) ++at_;
        const auto name = text_.substr(begin, at_ - begin);
        if (at_ < text_.size() && text_[at_] == '(') return call(name, begin);
        if (auto* const known = scope_.find(name); known != nullptr && known->shape == no_slot) {
            known->is_used = true;
            if (known->is_unfinished) refuse_unfinished(*known, begin, name);
            if (known->slot == last_slot && known->level == 0) program_.uses_last = true;
            program_.steps.push_back(
                {.op = Op::load, .level = known->level, .at = static_cast<std::uint32_t>(begin), .index = known->slot});
            return;
        }
        if (const auto color = find_color(name)) {
            program_.steps.push_back({.op = Op::color, .at = static_cast<std::uint32_t>(begin), .color = *color});
            return;
        }
        refuse_name(begin, name);
    }

    [[noreturn]] void refuse_unfinished(const KnownName& known, std::size_t begin, std::string_view name) const {
        if (known.level > 0 || known.slot >= first_own_slot) {
            refuse(begin, at_, in_quotes(name) + " is the pattern that is drawn here; it can be used after its end",
                   "");
        }
        if (known.slot == frame_slot || known.slot == progress_slot) {
            refuse(begin, at_, in_quotes(name) + " has no value before the scene says how many frames it has",
                   "for example: frames 40 rate 20");
        }
        refuse(begin, at_, in_quotes(name) + " is the sheet's, and there is none before this line",
               "write it behind the sheet, or give the number a name: let wide = 720");
    }

    [[noreturn]] void refuse_name(std::size_t begin, std::string_view name) const {
        const auto is_color = reads_ == Reads::color;
        if (is_color && is_bare_hex(name)) {
            refuse(begin, at_, in_quotes(name) + " is no colour",
                   "did you mean " + in_quotes("#" + std::string{name}) + "?");
        }
        auto known = faults_.is_enough() ? std::vector<std::string_view>{} : scope_.names();
        for (const auto& entry : named_colors) {
            if (reads_ != Reads::number) known.push_back(entry.name);
        }
        for (const auto& form : functions) {
            if (!is_color) known.push_back(form.name);
        }
        const auto near = faults_.is_enough() ? std::string_view{} : nearest_word(name, known);
        const auto what = in_quotes(name) + (is_color ? " is no colour" : " is no number and no known name");
        if (!near.empty()) refuse(begin, at_, what, "did you mean " + in_quotes(near) + "?");
        refuse(begin, at_, what,
               is_color ? "allowed are the CSS colour names, #rrggbb, #rrggbbaa, rgb(11,34,57), rgba(11,34,57,128) "
                          "and gray(196)"
                        : general_advice);
    }

    void call(std::string_view name, std::size_t begin) {
        const auto* const form = find_function(name);
        if (form == nullptr) {
            std::vector<std::string_view> known;
            for (const auto& each : functions) {
                if (reads_ != Reads::color || makes_color(each.function)) known.push_back(each.name);
            }
            const auto near = nearest_word(name, known);
            if (reads_ == Reads::color) {
                refuse(begin, at_, in_quotes(name) + " is no kind of colour",
                       near.empty() ? "allowed are rgb, rgba, gray, hsl and hsv, and mix and lighten of colours"
                                    : "did you mean " + in_quotes(near) + "?");
            }
            refuse(begin, at_, in_quotes(name) + " is no function",
                   near.empty() ? "allowed are " + in_words(known, "and") : "did you mean " + in_quotes(near) + "?");
        }
        const auto open = at_++;
        const Deeper deeper{*this};
        auto count = 0;
        if (!take(")")) {
            do {
                either();
                ++count;
            } while (take(","));
            if (!take(")")) refuse(open, open + 1, "a parenthesis is not closed");
        }
        if (count < form->least || count > form->most) {
            const auto allowed = form->least == form->most
                                     ? std::to_string(form->least)
                                     : std::to_string(form->least) + " to " + std::to_string(form->most);
            refuse(begin, at_,
                   std::string{name} + " takes " + allowed + (form->most == 1 ? " value" : " values") + "; given are " +
                       std::to_string(count),
                   "for example: " + std::string{form->example});
        }
        program_.steps.push_back({.op = Op::call,
                                  .count = static_cast<std::uint8_t>(count),
                                  .at = static_cast<std::uint32_t>(begin),
                                  .index = static_cast<std::uint32_t>(form->function)});
    }

    // A text, and the values in braces in it; {{ is a brace.
    void quoted() {
        const auto begin = at_;
        const auto end = end_of_quoted(text_, begin);
        if (end == std::string_view::npos) refuse(begin, begin + 1, "this quote is not closed");
        Template filled;
        std::string between;
        for (auto i = begin + 1; i + 1 < end;) {
            const auto next = text_[i];
            if (next == '\\' && i + 2 < end) {
                const auto escaped = text_[i + 1];
                const auto is_known = escaped == 'n' || escaped == '\\' || escaped == '"';
                if (!is_known) between += next;
                between += escaped == 'n' ? '\n' : escaped;
                i += 2;
            } else if ((next == '{' || next == '}') && text_[i + 1] == next) {
                between += next;
                i += 2;
            } else if (next == '{') {
                filled.between.push_back(std::exchange(between, {}));
                i = braces(i, end - 1, filled);
            } else {
                between += next;
                ++i;
            }
        }
        at_ = end;
        if (filled.forms.empty()) {
            step(Op::text, begin, static_cast<std::uint32_t>(program_.texts.size()));
            program_.texts.push_back(std::move(between));
            return;
        }
        filled.between.push_back(std::move(between));
        const auto count = filled.forms.size();
        constexpr std::size_t most = 200;
        if (count > most) refuse(begin, end, "a text has at most 200 values in braces");
        step(Op::fill_in, begin, static_cast<std::uint32_t>(program_.templates.size()),
             static_cast<std::uint8_t>(count));
        program_.templates.push_back(std::move(filled));
    }

    // {n}, {tide:.2}, {n:03}: gives the place behind it.
    std::size_t braces(std::size_t open, std::size_t end, Template& filled) {
        const auto inside = text_.substr(0, end);
        auto close = open + 1;
        auto depth = 0;
        while (close < inside.size() && (inside[close] != '}' || depth > 0)) {
            if (inside[close] == '(') ++depth;
            if (inside[close] == ')') --depth;
            ++close;
        }
        if (close >= inside.size()) {
            refuse(open, open + 1, "this brace is not closed", "write {{ for a brace that is to be drawn");
        }
        const auto colon = std::min(inside.substr(0, close).find(':', open), close);
        if (colon == open + 1)
            refuse(open, close + 1, "there is no value in these braces", "for example: {n}, or {{ for a brace");
        filled.at.push_back(static_cast<std::uint32_t>(open + 1));
        filled.forms.push_back(form(colon, close));
        const Deeper deeper{*this};
        ExpressionReader reader{text_.substr(0, colon), Reads::any, program_, scope_, faults_};
        reader.depth_ = depth_;
        reader.at_ = open + 1;
        reader.read();
        return close + 1;
    }

    // :.2 two digits after the point, :03 three digits at least, :3 filled with spaces; both: :06.2
    NumberForm form(std::size_t colon, std::size_t close) const {
        NumberForm form;
        constexpr auto most = 99;
        auto at = colon + 1;
        const auto read = [&](int& to) {
            const auto* const end = text_.data() + close;
            const auto [read_to, error] = std::from_chars(text_.data() + at, end, to);
            if (error != std::errc{} || to > most || to < 0) return false;
            at = static_cast<std::size_t>(read_to - text_.data());
            return true;
        };
        if (colon == close) return form;
        auto is_sound = at < close;
        if (at < close && text_[at] == '0') form.filled_with = '0';
        if (at < close && is_digit(text_[at])) is_sound = read(form.width);
        if (is_sound && at < close && text_[at] == '.') {
            ++at;
            is_sound = at < close && is_digit(text_[at]) && read(form.decimals) && form.decimals <= 15;
        }
        if (!is_sound || at != close) {
            refuse(colon, close, in_quotes(text_.substr(colon, close - colon)) + " is no form of a number",
                   "for example: {n:.2} two digits after the point, {n:03} three digits at least");
        }
        return form;
    }

    std::string_view text_;
    Reads reads_;
    Program& program_;
    Scope& scope_;
    Faults& faults_;
    std::size_t at_ = 0;
    std::size_t begin_ = 0;  // of what was taken last
    int depth_ = 0;
};

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
        ExpressionReader{part.text, reads, program_, scope_, faults_}.read();
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
    // Told as what it is, and not by what is missing between commas.
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

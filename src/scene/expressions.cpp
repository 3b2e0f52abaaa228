#include "scene/expressions.hpp"

#include "scene/functions.hpp"

#include "coldbrick/color_names.hpp"

#include <algorithm>
#include <array>
#include <charconv>
#include <numbers>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

// Reads one expression and writes its steps.
class ExpressionReader {
  public:
    ExpressionReader(std::string_view text, Reads reads, Program& program, Scope& scope, const Faults& faults)
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
                             std::string advice = expression_advice) const {
        throw Refusal{std::min(begin, text_.empty() ? 0 : text_.size() - 1), std::min(end, text_.size()),
                      std::move(what), std::move(advice)};
    }

    [[noreturn]] void refuse(std::size_t begin, std::size_t end, Mistake mistake) const {
        refuse(begin, end, std::move(mistake.what), std::move(mistake.advice));
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
        refuse(begin, at_, wrong_unit(all, unit, reads_));
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
            if (known->is_unfinished) refuse(begin, at_, unfinished_name(*known));
            if (known->slot == last_slot && known->level == 0) program_.uses_last = true;
            program_.steps.push_back(
                {.op = Op::load, .level = known->level, .at = static_cast<std::uint32_t>(begin), .index = known->slot});
            return;
        }
        if (const auto color = find_color(name)) {
            program_.steps.push_back({.op = Op::color, .at = static_cast<std::uint32_t>(begin), .color = *color});
            return;
        }
        refuse(begin, at_, unknown_name(name, reads_, scope_, faults_));
    }

    void call(std::string_view name, std::size_t begin) {
        const auto* const form = find_function(name);
        if (form == nullptr) refuse(begin, at_, unknown_function(name, reads_));
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
    const Faults& faults_;
    std::size_t at_ = 0;
    std::size_t begin_ = 0;  // of what was taken last
    int depth_ = 0;
};

}  // namespace

void read_expression(std::string_view text, Reads reads, Program& program, Scope& scope, const Faults& faults) {
    ExpressionReader{text, reads, program, scope, faults}.read();
}

}  // namespace coldbrick::inline v0::detail

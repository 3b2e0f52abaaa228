// Runs the steps of one expression.
#pragma once

#include "scene/arithmetic.hpp"
#include "scene/budget.hpp"
#include "scene/color_values.hpp"
#include "scene/functions.hpp"
#include "scene/memory.hpp"
#include "scene/number_steps.hpp"

#include "coldbrick/angle.hpp"
#include "coldbrick/color_models.hpp"

#include <algorithm>
#include <cmath>
#include <optional>
#include <span>

namespace coldbrick::inline v0::detail {

// What an expression comes to that it may not, and in which value of a function, if it is in one.
struct Trouble {
    std::string what;
    std::string advice = {};
    int value = -1;
};

// One expression's steps.
class StepRunner {
  public:
    explicit StepRunner(Machine& machine)
        : machine_{machine}, memory_{machine.memory_}, stack_{machine.stack_}, base_{machine.stack_.size()} {}
    StepRunner(const StepRunner&) = delete;
    StepRunner(StepRunner&&) = delete;
    StepRunner& operator=(const StepRunner&) = delete;
    StepRunner& operator=(StepRunner&&) = delete;
    ~StepRunner() { stack_.resize(base_); }

    Value run(const Step* first, std::size_t count) {
        for (at_ = first; at_ != first + count; ++at_) {
            if (!step(*at_)) return {};
        }
        return stack_.back();
    }

    [[nodiscard]] const Step& at() const noexcept { return *at_; }

  private:
    // False where a value had a fault that was reported before.
    bool step(const Step& step) {
        switch (step.op) {
            case Op::constant:
                stack_.push_back(Value::number(step.number, static_cast<Unit>(step.count)));
                return true;
            case Op::color:
                stack_.push_back(Value::colored(step.color));
                return true;
            case Op::text:
                stack_.push_back(Value::kept(ValueKind::text, step.index));
                return true;
            case Op::load:
                stack_.push_back(memory_.slot(step.level, step.index));
                return check_loaded(step);
            case Op::negate:
                return negate();
            case Op::invert:
                stack_.back() = Value::number(number(stack_.back()) == 0 ? 1 : 0);
                return true;
            case Op::pair: {
                const auto y = number(pop());
                stack_.back() = Value::pair(number(stack_.back()), y);
                return true;
            }
            case Op::member:
                return member(machine_.program_.members[step.index]);
            case Op::call:
                return call(static_cast<Function>(step.index), step.count);
            case Op::fill_in:
                return fill_in(step);
            default:
                return binary(step.op);
        }
    }

    // Whether a name has a value. If it has none, that was reported, or there is none yet.
    [[nodiscard]] bool check_loaded(const Step& step) const {
        if (stack_.back().kind != ValueKind::none) return true;
        if (machine_.faults_.count() > 0) return false;
        if (step.level == 0 && step.index == last_slot) throw Trouble{"nothing has been drawn yet"};
        throw Trouble{"this name has no value here"};
    }

    Value pop() noexcept {
        const auto top = stack_.back();
        stack_.pop_back();
        return top;
    }

    double number(const Value& value) const {
        if (value.kind == ValueKind::number) return value.x;
        if (is_cell(value)) {
            const auto& text = machine_.text_of(value);
            if (const auto number = number_of_text(text)) return *number;
            throw Trouble{in_quotes(text) + " is no number, and one is needed here"};
        }
        throw Trouble{std::string{in_words(value.kind)} + " stands where a number is needed"};
    }

    Color color(const Value& value) const {
        if (value.kind == ValueKind::color) return value.color;
        if (value.kind == ValueKind::ink) {
            if (const auto* const plain = memory_.inks[value.index].color()) return *plain;
        }
        if (is_cell(value)) {
            if (const auto found = find_color(machine_.text_of(value))) return *found;
        }
        throw Trouble{std::string{in_words(value.kind)} + " stands where a colour is needed"};
    }

    bool negate() {
        auto& value = stack_.back();
        if (value.kind == ValueKind::pair) {
            value = Value::pair(-value.x, -value.y);
        } else {
            const auto unit = value.kind == ValueKind::number ? value.unit : Unit::none;
            value = Value::number(-number(value), unit);
        }
        return true;
    }

    bool binary(Op op) {
        const auto second = pop();
        auto& first = stack_.back();
        if (op == Op::equal || op == Op::unequal) {
            first = Value::number(equal(first, second) == (op == Op::equal) ? 1 : 0);
            return true;
        }
        if (first.kind == ValueKind::pair || second.kind == ValueKind::pair) {
            first = of_pairs(op, first, second);
            return true;
        }
        first = Value::number(of_numbers(op, number(first), number(second)));
        return true;
    }

    Value of_pairs(Op op, const Value& a, const Value& b) const {
        const auto both = a.kind == b.kind;
        if (both && (op == Op::add || op == Op::subtract)) {
            return Value::pair(of_numbers(op, a.x, b.x), of_numbers(op, a.y, b.y));
        }
        if (op == Op::multiply && !both) {
            const auto& pair = a.kind == ValueKind::pair ? a : b;
            const auto factor = number(a.kind == ValueKind::pair ? b : a);
            return Value::pair(pair.x * factor, pair.y * factor);
        }
        if (op == Op::divide && a.kind == ValueKind::pair && !both) {
            const auto divisor = number(b);
            return Value::pair(a.x / divisor, a.y / divisor);
        }
        throw Trouble{"this cannot be done with pairs", "pairs can be added, and multiplied or divided by numbers"};
    }

    bool equal(const Value& a, const Value& b) const {
        if (is_cell(a) && is_cell(b)) return machine_.text_of(a) == machine_.text_of(b);
        if (a.kind == ValueKind::pair && b.kind == ValueKind::pair) return a.x == b.x && a.y == b.y;
        if (a.kind == ValueKind::color || b.kind == ValueKind::color) return color(a) == color(b);
        // A cell that is no number is none of them.
        if (is_cell(a) || is_cell(b)) {
            const auto& cell = is_cell(a) ? a : b;
            const auto inside = number_of_text(machine_.text_of(cell));
            return inside && *inside == number(is_cell(a) ? b : a);
        }
        return number(a) == number(b);
    }

    bool member(const std::string& name) {
        auto& value = stack_.back();
        if (value.kind == ValueKind::pair && (name == "x" || name == "y")) {
            value = Value::number(name == "x" ? value.x : value.y);
            return true;
        }
        if (value.kind == ValueKind::box) {
            if (const auto of = of_box(memory_.boxes[value.index], name)) {
                value = *of;
                return true;
            }
            throw Trouble{"there is no '" + name + "' of a place",
                          "allowed are left, right, top, bottom, width, height, at and size"};
        }
        if (value.kind == ValueKind::row) {
            const auto& columns = memory_.tables[value.index]->columns;
            const auto found = std::find(columns.begin(), columns.end(), name);
            if (found == columns.end()) refuse_column(columns, name);
            value = {.kind = ValueKind::cell,
                     .index = value.index,
                     .x = value.x,
                     .y = static_cast<double>(found - columns.begin())};
            return true;
        }
        throw Trouble{std::string{in_words(value.kind)} + " has no '" + name + "'",
                      "pairs have x and y, rows of a table their columns, what was drawn left, right, top, bottom, "
                      "width and height"};
    }

    [[noreturn]] static void refuse_column(const std::vector<std::string>& columns, const std::string& name) {
        const std::vector<std::string_view> known{columns.begin(), columns.end()};
        const auto near = nearest_word(name, known);
        throw Trouble{"the table has no column " + in_quotes(name),
                      near.empty() ? "there are " + printable(in_words(known, "and"), 300)
                                   : "did you mean " + in_quotes(near) + "?"};
    }

    static std::optional<Value> of_box(const Box& box, std::string_view name) noexcept {
        if (name == "left") return Value::number(box.at.x);
        if (name == "top") return Value::number(box.at.y);
        if (name == "right") return Value::number(double{1} * box.at.x + box.size.width - 1);
        if (name == "bottom") return Value::number(double{1} * box.at.y + box.size.height - 1);
        if (name == "width") return Value::number(box.size.width);
        if (name == "height") return Value::number(box.size.height);
        if (name == "at") return Value::pair(box.at.x, box.at.y);
        if (name == "size") return Value::pair(box.size.width, box.size.height);
        return std::nullopt;
    }

    bool call(Function function, std::uint8_t count) {
        const auto first = stack_.size() - count;
        given_ = std::span{stack_}.subspan(first, count);
        const auto result = value_of(function, given_);
        stack_.resize(first);
        stack_.push_back(result);
        return true;
    }

    Value value_of(Function function, std::span<const Value> given) {
        const auto at = [&](std::size_t i) { return number(given[i]); };
        if (makes_color(function)) return Value::colored(made_color(function, given));
        switch (function) {
            case Function::random:
                return random(given);
            case Function::mix:
                return mix(given);
            case Function::lighten:
                return Value::colored(lightened(color(given[0]), between(given[1], -1, 1)));
            case Function::entry:
                memory_.inks.emplace_back(PaletteEntry{.number = whole(given[0], 255)});
                return Value::kept(ValueKind::ink, memory_.inks.size() - 1);
            case Function::min:
            case Function::max: {
                auto most = at(0);
                for (std::size_t i = 1; i < given.size(); ++i) {
                    const auto next = at(i);
                    if (std::isnan(next) || (function == Function::min ? next < most : next > most)) most = next;
                }
                return Value::number(most);
            }
            case Function::clamp:
                if (!(at(1) <= at(2)))
                    throw Trouble{"clamp from " + in_digits(at(1)) + " to " + in_digits(at(2)) +
                                  " has nothing between"};
                return Value::number(at(0) < at(1) ? at(1) : at(0) > at(2) ? at(2) : at(0));
            case Function::mod:
                return Value::number(modulo(at(0), at(1)));
            case Function::power:
                return Value::number(power(at(0), at(1)));
            case Function::atan:
                return Value::number(given.size() == 2 ? direction_of(at(1), at(0)) : direction_of(1, at(0)));
            default:
                return Value::number(of_one(function, at(0)));
        }
    }

    Value random(std::span<const Value> given) {
        if (given.size() == 1)
            throw Trouble{"random takes nothing, or from where to where", "for example: random(5,9)"};
        const auto part = next_part(memory_.random);
        if (given.empty()) return Value::number(part);
        const auto from = number(given[0]);
        const auto to = number(given[1]);
        return Value::number(from + (to - from) * part);
    }

    Value mix(std::span<const Value> given) const {
        const auto part = number(given[2]);
        if (given[0].kind == ValueKind::pair && given[1].kind == ValueKind::pair) {
            return Value::pair(given[0].x + (given[1].x - given[0].x) * part,
                               given[0].y + (given[1].y - given[0].y) * part);
        }
        const auto is_color = [](const Value& value) {
            return value.kind == ValueKind::color || value.kind == ValueKind::ink;
        };
        if (is_color(given[0]) || is_color(given[1])) {
            return Value::colored(mixed_colors(color(given[0]), color(given[1]), between(given[2], 0, 1)));
        }
        const auto from = number(given[0]);
        return Value::number(from + (number(given[1]) - from) * part);
    }

    // Which of a function's values one is.
    [[nodiscard]] int number_of(const Value& value) const noexcept { return static_cast<int>(&value - given_.data()); }

    double between(const Value& value, double least, double most) const {
        const auto part = number(value);
        if (part >= least && part <= most) return part;
        throw Trouble{
            .what = "this is " + in_digits(part) + "; allowed is " + in_digits(least) + " to " + in_digits(most),
            .value = number_of(value)};
    }

    int whole(const Value& value, int most) const {
        const auto of = number(value);
        if (of >= 0 && of <= most && of == std::floor(of)) return static_cast<int>(of);
        if (of >= 0 && of <= most) {
            throw Trouble{"this is " + in_digits(of) + "; a whole number is needed",
                          "round(), floor() and ceil() make whole numbers", number_of(value)};
        }
        throw Trouble{.what = "this is " + in_digits(of) + "; allowed is 0 to " + std::to_string(most),
                      .value = number_of(value)};
    }

    Color made_color(Function function, std::span<const Value> given) const {
        constexpr auto most = 255;
        const auto at = [&](std::size_t i) { return static_cast<std::uint8_t>(whole(given[i], most)); };
        if (function == Function::gray) return gray(at(0));
        if (function == Function::rgb) return {.red = at(0), .green = at(1), .blue = at(2)};
        if (function == Function::rgba) return {.red = at(0), .green = at(1), .blue = at(2), .alpha = at(3)};
        const auto hue = Angle::degrees(between(given[0], -1e12, 1e12));
        const auto second = between(given[1], 0, 1);
        const auto third = between(given[2], 0, 1);
        if (function == Function::hsl) return color_of(Hsl{.hue = hue, .saturation = second, .lightness = third});
        return color_of(Hsv{.hue = hue, .saturation = second, .value = third});
    }

    bool fill_in(const Step& step) {
        const auto& filled = machine_.program_.templates[step.index];
        const auto first = stack_.size() - step.count;
        std::string text;
        for (std::size_t i = 0; i < step.count; ++i) {
            text += filled.between[i] + in_text(stack_[first + i], filled.forms[i]);
            constexpr std::size_t longest = 1U << 20U;
            if (text.size() > longest) throw Trouble{"with its values filled in the text has over 1048576 bytes"};
        }
        text += filled.between.back();
        stack_.resize(first);
        memory_.keep_text(std::move(text));
        stack_.push_back(Value::kept(ValueKind::text, machine_.program_.texts.size() + memory_.texts.size() - 1));
        return true;
    }

    std::string in_text(const Value& value, const NumberForm& form) const {
        if (is_cell(value) && form.decimals < 0 && form.width == 0) return machine_.text_of(value);
        if (value.kind == ValueKind::pair) return written(value.x, form) + "," + written(value.y, form);
        const auto of = number(value);
        if (!std::isfinite(of))
            throw Trouble{"a value in this text has no value (a division by 0, or a number too large)"};
        return written(of, form);
    }

    Machine& machine_;
    Memory& memory_;
    std::vector<Value>& stack_;
    std::size_t base_;
    const Step* at_ = nullptr;
    std::span<const Value> given_;  // of the function that is called
};

}  // namespace coldbrick::inline v0::detail

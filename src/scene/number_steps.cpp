// Steps of numbers alone, on a stack of their own.
#include "scene/number_steps.hpp"

#include "scene/arithmetic.hpp"
#include "scene/memory.hpp"

#include "coldbrick/angle.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

double of_numbers(Op op, double a, double b) noexcept {
    switch (op) {
        case Op::add:
            return a + b;
        case Op::subtract:
            return a - b;
        case Op::multiply:
            return a * b;
        case Op::divide:
            return a / b;
        case Op::power:
            return power(a, b);
        case Op::less:
            return a < b ? 1 : 0;
        case Op::less_equal:
            return a <= b ? 1 : 0;
        case Op::greater:
            return a > b ? 1 : 0;
        case Op::greater_equal:
            return a >= b ? 1 : 0;
        case Op::both:
            return a != 0 && b != 0 ? 1 : 0;
        default:
            return a != 0 || b != 0 ? 1 : 0;
    }
}

double of_one(Function function, double value) noexcept {
    switch (function) {
        case Function::sin:
            return Angle::degrees(value).sine();
        case Function::cos:
            return Angle::degrees(value).cosine();
        case Function::tan:
            return Angle::degrees(value).sine() / Angle::degrees(value).cosine();
        case Function::sqrt:
            return std::sqrt(value);
        case Function::floor:
            return std::floor(value);
        case Function::ceil:
            return std::ceil(value);
        case Function::round:
            return std::round(value);
        default:
            return std::fabs(value);
    }
}

// What an expression comes to that it may not, and in which value of a function, if it is in one.

// Whether all names of a part are numbers now.
bool Machine::has_numbers(const Part& part) noexcept {
    const auto* const first = &program_.steps[part.first];
    return std::all_of(first, first + part.count, [&](const Step& step) {
        if (step.op != Op::load) return true;
        const auto& value = memory_.slot(step.level, step.index);
        return value.kind == ValueKind::number && value.unit == Unit::none;
    });
}

bool Machine::run_numbers(const Part& part, double& result) {
    // Before a random number is taken: what is run again takes the same.
    if (part.is_random && !has_numbers(part)) return false;
    double stack[numeric_depth + 1];
    auto* top = stack;
    const auto* const first = &program_.steps[part.first];
    for (const auto* step = first; step != first + part.count; ++step) {
        switch (step->op) {
            case Op::constant:
                *++top = step->number;
                break;
            case Op::load: {
                const auto& value = memory_.slot(step->level, step->index);
                if (value.kind != ValueKind::number || value.unit != Unit::none) return false;
                *++top = value.x;
                break;
            }
            case Op::negate:
                *top = -*top;
                break;
            case Op::invert:
                *top = *top == 0 ? 1 : 0;
                break;
            case Op::call:
                if (!call_numbers(*step, top)) return false;
                break;
            default:
                --top;
                *top = of_numbers(step->op, top[0], top[1]);
        }
    }
    result = *top;
    return true;
}

// A function of the numbers on top of a stack.
bool Machine::call_numbers(const Step& step, double*& top) {
    const auto function = static_cast<Function>(step.index);
    if (function == Function::random) {
        if (step.count == 1) return false;  // reported by the steps run one by one
        const auto way = next_part(memory_.random);
        top -= step.count;
        top[1] = step.count == 0 ? way : top[1] + (top[2] - top[1]) * way;
        ++top;
    } else if (step.count == 2) {
        --top;
        *top = function == Function::mod ? modulo(top[0], top[1]) : power(top[0], top[1]);
    } else {
        *top = of_one(function, *top);
    }
    return true;
}

}  // namespace coldbrick::inline v0::detail

// Runs the steps of expressions.
#include "scene/step_runner.hpp"

namespace coldbrick::inline v0::detail {

namespace {

// How many values a step takes.
int values_of(const Step& step) noexcept {
    switch (step.op) {
        case Op::constant:
        case Op::color:
        case Op::text:
        case Op::load:
            return 0;
        case Op::negate:
        case Op::invert:
        case Op::member:
            return 1;
        case Op::call:
        case Op::fill_in:
            return step.count;
        default:
            return 2;
    }
}

// The step with which the value of one ends, so many before the last of those that a step takes.
const Step* value_before(const Step* step, int back) noexcept {
    --step;
    for (; back > 0; --back) {
        for (auto missing = 1; missing > 0; --step) missing += values_of(*step) - 1;
    }
    return step;
}

// Where the value that ends with a step begins in its text.
std::size_t begin_of(const Step* step) noexcept {
    auto begin = std::size_t{step->at};
    for (auto missing = 1; missing > 0; --step) {
        begin = std::min<std::size_t>(begin, step->at);
        missing += values_of(*step) - 1;
    }
    return begin;
}

}  // namespace

Value Machine::run(const Part& part, const ValueWord& of, std::size_t number) {
    StepRunner runner{*this};
    try {
        return runner.run(&program_.steps[part.first], part.count);
    } catch (const Trouble& trouble) {
        const auto word = GivenPart{of, number, {}}.word();
        const auto* const step = &runner.at();
        const auto begin = trouble.value < 0 ? step->at : begin_of(value_before(step, step->count - 1 - trouble.value));
        const auto at = std::min<std::size_t>(begin, word.text.empty() ? 0 : word.text.size() - 1);
        const auto behind = word.text.find_first_of(trouble.value < 0 ? " +-*/^<>=!,()\"{}:" : ",) ", at);
        const auto end = std::max(std::min(behind, word.text.size()), std::min(at + 1, word.text.size()));
        faults_.add(part_of(word, at, end), trouble.what, trouble.advice);
        return {};
    }
}

}  // namespace coldbrick::inline v0::detail

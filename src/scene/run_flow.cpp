// Statements that say which others are run: loops, conditions, shapes of one's own.
#include "scene/run.hpp"

#include <cmath>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

// How often, and over what: false if there is a fault.
bool Runner::read_repeat(const Node& node, OpenBlock& block) {
    constexpr auto most = 1e15;
    if (node.definition == 2) {
        const auto file = values_.text(given(node, 0));
        const auto table = file ? tables_.read(given(node, 0).word(), *file) : nullptr;
        if (!table) return false;
        block.count = table->rows.size();
        const auto known = std::find(memory_.tables.begin(), memory_.tables.end(), table);
        block.from = static_cast<double>(known - memory_.tables.begin());
        if (known == memory_.tables.end()) memory_.tables.push_back(table);
        return true;
    }
    if (node.definition == 0) {
        const auto count = values_.real(given(node, 0), 0, most);
        if (!count) return false;
        if (*count != std::floor(*count)) {
            faults_.add(given(node, 0).word(), "this is " + in_digits(*count) + "; a whole number is needed",
                        "round(), floor() and ceil() make whole numbers");
            return false;
        }
        block.count = static_cast<std::uint64_t>(*count);
        return true;
    }
    const auto from = values_.real(given(node, 0), -most, most);
    const auto to = values_.real(given(node, 1), -most, most);
    const auto step = node.value_count > 2 ? values_.real(given(node, 2), -most, most) : 1;
    if (!from || !to || !step) return false;
    if (*step == 0) {
        faults_.add(given(node, 2).word(), "with a step of 0 the loop would never end");
        return false;
    }
    // Both ends belong to it, also where tenths add up to a little more or less.
    constexpr auto slack = 1e-9;
    const auto steps = std::floor((*to - *from) / *step + slack);
    block.count = steps < 0      ? 0
                  : steps > most ? static_cast<std::uint64_t>(most)
                                 : static_cast<std::uint64_t>(steps) + 1;
    block.from = *from;
    block.step = *step;
    return true;
}

void Runner::set_loop_names(const OpenBlock& block, const Node& node) {
    const auto done = static_cast<double>(block.done);
    if (node.slot != no_slot) {
        slot(node, node.slot) =
            node.definition == 2
                ? Value{.kind = ValueKind::row, .index = static_cast<std::uint32_t>(block.from), .x = done}
                : Value::number(block.from + done * block.step);
    }
    if (node.second_slot != no_slot) slot(node, node.second_slot) = Value::number(done);
}

void Runner::begin_repeat(const Node& node) {
    evaluate(node);
    OpenBlock loop{.node = 0};
    if (!read_repeat(node, loop) || loop.count == 0) {
        next_ = node.end + 1;
        return;
    }
    if (!open(node)) return;
    auto& block = blocks_.back();
    block.from = loop.from;
    block.step = loop.step;
    block.count = loop.count;
    set_loop_names(block, node);
}

// Goes back to the beginning of a loop; false if it is over.
bool Runner::next_round(OpenBlock& block, const Node& node) {
    if (++block.done == block.count) return false;
    usual_edge_ = block.edge;
    memory_.drop_to(block.marks);
    set_loop_names(block, node);
    next_ = block.node + 1;
    return true;
}

void Runner::when(const Node& node) {
    evaluate(node);
    const auto is_so = values_.truth(given(node, 0));
    if (!is_so) {
        next_ = node.end + 1;
        return;
    }
    if (*is_so) {
        open(node);
        return;
    }
    // From branch to branch, to the first that is so.
    const auto* branch = &program_.nodes[node.next];
    while (branch->kind->verb == "otherwise" && branch->value_count > 0) {
        budget_.count_statement(branch->verb);
        evaluate(*branch);
        const auto is_next = branch->is_faulty ? std::nullopt : values_.truth(given(*branch, 0));
        if (!is_next) {
            next_ = node.end + 1;
            return;
        }
        if (*is_next) break;
        branch = &program_.nodes[branch->next];
    }
    const auto number = static_cast<std::uint32_t>(branch - program_.nodes.data());
    next_ = number + 1;
    if (branch->kind->verb == "otherwise") open(node);
}

// Reached from the branch before it: that was the one.
void Runner::otherwise(const Node& node) {
    close();
    next_ = node.end + 1;
}

void Runner::skip_shape(const Node& node) { next_ = node.end + 1; }

// The value of a parameter: as the statement gives it, or as it usually is, with the values of those before it.
Value Runner::parameter_value(const Node& node, const ShapeDefinition& shape, std::uint32_t number) {
    const auto& parameter = shape.parameters[number];
    const auto is_at = parameter.name.text == "at";
    const auto value_of = [&](const GivenValue& given) {
        if (given.size() == 1 && !is_at) return given[0].value;
        const auto pair = values_.position(given, -max_coordinate, max_coordinate);
        return pair ? Value::pair(pair->x, pair->y) : Value{};
    };
    for (auto i = node.first_argument; i < node.first_argument + node.argument_count; ++i) {
        const auto& argument = program_.arguments[i];
        if (argument.keyword != number) continue;
        const auto& word = program_.values[argument.first_value];
        return value_of({word, evaluated_.data() + (word.first_part - node.first_part)});
    }
    std::vector<Value> usual;
    const auto& begin = program_.nodes[shape.begin];
    if (begin.file != node.file) faults_.set_file(program_.sources[begin.file].name);
    for (std::uint32_t i = 0; i < parameter.usual.part_count; ++i) {
        usual.push_back(machine_.evaluate(program_.parts[parameter.usual.first_part + i], parameter.usual, i));
    }
    const auto value = value_of({parameter.usual, usual.data()});
    if (begin.file != node.file) faults_.set_file(program_.sources[node.file].name);
    return value;
}

void Runner::begin_use(const Node& node) {
    const auto& shape = program_.shapes[node.definition];
    if (shape.is_faulty) return;
    evaluate(node);
    if (!open(program_.nodes[shape.begin])) return;
    const auto bytes = shape.slots * sizeof(Value);
    if (!budget_.spend(bytes, node.verb)) return;
    auto& block = blocks_.back();
    block.is_use = true;
    block.return_to = next_;
    block.drawn_before = drawn_;
    block.bytes = bytes;
    drawn_ = {};
    memory_.begin_call(shape.level, shape.slots);
    auto next = view();
    next.own = {};
    for (std::uint32_t i = 0; i < shape.parameters.size(); ++i) {
        const auto& parameter = shape.parameters[i];
        const auto value = parameter_value(node, shape, i);
        memory_.slot(shape.level, parameter.slot) = value;
        if (parameter.name.text == "at") next.own = Transform{}.move({value.x, value.y});
    }
    if (!next.own.is_identity()) {
        next.by = next.own.then(next.by);
        next.view = next.view.under(next.own);
    }
    push_view(std::move(next));
    next_ = shape.begin + 1;
}

}  // namespace coldbrick::inline v0::detail

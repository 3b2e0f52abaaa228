// The statements that choose which others are run: loops, conditions, shapes of the scene's own, other files.
#include "scene/parse.hpp"
#include "scene/scene_run.hpp"

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

// How often, and over what: false if there is a fault.
bool read_repeat(SceneRun& run, const Node& node, SceneRun::OpenBlock& block) {
    constexpr auto most = 1e15;
    if (node.definition == 2) {
        const auto file = run.values.text(run.given(node, 0));
        const auto table = file ? run.tables.read(run.given(node, 0).word(), *file) : nullptr;
        if (!table) return false;
        block.count = table->rows.size();
        const auto known = std::find(run.memory.tables.begin(), run.memory.tables.end(), table);
        block.from = static_cast<double>(known - run.memory.tables.begin());
        if (known == run.memory.tables.end()) run.memory.tables.push_back(table);
        return true;
    }
    if (node.definition == 0) {
        const auto count = run.values.real(run.given(node, 0), 0, most);
        if (!count) return false;
        if (*count != std::floor(*count)) {
            run.faults.add(run.given(node, 0).word(), "this is " + in_digits(*count) + "; a whole number is needed",
                           "round(), floor() and ceil() make whole numbers");
            return false;
        }
        block.count = static_cast<std::uint64_t>(*count);
        return true;
    }
    const auto from = run.values.real(run.given(node, 0), -most, most);
    const auto to = run.values.real(run.given(node, 1), -most, most);
    const auto step = node.value_count > 2 ? run.values.real(run.given(node, 2), -most, most) : 1;
    if (!from || !to || !step) return false;
    if (*step == 0) {
        run.faults.add(run.given(node, 2).word(), "with a step of 0 the loop would never end");
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

void run_repeat(SceneRun& run, const Node& node) {
    run.evaluate(node);
    SceneRun::OpenBlock loop{.node = 0};
    if (!read_repeat(run, node, loop) || loop.count == 0) {
        run.next = node.end + 1;
        return;
    }
    if (!run.open(node)) return;
    auto& block = run.blocks.back();
    block.from = loop.from;
    block.step = loop.step;
    block.count = loop.count;
    run.set_loop_names(block, node);
}

void run_when(SceneRun& run, const Node& node) {
    run.evaluate(node);
    const auto is_so = run.values.truth(run.given(node, 0));
    if (!is_so) {
        run.next = node.end + 1;
        return;
    }
    if (*is_so) {
        run.open(node);
        return;
    }
    // From branch to branch, to the first that is so.
    const auto* branch = &run.program.nodes[node.next];
    while (branch->kind->verb == Verb::otherwise && branch->value_count > 0) {
        run.budget.count_statement(branch->verb);
        run.evaluate(*branch);
        const auto is_next = branch->is_faulty ? std::nullopt : run.values.truth(run.given(*branch, 0));
        if (!is_next) {
            run.next = node.end + 1;
            return;
        }
        if (*is_next) break;
        branch = &run.program.nodes[branch->next];
    }
    const auto number = static_cast<std::uint32_t>(branch - run.program.nodes.data());
    run.next = number + 1;
    if (branch->kind->verb == Verb::otherwise) run.open(node);
}

// Reached from the branch before it: that was the one.
void run_otherwise(SceneRun& run, const Node& node) {
    run.close();
    run.next = node.end + 1;
}

void run_shape(SceneRun& run, const Node& node) { run.next = node.end + 1; }

// The value of a parameter: as the statement gives it, or as it usually is, with the values of those before it.
Value parameter_value(SceneRun& run, const Node& node, const ShapeDefinition& shape, std::uint32_t number) {
    const auto& parameter = shape.parameters[number];
    const auto is_at = parameter.name.text == "at";
    const auto value_of = [&](const GivenValue& given) {
        if (given.size() == 1 && !is_at) return given[0].value;
        const auto pair = run.values.position(given, -max_coordinate, max_coordinate);
        return pair ? Value::pair(pair->x, pair->y) : Value{};
    };
    for (auto i = node.first_argument; i < node.first_argument + node.argument_count; ++i) {
        const auto& argument = run.program.arguments[i];
        if (argument.keyword != number) continue;
        const auto& word = run.program.values[argument.first_value];
        return value_of({word, run.evaluated.data() + (word.first_part - node.first_part)});
    }
    std::vector<Value> usual;
    const auto& begin = run.program.nodes[shape.begin];
    if (begin.file != node.file) run.faults.set_file(run.program.sources[begin.file].name);
    for (std::uint32_t i = 0; i < parameter.usual.part_count; ++i) {
        usual.push_back(run.machine.evaluate(run.program.parts[parameter.usual.first_part + i], parameter.usual, i));
    }
    const auto value = value_of({parameter.usual, usual.data()});
    if (begin.file != node.file) run.faults.set_file(run.program.sources[node.file].name);
    return value;
}

void run_use(SceneRun& run, const Node& node) {
    const auto& shape = run.program.shapes[node.definition];
    if (shape.is_faulty) return;
    run.evaluate(node);
    if (!run.open(run.program.nodes[shape.begin])) return;
    const auto bytes = shape.slots * sizeof(Value);
    if (!run.budget.spend(bytes, node.verb)) return;
    auto& block = run.blocks.back();
    block.is_use = true;
    block.return_to = run.next;
    block.drawn_before = run.drawn_so_far;
    block.bytes = bytes;
    run.drawn_so_far = {};
    run.memory.begin_call(shape.level, shape.slots);
    auto next = run.view();
    next.own = {};
    for (std::uint32_t i = 0; i < shape.parameters.size(); ++i) {
        const auto& parameter = shape.parameters[i];
        const auto value = parameter_value(run, node, shape, i);
        run.memory.slot(shape.level, parameter.slot) = value;
        if (parameter.name.text == "at") next.own = Transform{}.move({value.x, value.y});
    }
    if (!next.own.is_identity()) {
        next.by = next.own.then(next.by);
        next.view = next.view.under(next.own);
    }
    run.push_view(std::move(next));
    run.next = shape.begin + 1;
}

}  // namespace

// NOLINTNEXTLINE(readability-function-size): a table
std::vector<StatementKind> flow_statements() {
    return {
        {.verb = Verb::include,
         .head = Head::own,
         .forms = {},
         .example = "include \"quay-parts.brick\"",
         .form = "\"FILE\"",
         .meaning = "the statements of another file, beside this one",
         .run = nullptr,
         .parse = &ProgramParser::include,
         .is_before_sheet = true},
        {.verb = Verb::otherwise,
         .head = Head::own,
         .forms = {},
         .example = "otherwise when tide > 1",
         .form = "[when CONDITION]",
         .meaning = "in 'when': what is run if nothing before is",
         .run = &run_otherwise,
         .parse = &ProgramParser::otherwise},
        {.verb = Verb::repeat,
         .head = Head::own,
         .forms = {},
         .example = "repeat 7 as i",
         .form = "N as NAME ... end",
         .meaning =
             "NAME from 0 to N-1; or: from A to B [step C] as NAME;\nor: row of \"TABLE.csv\" as NAME (NAME.column); "
             "number NAME counts too",
         .run = &run_repeat,
         .parse = &ProgramParser::repeat,
         .block = Block::repeat},
        {.verb = Verb::shape,
         .head = Head::own,
         .forms = {},
         .example = "shape buoy at, size = 12, tint = red",
         .form = "NAME at, NAME = VALUE, ... end",
         .meaning = "a shape of your own, drawn from its own 0,0, with the words that it takes",
         .run = &run_shape,
         .parse = &ProgramParser::shape,
         .block = Block::shape,
         .is_before_sheet = true},
        {.verb = Verb::use,
         .head = Head::own,
         .forms = {},
         .example = "use buoy at 361,129 tint green",
         .form = "NAME at X,Y ...",
         .meaning = "draws a shape of your own",
         .run = &run_use,
         .parse = &ProgramParser::use},
        {.verb = Verb::when,
         .head = Head::own,
         .forms = {},
         .example = "when tide > 3",
         .form = "CONDITION ... end",
         .meaning = "what is run only if it is so; = < > are written == < > <= >= !=, and, or, not",
         .run = &run_when,
         .parse = &ProgramParser::when,
         .block = Block::when},
    };
}

}  // namespace coldbrick::inline v0::detail

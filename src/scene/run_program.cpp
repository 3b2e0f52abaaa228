// Statement after statement.
#include "scene/scene_run.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <memory>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

// "1st", "2nd", "11th".
std::string ordinal(std::uint64_t number) {
    const auto last = number % 10;
    const auto is_teen = number / 10 % 10 == 1;
    return std::to_string(number) + (is_teen || last == 0 || last > 3 ? "th"
                                     : last == 1                      ? "st"
                                     : last == 2                      ? "nd"
                                                                      : "rd");
}

std::string words_of_place(const SceneRun& run) {
    constexpr auto most_named = 8;
    std::string text;
    auto count = 0;
    for (auto number = run.blocks.size(); number-- > 0;) {
        const auto& block = run.blocks[number];
        const auto& begin = run.program.nodes[block.node];
        const auto is_repeat = begin.kind->block == Block::repeat;
        if (!block.is_use && !is_repeat) continue;
        if (++count > most_named) continue;
        // A use is run at the statement that it comes back to.
        const auto& at = block.is_use ? run.program.nodes[block.return_to - 1] : begin;
        text += text.empty() ? "in " : ", ";
        text += block.is_use ? "use " + std::string{begin.word.text} : "the " + ordinal(block.done + 1) + " of repeat";
        text += " at line " + std::to_string(at.verb.place.line);
        if (at.file != 0) text += " of " + printable(run.program.sources[at.file].name);
    }
    if (count > most_named) text += ", and " + std::to_string(count - most_named) + " more around it";
    if (run.scene.frames.count > 1)
        text += (text.empty() ? "in" : ", in") + (" frame " + std::to_string(run.input.frame));
    return text;
}

// The values that the scene has from outside, as cells of a table with one row.
void set_outside(SceneRun& run) {
    auto table = std::make_shared<Table>();
    table->rows.push_back({});
    for (const auto& [name, value] : run.input.set) {
        table->columns.push_back(name);
        table->rows[0].cells.push_back(value);
    }
    for (std::size_t i = 0; i < run.program.outside.size(); ++i) {
        const auto found = std::find(table->columns.begin(), table->columns.end(), run.program.outside[i]);
        if (found == table->columns.end()) continue;
        run.memory.slot(0, run.program.first_outside + static_cast<std::uint32_t>(i)) = {
            .kind = ValueKind::cell, .index = 0, .y = static_cast<double>(found - table->columns.begin())};
    }
    run.memory.tables.push_back(std::move(table));
}

void run_statement(SceneRun& run, const Node& node) {
    const auto block = node.kind->block;
    // What is too much behind an end is reported; it ends its block all the same.
    const auto ends = (node.kind->verb == Verb::end || node.kind->verb == Verb::otherwise) && node.end != no_slot;
    if (!node.is_faulty || ends) {
        const auto marks = run.memory.marks();
        node.kind->run(run, node);
        // What only this statement has filled in or mixed is not needed any more.
        if (node.kind->is_done_at_once && node.slot == no_slot) run.memory.drop_to(marks);
        return;
    }
    if (node.kind->verb == Verb::palette) run.has_faulty_palette = true;
    // What stands in a faulty group is looked at, as if it were not there.
    if (block == Block::repeat || block == Block::when || block == Block::shape) {
        run.next = node.end + 1;
    } else if (block != Block::none) {
        run.open(node);
    }
}

}  // namespace

void run_program(const RunWith& with, Scene& scene) {
    SceneRun run{with, scene};
    run.faults.set_way([&run] { return words_of_place(run); });
    set_outside(run);
    run.memory.slot(0, frame_slot) = Value::number(run.input.frame);
    if (run.program.uses_last) run.memory.boxes.emplace_back();
    std::size_t file = 0;
    while (run.next < run.program.nodes.size() && !run.budget.is_spent()) {
        const auto& node = run.program.nodes[run.next];
        if (node.file != file) run.faults.set_file(run.program.sources[node.file].name);
        file = node.file;
        run.budget.count_statement(node.verb);
        ++run.next;
        const auto before = run.faults.count();
        try {
            run_statement(run, node);
        } catch (const LimitError& error) {
            run.budget.refuse(node.verb, error);
        }
        if (run.faults.count() == before) {
            // A limit may have been met where faults are not reported.
            run.budget.check_time(node.verb);
            continue;
        }
        // In a loop the same would be reported over and over.
        const auto is_repeated =
            std::any_of(run.blocks.begin(), run.blocks.end(), [&](const SceneRun::OpenBlock& block) {
                return block.is_use || run.program.nodes[block.node].kind->block == Block::repeat;
            });
        if (is_repeated) break;
    }
    run.faults.set_way({});
    run.faults.set_file({});
}

}  // namespace coldbrick::inline v0::detail

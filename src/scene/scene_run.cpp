#include "scene/scene_run.hpp"

#include "coldbrick/error.hpp"

#include <optional>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

// A box around where a transform takes one.
Box moved(const Box& box, const Transform& by) {
    if (box.empty() || by.is_identity()) return box;
    try {
        return bounds(transformed(filled(box, {}), by));
    } catch (const Error&) {
        return box;
    }
}

}  // namespace

SceneRun::SceneRun(const RunWith& with, Scene& to)
    : program{with.program},
      input{with.input},
      budget{with.budget},
      faults{with.faults},
      scene{to},
      memory{with.program},
      machine{with.program, memory, with.faults},
      values{machine, memory, with.faults},
      pictures{with.files, with.loaded, with.budget, with.faults},
      faces{with.files, with.loaded, with.budget, with.faults},
      tables{with.files, with.loaded, with.budget, with.faults},
      kinds(with.program.nodes.size(), no_kind) {
    memory.random.seed(1);
    views.push_back({.view = scene.drawing.under({})});
}

void SceneRun::evaluate(const Node& node) {
    if (evaluated.size() < node.part_count) evaluated.resize(node.part_count);
    for (const auto& word : std::span{program.values}.subspan(node.first_value, node.all_values)) {
        auto* const to = evaluated.data() + (word.first_part - node.first_part);
        for (std::uint32_t i = 0; i < word.part_count; ++i) {
            machine.evaluate_to(to[i], program.parts[word.first_part + i], word, i);
        }
    }
}

ArgumentsOf SceneRun::arguments_of(std::uint32_t first, std::uint32_t count, const Node& node) const {
    return {.program = program,
            .given = std::span{program.arguments}.subspan(first, count),
            .values = evaluated.data(),
            .first_part = node.first_part};
}

Arguments SceneRun::arguments(const Node& node) {
    return {arguments_of(node.first_argument, node.argument_count, node), values, faults, usual_edge};
}

GivenValue SceneRun::given(const Node& node, std::uint32_t number) const {
    const auto& word = program.values[node.first_value + number];
    return {word, evaluated.data() + (word.first_part - node.first_part)};
}
// Whether a block may begin.

bool SceneRun::open(const Node& node) {
    if (blocks.size() >= budget.limits().depth) {
        budget.refuse(node.verb,
                      "shapes, loops and other blocks stand more than " + std::to_string(budget.limits().depth) +
                          " deep in each other",
                      "depth");
        return false;
    }
    if (!budget.spend(sizeof(OpenBlock) + sizeof(View), node.verb)) return false;
    blocks.push_back({.node = static_cast<std::uint32_t>(&node - program.nodes.data()),
                      .edge = usual_edge,
                      .marks = memory.marks()});
    return true;
}

void SceneRun::push_view(View view) {
    blocks.back().has_view = true;
    views.push_back(std::move(view));
}

// Ends the innermost block.

void SceneRun::close() {
    const auto block = blocks.back();
    blocks.pop_back();
    usual_edge = block.edge;
    budget.give_back(sizeof(OpenBlock) + sizeof(View) + block.bytes);
    if (block.has_view) {
        if (program.uses_last) {
            auto& last = memory.boxes.front();
            last = moved(block.is_use ? drawn_so_far : last, views.back().own);
            if (block.is_use) {
                drawn_so_far = enclosing(block.drawn_before, last);
                if (!last.empty()) memory.slot(0, last_slot) = Value::kept(ValueKind::box, 0);
            }
        }
        views.pop_back();
    }
    if (block.is_use) {
        memory.end_call();
        next = block.return_to;
    }
    memory.drop_to(block.marks);
}

void SceneRun::keep_ink(const Node& node, const Ink& ink) {
    memory.inks.push_back(ink);
    slot(node, node.slot) = Value::kept(ValueKind::ink, memory.inks.size() - 1);
}

PartsOf SceneRun::parts_of(const Node& node, const Transform& by) {
    return {.parts = std::span{program.regions}.subspan(node.first_region, node.region_count),
            .of = arguments_of(0, 0, node),
            .by = by,
            .values = values,
            .faults = faults};
}

void SceneRun::set_loop_names(const OpenBlock& block, const Node& node) {
    const auto done = static_cast<double>(block.done);
    if (node.slot != no_slot) {
        slot(node, node.slot) =
            node.definition == 2
                ? Value{.kind = ValueKind::row, .index = static_cast<std::uint32_t>(block.from), .x = done}
                : Value::number(block.from + done * block.step);
    }
    if (node.second_slot != no_slot) slot(node, node.second_slot) = Value::number(done);
}

}  // namespace coldbrick::inline v0::detail

#include "scene/run.hpp"

#include "scene/inks.hpp"
#include "scene/shape_statements.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto no_number = 0xffffffffU;

// "1st", "2nd", "11th".
std::string ordinal(std::uint64_t number) {
    const auto last = number % 10;
    const auto is_teen = number / 10 % 10 == 1;
    return std::to_string(number) + (is_teen || last == 0 || last > 3 ? "th"
                                     : last == 1                      ? "st"
                                     : last == 2                      ? "nd"
                                                                      : "rd");
}

}  // namespace

Runner::Runner(const RunWith& with, Scene& scene)
    : program_{with.program},
      input_{with.input},
      budget_{with.budget},
      faults_{with.faults},
      scene_{scene},
      memory_{with.program},
      machine_{with.program, memory_, with.faults},
      values_{machine_, memory_, with.faults},
      pictures_{with.files, with.loaded, with.budget, with.faults},
      faces_{with.files, with.loaded, with.budget, with.faults},
      tables_{with.files, with.loaded, with.budget, with.faults},
      kinds_(with.program.nodes.size(), no_number) {
    memory_.random.seed(1);
    views_.push_back({.view = scene.drawing.under({})});
    faults_.set_way([this] { return way(); });
}

// The values that the scene has from outside, as cells of a table with one row.
void Runner::set_outside() {
    auto table = std::make_shared<Table>();
    table->rows.push_back({});
    for (const auto& [name, value] : input_.set) {
        table->columns.push_back(name);
        table->rows[0].cells.push_back(value);
    }
    for (std::size_t i = 0; i < program_.outside.size(); ++i) {
        const auto found = std::find(table->columns.begin(), table->columns.end(), program_.outside[i]);
        if (found == table->columns.end()) continue;
        memory_.slot(0, program_.first_outside + static_cast<std::uint32_t>(i)) = {
            .kind = ValueKind::cell, .index = 0, .y = static_cast<double>(found - table->columns.begin())};
    }
    memory_.tables.push_back(std::move(table));
}

void Runner::run() {
    set_outside();
    memory_.slot(0, frame_slot) = Value::number(input_.frame);
    if (program_.uses_last) memory_.boxes.emplace_back();
    std::size_t file = 0;
    while (next_ < program_.nodes.size() && !budget_.is_spent()) {
        const auto& node = program_.nodes[next_];
        if (node.file != file) faults_.set_file(program_.sources[node.file].name);
        file = node.file;
        budget_.count_statement(node.verb);
        ++next_;
        const auto before = faults_.count();
        try {
            take(node);
        } catch (const LimitError& error) {
            budget_.refuse(node.verb, error);
        }
        if (faults_.count() == before) {
            // A limit may have been met where faults are not reported.
            budget_.check_time(node.verb);
            continue;
        }
        // In a loop the same would be reported over and over.
        const auto is_repeated = std::any_of(blocks_.begin(), blocks_.end(), [&](const OpenBlock& block) {
            return block.is_use || program_.nodes[block.node].kind->block == Block::repeat;
        });
        if (is_repeated) break;
    }
    faults_.set_way({});
    faults_.set_file({});
}

void Runner::take(const Node& node) {
    const auto block = node.kind->block;
    // What is too much behind an end is reported; it ends its block all the same.
    const auto ends = (node.kind->verb == "end" || node.kind->verb == "otherwise") && node.end != no_slot;
    if (!node.is_faulty || ends) {
        const auto marks = memory_.marks();
        (this->*node.kind->take)(node);
        // What only this statement has filled in or mixed is not needed any more.
        if (node.kind->is_done_at_once && node.slot == no_slot) memory_.drop_to(marks);
        return;
    }
    if (node.kind->verb == "palette") has_faulty_palette_ = true;
    // What stands in a faulty group is looked at, as if it were not there.
    if (block == Block::repeat || block == Block::when || block == Block::shape) {
        next_ = node.end + 1;
    } else if (block != Block::none) {
        open(node);
    }
}

void Runner::evaluate(const Node& node) {
    if (evaluated_.size() < node.part_count) evaluated_.resize(node.part_count);
    for (const auto& word : std::span{program_.values}.subspan(node.first_value, node.all_values)) {
        auto* const to = evaluated_.data() + (word.first_part - node.first_part);
        for (std::uint32_t i = 0; i < word.part_count; ++i) {
            machine_.evaluate_to(to[i], program_.parts[word.first_part + i], word, i);
        }
    }
}

ArgumentsOf Runner::arguments_of(std::uint32_t first, std::uint32_t count, const Node& node) const {
    return {.program = program_,
            .given = std::span{program_.arguments}.subspan(first, count),
            .values = evaluated_.data(),
            .first_part = node.first_part};
}

Arguments Runner::arguments(const Node& node) {
    return {arguments_of(node.first_argument, node.argument_count, node), values_, faults_, usual_edge_};
}

GivenValue Runner::given(const Node& node, std::uint32_t number) const {
    const auto& word = program_.values[node.first_value + number];
    return {word, evaluated_.data() + (word.first_part - node.first_part)};
}

std::string Runner::way() const {
    constexpr auto most_told = 8;
    std::string text;
    auto count = 0;
    for (auto number = blocks_.size(); number-- > 0;) {
        const auto& block = blocks_[number];
        const auto& begin = program_.nodes[block.node];
        const auto is_repeat = begin.kind->block == Block::repeat;
        if (!block.is_use && !is_repeat) continue;
        if (++count > most_told) continue;
        // A use is run at the statement that it comes back to.
        const auto& at = block.is_use ? program_.nodes[block.return_to - 1] : begin;
        text += text.empty() ? "in " : ", ";
        text += block.is_use ? "use " + std::string{begin.word.text} : "the " + ordinal(block.done + 1) + " of repeat";
        text += " at line " + std::to_string(at.verb.place.line);
        if (at.file != 0) text += " of " + printable(program_.sources[at.file].name);
    }
    if (count > most_told) text += ", and " + std::to_string(count - most_told) + " more around it";
    if (scene_.frames.count > 1) text += (text.empty() ? "in" : ", in") + (" frame " + std::to_string(input_.frame));
    return text;
}

Scene& Runner::drawn() { return view().pattern ? *view().pattern : scene_; }

Box Runner::drawn_box() { return {.at = {.x = 0, .y = 0}, .size = drawn().size}; }

void Runner::sheet(const Node& node) {
    evaluate(node);
    auto given = arguments(node);
    if (given.has("from")) {
        const auto file = values_.text(given.value("from"));
        const auto picture = file ? pictures_.read(given.word("from"), *file) : nullptr;
        if (!picture) return;
        scene_.picture = kept(picture);
        scene_.size = picture->size();
        const auto& bytes = picture->bytes();
        auto is_opaque = true;
        for (std::size_t i = 3; i < bytes.size(); i += 4) is_opaque = is_opaque && bytes[i] == 255;
        scene_.ground = is_opaque ? gray(255) : Color{.alpha = 0};
    } else {
        const auto size = given.size("size");
        const auto ground = given.has("ink") ? given.color("ink") : std::optional{gray(255)};
        if (!size || !ground) return;
        check_size(*size, given.value("size"));
        scene_.size = *size;
        scene_.ground = *ground;
    }
    memory_.slot(0, width_slot) = Value::number(scene_.size.width);
    memory_.slot(0, height_slot) = Value::number(scene_.size.height);
}

void Runner::check_size(Size size, const GivenValue& at) {
    const auto pixels = pixel_count(size);
    if (pixels > budget_.limits().sheet_pixels) {
        budget_.refuse(at.word(),
                       "the sheet has " + std::to_string(pixels) + " pixels; allowed are " +
                           std::to_string(budget_.limits().sheet_pixels),
                       "sheet_pixels");
    }
}

void Runner::edges(const Node& node) {
    const auto& word = program_.values[node.first_value].word;
    if (word.text == "smooth") {
        usual_edge_ = Edge::smooth;
    } else if (word.text == "crisp") {
        usual_edge_ = Edge::crisp;
    } else {
        faults_.add(word, "unknown edges " + in_quotes(word.text), "allowed are smooth and crisp");
    }
}

void Runner::palette(const Node& node) {
    evaluate(node);
    const auto& first = program_.values[node.first_value];
    if (node.value_count == 1 && program_.parts[first.first_part].kind == Part::Kind::raw) {
        if (const auto* const known = palettes::find(first.word.text)) {
            scene_.palette = *known;
            return;
        }
        const auto names = palettes::names();
        const auto near = nearest_word(first.word.text, {names.begin(), names.end()});
        has_faulty_palette_ = true;
        faults_.add(first.word, "unknown palette " + in_quotes(first.word.text),
                    near.empty() ? "allowed are " + in_words({names.begin(), names.end()}, "and") + ", or colours"
                                 : "did you mean " + in_quotes(near) + "?");
        return;
    }
    std::vector<Color> colors;
    for (std::uint32_t i = 0; i < node.value_count; ++i) {
        if (const auto color = values_.color(given(node, i))) colors.push_back(*color);
    }
    has_faulty_palette_ = true;
    if (colors.size() != node.value_count) return;
    try {
        scene_.palette = Palette{std::move(colors)};
        has_faulty_palette_ = false;
    } catch (const Error& error) {
        faults_.add(node.verb, error.what());
    }
}

}  // namespace coldbrick::inline v0::detail

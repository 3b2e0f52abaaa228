// Statements that say which others are run, and how often: loops, conditions, shapes of one's own, other files.
#include "scene/parse.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

constexpr std::size_t most_nested = 1000;  // blocks in a text

std::string line_of(const Node& node) { return " of line " + std::to_string(node.verb.place.line); }

Word trimmed(const Word& word) {
    auto begin = std::size_t{0};
    auto end = word.text.size();
    while (begin < end && word.text[begin] == ' ') ++begin;
    while (end > begin && word.text[end - 1] == ' ') --end;
    return part_of(word, begin, end);
}

}  // namespace

void ProgramParser::begin_block(const Node& node, std::uint32_t number) {
    if (blocks_.size() == most_nested) {
        budget_.refuse(node.verb, "blocks stand in each other more than 1000 deep", "depth");
    }
    blocks_.push_back({.node = number, .block = node.kind->block});
    if (node.kind->block == Block::when) blocks_.back().branches.push_back(number);
    if (node.kind->block == Block::pattern) {
        if (!node.is_faulty) {
            auto& name = scope_.define(node.word);
            name.is_unfinished = true;
            program_.nodes[number].slot = name.slot;
        }
        scope_.open_block();
    } else if (node.kind->block != Block::repeat && node.kind->block != Block::shape) {
        scope_.open_block();
    } else if (!is_open_) {
        // Those that could be read have begun their block, with the names in it.
        node.kind->block == Block::shape ? scope_.open_shape() : scope_.open_block();
    }
}

void ProgramParser::end(const Statement& statement, Node& node) {
    if (statement.words.size() > 1) faults_.add(statement.words[1], "'end' takes nothing");
    if (!blocks_.empty()) {
        node.end = blocks_.back().node;
        return;
    }
    faults_.add(statement.words[0], "there is nothing to end",
                "'end' closes a clip, move, turn, scale, shear, pattern, repeat, when or shape");
}

// Where blocks and branches end, now that it is known.
void ProgramParser::after_end(const Node& node) {
    const auto number = static_cast<std::uint32_t>(program_.nodes.size() - 1);
    if (blocks_.empty()) return;
    auto& block = blocks_.back();
    if (node.kind->verb == Verb::otherwise) {
        if (block.block != Block::when) return;
        program_.nodes[block.branches.back()].next = number;
        block.branches.push_back(number);
        scope_.close_block();
        scope_.open_block();
        return;
    }
    auto& begin = program_.nodes[block.node];
    program_.nodes[number].end = block.node;
    begin.end = number;
    if (block.block == Block::when) {
        program_.nodes[block.branches.back()].next = number;
        for (const auto branch : block.branches) program_.nodes[branch].end = number;
    }
    if (block.block == Block::shape) {
        const auto slots = scope_.close_shape();
        if (!begin.is_faulty) program_.shapes[begin.definition].slots = slots;
    } else {
        scope_.close_block();
    }
    if (block.block == Block::pattern && begin.slot != no_slot) scope_.find(begin.word.text)->is_unfinished = false;
    blocks_.pop_back();
}

std::uint32_t ProgramParser::loop_name(const Word& name) {
    return is_name(name, false) ? scope_.define(name).slot : no_slot;
}

// repeat 7 as i; repeat from 100 to 700 step 50 as x; repeat row of "berths.csv" as b; each with number n.
void ProgramParser::repeat(const Statement& statement, Node& node) {
    const auto before = faults_.count();
    repeat_words(statement, node);
    if (faults_.count() != before) return;
    // Names are known from here on, in a block of their own.
    scope_.open_block();
    is_open_ = true;
    for (std::size_t i = 1; i + 1 < statement.words.size(); ++i) {
        const auto& word = statement.words[i].text;
        if (word == "as") node.slot = loop_name(statement.words[i + 1]);
        if (word == "number") node.second_slot = loop_name(statement.words[i + 1]);
    }
}

void ProgramParser::repeat_words(const Statement& statement, Node& node) {
    const auto& words = statement.words;
    const auto example = "for example: " + std::string{node.kind->example};
    const auto is_row = words.size() > 1 && words[1].text == "row";
    const auto is_range = words.size() > 1 && words[1].text == "from";
    if (words.size() == 1 || (is_row && (words.size() < 4 || words[2].text != "of"))) {
        faults_.add(
            words[0], "'repeat' does not say how often",
            "for example: repeat 7 as i, repeat from 100 to 700 step 50 as x, repeat row of \"berths.csv\" as b");
        return;
    }
    std::size_t at = is_row ? 4 : is_range ? 1 : 2;
    // In this order: from, to, step; or the number, or the file.
    std::vector<const Word*> values(is_range ? 3 : 1, nullptr);
    if (!is_range) values[0] = is_row ? &words[3] : &words[1];
    std::vector<std::string_view> known{"as", "number"};
    if (is_range) known.insert(known.begin(), {"from", "to", "step"});
    std::vector<std::string_view> seen;
    for (; at < words.size(); at += 2) {
        const auto& word = words[at];
        if (!includes(known, word.text)) {
            faults_.add(word, "unknown keyword " + in_quotes(word.text), suggestion(word.text, known));
            return;
        }
        if (includes(seen, word.text)) return faults_.add(word, in_quotes(word.text) + " is given twice");
        if (at + 1 == words.size()) return faults_.add(word, in_quotes(word.text) + " has no value after it");
        seen.push_back(word.text);
        if (word.text == "from") values[0] = &words[at + 1];
        if (word.text == "to") values[1] = &words[at + 1];
        if (word.text == "step") values[2] = &words[at + 1];
    }
    if (is_range && (values[0] == nullptr || values[1] == nullptr))
        return faults_.add(words[1], "'repeat from' needs 'to'", example);
    if (is_row && !includes(seen, "as"))
        return faults_.add(words[1], "the row has no name", "for example: repeat row of \"berths.csv\" as b");
    for (const auto* const word : values) {
        if (word != nullptr) value(*word, is_row ? Reads::text : Reads::number);
    }
    node.value_count = static_cast<std::uint32_t>(program_.values.size()) - node.first_value;
    node.definition = is_row ? 2 : is_range ? 1 : 0;
}

void ProgramParser::when(const Statement& statement, Node& node) {
    if (statement.words.size() == 1) {
        return faults_.add(statement.words[0], "'when' has no condition after it", "for example: when tide > 3");
    }
    value(rest_of(statement, 1), Reads::number);
    node.value_count = 1;
}

void ProgramParser::otherwise(const Statement& statement, Node& node) {
    const auto& words = statement.words;
    if (blocks_.empty() || blocks_.back().block != Block::when) {
        return faults_.add(words[0], "this 'otherwise' is in no 'when'",
                           blocks_.empty() ? "for example: when tide > 3 ... otherwise ... end"
                                           : "the block that is not ended yet is the " +
                                                 std::string{program_.nodes[blocks_.back().node].verb.text} +
                                                 line_of(program_.nodes[blocks_.back().node]));
    }
    if (blocks_.back().has_last) {
        return faults_.add(words[0], "this comes after an 'otherwise' without condition, and would never be reached");
    }
    blocks_.back().has_last = words.size() == 1;
    if (words.size() == 1) return;
    if (words[1].text != "when" || words.size() == 2) {
        return faults_.add(words[1], "behind 'otherwise' there is nothing, or a condition",
                           "for example: otherwise when tide > 1");
    }
    value(rest_of(statement, 2), Reads::number);
    node.value_count = 1;
}

bool ProgramParser::parameter(const Word& word, ShapeDefinition& definition) {
    const auto sign = word.text.find('=');
    const auto name = trimmed(part_of(word, 0, std::min(sign, word.text.size())));
    if (!is_name(name, true)) return false;
    const auto is_same = [&](const Parameter& other) { return other.name.text == name.text; };
    if (std::any_of(definition.parameters.begin(), definition.parameters.end(), is_same)) {
        faults_.add(name, in_quotes(name.text) + " is given twice");
        return false;
    }
    Parameter parameter{.name = name, .has_usual = sign != std::string_view::npos};
    if (parameter.has_usual) {
        const auto usual = trimmed(part_of(word, sign + 1, word.text.size()));
        if (usual.text.empty()) {
            faults_.add(name, in_quotes(name.text) + " has no value behind '='");
            return false;
        }
        const auto before = faults_.count();
        parameter.usual = compiler_.word(usual, Reads::any);
        if (faults_.count() != before) return false;
    }
    auto& known = scope_.define_quietly(name);
    known.is_reported_if_unused = name.text != "at";  // which moves the shape
    parameter.slot = known.slot;
    definition.parameters.push_back(parameter);
    return true;
}

// shape buoy at, size = 12, tint = red
void ProgramParser::shape(const Statement& statement, Node& node) {
    const auto& words = statement.words;
    if (words.size() == 1) {
        return faults_.add(words[0], "'shape' has no name after it", "for example: " + std::string{node.kind->example});
    }
    if (!is_name(words[1], false)) return;
    auto& known = scope_.define(words[1]);
    known.shape = static_cast<std::uint32_t>(program_.shapes.size());
    node.slot = known.slot;
    node.word = words[1];
    node.definition = known.shape;
    ShapeDefinition definition{.name = words[1], .begin = static_cast<std::uint32_t>(program_.nodes.size())};
    // What stands in it may use it: shapes may draw themselves.
    program_.shapes.push_back(definition);
    const auto before = faults_.count();
    scope_.open_shape();
    is_open_ = true;
    definition.level = scope_.level();
    if (words.size() > 2) {
        const auto list = split_at_commas(rest_of(statement, 2));
        constexpr std::size_t most = 100;
        if (list.size() > most) faults_.add(words[2], "a shape takes at most 100 values");
        for (const auto& word : list) {
            if (faults_.count() == before) parameter(trimmed(word), definition);
        }
    }
    definition.is_faulty = faults_.count() != before;
    program_.shapes[node.definition] = std::move(definition);
}

// use buoy at 361,129 tint green
void ProgramParser::use(const Statement& statement, Node& node) {
    const auto& words = statement.words;
    if (words.size() == 1) {
        return faults_.add(words[0], "'use' has no shape after it", "for example: " + std::string{node.kind->example});
    }
    auto* const known = scope_.find(words[1].text);
    if (known == nullptr || known->shape == no_slot) {
        std::vector<std::string_view> names;
        names.reserve(program_.shapes.size());
        for (const auto& each : program_.shapes) names.push_back(each.name.text);
        const auto near = nearest_word(words[1].text, names);
        return faults_.add(
            words[1], "there is no shape " + in_quotes(words[1].text) + " of your own before this line",
            !near.empty() ? "did you mean " + in_quotes(near) + "?" : "for example: shape buoy at, size = 12");
    }
    known->is_used = true;
    node.word = words[1];
    node.definition = known->shape;
    const auto& parameters = program_.shapes[known->shape].parameters;
    if (program_.shapes[known->shape].is_faulty) return;
    std::vector<std::string_view> names;
    names.reserve(parameters.size());
    for (const auto& each : parameters) names.push_back(each.name.text);
    std::vector<std::string_view> seen;
    for (std::size_t i = 2; i < words.size(); i += 2) {
        const auto found = std::find(names.begin(), names.end(), words[i].text);
        if (found == names.end()) {
            return faults_.add(words[i], in_quotes(words[1].text) + " takes no " + in_quotes(words[i].text),
                               names.empty() ? "it takes nothing" : suggestion(words[i].text, names));
        }
        if (includes(seen, *found)) return faults_.add(words[i], in_quotes(words[i].text) + " is given twice");
        if (i + 1 == words.size()) return faults_.add(words[i], in_quotes(words[i].text) + " has no value after it");
        seen.push_back(*found);
        program_.arguments.push_back({.place = words[i].place,
                                      .keyword = static_cast<std::uint8_t>(found - names.begin()),
                                      .first_value = static_cast<std::uint32_t>(program_.values.size()),
                                      .value_count = 1});
        value(words[i + 1], Reads::any);
        ++node.argument_count;
    }
    for (const auto& each : parameters) {
        if (each.has_usual || includes(seen, each.name.text)) continue;
        faults_.add(words[1], in_quotes("use " + std::string{words[1].text}) + " needs " + in_quotes(each.name.text),
                    "it takes " + in_words(names, "and"));
    }
}

// include "quay-parts.brick"
void ProgramParser::include(const Statement& statement, Node& node) {
    const auto& words = statement.words;
    if (words.size() != 2 || !words[1].text.starts_with('"')) {
        return faults_.add(words.size() > 1 ? words[1] : words[0], "'include' takes the name of a file between quotes",
                           "for example: " + std::string{node.kind->example});
    }
    const auto name = unquoted(words[1].text);
    constexpr std::size_t deepest = 50;
    if (includes(including_, name)) {
        return faults_.add(words[1], "the file " + in_quotes(name) + " includes itself");
    }
    if (including_.size() == deepest) return faults_.add(words[1], "files include each other more than 50 deep");
    const auto rest = budget_.limits().scene_bytes - std::min(text_bytes_, budget_.limits().scene_bytes);
    auto text = files_.text_of(words[1], name, "file", rest);
    constexpr std::size_t most_files = 10'000;
    if (!text) return;
    if (program_.sources.size() > most_files) return faults_.add(words[1], "a scene includes at most 10000 files");
    if (!budget_.spend(text->size(), words[1])) return;
    including_.push_back(name);
    program_.sources.push_back({.name = name, .text = std::move(*text)});
    const auto outer_file = std::exchange(file_, static_cast<std::uint16_t>(program_.sources.size() - 1));
    const auto open = blocks_.size();
    faults_.set_file(program_.sources.back().name);
    scope_.set_file(file_);
    const auto mine = file_;
    read(program_.sources[mine].text);
    if (blocks_.size() > open) {
        const auto& verb = program_.nodes[blocks_.back().node].verb;
        faults_.add(verb, "this " + std::string{verb.text} + " has no end in its file",
                    "write 'end' on a line after it");
    }
    file_ = outer_file;
    scope_.set_file(file_);
    faults_.set_file(program_.sources[file_].name);
    including_.pop_back();
    if (blocks_.size() < open)
        faults_.add(words[1], "the file " + in_quotes(name) + " ends a block that it has not begun");
}

}  // namespace coldbrick::inline v0::detail

#include "scene/parse.hpp"

#include "scene/faces.hpp"
#include "scene/shape_statements.hpp"

#include "coldbrick/color.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

std::string advice_to_begin() { return "begin with, for example: " + std::string{statement_kind("sheet")->example}; }

const Word& beginning() {
    static const Word place{.text = "", .place = {.line = 1, .column = 1}};
    return place;
}

}  // namespace

ProgramParser::ProgramParser(Program& program, SceneFiles& files, SceneBudget& budget, Faults& faults)
    : program_{program},
      files_{files},
      budget_{budget},
      faults_{faults},
      scope_{faults},
      compiler_{program, scope_, faults} {
    for (const auto* const name : {"width", "height", "frame", "progress", "last"}) {
        auto& known = scope_.define_quietly({.text = name, .place = {}});
        known.is_reported_if_unused = false;
        known.is_unfinished = std::string_view{name} != "last";
    }
}

void ProgramParser::parse(std::string_view text, const std::vector<std::string>& outside) {
    program_.sources.push_back({.name = "", .text = std::string{text}});
    program_.first_outside = scope_.slots();
    program_.outside = outside;
    for (const auto& name : program_.outside) {
        scope_.define_quietly({.text = name, .place = {}}).is_reported_if_unused = false;
    }
    scope_.open_block();
    read(program_.sources.back().text);
    for (const auto& open : blocks_) {
        if (budget_.is_spent()) break;
        const auto& word = program_.nodes[open.node].verb;
        faults_.set_file(program_.sources[program_.nodes[open.node].file].name);
        faults_.add(word, "this " + std::string{word.text} + " has no end", "write 'end' on a line after it");
    }
    faults_.set_file({});
    program_.is_whole = blocks_.empty() && !budget_.is_spent();
    if (is_empty_) {
        faults_.add(beginning(), "the scene is empty", advice_to_begin());
    } else if (!sheet_seen_ && !first_reported_) {
        faults_.add(beginning(), "the scene has no sheet", advice_to_begin());
    }
    scope_.close_block();
    for (const auto& name : program_.outside) {
        if (scope_.find(name)->is_used) program_.used.push_back(name);
    }
    program_.slots = scope_.slots();
}

void ProgramParser::read(std::string_view text) {
    text_bytes_ += text.size();
    if (text_bytes_ > budget_.limits().scene_bytes) {
        budget_.refuse(beginning(),
                       "the scene has " + std::to_string(text_bytes_) + " bytes; allowed are " +
                           std::to_string(budget_.limits().scene_bytes),
                       "scene_bytes");
        return;
    }
    StatementReader reader{text, faults_};
    auto before = program_.bytes();
    while (!budget_.is_spent()) {
        const auto statement = reader.next();
        if (!statement) return;
        is_empty_ = false;
        take(*statement);
        const auto now = program_.bytes();
        if (now > before) budget_.spend(now - before, statement->words[0]);
        before = now;
        budget_.check_time(statement->words[0]);
    }
}

// Says so where a statement may not stand.
void ProgramParser::check_place(const Statement& statement, const StatementKind& kind) {
    const auto& verb = statement.words[0];
    if (blocks_.empty() && !sheet_seen_ && !first_reported_ && kind.verb != Verb::sheet && !kind.is_before_sheet) {
        faults_.add(verb, "the first statement must be the sheet", advice_to_begin());
        first_reported_ = true;
    }
    if (kind.is_top_only && !blocks_.empty()) {
        faults_.add(verb, in_quotes(verb.text) + " stands outside of all blocks",
                    "write it before the " + std::string{program_.nodes[blocks_.front().node].verb.text} + " of line " +
                        std::to_string(program_.nodes[blocks_.front().node].verb.place.line));
    }
    if (kind.verb == Verb::sheet && file_ != 0) {
        faults_.add(verb, "an included file has no sheet", "the sheet stands in the scene that includes it");
    } else if (kind.verb == Verb::sheet && sheet_seen_) {
        faults_.add(verb, "the sheet is given twice", "a scene has one sheet, its first statement");
    }
    if (kind.verb == Verb::frames && std::exchange(frames_seen_, frames_seen_ || kind.verb == Verb::frames)) {
        faults_.add(verb, "the frames are given twice", "a scene says once how many it has");
    }
}

void ProgramParser::take(const Statement& statement) {
    const auto& verb = statement.words[0];
    Node node{.kind = statement_kind(verb.text), .verb = verb, .word = {}};
    node.first_argument = static_cast<std::uint32_t>(program_.arguments.size());
    node.first_value = static_cast<std::uint32_t>(program_.values.size());
    node.first_region = static_cast<std::uint32_t>(program_.regions.size());
    node.first_part = static_cast<std::uint32_t>(program_.parts.size());
    node.end = no_slot;
    node.level = scope_.level();
    node.file = file_;
    if (node.kind == nullptr) {
        if (verb.text.starts_with('#')) {
            faults_.add(verb, "a comment begins with //", "write // instead of #");
        } else {
            faults_.add(verb, "unknown statement " + in_quotes(verb.text),
                        suggestion(verb.text, {verb_words.begin(), verb_words.end()}));
        }
        return;
    }
    const auto before = faults_.count();
    is_open_ = false;
    check_place(statement, *node.kind);
    if (statement.sound) take_kind(statement, node);
    if (node.kind->verb == Verb::sheet) {
        sheet_seen_ = true;
        for (const auto* const name : {"width", "height"}) scope_.find(name)->is_unfinished = false;
    }
    node.is_faulty = !statement.sound || faults_.count() != before;
    if (node.is_faulty) define_faulty(statement, *node.kind, node);
    if (node.kind->verb == Verb::include) return;
    node.part_count = static_cast<std::uint32_t>(program_.parts.size()) - node.first_part;
    node.all_values = static_cast<std::uint32_t>(program_.values.size()) - node.first_value;
    const auto number = static_cast<std::uint32_t>(program_.nodes.size());
    program_.nodes.push_back(node);
    if (node.kind->block != Block::none) begin_block(node, number);
    if (node.kind->verb == Verb::end || node.kind->verb == Verb::otherwise) after_end(node);
}

void ProgramParser::take_kind(const Statement& statement, Node& node) {
    if (node.kind->parse != nullptr) {
        (this->*node.kind->parse)(statement, node);
        return;
    }
    const auto begin = head(statement, node);
    if (begin == 0) return;
    const auto before = faults_.count();
    body(statement, begin, node);
    if (faults_.count() == before) define_names(statement, node);
}

// How many words stand before the arguments: verb, shape, name. 0 if there was a fault.
std::size_t ProgramParser::head(const Statement& statement, Node& node) {
    const auto& words = statement.words;
    const auto& kind = *node.kind;
    if (kind.defines()) return name(statement, node);
    if (kind.head == Head::nothing) return 1;
    const auto is_shape = kind.head == Head::shape;
    if (words.size() == 1) {
        faults_.add(
            words[0],
            in_quotes(kind.word()) + " has no " +
                (is_shape                   ? "shape"
                 : kind.verb == Verb::paste ? "picture"
                                            : "value") +
                " after it",
            is_shape ? "allowed are " + in_words(shape_names(), "and") : "for example: " + std::string{kind.example});
        return 0;
    }
    if (is_shape) {
        node.word = words[1];
        node.shape = shape_statement(words[1].text);
    } else {
        if (kind.verb == Verb::frames) {
            // What the rest of the line may ask for.
            for (const auto* const name : {"frame", "progress"}) scope_.find(name)->is_unfinished = false;
        }
        compiler_.expect_text("the name of a picture", "\"quay.png\"");
        value(words[1], kind.verb == Verb::frames ? Reads::number : Reads::text);
        node.value_count = 1;
    }
    return 2;
}

bool ProgramParser::is_name(const Word& word, bool may_be_kept) {
    const auto is_letter = [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; };
    const auto is_plain = [&](char c) { return is_letter(c) || (c >= '0' && c <= '9'); };
    const auto& text = word.text;
    if (text.empty() || !is_letter(text.front()) || !std::all_of(text.begin(), text.end(), is_plain)) {
        faults_.add(word, in_quotes(text) + " is no name",
                    "a name has letters, digits and _, and begins with a letter");
        return false;
    }
    // Keywords and shapes may be names too: where a value stands, the name is meant.
    constexpr auto kept =
        std::to_array<std::string_view>({"and", "frame", "height", "last", "not", "or", "progress", "width"});
    const auto is_kept = includes(kept, text) && !(may_be_kept && (text == "width" || text == "height"));
    const auto is_word = is_kept || statement_kind(text) != nullptr || is_joiner(text) || is_built_in_face(text);
    if (is_word || find_color(text)) {
        faults_.add(word, in_quotes(text) + (is_word ? " is a word of the language" : " is the name of a colour"),
                    "choose another name, such as my_" + std::string{text});
        return false;
    }
    return true;
}

// NAME = at the beginning of a definition, and of a gradient its kind.
std::size_t ProgramParser::name(const Statement& statement, Node& node) {
    const auto& words = statement.words;
    const auto& kind = *node.kind;
    if (words.size() < 3 || words[2].text != "=") {
        faults_.add(words.size() > 1 ? words[1] : words[0], in_quotes(kind.word()) + " needs a name and '='",
                    "for example: " + std::string{kind.example});
        return 0;
    }
    if (!is_name(words[1], false)) return 0;
    node.word = words[1];
    if (kind.head == Head::name) return 3;
    if (kind.head == Head::name_and_face || kind.head == Head::name_and_value) {
        if (words.size() < 4) {
            faults_.add(words[2],
                        kind.head == Head::name_and_face ? "there is no face after '='" : "there is no value after '='",
                        "for example: " + std::string{kind.example});
            return 0;
        }
        value(words[3], kind.head == Head::name_and_face ? Reads::faces : Reads::number);
        node.value_count = 1;
        return 4;
    }
    if (words.size() < 4 || !includes(gradients, words[3].text)) {
        const auto& place = words.size() < 4 ? words[2] : words[3];
        faults_.add(place, words.size() < 4 ? "the gradient has no kind" : "unknown gradient " + in_quotes(place.text),
                    suggestion(words.size() < 4 ? "" : place.text, {gradients.begin(), gradients.end()}));
        return 0;
    }
    return 4;
}

void ProgramParser::body(const Statement& statement, std::size_t begin, Node& node) {
    const auto& words = statement.words;
    const auto& kind = *node.kind;
    const auto key = kind.head == Head::name_and_kind ? std::string{kind.word()} + " " + std::string{words[3].text}
                     : kind.head == Head::shape       ? node.words()
                                                      : std::string{kind.word()};
    const auto& forms = forms_of(key);
    if (kind.body == Body::areas) {
        areas(statement, 1, forms, node);
    } else if (kind.body != Body::arguments) {
        values(statement, begin, node);
    } else if (forms.empty()) {
        refuse_shape(node.word, kind.verb == Verb::stroke, faults_);
    } else if (kind.head == Head::shape && node.word.text == "region") {
        areas(statement, 2, forms, node);
    } else {
        const auto before = faults_.count();
        const auto read = read_arguments(std::span{words}.subspan(begin), forms, scope_, faults_);
        if (faults_.count() == before) {
            check_form({.words = key,
                        .place = kind.head == Head::name_and_kind ? words[3]
                                 : node.word.text.empty()         ? node.verb
                                                                  : node.word,
                        .given = read,
                        .may_repeat_through = node.word.text == "polygon"},
                       forms, faults_);
        }
        if (faults_.count() == before) keep(read, node);
    }
}

void ProgramParser::values(const Statement& statement, std::size_t begin, Node& node) {
    const auto& words = statement.words;
    const auto body = node.kind->body;
    const auto count = words.size() - std::min(begin, words.size());
    const auto most = body == Body::no_value ? 0U : 1U;
    if (count == 0 && body != Body::no_value) {
        faults_.add(words.back(), in_quotes(node.kind->word()) + " has no value after it",
                    "for example: " + std::string{node.kind->example});
        return;
    }
    if (body == Body::line) {
        value(rest_of(statement, begin), Reads::any);
        node.value_count = 1;
        return;
    }
    if (body != Body::values && count > most) {
        faults_.add(words[begin + most],
                    in_quotes(node.kind->word()) + (most == 0 ? " takes nothing" : " takes one value"));
        return;
    }
    const auto is_named_palette = node.kind->verb == Verb::palette && count == 1 &&
                                  !words[begin].text.starts_with('#') && scope_.find(words[begin].text) == nullptr;
    const auto reads = is_named_palette ? Reads::word : node.kind->reads;
    for (auto i = begin; i < words.size(); ++i) value(words[i], reads);
    node.value_count = static_cast<std::uint32_t>(count);
}

void ProgramParser::value(const Word& word, Reads reads) { program_.values.push_back(compiler_.word(word, reads)); }

void ProgramParser::keep(const ReadArgument& read) {
    const auto* const keyword = find_keyword(read.keyword.text);
    const Argument argument{.place = read.keyword.place,
                            .keyword = static_cast<std::uint8_t>(keyword - keywords.data()),
                            .first_value = static_cast<std::uint32_t>(program_.values.size()),
                            .value_count = static_cast<std::uint32_t>(read.values.size())};
    for (const auto& word : read.values) {
        const auto before = faults_.count();
        if (keyword->name == "data") {
            compiler_.expect_text("path data", "data \"M 10,80 C 40,10 65,10 95,80\"");
        } else if (keyword->name == "along") {
            compiler_.expect_text("path data", "along \"M 10,80 C 40,10 65,10 95,80\"");
        } else {
            compiler_.expect_text("words", "fill text \"BERTH 4\" at 44,306 ink white");
        }
        value(word, keyword->reads);
        // A pair with a space in it is reported as such.
        if (faults_.count() != before) break;
    }
    program_.arguments.push_back(argument);
}

void ProgramParser::keep(const std::vector<ReadArgument>& read, Node& node) {
    for (const auto& argument : read) keep(argument);
    node.argument_count = static_cast<std::uint32_t>(program_.arguments.size()) - node.first_argument;
}

// The names that a statement gives: of what it defines, and of the place of what it draws.
void ProgramParser::define_names(const Statement& statement, Node& node) {
    const auto& kind = *node.kind;
    if (kind.defines() && kind.block == Block::none) {
        node.slot = scope_.define(statement.words[1]).slot;
        if (kind.verb == Verb::dial) {
            if (!includes(program_.dials, node.word.text)) program_.dials.emplace_back(node.word.text);
        }
    }
    for (auto i = node.first_argument; i < node.first_argument + node.argument_count; ++i) {
        const auto& argument = program_.arguments[i];
        if (argument.keyword != Key{"as"}.number()) continue;
        const auto& word = program_.values[argument.first_value].word;
        if (is_name(word, false)) node.slot = scope_.define(word).slot;
    }
}

// What a faulty statement would have defined is known, so that its uses are not reported as wrong too.
void ProgramParser::define_faulty(const Statement& statement, const StatementKind& kind, Node& node) {
    const auto is_shape = kind.verb == Verb::shape && statement.words.size() > 1;
    if (is_shape && node.slot != no_slot) program_.shapes[node.definition].is_faulty = true;
    if (is_shape && node.slot == no_slot) {
        auto& known = scope_.define_quietly(statement.words[1]);
        known.is_reported_if_unused = false;
        known.shape = static_cast<std::uint32_t>(program_.shapes.size());
        program_.shapes.push_back({.name = statement.words[1], .is_faulty = true});
        node.definition = known.shape;
    }
    if (kind.defines() && kind.block == Block::none && statement.words.size() > 1 && node.slot == no_slot) {
        scope_.define_quietly(statement.words[1]).is_reported_if_unused = false;
    }
    for (std::size_t i = 1; i + 1 < statement.words.size(); ++i) {
        if (statement.words[i].text == "as" && node.slot == no_slot && kind.block == Block::none) {
            scope_.define_quietly(statement.words[i + 1]).is_reported_if_unused = false;
        }
    }
}

Word ProgramParser::rest_of(const Statement& statement, std::size_t begin) {
    const auto& first = statement.words[begin];
    const auto& last = statement.words.back();
    if (first.place.line == last.place.line) {
        const auto* const end = last.text.data() + last.text.size();
        return {.text = {first.text.data(), static_cast<std::size_t>(end - first.text.data())}, .place = first.place};
    }
    std::string all;
    for (auto i = begin; i < statement.words.size(); ++i) {
        all.append(all.empty() ? "" : " ").append(statement.words[i].text);
    }
    program_.made.push_back(std::move(all));
    return {.text = program_.made.back(), .place = first.place};
}

}  // namespace coldbrick::inline v0::detail

// Words to a tree: statements with verb, shape and arguments.
#pragma once

#include "scene/words.hpp"

#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

// A keyword and its values.
struct Argument {
    Word keyword;
    std::vector<Word> values;
};

// One of the areas that make up a region, and how it is joined to those before: plus, minus, within or xor.
struct RegionPart {
    std::string joiner = "plus";
    bool is_stroked = false;
    Word shape;
    std::vector<Argument> arguments = {};
};

struct ParsedStatement {
    Word verb;
    std::optional<Word> shape;
    std::vector<Argument> arguments;
    std::vector<RegionPart> parts = {};  // of a region, or of a clip
    std::optional<Word> name = {};       // what is defined: of a color, gradient, hatch, pattern
    std::vector<Word> values = {};       // what stands without keyword: of a color, palette, edges

    // "fill circle", "mark", "gradient linear".
    [[nodiscard]] std::string words() const { return shape ? verb.text + " " + shape->text : verb.text; }
};

// The tree of one statement, checked against the grammar: known words, each keyword once, with as many values as it
// takes, and all that the statement needs. Empty if there were faults, then or before.
[[nodiscard]] std::optional<ParsedStatement> parse_statement(const Statement& statement, Faults& faults);

}  // namespace coldbrick::inline v0::detail

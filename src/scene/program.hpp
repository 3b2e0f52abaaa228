// A scene as a tree, ready to be run: statements in a row, blocks with where they end, values as steps of a stack
// machine.
#pragma once

#include "scene/tokens.hpp"
#include "scene/value.hpp"

#include <deque>
#include <string>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

struct StatementKind;
struct ShapeStatement;

// What a step does with the values on top of the stack.
enum class Op : std::uint8_t {
    constant,  // puts one there
    color,
    text,
    load,  // the value of a name
    negate,
    invert,
    add,
    subtract,
    multiply,
    divide,
    power,
    less,
    less_equal,
    greater,
    greater_equal,
    equal,
    unequal,
    both,
    either,
    pair,
    member,  // what follows a point
    call,    // a function
    fill_in  // values into a text
};

struct Step {
    Op op = Op::constant;
    std::uint8_t count = 0;   // of a call: its values
    std::uint16_t level = 0;  // of a name: how many shapes it is in
    std::uint32_t at = 0;     // where in its part of a word it stands, in bytes
    std::uint32_t index = 0;  // of a name: its slot; of a text, member or function: which
    Color color = {};
    double number = 0;
};

// One of the values between commas. Constants need no steps.
struct Part {
    // numeric: steps for numbers alone, that take no more of a stack than numeric_depth.
    enum class Kind : std::uint8_t { faulty, raw, number, color, numeric, steps };
    Kind kind = Kind::faulty;
    bool is_random = false;   // whether its steps take random numbers
    std::uint16_t count = 0;  // of steps
    Color color = {};
    std::uint32_t first = 0;  // of steps, or of a number among the numbers
};

inline constexpr std::size_t numeric_depth = 16;

// A word after a keyword.
struct ValueWord {
    Word word;
    std::uint32_t first_part = 0;
    std::uint32_t part_count = 0;
};

// A keyword and its values.
struct Argument {
    Place place;
    std::uint8_t keyword = 0;  // in the table of keywords
    std::uint32_t first_value = 0;
    std::uint32_t value_count = 0;
};

enum class Joiner : std::uint8_t { plus, minus, within, exclusive };

// One of the areas that make up a region, and how it is joined to those before.
struct RegionPart {
    Joiner joiner = Joiner::plus;
    bool is_stroked = false;
    const ShapeStatement* shape = nullptr;
    Word word;
    std::uint32_t first_argument = 0;
    std::uint32_t argument_count = 0;
};

// A number in a text: with so many digits after the point (-1: as many as it has), so many before it at least.
struct NumberForm {
    int decimals = -1;
    int width = 0;
    char filled_with = ' ';
};

// A text with values in it: what stands between them, and how they are written.
struct Template {
    std::vector<std::string> between;  // one more than values
    std::vector<NumberForm> forms;
    std::vector<std::uint32_t> at;  // where each value begins in the word
};

// What a parameter of a shape of one's own is, or what a repeat counts.
struct Parameter {
    Word name;
    std::uint32_t slot = 0;
    bool has_usual = false;
    ValueWord usual = {};
};

struct ShapeDefinition {
    Word name;
    std::uint32_t begin = 0;  // its statement
    std::uint16_t level = 0;  // of what stands in it
    std::uint32_t slots = 0;
    std::vector<Parameter> parameters = {};
    bool is_faulty = false;
};

constexpr std::uint32_t no_slot = 0xffffffffU;

struct Node {
    const StatementKind* kind = nullptr;
    const ShapeStatement* shape = nullptr;
    Word verb;
    Word word;  // of what is drawn its shape, of a definition its name
    std::uint32_t first_argument = 0;
    std::uint32_t argument_count = 0;
    std::uint32_t first_value = 0;  // without keyword
    std::uint32_t value_count = 0;
    std::uint32_t all_values = 0;  // with those of its arguments
    std::uint32_t first_region = 0;
    std::uint32_t region_count = 0;
    std::uint32_t first_part = 0;  // all values of it
    std::uint32_t part_count = 0;
    std::uint32_t end = 0;                // of what begins a block: its end; of an end: what it ends
    std::uint32_t next = 0;               // of when and otherwise: the one that follows
    std::uint32_t slot = no_slot;         // what it gives a value to
    std::uint32_t second_slot = no_slot;  // of repeat: its number
    std::uint32_t definition = 0;         // of shape and use: which
    std::uint16_t level = 0;              // how many shapes it is in
    std::uint16_t file = 0;               // 0: the scene itself
    bool is_faulty = false;

    // "fill circle", "mark", "gradient linear".
    [[nodiscard]] std::string words() const {
        return word.text.empty() ? std::string{verb.text} : std::string{verb.text} + " " + std::string{word.text};
    }
};

struct SourceText {
    std::string name;  // as an include names it
    std::string text;
};

struct Program {
    std::deque<SourceText> sources;  // the scene, then what it includes, each time
    std::deque<std::string> made;    // texts that words are in and sources have not
    std::vector<Node> nodes;
    std::vector<Argument> arguments;
    std::vector<ValueWord> values;
    std::vector<Part> parts;
    std::vector<Step> steps;
    std::vector<double> numbers;
    std::vector<std::string> texts;
    std::vector<Template> templates;
    std::vector<std::string> members;
    std::vector<RegionPart> regions;
    std::vector<ShapeDefinition> shapes;
    std::vector<std::string> dials;    // their names
    std::vector<std::string> outside;  // names from outside, in the order of their slots
    std::vector<std::string> used;     // of these, those that are asked for
    std::uint32_t first_outside = 0;   // the slot of the first
    std::uint32_t slots = 0;           // of names outside of shapes
    bool is_whole = false;             // whether all blocks have an end, and no limit was met
    bool uses_last = false;            // whether anything asks for the place of what was drawn last

    // About how much memory the tree takes.
    [[nodiscard]] std::size_t bytes() const noexcept {
        return nodes.capacity() * sizeof(Node) + arguments.capacity() * sizeof(Argument) +
               values.capacity() * sizeof(ValueWord) + parts.capacity() * sizeof(Part) +
               steps.capacity() * sizeof(Step) + numbers.capacity() * sizeof(double) +
               regions.capacity() * sizeof(RegionPart) + texts.capacity() * sizeof(std::string);
    }
};

// Names that are always there, in this order of slots.
inline constexpr std::uint32_t width_slot = 0;
inline constexpr std::uint32_t height_slot = 1;
inline constexpr std::uint32_t frame_slot = 2;
inline constexpr std::uint32_t progress_slot = 3;
inline constexpr std::uint32_t last_slot = 4;
inline constexpr std::uint32_t first_own_slot = 5;

}  // namespace coldbrick::inline v0::detail

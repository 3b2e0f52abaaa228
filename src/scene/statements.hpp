// The statements of the language: one entry each says how its line begins, what it takes, and the function that runs
// it.
#pragma once

#include "scene/grammar.hpp"
#include "scene/tokens.hpp"

#include <array>
#include <cstdint>
#include <span>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

struct SceneRun;
class ProgramParser;
struct Node;

enum class Verb : std::uint8_t {
    clip,
    color,
    dial,
    edges,
    end,
    face,
    fill,
    flood,
    frames,
    gradient,
    hatch,
    include,
    let,
    mark,
    measure,
    move,
    otherwise,
    palette,
    paste,
    pattern,
    repeat,
    scale,
    seed,
    shape,
    shear,
    sheet,
    stroke,
    turn,
    use,
    when
};

// Their words, in the same order.
inline constexpr auto verb_words = std::to_array<std::string_view>(
    {"clip",   "color",   "dial", "edges", "end",     "face",  "fill",      "flood",   "frames", "gradient",
     "hatch",  "include", "let",  "mark",  "measure", "move",  "otherwise", "palette", "paste",  "pattern",
     "repeat", "scale",   "seed", "shape", "shear",   "sheet", "stroke",    "turn",    "use",    "when"});
static_assert(static_cast<std::size_t>(Verb::when) + 1 == verb_words.size());

// What stands between the verb and the arguments.
enum class Head : std::uint8_t {
    nothing,
    shape,           // the name of a shape, or "region"
    value,           // a value: a file's name, a number of frames
    name,            // NAME =
    name_and_kind,   // NAME = and the kind of gradient
    name_and_face,   // NAME = and a font file's name, or a face
    name_and_value,  // NAME = and a number
    own              // as the statement says itself
};

// What follows: arguments with keywords; areas that make up a region; or values alone, so many of them; or all of the
// line as one value.
enum class Body : std::uint8_t { arguments, areas, no_value, one_value, values, line };

// What a statement begins.
enum class Block : std::uint8_t { none, group, clip, pattern, repeat, when, shape };

struct StatementKind {
    Verb verb;
    Head head = Head::nothing;
    Body body = Body::arguments;
    std::vector<StatementForm> forms;  // of those with arguments, but for shapes, which say theirs themselves
    std::string_view example;          // how it may be written
    std::string_view form;             // for help: what follows the verb, and what it does
    std::string_view meaning;
    void (*run)(SceneRun& run, const Node& node);                                    // null: it is read and never run
    void (ProgramParser::*parse)(const Statement& statement, Node& node) = nullptr;  // of Head::own
    Block block = Block::none;                                                       // what it begins, that 'end' ends
    Reads reads = Reads::color;    // its values, if it has values alone
    bool is_top_only = false;      // whether it stands in no loop, shape or other block
    bool is_before_sheet = false;  // whether it may stand before the sheet
    bool is_done_at_once = false;  // whether nothing of its values is needed behind it

    [[nodiscard]] std::string_view word() const noexcept { return verb_words[static_cast<std::size_t>(verb)]; }
    [[nodiscard]] bool defines() const noexcept {
        return head == Head::name || head == Head::name_and_kind || head == Head::name_and_face ||
               head == Head::name_and_value;
    }
};

// In the order of their verbs.
[[nodiscard]] std::span<const StatementKind> statement_kinds();

// Null if there is none of that verb.
[[nodiscard]] const StatementKind* statement_kind(std::string_view verb);

// The entries of each group, in a file with what they do.
[[nodiscard]] std::vector<StatementKind> sheet_statements();
[[nodiscard]] std::vector<StatementKind> name_statements();
[[nodiscard]] std::vector<StatementKind> block_statements();
[[nodiscard]] std::vector<StatementKind> drawing_statements();
[[nodiscard]] std::vector<StatementKind> flow_statements();

}  // namespace coldbrick::inline v0::detail

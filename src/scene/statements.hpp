// The statements of the language: one entry each says how its line begins, what it takes, and who does what it says.
#pragma once

#include "scene/grammar.hpp"

#include <span>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

class Evaluator;
struct ParsedStatement;

// What stands between the verb and the arguments.
enum class Head {
    nothing,
    shape,          // the name of a shape, or "region"
    picture,        // a file's name
    name,           // NAME =
    name_and_kind,  // NAME = and the kind of gradient
    name_and_face,  // NAME = and a font file's name, or a face
};

// What follows: arguments with keywords; areas that make up a region; or values alone, so many of them.
enum class Body { arguments, areas, no_value, one_value, values };

struct StatementKind {
    std::string_view verb;
    Head head = Head::nothing;
    Body body = Body::arguments;
    std::vector<StatementForm> forms;  // of those with arguments, but for shapes, which say theirs themselves
    std::string_view example;          // how it may be written
    std::string_view form;             // for help: what follows the verb, and what it does
    std::string_view meaning;
    void (Evaluator::*take)(const ParsedStatement& statement);
    bool has_end = false;  // whether it begins something that 'end' ends

    [[nodiscard]] bool defines() const noexcept {
        return head == Head::name || head == Head::name_and_kind || head == Head::name_and_face;
    }
};

// In the order of their verbs.
[[nodiscard]] std::span<const StatementKind> statement_kinds();

// Null if there is none of that verb.
[[nodiscard]] const StatementKind* statement_kind(std::string_view verb) noexcept;

[[nodiscard]] std::vector<std::string_view> verbs();

}  // namespace coldbrick::inline v0::detail

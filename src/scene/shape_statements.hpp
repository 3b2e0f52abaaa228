// The shapes of the language: one entry each says how it is written and read.
#pragma once

#include "scene/arguments.hpp"
#include "scene/figures.hpp"
#include "scene/grammar.hpp"

#include "coldbrick/figure.hpp"
#include "coldbrick/path.hpp"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

struct ShapeStatement {
    std::string_view name;
    std::string_view form;  // for help: how it is written, and what else there is
    std::string_view meaning;
    std::vector<StatementForm> forms;       // without ink, and without what only filling or stroking takes
    std::vector<std::string_view> filling;  // what else filling takes
    // Read the shape with how it is filled or stroked; false if there are faults. Null: it has no inside.
    bool (*read_filled)(Arguments& given, std::optional<Drawn>& to);
    bool (*read_stroked)(Arguments& given, std::optional<Drawn>& to);
};

[[nodiscard]] std::span<const ShapeStatement> shape_statements();

// Null if there is none of that name.
[[nodiscard]] const ShapeStatement* shape_statement(std::string_view name);

}  // namespace coldbrick::inline v0::detail

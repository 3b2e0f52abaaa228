// Statements to drawing calls.
#pragma once

#include "scene/parse.hpp"
#include "scene/values.hpp"

#include "coldbrick/scene.hpp"

namespace coldbrick::detail {

// Says so if the scene has no statements, or draws before there is a sheet.
void check_start(const std::vector<Statement>& statements, Faults& faults);

// Reads the sheet's size and ground into the scene.
void evaluate_sheet(const ParsedStatement& statement, ValueReader& values, Faults& faults, Scene& scene);

// Adds the call of a drawing statement to the scene, unless it has faults.
void evaluate_drawing(const ParsedStatement& statement, ValueReader& values, Faults& faults, Scene& scene);

}  // namespace coldbrick::detail

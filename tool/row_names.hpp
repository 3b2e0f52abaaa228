// The files into which the rows of a table are drawn.
#pragma once

#include <coldbrick/scene.hpp>
#include <coldbrick/table.hpp>

#include <string>
#include <vector>

namespace coldbrick::tool {

// For each row its file: the pattern, with what stands in braces filled in by the row's cells, or by what is set;
// {frame} is left for the numbers of frames. Throws Error, before anything is drawn, if two rows would have one file,
// if frames of two rows could, or if a cell would lead to another folder; WrongCall for a pattern that is none.
[[nodiscard]] std::vector<std::string> names_of_rows(const Table& table, const std::vector<OutsideValue>& set,
                                                     const std::string& pattern);

}  // namespace coldbrick::tool

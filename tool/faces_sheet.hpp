#pragma once

#include <string>

namespace coldbrick::tool {

// A scene that shows the faces that are always there: words at several heights, and all characters.
std::string faces_sheet();

}  // namespace coldbrick::tool

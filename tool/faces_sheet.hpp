// The sheet that shows faces.
#pragma once

#include <string>
#include <vector>

namespace coldbrick::tool {

// A scene that shows the faces of font files, or, if none is given, those that are always there: words at several
// heights, and all characters. Throws coldbrick::Error for a file that is no font, WrongCall for a name that cannot
// stand in a scene.
std::string faces_sheet(const std::vector<std::string>& fonts);

}  // namespace coldbrick::tool

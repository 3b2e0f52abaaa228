// A scene of everything that can be drawn.
#pragma once

#include <string>

namespace coldbrick::tool {

// Every shape filled and stroked, every kind of stroke, arc, anchor and clip, on ruled paper: as the text of a scene.
std::string shapes_sheet();

}  // namespace coldbrick::tool

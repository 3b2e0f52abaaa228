// Pictures to be looked at: in the terminal, or on a sheet with rulers.
#pragma once

#include "commands.hpp"

#include <coldbrick/coldbrick.hpp>

#include <string>
#include <vector>

namespace coldbrick::tool {

// A picture, or a part of one.
struct Panel {
    std::string title;
    Bitmap<Rgba8> pixels;
    Point origin;  // where its upper left pixel is in the whole
};

// A scene, drawn on a sheet of its own.
[[nodiscard]] Bitmap<Rgba8> picture_of(const Scene& scene);

// A picture file, or a picture of a scene; a file that is neither is a fault.
[[nodiscard]] Bitmap<Rgba8> read_shown(const SceneArguments& arguments, const std::string& path);

// What is behind transparent pixels: squares of two grays, 8 pixels wide.
[[nodiscard]] Color behind(Point pixel) noexcept;

// A distance between marks of a ruler, 1, 2 or 5 times a power of ten, which is at least so long.
[[nodiscard]] int ruler_step(double least) noexcept;

// Characters and colours for a terminal of that size, line by line: next to each other or one below the other, as large
// as it goes. A pixel is a square: of two columns and a line where there is room, else of half a line; else several
// pixels become one.
[[nodiscard]] std::string in_terminal(const std::vector<Panel>& panels, Size terminal);

// The same as a picture, each pixel as a square of so many, with numbered rulers, and lines between pixels where they
// are large. Scale 0: as large as about 1280 by 800 pixels hold.
[[nodiscard]] Bitmap<Rgb8> on_sheet_with_rulers(const std::vector<Panel>& panels, int scale);

}  // namespace coldbrick::tool

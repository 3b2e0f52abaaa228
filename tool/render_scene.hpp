// Scenes to picture files: still, moving, one for each row of a table.
#pragma once

#include "output.hpp"

#include <coldbrick/coldbrick.hpp>

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

namespace coldbrick::tool {

// A picture to be written.
struct Output {
    std::string path;
    int scale;
    SaveOptions options;
    FrameOptions moving;  // of GIF and WebP
};

// Where the pictures go that are asked for.
[[nodiscard]] std::vector<Output> outputs_for(const OutputArguments& arguments);

// Draws one picture of a scene, writes it, and says so; tells remarks, and what does not show.
void draw_still(const Scene& scene, const std::vector<Output>& outputs, FileFormat format, bool is_quiet);

// Which frames of a scene, both ends included.
struct FrameRange {
    int first = 0;
    int last = 0;
};

// Draws frames and writes them to one file, one each, or one stream.
void draw_frames(const SceneProgram& program, const SceneInput& input, const FrameRange& frames,
                 const RenderArguments& arguments, FileFormat format);

// Draws a scene once for each row of a table.
[[nodiscard]] Exit draw_rows(const SceneProgram& program, const Table& table, const std::vector<OutsideValue>& set,
                             const RenderArguments& arguments);

// The text with what stands in braces filled in: {name}, and {name:03} for a number with three digits at least. Throws
// Error for a name that fill() does not know.
template <class Fill>
std::string filled_in(std::string_view text, const Fill& fill) {
    std::string result;
    while (true) {
        const auto open = text.find('{');
        result += text.substr(0, open);
        if (open == std::string_view::npos) return result;
        const auto close = text.find('}', open);
        if (close == std::string_view::npos) throw WrongCall{"-o: a brace is not closed"};
        result += fill(text.substr(open + 1, close - open - 1));
        text.remove_prefix(close + 1);
    }
}

// Calls draw(bitmap) with a new sheet in the format that suits a scene and a file.
template <class Draw>
void on_sheet(const Scene& scene, FileFormat format, const Draw& draw) {
    const auto is_gray = format == FileFormat::pgm || format == FileFormat::pbm;
    if (scene.palette && !is_gray) {
        draw(scene.sheet<Index8>());
    } else if (is_gray) {
        draw(scene.sheet<Gray8>());
    } else if (scene.ground.alpha == 255) {
        draw(scene.sheet<Rgb8>());
    } else {
        draw(scene.sheet<Rgba8>());
    }
}

}  // namespace coldbrick::tool

// Scenes to picture files: still, moving, one for each row of a table.
#pragma once

#include "output.hpp"
#include "shown.hpp"

#include <coldbrick/coldbrick.hpp>

#include <chrono>
#include <cstdint>
#include <filesystem>
#include <optional>
#include <sstream>
#include <string>
#include <vector>

#include <fmt/core.h>

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

// Whether a picture of a scene can be written row by row as it is drawn, as far as its outputs say so.
[[nodiscard]] bool can_stream(const std::vector<Output>& outputs, FileFormat format);

// What a scene's sheet may be: where it is kept, as many pixels as the limit says; where it is streamed, as many bytes
// as may be written, and the time that there is grows with it unless a limit is given for it. Throws Error for more.
void limit_sheet(Scene& scene, const std::vector<Output>& outputs, FileFormat format,
                 const std::vector<std::string>& limits);

// Draws one picture of a scene, writes it, and says so. What of it shows is put into the last.
void draw_still(const Scene& scene, const std::vector<Output>& outputs, FileFormat format, bool is_quiet, Shown& shown);

// Throws Error once the frames of a film have taken longer than they may.
class FilmWatch {
  public:
    explicit FilmWatch(const std::vector<std::string>& limits) : most_{film_seconds(limits)} {}
    void check(const std::string& picture) const {
        if (std::chrono::duration<double>{std::chrono::steady_clock::now() - begin_}.count() <= most_) return;
        throw Error{
            fmt::format("{}: its frames have taken longer than the {:g} seconds that they may (limit film_seconds)",
                        printable(picture), most_)};
    }

  private:
    double most_;
    std::chrono::steady_clock::time_point begin_ = std::chrono::steady_clock::now();
};

// Which frames of a scene, both ends included.
struct FrameRange {
    int first = 0;
    int last = 0;
};

// Draws frames and writes them to one file, one each, or one stream; any one of them has the sheet's size.
void draw_frames(const SceneProgram& program, const Scene& scene, const SceneInput& input, const FrameRange& frames,
                 const RenderArguments& arguments, FileFormat format);

// Draws a scene once for each row of a table.
[[nodiscard]] Exit draw_rows(const SceneProgram& program, const Table& table, const std::vector<OutsideValue>& set,
                             const RenderArguments& arguments);

// Calls draw() within what is left of a scene's limits, for all that is done with one picture of it.
template <class Draw>
void within_limits(const Scene& scene, const Draw& draw) {
    Budget budget{scene.limits, scene.spent};
    budget.name_memory("scene_memory");
    budget.run(draw);
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

// How frames are written: as the arguments say of GIF and WebP.
[[nodiscard]] FrameOptions frame_options(const SaveArguments& arguments, const SaveOptions& stills);

// A new sheet of the format that another one has.
template <PixelFormat Format>
Bitmap<Format> sheet_as(const Scene& scene, const Bitmap<Format>& /*like*/) {
    return scene.sheet<Format>();
}

// GIF has few colours, which are chosen as for moving pictures; so is WebP with loss.
template <class Picture>
std::vector<std::uint8_t> in_one_frame(const Picture& picture, const FrameOptions& options, FileFormat format) {
    std::ostringstream stream;
    FrameWriter writer{stream, format, options};
    writer.add(picture, 0);
    writer.finish();
    const auto bytes = stream.str();
    return {bytes.begin(), bytes.end()};
}

template <class Picture>
std::vector<std::uint8_t> encoded(const Picture& picture, const Output& output, FileFormat format) {
    try {
        if (format == FileFormat::gif || (format == FileFormat::webp && output.moving.quality)) {
            return in_one_frame(picture, output.moving, format);
        }
        return encode(picture, format, output.options);
    } catch (const Error& error) {
        throw Error{
            fmt::format("{}: {}", output.path == "-" ? "standard output" : printable(output.path), error.what())};
    }
}

// A drawn sheet, as large as it is to be written.
template <class Picture, class Use>
void scaled(const Picture& picture, int scale, const Use& use) {
    if (scale == 1) return use(picture);
    use(enlarge(picture, scale));
}

}  // namespace coldbrick::tool

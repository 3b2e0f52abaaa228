// coldbrick/scene.hpp - scenes: pictures described as text, one statement a line.
//
//     const auto scene = parse_scene("sheet size 72,45 ink navy\n"
//                                    "fill  circle center 36,22 radius 9 ink gold\n", "moon.brick");
//     auto picture = scene.sheet<Rgb8>();       // a bitmap of the scene's size, in its ground's colour
//     auto touched = render(scene, picture);    // for each drawing call the box that it touched
//
//     const auto tide = parse_program("sheet size 72,45\n"       // read once, drawn many times:
//                                     "dial level = 3 from 0 to 6\n"
//                                     "frames 40 rate 20\n"
//                                     "fill box at frame,level size 4,4 ink teal\n");
//     for (int i = 0; i < 40; ++i) {
//         use(tide.evaluate({.frame = i, .set = {{"level", "4"}}}));
//     }
//
// docs/scene-language.md describes the language. A scene is parsed to a tree of statements with their places, this is
// evaluated to a Drawing (drawing.hpp), and that is drawn: all of it, or what of it lies in a view's clip.
// Link coldbrick::scene.
#pragma once

#include "coldbrick/budget.hpp"
#include "coldbrick/compose.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/drawing.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/explain.hpp"
#include "coldbrick/files.hpp"
#include "coldbrick/load.hpp"

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// A place in a scene's text, both from 1; columns count characters, not bytes.
struct Place {
    int line = 0;
    int column = 0;
    friend constexpr bool operator==(const Place&, const Place&) = default;
};

// Something wrong in a scene.
struct Fault {
    Place place;
    int length = 1;         // how many characters are wrong, from the place on
    std::string what;       // what is wrong
    std::string advice;     // what would be right; empty where what says it all
    std::string way = {};   // through what: "in use buoy at line 40, the 3rd of repeat at line 38"; empty outside
    std::string file = {};  // the included file that the place is in, as the scene names it; empty: the scene itself
};

// The faults of a scene; what() shows them all, as report() does.
class SceneError : public Error {
  public:
    SceneError(const std::string& report, std::vector<Fault> faults) : Error{report}, faults_{std::move(faults)} {}
    [[nodiscard]] const std::vector<Fault>& faults() const& noexcept { return faults_; }
    [[nodiscard]] std::vector<Fault> faults() && noexcept { return std::move(faults_); }

  private:
    std::vector<Fault> faults_;
};

// What a scene may take: a scene from a stranger cannot hang or fill the machine. No honest one comes near the values
// that are set here.
struct SceneLimits {
    std::uint64_t scene_bytes = std::uint64_t{1} << 25U;  // of the text, with what it includes
    std::uint64_t statements = 20'000'000;                // that are run for a picture, each time counted
    std::uint64_t calls = 5'000'000;                      // drawing calls of a picture
    std::uint64_t depth = 1'000;                          // of loops, shapes and other blocks in each other
    std::uint64_t frames = 100'000;
    std::uint64_t sheet_pixels = std::uint64_t{1} << 26U;  // width times height of the sheet
    // In bytes, of a picture: of the tree, of patterns, pictures, texts, drawing calls and clips, and of what drawing
    // takes at a time, besides the sheet.
    std::uint64_t scene_memory = std::uint64_t{1} << 29U;
    double seconds = 60;                           // to read a picture and to draw it, together
    std::uint64_t work = std::uint64_t{1} << 40U;  // for the same, in steps (budget.hpp)
    LoadLimits pictures = {.pixels = std::uint64_t{1} << 26U, .memory = std::uint64_t{1} << 29U};  // of each
    std::vector<std::string> files_from = {};  // folders from which files may be read, besides the scene's own
};

// Something to be noticed in a scene that is no fault: a text that hangs over the sheet, a name that is never used.
struct Remark {
    Place place;
    std::string what;
    std::string file = {};  // as of a Fault
};

// What a scene says of its frames. One that says nothing has one.
struct SceneFrames {
    int count = 1;
    double rate = 0;  // frames a second; 0 where the scene says nothing of frames
    int loops = 0;    // how often they are played; 0 for again and again
    double time = 0;  // for how many seconds this frame is shown: 1 / rate, or what the scene says
};

// A number of a scene that may be set from outside.
struct Dial {
    std::string name;
    double value = 0;  // what it is now
    double from = 0;
    double to = 0;
    double step = 0;  // 0: any number
    Place place = {};
};

// A scene that can be drawn.
struct Scene {
    std::string name;  // as given to parse_scene; stands before places in messages
    Size size;
    Color ground;
    Drawing drawing;                                        // its calls, with the places of their statements
    std::vector<std::string> kinds = {};                    // verbs and shapes, such as "stroke circle"
    std::optional<Palette> palette = std::nullopt;          // if the scene names one
    detail::Shared<detail::KeptPicture> picture = nullptr;  // the ground, if it is a picture
    DrawLimits limits = {};                                 // of drawing it
    DrawLimits spent = nothing_spent;                       // of them, by reading it
    std::vector<Remark> remarks = {};
    SceneFrames frames = {};
    std::vector<Dial> dials = {};
    std::vector<std::string> files = {};  // what it includes, as the scene names them

    // Which kind a call of the drawing is, and where its statement begins.
    [[nodiscard]] const std::string& kind_of(std::size_t number) const {
        return kinds[static_cast<std::size_t>(drawing[number].tag() & 0xffffffffU)];
    }
    // The included file that its statement stands in; empty for the scene itself.
    [[nodiscard]] std::string file_of(std::size_t number) const {
        const auto file = static_cast<std::size_t>(drawing[number].tag() >> 32U);
        return file == 0 ? std::string{} : files[file - 1];
    }
    [[nodiscard]] Place place_of(std::size_t number) const noexcept {
        return {.line = drawing[number].place().line, .column = drawing[number].place().column};
    }

    // A new bitmap for the scene. Throws Error if the size is over what a Bitmap may have.
    template <PixelFormat Format>
    [[nodiscard]] Bitmap<Format> sheet() const {
        auto bitmap = empty_sheet<Format>();
        if (picture) paste_ground(detail::SurfaceAccess::of(bitmap));
        return bitmap;
    }
    // Puts the picture that is the ground on pixels of a sheet.
    void paste_ground(const detail::Surface& sheet) const {
        constexpr auto as_it_is = Paste{.compositing = {.blend = Blend::replace}};
        detail::paste(sheet, picture->surface, as_it_is, Transform{});
    }

  private:
    template <PixelFormat Format>
    [[nodiscard]] Bitmap<Format> empty_sheet() const {
        if constexpr (std::is_same_v<Format, Index8>) {
            return Bitmap<Index8>{size, palette.value_or(palettes::quay()), ground};
        } else {
            return Bitmap<Format>{size, ground};
        }
    }
};

// The most faults that are reported at once.
inline constexpr int max_faults = 20;

// Reads a scene, and the pictures that it names, relative to the folder (empty: the current one). It reads ordinary
// files only, below that folder and those that the limits name, links followed. Throws SceneError with the faults, the
// first max_faults of them, if there are any; a limit that is met is a fault that names it.
[[nodiscard]] Scene parse_scene(std::string_view text, std::string_view name = "scene", std::string_view folder = {},
                                const SceneLimits& limits = {});

// A value from outside: what a dial is set to, or a name that the scene may use, such as a column of a table. Text that
// is a number or a colour is one wherever the scene needs one.
struct OutsideValue {
    std::string name;
    std::string value;
};

// Which picture of a scene.
struct SceneInput {
    int frame = 0;
    std::vector<OutsideValue> set = {};
};

namespace detail {

struct LoadedProgram;

}  // namespace detail

// A scene that has been read and can be evaluated many times, from several threads too; a copy refers to the same one.
class SceneProgram {
  public:
    // The calls of one picture. Throws SceneError with the fault that was met, or the first max_faults of them; Error
    // if a frame is asked for that there is not, or a value is given for a name that the scene does not have.
    [[nodiscard]] Scene evaluate(const SceneInput& input = {}) const;

    // The names of its dials, in the order of the text.
    [[nodiscard]] std::vector<std::string> dials() const;

    // Whether it has a dial of that name, or uses it as a name from outside.
    [[nodiscard]] bool uses(std::string_view name) const;

  private:
    friend SceneProgram parse_program(std::string_view text, std::string_view name, std::string_view folder,
                                      const SceneLimits& limits, const std::vector<std::string>& outside);
    explicit SceneProgram(std::shared_ptr<const detail::LoadedProgram> loaded) : loaded_{std::move(loaded)} {}

    std::shared_ptr<const detail::LoadedProgram> loaded_;
};

// Reads a scene and what it includes, without drawing; the rest as for parse_scene. The names from outside can be used
// in it, and have no value before evaluate() is given one.
[[nodiscard]] SceneProgram parse_program(std::string_view text, std::string_view name = "scene",
                                         std::string_view folder = {}, const SceneLimits& limits = {},
                                         const std::vector<std::string>& outside = {});

namespace detail {

// Draws the calls in turn, and reports each. Throws LimitError once it has taken more than the scene may.
void render(const Scene& scene, const Surface& surface, const ReportTouched& report);
Box render_in_bands(const Scene& scene, const Surface& surface, int threads);
DrawCalls draw_calls(const Scene& scene);

}  // namespace detail

// Draws the calls of a scene in turn, on the target as it is; returns for each the box that it touched, empty where it
// touched nothing. Throws LimitError when it takes more than Scene::limits: what comes before has been drawn then.
template <detail::PixelTarget T>
std::vector<Box> render(const Scene& scene, T&& target) {
    std::vector<Box> all;
    all.reserve(scene.drawing.size());
    detail::render(scene, detail::SurfaceAccess::of(target), [&](std::size_t, const Box& box) { all.push_back(box); });
    return all;
}

// The same on several threads, as for drawings (drawing.hpp); gives the box around all that was touched.
template <detail::PixelTarget T>
Box render(const Scene& scene, T&& target, const Threads& on) {
    return detail::render_in_bands(scene, detail::SurfaceAccess::of(target), on.threads);
}

// Draws a scene on its own sheet and writes it, some rows at a time, without ever having the picture in memory as a
// whole (save_drawing.hpp). Throws Error as that and render() do.
void save(const Scene& scene, const FilePath& path, FileFormat format, const SaveOptions& options = {});

// The same as the first, and calls report(number, box) for each call as soon as it is drawn.
template <detail::PixelTarget T, class Report>
requires std::invocable<const Report&, std::size_t, const Box&>
void render(const Scene& scene, T&& target, const Report& report) {
    detail::render(scene, detail::SurfaceAccess::of(target),
                   [&](std::size_t number, const Box& touched) { report(number, touched); });
}

// The same as for drawings (explain.hpp), in the time that the scene may take. Without a picture: on the scene's own
// sheet, in Rgba8 or, where the scene names a palette, Index8.
template <detail::PixelTarget T>
void render(const Scene& scene, T&& target, Owners& owners) {
    detail::render_owned(scene.drawing, detail::SurfaceAccess::of(target), owners, detail::draw_calls(scene));
}
template <detail::PixelTarget T>
Explanation render_explained(const Scene& scene, T&& target) {
    return detail::explain(scene.drawing, detail::SurfaceAccess::of(target), detail::draw_calls(scene));
}
// Calls after_call() as soon as a call is drawn: each is drawn twice.
template <detail::PixelTarget T, std::invocable AfterCall>
Explanation render_explained(const Scene& scene, T&& target, const AfterCall& after_call) {
    const auto draw = [&](const detail::Surface& surface, const detail::ReportTouched& report) {
        detail::render(scene, surface, [&](std::size_t number, const Box& touched) {
            report(number, touched);
            after_call();
        });
    };
    return detail::explain(scene.drawing, detail::SurfaceAccess::of(target), draw);
}
[[nodiscard]] Explanation explain(const Scene& scene);
// For each call of a scene, what of the box around it lies on the sheet and in its clip; in the time of drawing it.
[[nodiscard]] std::vector<Box> bounds_on_sheet(const Scene& scene);
[[nodiscard]] PixelStory explain(const Scene& scene, Point pixel);

// The fault as text: "name:line:column: what is wrong", the line itself, a mark under the place, where it was used, and
// the advice. The text is that of the file that the fault is in.
[[nodiscard]] std::string report(const Fault& fault, std::string_view text, std::string_view name);

// All statements and shapes of the language, a line or more each: how they are written, and what they do.
[[nodiscard]] std::string scene_usage();

// For a call that touched no pixel, one line "name:line:column: nothing of this shows: ..." with the reason.
[[nodiscard]] std::string explain_unseen(const Scene& scene, std::size_t number);

// The same for a call that is not seen for whatever reason, with the reason: what covers it, or that its ink is
// transparent, or the colour that was there already.
[[nodiscard]] std::string explain_unseen(const Scene& scene, std::size_t number, const CallStory& story);

// The one of the known words that comes nearest to a mistyped one; empty where none is near.
[[nodiscard]] std::string_view nearest_word(std::string_view word, const std::vector<std::string_view>& known);

}  // namespace v0
}  // namespace coldbrick

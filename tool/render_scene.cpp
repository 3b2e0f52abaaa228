#include "render_scene.hpp"

#include "jobs.hpp"
#include "progress.hpp"

#include <algorithm>
#include <charconv>
#include <iostream>
#include <map>
#include <set>
#include <sstream>
#include <tuple>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

// GIF has few colours: they are chosen, as for moving pictures.
FrameOptions frame_options(const SaveArguments& arguments, const SaveOptions& stills) {
    FrameOptions options{.stills = stills};
    if (arguments.one_palette) options.palettes = FrameOptions::Palettes::all;
    options.colors = arguments.colors.value_or(256);
    if (arguments.dithering == "none") options.dithering = Dithering::none;
    if (arguments.dithering == "ordered") options.dithering = Dithering::ordered;
    options.quality = arguments.quality;
    return options;
}

std::vector<Output> outputs_for(const OutputArguments& arguments) {
    constexpr auto largest_scale = 1024;
    const auto several = arguments.scales.size() > 1;
    if (several && arguments.picture == "-") {
        throw WrongCall{"--scale gives several pictures, but standard output takes one; name a file"};
    }
    const auto options = options_for(arguments);
    std::vector<Output> outputs;
    for (const auto scale : arguments.scales) {
        if (scale < 1 || scale > largest_scale) {
            throw WrongCall{fmt::format("--scale is {}; allowed is 1 to {}", scale, largest_scale)};
        }
        auto path = std::filesystem::path{arguments.picture};
        if (several && scale > 1) {
            path.replace_filename(fmt::format("{}-x{}{}", path.stem().string(), scale, path.extension().string()));
        }
        outputs.push_back(
            {.path = path.string(), .scale = scale, .options = options, .moving = frame_options(arguments, options)});
    }
    return outputs;
}

namespace {

using Statement = std::tuple<std::string, int, int>;  // file, line, column

// What of a scene shows: of each statement whether one of its calls does, and how many do not.
class Shown {
  public:
    void note(const Scene& scene, const std::vector<Box>& touched) {
        for (std::size_t i = 0; i < touched.size(); ++i) {
            auto& entry = statements_[statement_of(scene, i)];
            entry.is_shown = entry.is_shown || !touched[i].empty();
            ++entry.calls;
            shown_ += touched[i].empty() ? 0 : 1;
        }
        all_ += touched.size();
    }

    [[nodiscard]] std::string summary() const { return fmt::format("{} of {} drawings show", shown_, all_); }

    // Remarks, and what does not show, as one frame of a scene tells it.
    void warn(const Scene& scene) const {
        constexpr auto most = 20;
        auto told = 0;
        for (const auto& [place, what, file] : scene.remarks) {
            if (++told > most) break;
            fmt::print(stderr, "{}:{}:{}: {}\n", printable(file.empty() ? scene.name : file), place.line, place.column,
                       what);
        }
        if (told > most) fmt::print(stderr, "... and {} more remarks\n", scene.remarks.size() - most);
        auto unseen = 0;
        std::set<Statement> seen;
        for (std::size_t i = 0; i < scene.drawing.size(); ++i) {
            const auto statement = statement_of(scene, i);
            const auto& entry = statements_.at(statement);
            if (entry.is_shown || !seen.insert(statement).second || ++unseen > most) continue;
            const auto often = entry.calls > 1 ? fmt::format(" (the first of {} times)", entry.calls) : "";
            fmt::print(stderr, "{}{}\n", explain_unseen(scene, i), often);
        }
        if (unseen > most) fmt::print(stderr, "... and {} more of which nothing shows\n", unseen - most);
    }

  private:
    struct Entry {
        bool is_shown = false;
        std::size_t calls = 0;
    };

    static Statement statement_of(const Scene& scene, std::size_t number) {
        const auto place = scene.place_of(number);
        return {scene.file_of(number), place.line, place.column};
    }

    std::map<Statement, Entry> statements_;
    std::size_t shown_ = 0;
    std::size_t all_ = 0;
};

}  // namespace

void draw_still(const Scene& scene, const std::vector<Output>& outputs, FileFormat format, bool is_quiet) {
    on_sheet(scene, format, [&](auto sheet) {
        std::vector<Box> touched;
        {
            Progress progress{"drawings", scene.drawing.size(), is_quiet};
            render(scene, sheet, [&](std::size_t number, const Box& box) {
                touched.push_back(box);
                progress.tell(number);
            });
        }
        Shown shown;
        shown.note(scene, touched);
        if (outputs.empty() && !is_quiet) {
            fmt::print("{}: {} x {} pixels, {}; nothing is written (-o PICTURE writes it)\n", printable(scene.name),
                       sheet.size().width, sheet.size().height, shown.summary());
        }
        for (const auto& output : outputs) {
            scaled(sheet, output.scale, [&](const auto& picture) {
                const auto bytes = encoded(picture, output, format);
                put_file(
                    output.path, bytes,
                    fmt::format("{} x {} pixels, {}", picture.size().width, picture.size().height, shown.summary()),
                    is_quiet);
            });
        }
        shown.warn(scene);
    });
}

namespace {

// Frames drawn and not written yet.
template <class Sheet>
struct DrawnFrame {
    Sheet sheet;
    double seconds;
    std::vector<Box> touched;
    Scene scene;
};

template <class Sheet, class MakeSheet>
void write_frames(const SceneProgram& program, const SceneInput& input, const FrameRange& frames,
                  const RenderArguments& arguments, FrameWriter& writer, const MakeSheet& make_sheet) {
    const auto count = static_cast<std::size_t>(frames.last - frames.first) + 1;
    Progress progress{"frames", count, arguments.quiet};
    const FilmWatch watch{arguments.limits};
    Shown shown;
    std::optional<Scene> first;
    in_order(
        count, thread_count(arguments.threads),
        [&](std::size_t i) {
            auto of = input;
            of.frame = frames.first + static_cast<int>(i);
            auto scene = program.evaluate(of);
            auto sheet = make_sheet(scene);
            auto touched = render(scene, sheet);
            const auto seconds = scene.frames.rate > 0 ? scene.frames.time : 0;
            return DrawnFrame<Sheet>{std::move(sheet), seconds, std::move(touched), std::move(scene)};
        },
        [&](std::size_t i, DrawnFrame<Sheet> frame) {
            shown.note(frame.scene, frame.touched);
            scaled(frame.sheet, arguments.scales.front(),
                   [&](const auto& picture) { writer.add(picture, frame.seconds); });
            if (!first) first = std::move(frame.scene);
            progress.tell(i + 1);
            watch.check(arguments.picture);
        });
    shown.warn(*first);
}

}  // namespace

void draw_frames(const SceneProgram& program, const Scene& scene, const SceneInput& input, const FrameRange& frames,
                 const RenderArguments& arguments, FileFormat format) {
    if (arguments.scales.size() > 1) throw WrongCall{"--scale: of moving pictures one is written; name one scale"};
    (void)outputs_for(arguments);  // which checks the scale
    auto options = frame_options(arguments, options_for(arguments));
    options.loops = scene.frames.loops;
    options.first_number = frames.first;
    const auto is_stream = arguments.picture == "-";
    auto writer = is_stream ? FrameWriter{std::cout, format, options} : FrameWriter{arguments.picture, format, options};
    on_sheet(scene, format, [&](auto sheet) {
        using Sheet = decltype(sheet);
        const auto make_sheet = [&](const Scene& one) { return sheet_as(one, sheet); };
        write_frames<Sheet>(program, input, frames, arguments, writer, make_sheet);
    });
    const auto bytes = writer.finish();
    if (arguments.quiet) return;
    const auto count = frames.last - frames.first + 1;
    fmt::print(is_stream ? stderr : stdout, "{}: {} x {} pixels, {} frames{}{}\n",
               is_stream ? "standard output" : printable(arguments.picture),
               scene.size.width * arguments.scales.front(), scene.size.height * arguments.scales.front(), count,
               scene.frames.rate > 0 ? fmt::format(", {:g} a second", scene.frames.rate) : "",
               bytes > 0 ? fmt::format(", {} bytes", bytes) : "");
}

}  // namespace coldbrick::tool

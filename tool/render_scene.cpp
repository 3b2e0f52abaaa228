#include "render_scene.hpp"

#include "progress.hpp"
#include "shown.hpp"

#include <coldbrick/detail/jobs.hpp>

#include <algorithm>
#include <charconv>
#include <iostream>
#include <sstream>
#include <vector>

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

// Draws a scene, calls then_drawn() after each call, and notes what of it shows.
template <class Sheet, class Drawn>
void draw_shown(const Scene& scene, Sheet& sheet, Shown& shown, const Drawn& then_drawn) {
    shown.note(scene, render_explained(scene, sheet, then_drawn));
}

// Of a sheet that is not explained, what reaches into it.
void note_bounds(const Scene& scene, Shown& shown) { shown.note(scene, bounds_on_sheet(scene)); }

// Whether a picture is so large that its rows are written as they are drawn, and can be.
bool is_streamed(const Scene& scene, const std::vector<Output>& outputs, FileFormat format) {
    return !is_explained(scene) && !scene.drawing.has_flood() && can_stream(outputs, format);
}

std::string summary_of(Size size, const Shown& shown) {
    return fmt::format("{} x {} pixels, {}", size.width, size.height, shown.summary());
}

void stream_still(const Scene& scene, const std::vector<Output>& outputs, FileFormat format, bool is_quiet,
                  const Shown& shown) {
    for (const auto& output : outputs) {
        save(scene, output.path, format, output.options);
        if (is_quiet) continue;
        fmt::print("{}: {}, {} bytes\n", printable(output.path), summary_of(scene.size, shown),
                   std::filesystem::file_size(output.path));
    }
}

}  // namespace

bool can_stream(const std::vector<Output>& outputs, FileFormat format) {
    const auto can_be = [](const Output& output) {
        return output.path != "-" && output.scale == 1 && output.options.storage != Storage::fewest_bits;
    };
    return !outputs.empty() && saves_by_rows(format) && std::all_of(outputs.begin(), outputs.end(), can_be);
}

void limit_sheet(Scene& scene, const std::vector<Output>& outputs, FileFormat format,
                 const std::vector<std::string>& limits) {
    const auto pixels = static_cast<std::uint64_t>(scene.size.width) * static_cast<std::uint64_t>(scene.size.height);
    const auto kept = scene_limits(limits).sheet_pixels;
    if (pixels <= kept) return;
    if (!is_streamed(scene, outputs, format)) {
        throw Error{
            fmt::format("{}: the sheet has {} pixels; allowed are {} where it is not written row by row as it is "
                        "drawn (limit sheet_pixels)",
                        printable(scene.name), pixels, kept)};
    }
    const auto is_gray = format == FileFormat::pgm || format == FileFormat::pbm;
    const auto bytes = pixels * (is_gray || scene.palette ? 1 : 3);
    if (bytes > written_bytes(limits)) {
        throw Error{
            fmt::format("{}: the picture has {} bytes before it is compressed; allowed are {} (limit written_bytes)",
                        printable(scene.name), bytes, written_bytes(limits))};
    }
    if (!is_limited(limits, "seconds")) scene.limits.seconds *= static_cast<double>(pixels) / static_cast<double>(kept);
}

void draw_still(const Scene& scene, const std::vector<Output>& outputs, FileFormat format, bool is_quiet,
                Shown& shown) {
    within_limits(scene, [&] {
        // What is hidden takes two more drawings to find, so it is looked for only where it is printed.
        const auto looks_for_hidden = is_explained(scene) && !is_quiet;
        if (!looks_for_hidden) note_bounds(scene, shown);
        if (is_streamed(scene, outputs, format)) return stream_still(scene, outputs, format, is_quiet, shown);
        on_sheet(scene, format, [&](auto sheet) {
            if (looks_for_hidden) {
                // Drawn twice: to find what covers what, and to see what changes.
                Progress progress{"drawings", 2 * scene.drawing.size(), is_quiet};
                std::size_t drawn = 0;
                draw_shown(scene, sheet, shown, [&] { progress.report(++drawn); });
            } else {
                (void)render(scene, sheet, {.threads = outputs.empty() ? 1 : outputs.front().options.threads});
            }
            if (outputs.empty() && !is_quiet) {
                fmt::print("{}: {}; nothing is written (-o PICTURE writes it)\n", printable(scene.name),
                           summary_of(sheet.size(), shown));
            }
            for (const auto& output : outputs) {
                scaled(sheet, output.scale, [&](const auto& picture) {
                    put_file(output.path, encoded(picture, output, format), summary_of(picture.size(), shown),
                             is_quiet);
                });
            }
        });
    });
}

namespace {

// Frames drawn and not written yet.
template <class Sheet>
struct DrawnFrame {
    Sheet sheet;
    double seconds;
};

template <class Sheet, class MakeSheet>
void write_frames(const SceneProgram& program, const SceneInput& input, const FrameRange& frames,
                  const RenderArguments& arguments, FrameWriter& writer, const MakeSheet& make_sheet) {
    const auto count = static_cast<std::size_t>(frames.last - frames.first) + 1;
    Progress progress{"frames", count, arguments.quiet};
    const FilmWatch watch{arguments.limits};
    Shown shown;
    detail::in_order(
        count, detail::allowed_threads("render", static_cast<int>(arguments.threads)),
        [&](std::size_t i) {
            auto of = input;
            of.frame = frames.first + static_cast<int>(i);
            const auto scene = program.evaluate(of);
            auto sheet = make_sheet(scene);
            within_limits(scene, [&] {
                if (shown.needs(scene) && is_explained(scene) && !arguments.quiet) {
                    draw_shown(scene, sheet, shown, [] {});
                } else {
                    if (shown.needs(scene)) note_bounds(scene, shown);
                    render(scene, sheet);
                }
            });
            return DrawnFrame<Sheet>{std::move(sheet), scene.frames.rate > 0 ? scene.frames.time : 0};
        },
        [&](std::size_t i, DrawnFrame<Sheet> frame) {
            scaled(frame.sheet, arguments.scales.front(),
                   [&](const auto& picture) { writer.add(picture, frame.seconds); });
            progress.report(i + 1);
            watch.check(arguments.picture);
        });
    shown.warn();
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

#include "faces_sheet.hpp"
#include "output.hpp"
#include "render_scene.hpp"
#include "scene_input.hpp"
#include "shapes_sheet.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <charconv>
#include <filesystem>
#include <iostream>
#include <optional>
#include <string>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

// The table, within the limits of a scene.
Table read_rows(const RenderArguments& arguments) {
    const auto limits = scene_limits(arguments.limits);
    const auto name = arguments.rows == "-" ? std::string{"standard input"} : arguments.rows;
    Budget budget{{.seconds = limits.seconds, .memory = limits.scene_memory}};
    budget.name_memory("scene_memory");
    try {
        return budget.run([&] {
            return arguments.rows == "-" ? parse_table(read_all(std::cin, limits.scene_bytes), name)
                                         : read_table(arguments.rows);
        });
    } catch (const LimitError& error) {
        throw Error{fmt::format("{}: {}", printable(name), error.what())};
    }
}

int whole_of(std::string_view words, const std::string& option, std::string_view example) {
    auto number = 0;
    const auto [end, error] = std::from_chars(words.data(), words.data() + words.size(), number);
    if (error == std::errc{} && end == words.data() + words.size() && number >= 0) return number;
    throw WrongCall{fmt::format("{} is {}; it is as in {}", option, words, example)};
}

// --frames 10..19
FrameRange frames_of(const std::string& words) {
    const auto dots = words.find("..");
    if (dots == std::string::npos) throw WrongCall{fmt::format("--frames is {}; it is as in 10..19", printable(words))};
    const auto whole = std::string_view{words};
    const FrameRange frames{.first = whole_of(whole.substr(0, dots), "--frames", "10..19"),
                            .last = whole_of(whole.substr(dots + 2), "--frames", "10..19")};
    if (frames.last < frames.first) throw WrongCall{fmt::format("--frames is {}; the first comes first", words)};
    return frames;
}

void check_call(const RenderArguments& arguments) {
    const auto is_written = !arguments.picture.empty();
    if (!is_written &&
        (!arguments.kind.empty() || arguments.small || arguments.quality || arguments.scales != std::vector{1})) {
        throw WrongCall{"without -o PICTURE nothing is written, and --kind, --small, --quality and --scale do nothing"};
    }
    if (!arguments.rows.empty() && !is_written) throw WrongCall{"--rows needs -o PICTURE, as in -o 'out/{name}.png'"};
    if (arguments.frame && !arguments.frames.empty())
        throw WrongCall{"--frame is one of them, --frames some; not both"};
    if (arguments.threads > static_cast<unsigned>(max_threads)) {
        throw WrongCall{fmt::format("--threads is {}; allowed is 0 to {}, and 0 is one for each core",
                                    arguments.threads, max_threads)};
    }
    if (arguments.frame && *arguments.frame < 0) throw WrongCall{"--frame is less than 0; the first frame is 0"};
}

// What is written row by row is limited when its size is known. What is set by hand comes behind, and counts.
RenderArguments without_sheet_limit(RenderArguments arguments) {
    arguments.limits.insert(arguments.limits.begin(), "sheet_pixels=1e18");
    return arguments;
}

// Whether a scene becomes more than one picture.
bool is_moving(const RenderArguments& arguments, const Scene& first) {
    if (arguments.frame || arguments.picture.empty()) return false;
    if (!arguments.frames.empty()) return true;
    return first.frames.count > 1 || has_frame_number(arguments.picture);
}

}  // namespace

Exit render(const RenderArguments& arguments) {
    check_call(arguments);
    const auto is_written = !arguments.picture.empty();
    const auto format = is_written ? format_for(arguments) : FileFormat::png;
    if (!arguments.rows.empty()) {
        const auto table = read_rows(arguments);
        const auto scene = read_scene(arguments, table.columns);
        return draw_rows(scene.program, table, scene.input.set, arguments);
    }
    auto outputs = is_written ? outputs_for(arguments) : std::vector<Output>{};
    auto scene = read_scene(can_stream(outputs, format) ? without_sheet_limit(arguments) : arguments);
    const auto& program = scene.program;
    auto first = program.evaluate(scene.input);
    const auto is_still = !is_moving(arguments, first);
    limit_sheet(first, is_still ? outputs : std::vector<Output>{}, format, arguments.limits);
    if (is_still) {
        Shown shown;
        for (auto& output : outputs) output.options.threads = static_cast<int>(arguments.threads);
        draw_still(first, outputs, format, arguments.quiet, shown);
        shown.warn();
        return Exit::done;
    }
    auto range =
        arguments.frames.empty() ? FrameRange{.first = 0, .last = first.frames.count - 1} : frames_of(arguments.frames);
    if (range.last >= first.frames.count) {
        throw Error{fmt::format("{}: there is no frame {}; the scene has frames 0 to {}", printable(scene.text.name),
                                range.last, first.frames.count - 1)};
    }
    draw_frames(program, first, {.set = std::move(scene.input.set)}, range, arguments, format);
    return Exit::done;
}

namespace {

// A sheet of the tool's own, or its scene.
Exit draw_sheet(const char* name, const std::string& scene, const ShapesArguments& arguments,
                const SceneLimits& limits = {}) {
    if (arguments.as_scene) {
        fmt::print("{}", scene);
        return Exit::done;
    }
    if (arguments.picture.empty()) throw WrongCall{fmt::format("{} needs -o PICTURE, or --scene", name)};
    const auto format = format_for(arguments);
    Shown shown;  // which is not reported: to fill and stroke a thin shape covers the filling
    draw_still(parse_scene(scene, name, "", limits), outputs_for(arguments), format, false, shown);
    return Exit::done;
}

}  // namespace

Exit shapes(const ShapesArguments& arguments) { return draw_sheet("shapes", shapes_sheet(), arguments); }

Exit faces(const FacesArguments& arguments) {
    SceneLimits limits;
    for (const auto& font : arguments.fonts) {
        limits.files_from.push_back(std::filesystem::absolute(font).parent_path().string());
    }
    return draw_sheet("faces", faces_sheet(arguments.fonts), arguments, limits);
}

}  // namespace coldbrick::tool

#include "faces_sheet.hpp"
#include "output.hpp"
#include "render_scene.hpp"
#include "shapes_sheet.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cerrno>
#include <charconv>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <iterator>
#include <optional>
#include <string>
#include <system_error>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

// No further than one byte more than a scene may have.
std::string read_all(std::istream& stream, std::uint64_t most) {
    std::string text;
    constexpr std::size_t at_once = 1 << 16;
    while (stream && text.size() <= most) {
        const auto before = text.size();
        text.resize(before + at_once);
        stream.read(text.data() + before, at_once);
        text.resize(before + static_cast<std::size_t>(stream.gcount()));
    }
    return text;
}

std::string read_scene(const std::string& path, std::uint64_t most) {
    if (path == "-") return read_all(std::cin, most);
    const auto fail = [&](std::errc reason) {
        throw Error{fmt::format("{}: cannot be read: {}", printable(path), std::make_error_code(reason).message())};
    };
    if (std::filesystem::is_directory(path)) fail(std::errc::is_a_directory);
    errno = 0;
    std::ifstream file{path, std::ios::binary};
    if (!file) fail(static_cast<std::errc>(errno));
    return read_all(file, most);
}

// A picture given in its place is told as such.
void check_text(const std::string& text, const std::string& name) {
    const auto* const bytes = reinterpret_cast<const std::uint8_t*>(text.data());
    const auto format = file_format_of(std::span{bytes, text.size()});
    const auto is_text = text.substr(0, 512).find('\0') == std::string::npos;
    if (format && !(is_text && text.find("sheet") != std::string::npos)) {
        throw Error{fmt::format("{}: this is a picture ({}), and no scene; 'coldbrick info' tells about it",
                                printable(name), name_of(*format))};
    }
    if (!is_text) throw Error{fmt::format("{}: this is no text, and so no scene", printable(name))};
}

}  // namespace

namespace {

// The scene's text with what it is called and where it is.
struct SceneText {
    std::string text;
    std::string name;
    std::string folder;
};

SceneText text_of(const RenderArguments& arguments, const SceneLimits& limits) {
    const auto is_stdin = arguments.scene == "-";
    SceneText scene{.text = read_scene(arguments.scene, limits.scene_bytes),
                    .name = is_stdin ? "standard input" : arguments.scene,
                    .folder = is_stdin ? "" : std::filesystem::path{arguments.scene}.parent_path().string()};
    check_text(scene.text, scene.name);
    return scene;
}

// "NAME=VALUE" each.
std::vector<OutsideValue> values_of(const std::vector<std::string>& words) {
    std::vector<OutsideValue> values;
    for (const auto& word : words) {
        const auto sign = word.find('=');
        if (sign == std::string::npos || sign == 0) {
            throw WrongCall{fmt::format("--set is {}; it is a name, '=' and a value, as in tide=4", printable(word))};
        }
        values.push_back({.name = word.substr(0, sign), .value = word.substr(sign + 1)});
    }
    return values;
}

// What is set has to be used: a mistyped name would go wrong silently.
void check_used(const SceneProgram& program, const std::vector<OutsideValue>& set, const std::string& scene) {
    for (const auto& value : set) {
        if (program.uses(value.name)) continue;
        const auto names = program.dials();
        const std::vector<std::string_view> known{names.begin(), names.end()};
        const auto near = nearest_word(value.name, known);
        throw Error{fmt::format("{}: --set {}: the scene has no dial and uses no name '{}'{}", printable(scene),
                                printable(value.name), printable(value.name),
                                !near.empty()   ? fmt::format("; did you mean '{}'?", near)
                                : names.empty() ? ""
                                                : fmt::format("; it has {}", fmt::join(names, ", ")))};
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
    if (arguments.frame && *arguments.frame < 0) throw WrongCall{"--frame is less than 0; the first frame is 0"};
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
    auto limits = scene_limits(arguments.limits);
    limits.files_from = arguments.files_from;
    const auto scene = text_of(arguments, limits);
    auto set = values_of(arguments.set);
    std::vector<std::string> names;
    for (const auto& value : set) names.push_back(value.name);
    if (!arguments.rows.empty()) {
        const auto table = arguments.rows == "-" ? parse_table(read_all(std::cin, limits.scene_bytes), "standard input")
                                                 : read_table(arguments.rows);
        for (const auto& column : table.columns) names.push_back(column);
        const auto program = parse_program(scene.text, scene.name, scene.folder, limits, names);
        check_used(program, set, scene.name);
        return draw_rows(program, table, set, arguments);
    }
    const auto program = parse_program(scene.text, scene.name, scene.folder, limits, names);
    check_used(program, set, scene.name);
    const auto first = program.evaluate({.frame = arguments.frame.value_or(0), .set = set});
    if (!is_moving(arguments, first)) {
        draw_still(first, is_written ? outputs_for(arguments) : std::vector<Output>{}, format, arguments.quiet);
        return Exit::done;
    }
    auto range =
        arguments.frames.empty() ? FrameRange{.first = 0, .last = first.frames.count - 1} : frames_of(arguments.frames);
    if (range.last >= first.frames.count) {
        throw Error{fmt::format("{}: there is no frame {}; the scene has frames 0 to {}", printable(scene.name),
                                range.last, first.frames.count - 1)};
    }
    draw_frames(program, first, {.set = std::move(set)}, range, arguments, format);
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
    draw_still(parse_scene(scene, name, "", limits), outputs_for(arguments), format, false);
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

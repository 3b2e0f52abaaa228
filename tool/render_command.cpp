#include "faces_sheet.hpp"
#include "output.hpp"
#include "shapes_sheet.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cerrno>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <iterator>
#include <optional>
#include <string>
#include <system_error>

#include <fmt/core.h>

namespace coldbrick::tool {

namespace {

// A picture to be written.
struct Output {
    std::string path;
    int scale;
    SaveOptions options;
};

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
        outputs.push_back({.path = path.string(), .scale = scale, .options = options});
    }
    return outputs;
}

// Remarks, and what does not show.
void warn_of_unseen(const Scene& scene, const std::vector<Box>& touched) {
    constexpr auto most = 20;
    auto told = 0;
    for (const auto& [place, what, file] : scene.remarks) {
        if (++told > most) break;
        fmt::print(stderr, "{}:{}:{}: {}\n", printable(file.empty() ? scene.name : file), place.line, place.column, what);
    }
    if (told > most) fmt::print(stderr, "... and {} more remarks\n", scene.remarks.size() - most);
    auto unseen = 0;
    for (std::size_t i = 0; i < touched.size(); ++i) {
        if (!touched[i].empty() || ++unseen > most) continue;
        fmt::print(stderr, "{}\n", explain_unseen(scene, i));
    }
    if (unseen > most) fmt::print(stderr, "... and {} more of which nothing shows\n", unseen - most);
}

template <class Picture>
std::vector<std::uint8_t> encoded(const Picture& picture, const Output& output, FileFormat format) {
    try {
        return encode(picture, format, output.options);
    } catch (const Error& error) {
        throw Error{
            fmt::format("{}: {}", output.path == "-" ? "standard output" : printable(output.path), error.what())};
    }
}

template <class Picture>
void write(const Picture& picture, const Output& output, FileFormat format, const std::string& summary) {
    put_file(output.path, encoded(picture, output, format),
             fmt::format("{} x {} pixels, {}", picture.size().width, picture.size().height, summary));
}

template <PixelFormat Format>
void draw_as(const Scene& scene, const std::vector<Output>& outputs, FileFormat format) {
    auto picture = scene.sheet<Format>();
    const auto touched = render(scene, picture);
    const auto shown = std::count_if(touched.begin(), touched.end(), [](const Box& box) { return !box.empty(); });
    const auto summary = fmt::format("{} of {} drawings show", shown, touched.size());
    if (outputs.empty()) {
        fmt::print("{}: {} x {} pixels, {}; nothing is written (-o PICTURE writes it)\n", printable(scene.name),
                   picture.size().width, picture.size().height, summary);
    }
    for (const auto& output : outputs) {
        if (output.scale == 1) {
            write(picture, output, format, summary);
        } else {
            write(enlarge(picture, output.scale), output, format, summary);
        }
    }
    warn_of_unseen(scene, touched);
}

}  // namespace

namespace {

void draw_to(const Scene& scene, const std::vector<Output>& outputs, FileFormat format) {
    const auto is_gray = format == FileFormat::pgm || format == FileFormat::pbm;
    if (scene.palette && !is_gray) {
        draw_as<Index8>(scene, outputs, format);
    } else if (is_gray) {
        draw_as<Gray8>(scene, outputs, format);
    } else if (scene.ground.alpha == 255) {
        draw_as<Rgb8>(scene, outputs, format);
    } else {
        draw_as<Rgba8>(scene, outputs, format);
    }
}

}  // namespace

Exit render(const RenderArguments& arguments) {
    const auto is_written = !arguments.picture.empty();
    if (!is_written &&
        (!arguments.kind.empty() || arguments.small || arguments.quality || arguments.scales != std::vector{1})) {
        throw WrongCall{"without -o PICTURE nothing is written, and --kind, --small, --quality and --scale do nothing"};
    }
    const auto format = is_written ? format_for(arguments) : FileFormat::png;
    const auto outputs = is_written ? outputs_for(arguments) : std::vector<Output>{};
    auto limits = scene_limits(arguments.limits);
    limits.files_from = arguments.files_from;
    const auto is_stdin = arguments.scene == "-";
    const auto name = is_stdin ? "standard input" : arguments.scene;
    const auto text = read_scene(arguments.scene, limits.scene_bytes);
    check_text(text, name);
    const auto folder = is_stdin ? std::filesystem::path{} : std::filesystem::path{arguments.scene}.parent_path();
    draw_to(parse_scene(text, name, folder.string(), limits), outputs, format);
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
    draw_to(parse_scene(scene, name, "", limits), outputs_for(arguments), format);
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

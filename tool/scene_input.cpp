#include "scene_input.hpp"

#include "words/reference_page.hpp"

#include <cerrno>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <optional>
#include <span>
#include <system_error>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

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

namespace {

bool is_text(std::string_view bytes) { return bytes.substr(0, 512).find('\0') == std::string_view::npos; }

std::string read_file(const std::string& path, std::uint64_t most) {
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

// A picture given in its place is reported as such.
void check_text(const std::string& text, const std::string& name) {
    if (const auto format = picture_kind_of(text)) {
        throw Error{fmt::format("{}: this is a picture ({}), and no scene; 'coldbrick info' tells about it",
                                printable(name), name_of(*format))};
    }
    if (!is_text(text)) throw Error{fmt::format("{}: this is no text, and so no scene", printable(name))};
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

}  // namespace

std::optional<FileFormat> picture_kind_of(std::string_view text) {
    const auto* const bytes = reinterpret_cast<const std::uint8_t*>(text.data());
    const auto format = file_format_of(std::span{bytes, text.size()});
    return is_text(text) && text.find("sheet") != std::string_view::npos ? std::nullopt : format;
}

std::vector<OutsideValue> outside_values(const std::vector<std::string>& words) {
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

bool is_picture_file(const std::string& path) {
    std::ifstream file{path, std::ios::binary};
    constexpr std::size_t enough = 4096;
    std::string first(enough, '\0');
    file.read(first.data(), enough);
    first.resize(static_cast<std::size_t>(file.gcount()));
    return picture_kind_of(first).has_value();
}

SceneText read_scene_text(const std::string& path, std::uint64_t most) {
    const auto is_stdin = path == "-";
    SceneText scene{.text = read_file(path, most),
                    .name = is_stdin ? "standard input" : path,
                    .folder = is_stdin ? "" : std::filesystem::path{path}.parent_path().string()};
    check_text(scene.text, scene.name);
    return scene;
}

SceneFile read_scene(const SceneArguments& arguments, const std::vector<std::string>& others) {
    auto limits = scene_limits(arguments.limits);
    limits.files_from = arguments.files_from;
    auto text = read_scene_text(arguments.scene, limits.scene_bytes);
    auto set = outside_values(arguments.set);
    std::vector<std::string> names;
    names.reserve(set.size() + others.size());
    for (const auto& value : set) names.push_back(value.name);
    names.insert(names.end(), others.begin(), others.end());
    auto program = [&] {
        try {
            return parse_program(text.text, text.name, text.folder, limits, names);
        } catch (const SceneError& error) {
            // Which pages of the reference say more.
            throw SceneError{error.what() + pages_hint(error.faults(), text.text), error.faults()};
        }
    }();
    check_used(program, set, text.name);
    return {std::move(text), std::move(program), {.frame = arguments.frame.value_or(0), .set = std::move(set)}};
}

}  // namespace coldbrick::tool

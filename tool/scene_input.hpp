// Scenes as the commands read them.
#pragma once

#include "output.hpp"

#include <coldbrick/coldbrick.hpp>

#include <cstdint>
#include <istream>
#include <string>
#include <vector>

namespace coldbrick::tool {

// A scene's text with what it is called and where it is.
struct SceneText {
    std::string text;
    std::string name;
    std::string folder;
};

// A scene that has been read, and which of its pictures is meant.
struct SceneFile {
    SceneText text;
    SceneProgram program;
    SceneInput input;
};

// Reads to the end, but no further than some bytes more than are allowed.
[[nodiscard]] std::string read_all(std::istream& stream, std::uint64_t most);

// The text of a file, or of standard input for "-". Throws Error for what cannot be read, and for no text.
[[nodiscard]] SceneText read_scene_text(const std::string& path, std::uint64_t most);

// "NAME=VALUE" each. Throws WrongCall for what is not.
[[nodiscard]] std::vector<OutsideValue> outside_values(const std::vector<std::string>& words);

// Reads a scene as the arguments say. The other names, such as a table's columns, may be used in it too. Throws Error
// if a name is set that the scene does not use.
[[nodiscard]] SceneFile read_scene(const SceneArguments& arguments, const std::vector<std::string>& others = {});

// The kind that a file is of by its first bytes, if it is a picture and no scene.
[[nodiscard]] std::optional<FileFormat> picture_kind_of(std::string_view text);
[[nodiscard]] bool is_picture_file(const std::string& path);

}  // namespace coldbrick::tool

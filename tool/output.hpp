// How all commands write pictures.
#pragma once

#include "commands.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/files.hpp>
#include <coldbrick/scene.hpp>

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace coldbrick::tool {

// The kinds of picture files that --kind takes: "png, jpg, ... and qoi".
[[nodiscard]] std::string kinds_in_words(std::string_view before_last);

// The format that is asked for. Throws WrongCall if there is none of that name or suffix.
[[nodiscard]] FileFormat format_for(const SaveArguments& arguments);

// Throws WrongCall for a quality that is not from 1 to 100.
[[nodiscard]] SaveOptions options_for(const SaveArguments& arguments);

// The limits that "NAME=NUMBER" words set. Throws WrongCall for a name that is none, and for no number.
[[nodiscard]] LoadLimits load_limits(const std::vector<std::string>& words);
[[nodiscard]] SceneLimits scene_limits(const std::vector<std::string>& words);

// The seconds that all frames of a scene may take together: 600, or as "film_seconds=NUMBER" says. The scene's own
// limit is for each of them.
[[nodiscard]] double film_seconds(const std::vector<std::string>& words);

// How many bytes a picture may take that is written as it is drawn, before it is compressed: 2^34, or as
// "written_bytes=NUMBER" says.
[[nodiscard]] std::uint64_t written_bytes(const std::vector<std::string>& words);

// Whether such words set a limit.
[[nodiscard]] bool is_limited(const std::vector<std::string>& words, std::string_view name);

// Of a message that a limit is met: a line with the option that allows more, four times as much as such words set, or
// as the message says is needed. Empty for other messages.
[[nodiscard]] std::string limit_advice(std::string_view message, const std::vector<std::string>& words);

// Writes a file to a path or, for "-", to standard output, and says so in a line "PATH: what, N bytes".
void put_file(const std::string& path, const std::vector<std::uint8_t>& bytes, const std::string& what,
              bool is_quiet = false);

}  // namespace coldbrick::tool

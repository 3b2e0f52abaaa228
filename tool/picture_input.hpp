// Pictures as the commands read them, and pairs of numbers in their arguments.
#pragma once

#include "output.hpp"

#include <coldbrick/coldbrick.hpp>

#include <charconv>
#include <filesystem>
#include <iostream>
#include <new>
#include <optional>
#include <string>
#include <vector>

#include <fmt/core.h>

namespace coldbrick::tool {

// A file's name as messages show it.
inline std::string shown_name(const std::string& path) { return path == "-" ? "standard input" : printable(path); }

// Calls load(source, limits) with a stream or a path.
template <class Load>
auto read_by(const std::string& path, const std::vector<std::string>& limits, const Load& load) {
    const auto allowed = load_limits(limits);
    try {
        return path == "-" ? load(std::cin, allowed) : load(std::filesystem::path{path}, allowed);
    } catch (const std::bad_alloc&) {
        throw Error{fmt::format("{}: there is not enough memory", shown_name(path))};
    } catch (const Error& error) {
        throw Error{path == "-" ? fmt::format("standard input: {}", error.what()) : error.what()};
    }
}

inline LoadedPicture read(const std::string& path, const std::vector<std::string>& limits) {
    return read_by(path, limits, [](auto&& source, const LoadLimits& allowed) { return load_any(source, allowed); });
}

// Two whole numbers and a comma.
inline Point pair_of(const std::string& words, const std::string& what) {
    Point pair;
    const auto* const end = words.data() + words.size();
    const auto first = std::from_chars(words.data(), end, pair.x);
    const auto has_comma = first.ec == std::errc{} && first.ptr != end && *first.ptr == ',';
    const auto second = has_comma ? std::from_chars(first.ptr + 1, end, pair.y) : first;
    if (has_comma && second.ec == std::errc{} && second.ptr == end) return pair;
    throw WrongCall{fmt::format("{} is {}; it is two whole numbers and a comma, as in 12,34", what, words)};
}

// Four whole numbers and commas between; nothing for no words.
inline std::optional<Box> wanted_part(const std::string& words) {
    if (words.empty()) return std::nullopt;
    const auto middle = words.find(',', words.find(',') == std::string::npos ? 0 : words.find(',') + 1);
    if (middle == std::string::npos) {
        throw WrongCall{fmt::format("--part is {}; it is a place and a size, as in 10,20,64,48", printable(words))};
    }
    const auto at = pair_of(words.substr(0, middle), "--part's place");
    const auto size = pair_of(words.substr(middle + 1), "--part's size");
    return Box{.at = at, .size = {.width = size.x, .height = size.y}};
}

// Throws Error unless the part has pixels, all of them in a picture of that size.
inline void check_part(const Box& part, const Size& size, const std::string& name) {
    if (!part.empty() && intersection(part, Box{.at = {}, .size = size}) == part) return;
    throw Error{fmt::format("{}: the part {},{},{},{} is not in the picture, which has {} x {} pixels", name, part.at.x,
                            part.at.y, part.size.width, part.size.height, size.width, size.height)};
}

}  // namespace coldbrick::tool

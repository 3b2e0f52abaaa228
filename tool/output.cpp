#include "output.hpp"

#include <coldbrick/error.hpp>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <filesystem>
#include <functional>
#include <iostream>
#include <limits>
#include <string>
#include <type_traits>
#include <utility>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

std::string kinds_in_words(std::string_view before_last) {
    std::vector<std::string> kinds;
    for (const auto format : file_formats()) kinds.push_back(suffixes_of(format).front().substr(1));
    const auto last = std::move(kinds.back());
    kinds.pop_back();
    return fmt::format("{} {} {}", fmt::join(kinds, ", "), before_last, last);
}

FileFormat format_for(const SaveArguments& arguments) {
    try {
        if (!arguments.kind.empty()) return file_format_of(std::filesystem::path{"picture." + arguments.kind});
        const auto path = std::filesystem::path{arguments.picture};
        std::error_code unknown;
        // A device, such as the one that takes everything, is of no kind.
        const auto is_device = path.extension().empty() && std::filesystem::is_character_file(path, unknown);
        return arguments.picture == "-" || is_device ? FileFormat::png : file_format_of(path);
    } catch (const Error& error) {
        if (arguments.kind.empty()) throw WrongCall{error.what()};
        throw WrongCall{fmt::format("--kind is {}; allowed are {}", arguments.kind, kinds_in_words("and"))};
    }
}

SaveOptions options_for(const SaveArguments& arguments) {
    constexpr auto usual_quality = 90;
    const auto quality = arguments.quality.value_or(usual_quality);
    if (quality < 1 || quality > 100) throw WrongCall{fmt::format("--quality is {}; allowed is 1 to 100", quality)};
    const auto format = format_for(arguments);
    if (arguments.quality && format != FileFormat::jpeg && format != FileFormat::webp) {
        throw WrongCall{
            fmt::format("--quality is for jpeg and moving webp, and the picture is written as {}", name_of(format))};
    }
    if (arguments.small && format != FileFormat::png) {
        throw WrongCall{fmt::format("--small is for png, and the picture is written as {}", name_of(format))};
    }
    const auto& dithering = arguments.dithering;
    if (dithering != "none" && dithering != "ordered" && dithering != "diffused") {
        throw WrongCall{fmt::format("--dithering is {}; allowed are none, ordered and diffused", printable(dithering))};
    }
    const auto colors = arguments.colors.value_or(2);
    if (colors < 2 || colors > 256) throw WrongCall{fmt::format("--colors is {}; allowed is 2 to 256", colors)};
    return {.effort = arguments.small ? Effort::most : Effort::usual,
            .storage = arguments.small ? Storage::fewest_bits : Storage::as_it_is,
            .quality = quality};
}

namespace {

// A limit's name, whether it is a whole number, what it is, and where it is kept.
struct NamedLimit {
    std::string_view name;
    bool is_whole;
    double value;
    std::function<void(double)> set;
};

template <class Number>
NamedLimit limit(std::string_view name, Number& number) {
    return {name, std::is_integral_v<Number>, static_cast<double>(number), [&number](double value) {
                constexpr auto most = static_cast<double>(std::numeric_limits<Number>::max()) / 2;
                number = static_cast<Number>(std::min(value, most));
            }};
}

std::vector<NamedLimit> limits_of(LoadLimits& limits) {
    return {limit("pixels", limits.pixels),
            limit("side", limits.side),
            limit("file_bytes", limits.file_bytes),
            limit("memory", limits.memory),
            limit("pixels_per_byte", limits.pixels_per_byte),
            limit("text_bytes", limits.text_bytes),
            limit("texts", limits.texts),
            limit("scans", limits.scans)};
}

void set_limits(const std::vector<NamedLimit>& limits, const std::vector<std::string>& words) {
    for (const auto& word : words) {
        const auto equals = std::min(word.find('='), word.size());
        const auto name = word.substr(0, equals);
        const auto found =
            std::find_if(limits.begin(), limits.end(), [&](const NamedLimit& of) { return of.name == name; });
        if (found == limits.end()) {
            std::string names;
            for (const auto& of : limits) names += (names.empty() ? "" : ", ") + std::string{of.name};
            throw WrongCall{fmt::format("--limit has no '{}'; allowed are {}", printable(name), names)};
        }
        auto value = 0.0;
        const auto* const end = word.data() + word.size();
        const auto* const begin = word.data() + std::min(equals + 1, word.size());
        const auto [read_to, error] = std::from_chars(begin, end, value);
        const auto is_allowed = found->is_whole ? value >= 1 && value == std::floor(value) : value > 0;
        if (error != std::errc{} || read_to != end || !is_allowed) {
            const auto given = printable(word.substr(std::min(equals + 1, word.size())), 40);
            throw WrongCall{
                found->is_whole
                    ? fmt::format("--limit {} is '{}'; allowed are whole numbers from 1 on, as in {}=1000000", name,
                                  given, name)
                    : fmt::format("--limit {} is '{}'; allowed are numbers above 0, as in {}=2.5", name, given, name)};
        }
        found->set(value);
    }
}

}  // namespace

LoadLimits load_limits(const std::vector<std::string>& words) {
    LoadLimits limits;
    auto all = limits_of(limits);
    all.push_back(limit("seconds", limits.seconds));
    set_limits(all, words);
    return limits;
}

namespace {

// What --limit takes for a scene besides the library's limits.
struct ToolLimits {
    double film_seconds = 600;
    std::uint64_t written_bytes = std::uint64_t{1} << 34U;
};

// All that --limit takes for a scene.
std::vector<NamedLimit> limits_of(SceneLimits& limits, ToolLimits& of_tool) {
    auto all = limits_of(limits.pictures);
    all.push_back(limit("scene_bytes", limits.scene_bytes));
    all.push_back(limit("statements", limits.statements));
    all.push_back(limit("calls", limits.calls));
    all.push_back(limit("depth", limits.depth));
    all.push_back(limit("frames", limits.frames));
    all.push_back(limit("sheet_pixels", limits.sheet_pixels));
    all.push_back(limit("scene_memory", limits.scene_memory));
    all.push_back(limit("seconds", limits.seconds));
    all.push_back(limit("work", limits.work));
    all.push_back(limit("film_seconds", of_tool.film_seconds));
    all.push_back(limit("written_bytes", of_tool.written_bytes));
    return all;
}

std::pair<SceneLimits, ToolLimits> all_limits(const std::vector<std::string>& words) {
    std::pair<SceneLimits, ToolLimits> limits;
    set_limits(limits_of(limits.first, limits.second), words);
    return limits;
}

}  // namespace

SceneLimits scene_limits(const std::vector<std::string>& words) { return all_limits(words).first; }

double film_seconds(const std::vector<std::string>& words) { return all_limits(words).second.film_seconds; }

std::uint64_t written_bytes(const std::vector<std::string>& words) { return all_limits(words).second.written_bytes; }

bool is_limited(const std::vector<std::string>& words, std::string_view name) {
    return std::any_of(words.begin(), words.end(), [&](const std::string& word) {
        return word.size() > name.size() && word.starts_with(name) && word[name.size()] == '=';
    });
}

std::string limit_advice(std::string_view message, const std::vector<std::string>& words) {
    SceneLimits limits;
    ToolLimits of_tool;
    for (const auto& known : limits_of(limits, of_tool)) {
        const auto is_named = message.find(fmt::format("(limit {})", known.name)) != std::string_view::npos ||
                              message.find(fmt::format("limit '{}'", known.name)) != std::string_view::npos;
        if (!is_named) continue;
        // Four times what it is, and no less than what the message says is needed.
        constexpr auto more = 4;
        auto wanted = known.value * more;
        const auto begins = fmt::format("{}=", known.name);
        for (const auto& word : words) {
            auto given = 0.0;
            if (!word.starts_with(begins)) continue;
            const auto* const number = word.data() + begins.size();
            if (std::from_chars(number, word.data() + word.size(), given).ec == std::errc{}) wanted = given * more;
        }
        const auto has = message.find(" has ");
        auto needed = 0.0;
        if (has != std::string_view::npos) {
            (void)std::from_chars(message.data() + has + 5, message.data() + message.size(), needed);
        }
        return fmt::format("\n    allowed with --limit {}={:.{}f}", known.name, std::max(wanted, needed),
                           known.is_whole || wanted >= 1 ? 0 : 6);
    }
    return "";
}

void put_file(const std::string& path, const std::vector<std::uint8_t>& bytes, const std::string& what, bool is_quiet) {
    const auto is_stdout = path == "-";
    is_stdout ? write_stream(std::cout, bytes) : write_file(path, bytes);
    if (is_quiet) return;
    fmt::print(is_stdout ? stderr : stdout, "{}: {}, {} bytes\n", is_stdout ? "standard output" : printable(path), what,
               bytes.size());
}

}  // namespace coldbrick::tool

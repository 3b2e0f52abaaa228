#include "picture_commands.hpp"

#include "color_words.hpp"
#include "output.hpp"
#include "picture_input.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <filesystem>
#include <string>
#include <variant>

#include <fmt/core.h>
#include <nlohmann/json.hpp>

namespace coldbrick::tool {

namespace {

// Colours are counted up to there, so that the memory that it takes is bounded.
constexpr std::size_t most_colors = std::size_t{1} << 22U;

std::string channels_in_words(const PictureInfo& info) {
    if (info.has_palette) return "numbers in a palette";
    if (info.channels == 4 && !info.has_alpha) return "cyan, magenta, yellow, black";
    constexpr std::array words{"gray", "gray and alpha", "red, green, blue", "red, green, blue, alpha"};
    return words[static_cast<std::size_t>(info.channels - 1)];
}

std::string_view unit_in_words(Density::Unit unit) {
    if (unit == Density::Unit::none) return "only the proportion is told";
    return unit == Density::Unit::meter ? "to the metre" : "to the inch";
}

// Also what shows only in the pixels, or in the name.
std::vector<std::string> oddities_of(const PictureSurvey& picture, const std::string& path) {
    auto oddities = picture.info.oddities;
    if (picture.info.is_interlaced) oddities.emplace_back("it is interlaced");
    try {
        const auto named = path == "-" ? picture.info.format : file_format_of(std::filesystem::path{path});
        const auto is_pnm = [](FileFormat format) {
            return format == FileFormat::pbm || format == FileFormat::pgm || format == FileFormat::ppm;
        };
        const auto is_fitting =
            named == picture.info.format || (named == FileFormat::pnm && is_pnm(picture.info.format));
        if (!is_fitting) oddities.push_back(fmt::format("its name says {}", name_of(named)));
    } catch (const Error&) {
        oddities.emplace_back("its name does not say what it is");
    }
    const auto& density = picture.info.density;
    if (density && density->across != density->down) oddities.emplace_back("its pixels are not square");
    const auto& [info, needs, colors, palette_size] = picture;
    if (info.has_alpha && !needs.alpha) oddities.emplace_back("it has alpha, and every pixel is opaque");
    if (info.channels > 2 && !needs.color) oddities.emplace_back("it has colour channels, and every pixel is gray");
    if (info.bits == 16 && !needs.deep) oddities.emplace_back("it has 16 bits a channel, and 8 would do");
    return oddities;
}

std::string colors_in_words(const PictureSurvey& picture) {
    return picture.colors > most_colors ? fmt::format("more than {}", most_colors) : fmt::format("{}", picture.colors);
}

void print_info(const PictureSurvey& picture, const std::string& path) {
    const auto& info = picture.info;
    fmt::print("{}: {}, {} x {} pixels\n", shown_name(path), name_of(info.format), info.size.width, info.size.height);
    fmt::print("    channels  {}, {} bit{}\n", channels_in_words(info), info.bits, info.bits == 1 ? "" : "s");
    if (info.has_palette) fmt::print("    palette   {} colours\n", picture.palette_size);
    fmt::print("    colours   {}{}\n", colors_in_words(picture), info.has_alpha ? ", with alpha" : "");
    if (info.density) {
        fmt::print("    density   {:g} x {:g}, {}\n", info.density->across, info.density->down,
                   unit_in_words(info.density->unit));
    }
    if (info.frames > 1) {
        fmt::print("    frames    {}, {:g} s, {}\n", info.frames, info.seconds,
                   info.loops == 0   ? "again and again"
                   : info.loops == 1 ? "played once"
                                     : fmt::format("played {} times", info.loops));
    }
    for (const auto& [keyword, text] : info.texts)
        fmt::print("    text      {}: {}\n", printable(keyword), printable(text));
    for (const auto& oddity : oddities_of(picture, path)) fmt::print("    odd       {}\n", oddity);
}

nlohmann::ordered_json json_of(const PictureSurvey& picture, const std::string& path) {
    const auto& info = picture.info;
    nlohmann::ordered_json json{
        {"file", shown_name(path)},   {"format", name_of(info.format)},   {"width", info.size.width},
        {"height", info.size.height}, {"channels", info.channels},        {"bits", info.bits},
        {"alpha", info.has_alpha},    {"interlaced", info.is_interlaced}, {"colors", picture.colors}};
    if (info.has_palette) json["palette"] = picture.palette_size;
    json["frames"] = info.frames;
    if (info.frames > 1) {
        json["seconds"] = info.seconds;
        json["loops"] = info.loops;
    }
    if (info.density) {
        constexpr std::array units{"meter", "inch", "none"};
        json["density"] = {{"across", info.density->across},
                           {"down", info.density->down},
                           {"unit", units[static_cast<std::size_t>(info.density->unit)]}};
    }
    json["texts"] = nlohmann::ordered_json::array();
    for (const auto& [keyword, text] : info.texts) json["texts"].push_back({{"keyword", keyword}, {"text", text}});
    json["oddities"] = oddities_of(picture, path);
    return json;
}

}  // namespace

Exit info(const InfoArguments& arguments) {
    auto result = Exit::done;
    auto list = nlohmann::ordered_json::array();
    for (const auto& path : arguments.pictures) {
        try {
            const auto picture = read_by(path, arguments.limits, [](auto&& source, const LoadLimits& allowed) {
                return survey(source, most_colors, allowed);
            });
            if (arguments.as_json) {
                list.push_back(json_of(picture, path));
            } else {
                print_info(picture, path);
            }
        } catch (const Error& error) {
            if (arguments.as_json) {
                list.push_back({{"file", shown_name(path)}, {"error", error.what()}});
            } else {
                fmt::print(stderr, "{}\n", error.what());
            }
            result = Exit::fault;
        }
    }
    // Bytes that are no UTF-8 are replaced.
    constexpr auto replace = nlohmann::ordered_json::error_handler_t::replace;
    if (arguments.as_json) fmt::print("{}\n", list.dump(2, ' ', true, replace));
    return result;
}

Exit pick(const PickArguments& arguments) {
    std::vector<Point> places;
    places.reserve(arguments.places.size());
    for (const auto& words : arguments.places) places.push_back(pair_of(words, "the pixel"));
    const auto picked = read_by(arguments.picture, arguments.limits, [&](auto&& source, const LoadLimits& allowed) {
        return load_colors(source, places, allowed);
    });
    for (std::size_t i = 0; i < places.size(); ++i) {
        const auto at = places[i];
        const auto deep = picked.colors[i];
        const auto color = narrowed(deep);
        const auto alpha = color.alpha == 255 ? std::string{} : fmt::format(" alpha {}", color.alpha);
        if (deep.alpha == 0) {
            fmt::print("{},{}  {}  transparent\n", at.x, at.y, hex(color));
            continue;
        }
        fmt::print("{},{}  {}  red {} green {} blue {}{}  {}", at.x, at.y, hex(color), color.red, color.green,
                   color.blue, alpha, name_in_words(color));
        if (picked.info.bits == 16) fmt::print("  (16 bits: {} {} {} {})", deep.red, deep.green, deep.blue, deep.alpha);
        fmt::print("\n");
    }
    return Exit::done;
}

int differ(const DifferArguments& arguments) {
    constexpr auto trouble = 2;
    try {
        if (!(arguments.tolerance >= 0 && arguments.tolerance <= 255)) {
            throw WrongCall{fmt::format("--tolerance is {:g}; allowed is 0 to 255", arguments.tolerance)};
        }
        const auto first = read(arguments.first, arguments.limits);
        const auto second = read(arguments.second, arguments.limits);
        const auto& [size, other_size] = std::pair{first.info.size, second.info.size};
        if (size != other_size) {
            throw Error{fmt::format("{} has {} x {} pixels, and {} {} x {}: they cannot be compared",
                                    shown_name(arguments.first), size.width, size.height, shown_name(arguments.second),
                                    other_size.width, other_size.height)};
        }
        const auto of_both = [&](const auto& use) { return std::visit(use, first.bitmap, second.bitmap); };
        const auto found = of_both([&](const auto& a, const auto& b) { return compare(a, b, arguments.tolerance); });
        if (!arguments.shown.empty()) {
            save(of_both([&](const auto& a, const auto& b) { return differences_shown(a, b, arguments.tolerance); }),
                 arguments.shown);
        }
        const auto all = std::int64_t{size.width} * size.height;
        if (found.pixels == 0) {
            fmt::print("no pixel of {} differs{}\n", all, arguments.tolerance > 0 ? " by more than the tolerance" : "");
            return 0;
        }
        fmt::print("{} of {} pixels differ, within {},{} to {},{}\n", found.pixels, all, found.box.at.x, found.box.at.y,
                   found.box.last().x, found.box.last().y);
        fmt::print("greatest difference: red {:.4g}, green {:.4g}, blue {:.4g}, alpha {:.4g} of 255\n", found.red,
                   found.green, found.blue, found.alpha);
        return 1;
    } catch (const std::exception& error) {
        fmt::print(stderr, "{}\n", error.what());
        return trouble;
    }
}

}  // namespace coldbrick::tool

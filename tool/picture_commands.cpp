#include "picture_commands.hpp"

#include "output.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <charconv>
#include <iostream>

#include <fmt/core.h>
#include <nlohmann/json.hpp>

namespace coldbrick::tool {

namespace {

LoadedPicture read(const std::string& path) { return path == "-" ? load_any(std::cin) : load_any(path); }

std::string shown_name(const std::string& path) { return path == "-" ? "standard input" : printable(path); }

// Two whole numbers and a comma.
Point pair_of(const std::string& words, const std::string& what) {
    Point pair;
    const auto* const end = words.data() + words.size();
    const auto first = std::from_chars(words.data(), end, pair.x);
    const auto has_comma = first.ec == std::errc{} && first.ptr != end && *first.ptr == ',';
    const auto second = has_comma ? std::from_chars(first.ptr + 1, end, pair.y) : first;
    if (has_comma && second.ec == std::errc{} && second.ptr == end) return pair;
    throw WrongCall{fmt::format("{} is {}; it is two whole numbers and a comma, as in 12,34", what, words)};
}

std::string hex(Color color) {
    const auto rgb = fmt::format("#{:02x}{:02x}{:02x}", color.red, color.green, color.blue);
    return color.alpha == 255 ? rgb : rgb + fmt::format("{:02x}", color.alpha);
}

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

std::size_t palette_size(const LoadedPicture& picture) {
    const auto* const display = std::get_if<Bitmap<Index8>>(&picture.bitmap);
    return display == nullptr ? 0 : display->palette().size();
}

// Also what shows only in the pixels, or in the name.
std::vector<std::string> oddities_of(const LoadedPicture& picture, const std::string& path) {
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
    const auto needs = std::visit([](const auto& bitmap) { return needs_of(bitmap); }, picture.bitmap);
    const auto& info = picture.info;
    if (info.has_alpha && !needs.alpha) oddities.emplace_back("it has alpha, and every pixel is opaque");
    if (info.channels > 2 && !needs.color) oddities.emplace_back("it has colour channels, and every pixel is gray");
    if (info.bits == 16 && !needs.deep) oddities.emplace_back("it has 16 bits a channel, and 8 would do");
    return oddities;
}

// Counted up to there, so that the memory that it takes is bounded.
constexpr std::size_t most_colors = std::size_t{1} << 22U;

std::size_t colors_in(const LoadedPicture& picture) {
    return std::visit([](const auto& bitmap) { return count_colors(bitmap, most_colors); }, picture.bitmap);
}

std::string colors_in_words(const LoadedPicture& picture) {
    const auto count = colors_in(picture);
    return count > most_colors ? fmt::format("more than {}", most_colors) : fmt::format("{}", count);
}

void print_info(const LoadedPicture& picture, const std::string& path) {
    const auto& info = picture.info;
    fmt::print("{}: {}, {} x {} pixels\n", shown_name(path), name_of(info.format), info.size.width, info.size.height);
    fmt::print("    channels  {}, {} bit{}\n", channels_in_words(info), info.bits, info.bits == 1 ? "" : "s");
    if (info.has_palette) fmt::print("    palette   {} colours\n", palette_size(picture));
    fmt::print("    colours   {}{}\n", colors_in_words(picture), info.has_alpha ? ", with alpha" : "");
    if (info.density) {
        fmt::print("    density   {:g} x {:g}, {}\n", info.density->across, info.density->down,
                   unit_in_words(info.density->unit));
    }
    for (const auto& [keyword, text] : info.texts)
        fmt::print("    text      {}: {}\n", printable(keyword), printable(text));
    for (const auto& oddity : oddities_of(picture, path)) fmt::print("    odd       {}\n", oddity);
}

nlohmann::ordered_json json_of(const LoadedPicture& picture, const std::string& path) {
    const auto& info = picture.info;
    nlohmann::ordered_json json{
        {"file", shown_name(path)},   {"format", name_of(info.format)},   {"width", info.size.width},
        {"height", info.size.height}, {"channels", info.channels},        {"bits", info.bits},
        {"alpha", info.has_alpha},    {"interlaced", info.is_interlaced}, {"colors", colors_in(picture)}};
    if (info.has_palette) json["palette"] = palette_size(picture);
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
            const auto picture = read(path);
            if (arguments.as_json) {
                list.push_back(json_of(picture, path));
            } else {
                print_info(picture, path);
            }
        } catch (const Error& error) {
            fmt::print(stderr, "{}{}\n", path == "-" ? "standard input: " : "", error.what());
            result = Exit::fault;
        }
    }
    // Bytes that are no UTF-8 are replaced.
    constexpr auto replace = nlohmann::ordered_json::error_handler_t::replace;
    if (arguments.as_json) fmt::print("{}\n", list.dump(2, ' ', false, replace));
    return result;
}

namespace {

template <class... Words>
void check_word(const std::string& option, const std::string& word, const Words&... allowed) {
    if (word.empty() || ((word == allowed) || ...)) return;
    std::string list;
    ((list += list.empty() ? std::string{allowed} : std::string{", "} + allowed), ...);
    throw WrongCall{fmt::format("{} is {}; allowed are {}", option, word, list)};
}

// W,H, of which one may be 0; nothing if no size is given.
std::optional<Size> wanted_size(const ResaveArguments& arguments) {
    if (arguments.size.empty()) return std::nullopt;
    const auto [width, height] = pair_of(arguments.size, "--size");
    if (width >= 0 && height >= 0 && width + height > 0) return Size{.width = width, .height = height};
    throw WrongCall{fmt::format("--size is {}; allowed is 1 or more, and 0 for one side that is to be in proportion",
                                arguments.size)};
}

std::optional<Scaling> wanted_scaling(const std::string& word) {
    if (word == "nearest") return Scaling::nearest;
    if (word == "box") return Scaling::box;
    if (word == "bilinear") return Scaling::bilinear;
    if (word == "lanczos") return Scaling::lanczos;
    return std::nullopt;
}

std::optional<Color> wanted_ground(const ResaveArguments& arguments) {
    if (arguments.ground.empty()) return std::nullopt;
    try {
        return parse_color(arguments.ground);
    } catch (const Error& error) {
        throw WrongCall{fmt::format("--on: {}", error.what())};
    }
}

// What a call asks for, checked before anything is read.
struct Changes {
    explicit Changes(const ResaveArguments& arguments)
        : size{wanted_size(arguments)},
          scaling{wanted_scaling(arguments.scaling)},
          ground{wanted_ground(arguments)},
          channels{arguments.channels},
          bits{arguments.bits} {
        check_word("--channels", channels, "gray", "rgb", "rgba", "palette");
        check_word("--scaling", arguments.scaling, "nearest", "box", "bilinear", "lanczos");
        if (bits != 0 && bits != 8 && bits != 16)
            throw WrongCall{fmt::format("--bits is {}; allowed are 8 and 16", bits)};
    }

    [[nodiscard]] bool are_none() const { return !size && !ground && channels.empty() && bits == 0; }

    std::optional<Size> size;
    std::optional<Scaling> scaling;
    std::optional<Color> ground;
    std::string channels;
    int bits;
};

// Where a picture goes, and what of the file that it came from.
struct Destination {
    const ResaveArguments& arguments;
    FileFormat format;
    const PictureInfo& info;
};

template <PixelFormat Format>
void write_to(const Destination& destination, const Bitmap<Format>& picture) {
    const auto& [arguments, format, info] = destination;
    auto options = options_for(arguments);
    if (arguments.plain) options.notation = Notation::plain;
    if (arguments.keeps) {
        options.density = info.density;
        options.texts = info.texts;
    }
    auto bytes = std::vector<std::uint8_t>{};
    try {
        bytes = encode(picture, format, options);
    } catch (const Error& error) {
        throw Error{fmt::format("{}\n    --channels, --bits and --on change the picture first", error.what())};
    }
    put_file(arguments.picture, bytes,
             fmt::format("{}, {} x {} pixels", name_of(format), picture.size().width, picture.size().height));
}

// The picture's own colours, if they are no more than a palette can have; else those of a cube, of which the nearest
// are taken.
Palette palette_for(const Bitmap<Rgba8>& picture) {
    constexpr std::size_t most = 256;
    const auto colors = colors_of(picture);
    if (colors.size() > most) return palettes::cube();
    std::vector<Color> narrow;
    narrow.reserve(colors.size());
    for (const auto& color : colors) narrow.push_back(narrowed(color));
    return Palette{std::move(narrow)};
}

// 16 bits go through Rgba16, all else through Rgba8.
template <PixelFormat Wide, PixelFormat Gray>
void change_and_write(const LoadedPicture& loaded, const Changes& changes, const Destination& destination) {
    constexpr auto is_deep = std::is_same_v<Wide, Rgba16>;
    auto picture = loaded.as<Wide>();
    if (changes.size) picture = resized(picture, *changes.size, changes.scaling);
    if (changes.ground) {
        Bitmap<Wide> ground{picture.size(), *changes.ground};
        paste(ground, picture);
        picture = std::move(ground);
    }
    const auto is_gray =
        std::holds_alternative<Bitmap<Gray8>>(loaded.bitmap) || std::holds_alternative<Bitmap<Gray16>>(loaded.bitmap);
    auto channels = changes.channels;
    if (channels.empty()) channels = is_gray ? "gray" : loaded.info.has_alpha && !changes.ground ? "rgba" : "rgb";
    if (channels == "gray") return write_to(destination, convert<Gray>(picture));
    if constexpr (is_deep) {
        if (channels == "palette") throw WrongCall{"--channels palette goes with 8 bits (--bits 8)"};
        // Opaque.
        const auto opaque = Ink{Color{}, {.blend = Blend::replace, .channels = Channels::alpha}};
        if (channels == "rgb") fill(picture, Box{.at = {}, .size = picture.size()}, opaque);
    } else {
        if (channels == "palette") return write_to(destination, convert(picture, palette_for(picture)));
        if (channels == "rgb") return write_to(destination, convert<Rgb8>(picture));
    }
    write_to(destination, picture);
}

}  // namespace

Exit resave(const ResaveArguments& arguments) {
    const Changes changes{arguments};
    const auto format = format_for(arguments);
    (void)options_for(arguments);
    const auto loaded = read(arguments.from);
    const Destination destination{.arguments = arguments, .format = format, .info = loaded.info};
    const auto is_deep = changes.bits == 16 || (changes.bits == 0 && loaded.info.bits == 16);
    if (changes.are_none()) {
        std::visit([&](const auto& bitmap) { write_to(destination, bitmap); }, loaded.bitmap);
    } else if (is_deep) {
        change_and_write<Rgba16, Gray16>(loaded, changes, destination);
    } else {
        change_and_write<Rgba8, Gray8>(loaded, changes, destination);
    }
    return Exit::done;
}

Exit pick(const PickArguments& arguments) {
    std::vector<Point> places;
    places.reserve(arguments.places.size());
    for (const auto& words : arguments.places) places.push_back(pair_of(words, "the pixel"));
    const auto loaded = read(arguments.picture);
    const auto size = loaded.info.size;
    for (const auto& [x, y] : places) {
        if (contains(Box{.at = {}, .size = size}, Point{x, y})) continue;
        throw Error{fmt::format("{}: pixel {},{} is outside the picture, which has 0,0 to {},{}",
                                shown_name(arguments.picture), x, y, size.width - 1, size.height - 1)};
    }
    for (const auto& at : places) {
        const auto deep = std::visit([&](const auto& picture) { return picture.color16_at(at); }, loaded.bitmap);
        const auto color = narrowed(deep);
        const auto alpha = color.alpha == 255 ? std::string{} : fmt::format(" alpha {}", color.alpha);
        const auto name = nearest_name(color);
        const auto is_exact = std::any_of(named_colors.begin(), named_colors.end(), [&](const NamedColor& named) {
            return named.name == name && named.color == with_alpha(color, 255);
        });
        fmt::print("{},{}  {}  red {} green {} blue {}{}  {}{}", at.x, at.y, hex(color), color.red, color.green,
                   color.blue, alpha, is_exact ? "" : "near ", name);
        if (loaded.info.bits == 16) fmt::print("  (16 bits: {} {} {} {})", deep.red, deep.green, deep.blue, deep.alpha);
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
        const auto first = read(arguments.first);
        const auto second = read(arguments.second);
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

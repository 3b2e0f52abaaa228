#include "picture_commands.hpp"

#include "output.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <charconv>
#include <iostream>
#include <new>

#include <fmt/core.h>
#include <nlohmann/json.hpp>

namespace coldbrick::tool {

namespace {

std::string shown_name(const std::string& path) { return path == "-" ? "standard input" : printable(path); }

// Calls load(source, limits) with a stream or a path.
template <class Load>
auto read_by(const std::string& path, const std::vector<std::string>& limits, const Load& load) {
    const auto allowed = load_limits(limits);
    try {
        return path == "-" ? load(std::cin, allowed) : load(std::filesystem::path{path}, allowed);
    } catch (const std::bad_alloc&) {
        throw Error{fmt::format("{}: there is not enough memory for this picture", shown_name(path))};
    } catch (const Error& error) {
        throw Error{path == "-" ? fmt::format("standard input: {}", error.what()) : error.what()};
    }
}

LoadedPicture read(const std::string& path, const std::vector<std::string>& limits) {
    return read_by(path, limits, [](auto&& source, const LoadLimits& allowed) { return load_any(source, allowed); });
}

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
            const auto picture = read(path, arguments.limits);
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

// Four whole numbers and commas between.
std::optional<Box> wanted_part(const std::string& words) {
    if (words.empty()) return std::nullopt;
    const auto middle = words.find(',', words.find(',') == std::string::npos ? 0 : words.find(',') + 1);
    if (middle == std::string::npos) {
        throw WrongCall{fmt::format("--part is {}; it is a place and a size, as in 10,20,64,48", printable(words))};
    }
    const auto at = pair_of(words.substr(0, middle), "--part's place");
    const auto size = pair_of(words.substr(middle + 1), "--part's size");
    return Box{.at = at, .size = {.width = size.x, .height = size.y}};
}

Quarters wanted_turn(const std::string& words) {
    if (words.empty()) return Quarters::none;
    if (words == "90") return Quarters::one;
    if (words == "180") return Quarters::two;
    if (words == "270" || words == "-90") return Quarters::three;
    throw WrongCall{fmt::format("--turned is {}; allowed are 90, 180, 270 and -90", printable(words))};
}

// What a call asks for, checked before anything is read.
struct Changes {
    explicit Changes(const ResaveArguments& arguments)
        : part{wanted_part(arguments.part)},
          turned{wanted_turn(arguments.turned)},
          size{wanted_size(arguments)},
          scaling{wanted_scaling(arguments.scaling)},
          ground{wanted_ground(arguments)},
          channels{arguments.channels},
          bits{arguments.bits},
          colors{arguments.colors.value_or(256)},
          is_diffused{arguments.diffused} {
        check_word("--mirrored", arguments.mirrored, "left_right", "top_bottom");
        if (arguments.mirrored == "left_right") mirrored = Mirror::left_right;
        if (arguments.mirrored == "top_bottom") mirrored = Mirror::top_bottom;
        check_word("--channels", channels, "gray", "rgb", "rgba", "palette");
        check_word("--scaling", arguments.scaling, "nearest", "box", "bilinear", "lanczos");
        if (bits != 0 && bits != 8 && bits != 16)
            throw WrongCall{fmt::format("--bits is {}; allowed are 8 and 16", bits)};
        if (colors < 1 || colors > 256) throw WrongCall{fmt::format("--colors is {}; allowed is 1 to 256", colors)};
        check_effects(arguments);
    }

    // Options that would do nothing.
    void check_effects(const ResaveArguments& arguments) const {
        const auto is_palette = channels == "palette";
        if (!arguments.scaling.empty() && !size) throw WrongCall{"--scaling does nothing without --size"};
        if (arguments.colors && !is_palette) throw WrongCall{"--colors does nothing without --channels palette"};
        if (is_diffused && !is_palette) throw WrongCall{"--diffused does nothing without --channels palette"};
        if (is_palette && bits == 16) throw WrongCall{"--channels palette goes with 8 bits"};
        const auto format = format_for(arguments);
        const auto is_pnm = format == FileFormat::pbm || format == FileFormat::pgm || format == FileFormat::ppm ||
                            format == FileFormat::pnm;
        if (arguments.plain && !is_pnm) {
            throw WrongCall{fmt::format("--plain is for pnm, and the picture is written as {}", name_of(format))};
        }
        const auto holds_more = format == FileFormat::png || format == FileFormat::jpeg || format == FileFormat::bmp;
        if (arguments.keeps && !holds_more) {
            throw WrongCall{
                fmt::format("--keep is for png, jpeg and bmp, and the picture is written as {}", name_of(format))};
        }
    }

    [[nodiscard]] bool are_none() const { return !size && !ground && channels.empty() && bits == 0; }

    std::optional<Box> part;
    Quarters turned;
    Mirror mirrored = Mirror::none;
    std::optional<Size> size;
    std::optional<Scaling> scaling;
    std::optional<Color> ground;
    std::string channels;
    int bits;
    int colors;
    bool is_diffused;
};

// Takes a part, mirrors and turns, in the picture's own format.
void reshape(LoadedPicture& loaded, const Changes& changes, const ResaveArguments& arguments) {
    const auto size = loaded.info.size;
    const auto whole = Box{.at = {}, .size = size};
    const auto part = changes.part.value_or(whole);
    if (part.empty() || intersection(part, whole) != part) {
        throw Error{fmt::format("{}: the part {} is not in the picture, which has {} x {} pixels",
                                shown_name(arguments.from), printable(arguments.part), size.width, size.height)};
    }
    if (part == whole && changes.turned == Quarters::none && changes.mirrored == Mirror::none) return;
    std::visit(
        [&](auto& bitmap) { bitmap = turned(crop(std::as_const(bitmap), part), changes.turned, changes.mirrored); },
        loaded.bitmap);
    loaded.info.size = std::visit([](const auto& bitmap) { return bitmap.size(); }, loaded.bitmap);
}

// Where a picture goes, and what of the file that it came from.
struct Destination {
    const ResaveArguments& arguments;
    FileFormat format;
    const PictureInfo& info;
};

template <PixelFormat Format>
void write_to(const Destination& destination, const Bitmap<Format>& picture, Storage storage = Storage::as_it_is) {
    const auto& [arguments, format, info] = destination;
    auto options = options_for(arguments);
    if (!arguments.small) options.storage = storage;
    if (arguments.plain) options.notation = Notation::plain;
    if (arguments.keeps) {
        options.density = info.density;
        options.texts = info.texts;
    }
    auto bytes = std::vector<std::uint8_t>{};
    try {
        bytes = encode(picture, format, options);
    } catch (const Error& error) {
        const auto name = arguments.picture == "-" ? "standard output" : printable(arguments.picture);
        throw Error{
            fmt::format("{}: {}\n    --channels, --bits and --on change the picture first", name, error.what())};
    }
    put_file(arguments.picture, bytes,
             fmt::format("{}, {} x {} pixels", name_of(format), picture.size().width, picture.size().height));
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
        if (channels == "palette") throw WrongCall{"--channels palette goes with 8 bits: --bits 8 does that first"};
        if (channels == "rgb") {
            const auto opaque = Ink{Color{}, {.blend = Blend::replace, .channels = Channels::alpha}};
            fill(picture, Box{.at = {}, .size = picture.size()}, opaque);
            return write_to(destination, picture, Storage::without_alpha);
        }
    } else {
        if (channels == "palette") {
            auto palette = palette_for(picture, changes.colors);
            return write_to(destination, changes.is_diffused ? diffused(picture, std::move(palette))
                                                             : convert(picture, std::move(palette)));
        }
        if (channels == "rgb") return write_to(destination, convert<Rgb8>(picture));
    }
    write_to(destination, picture);
}

}  // namespace

Exit resave(const ResaveArguments& arguments) {
    const Changes changes{arguments};
    const auto format = format_for(arguments);
    (void)options_for(arguments);
    auto loaded = read(arguments.from, arguments.limits);
    reshape(loaded, changes, arguments);
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
    const auto picked = read_by(arguments.picture, arguments.limits, [&](auto&& source, const LoadLimits& allowed) {
        return load_colors(source, places, allowed);
    });
    for (std::size_t i = 0; i < places.size(); ++i) {
        const auto at = places[i];
        const auto deep = picked.colors[i];
        const auto color = narrowed(deep);
        const auto alpha = color.alpha == 255 ? std::string{} : fmt::format(" alpha {}", color.alpha);
        const auto name = nearest_name(color);
        const auto is_exact = std::any_of(named_colors.begin(), named_colors.end(), [&](const NamedColor& named) {
            return named.name == name && named.color == with_alpha(color, 255);
        });
        if (deep.alpha == 0) {
            fmt::print("{},{}  {}  transparent\n", at.x, at.y, hex(color));
            continue;
        }
        fmt::print("{},{}  {}  red {} green {} blue {}{}  {}{}", at.x, at.y, hex(color), color.red, color.green,
                   color.blue, alpha, is_exact ? "" : "near ", name);
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

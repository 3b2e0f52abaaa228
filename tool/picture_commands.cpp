#include "picture_commands.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <iostream>
#include <iterator>

#include <fmt/core.h>
#include <nlohmann/json.hpp>

namespace coldbrick::tool {

namespace {

LoadedPicture read(const std::string& path) { return path == "-" ? load_any(std::cin) : load_any(path); }

std::string shown_name(const std::string& path) { return path == "-" ? "standard input" : path; }

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
    std::visit(
        [&](const auto& bitmap) {
            const auto all = bitmap.pixels();
            auto is_opaque = true;
            auto is_gray = true;
            auto is_shallow = true;
            for (int y = 0; y < all.size().height; ++y) {
                for (int x = 0; x < all.size().width; ++x) {
                    const auto color = all.color16_at({x, y});
                    is_opaque = is_opaque && color.alpha == 65535;
                    is_gray = is_gray && color.red == color.green && color.green == color.blue;
                    is_shallow = is_shallow && widened(narrowed(color)) == color;
                }
            }
            if (picture.info.has_alpha && is_opaque) oddities.emplace_back("it has alpha, and every pixel is opaque");
            if (picture.info.channels > 2 && is_gray)
                oddities.emplace_back("it has colour channels, and every pixel is gray");
            if (picture.info.bits == 16 && is_shallow)
                oddities.emplace_back("it has 16 bits a channel, and 8 would do");
        },
        picture.bitmap);
    return oddities;
}

std::size_t colors_in(const LoadedPicture& picture) {
    return std::visit([](const auto& bitmap) { return count_colors(bitmap); }, picture.bitmap);
}

void print_info(const LoadedPicture& picture, const std::string& path) {
    const auto& info = picture.info;
    fmt::print("{}: {}, {} x {} pixels\n", shown_name(path), name_of(info.format), info.size.width, info.size.height);
    fmt::print("    channels  {}, {} bit{}\n", channels_in_words(info), info.bits, info.bits == 1 ? "" : "s");
    if (info.has_palette) fmt::print("    palette   {} colours\n", palette_size(picture));
    fmt::print("    colours   {}{}\n", colors_in(picture), info.has_alpha ? ", with alpha" : "");
    if (info.density) {
        fmt::print("    density   {:g} x {:g}, {}\n", info.density->across, info.density->down,
                   unit_in_words(info.density->unit));
    }
    for (const auto& [keyword, text] : info.texts) fmt::print("    text      {}: {}\n", keyword, text);
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

void check(const ResaveArguments& arguments) {
    check_word("--channels", arguments.channels, "gray", "rgb", "rgba", "palette");
    check_word("--scaling", arguments.scaling, "nearest", "box", "bilinear", "lanczos");
    if (arguments.bits != 0 && arguments.bits != 8 && arguments.bits != 16) {
        throw WrongCall{fmt::format("--bits is {}; allowed are 8 and 16", arguments.bits)};
    }
    if (arguments.quality < 1 || arguments.quality > 100) {
        throw WrongCall{fmt::format("--quality is {}; allowed is 1 to 100", arguments.quality)};
    }
}

Scaling scaling_of(const std::string& word, Size from, Size to) {
    if (word == "nearest") return Scaling::nearest;
    if (word == "bilinear") return Scaling::bilinear;
    if (word == "lanczos") return Scaling::lanczos;
    if (word == "box") return Scaling::box;
    return to.width <= from.width && to.height <= from.height ? Scaling::box : Scaling::bilinear;
}

// A CSS colour name, or # and hexadecimal digits.
Color color_of(const std::string& words) {
    for (const auto& [name, color] : named_colors) {
        if (name == words) return color;
    }
    std::uint32_t value = 0;
    const auto* const end = words.data() + words.size();
    const auto is_hex =
        words.size() == 7 && words.front() == '#' && std::from_chars(words.data() + 1, end, value, 16).ptr == end;
    if (!is_hex) throw WrongCall{fmt::format("--on is {}; allowed are the colour names of CSS, and #rrggbb", words)};
    return {.red = static_cast<std::uint8_t>(value >> 16U),
            .green = static_cast<std::uint8_t>(value >> 8U),
            .blue = static_cast<std::uint8_t>(value)};
}

FileFormat format_for(const ResaveArguments& arguments) {
    try {
        if (!arguments.kind.empty()) return file_format_of(std::filesystem::path{"picture." + arguments.kind});
        return arguments.to == "-" ? FileFormat::png : file_format_of(std::filesystem::path{arguments.to});
    } catch (const Error& error) {
        throw WrongCall{arguments.kind.empty() ? error.what()
                                               : fmt::format("--kind is {}; it is none that is known", arguments.kind)};
    }
}

template <PixelFormat Format>
void write_as(Bitmap<Format> picture, const PictureInfo& info, const ResaveArguments& arguments, FileFormat format) {
    auto options = SaveOptions{.quality = arguments.quality};
    if (arguments.small) options.effort = Effort::most;
    if (arguments.small) options.storage = Storage::fewest_bits;
    if (arguments.plain) options.notation = Notation::plain;
    if (arguments.keeps) {
        options.density = info.density;
        options.texts = info.texts;
    }
    const auto bytes = encode(picture, format, options);
    const auto is_stdout = arguments.to == "-";
    is_stdout ? write_stream(std::cout, bytes) : write_file(arguments.to, bytes);
    fmt::print(is_stdout ? stderr : stdout, "{}: {}, {} x {} pixels, {} bytes\n",
               is_stdout ? "standard output" : arguments.to, name_of(format), picture.size().width,
               picture.size().height, bytes.size());
}

// The nearest 256 colours or fewer: its own where there are no more, else those of a cube.
Palette palette_for(const Bitmap<Rgba8>& picture) {
    constexpr std::size_t most = 256;
    if (count_colors(picture) > most) return palettes::cube();
    std::vector<Color> colors;
    for (int y = 0; y < picture.size().height; ++y) {
        for (int x = 0; x < picture.size().width; ++x) {
            const auto color = picture.color_at({x, y});
            if (std::find(colors.begin(), colors.end(), color) == colors.end()) colors.push_back(color);
        }
    }
    return Palette{std::move(colors)};
}

template <PixelFormat Format>
Bitmap<Format> resized_as_asked(Bitmap<Format> picture, const ResaveArguments& arguments) {
    if (arguments.size.empty()) return picture;
    const auto wanted = pair_of(arguments.size, "--size");
    const auto size = detail::proportional(picture.size(), {.width = wanted.x, .height = wanted.y});
    return resized(picture, size, scaling_of(arguments.scaling, picture.size(), size));
}

// 16 bits go through Rgba16, all else through Rgba8.
template <PixelFormat Wide, PixelFormat Gray, bool is_deep>
void change_and_write(const LoadedPicture& loaded, const ResaveArguments& arguments, FileFormat format) {
    auto picture = resized_as_asked(loaded.as<Wide>(), arguments);
    if (!arguments.ground.empty()) {
        Bitmap<Wide> ground{picture.size(), color_of(arguments.ground)};
        paste(ground, picture);
        picture = std::move(ground);
    }
    const auto is_gray =
        std::holds_alternative<Bitmap<Gray8>>(loaded.bitmap) || std::holds_alternative<Bitmap<Gray16>>(loaded.bitmap);
    const auto has_alpha = loaded.info.has_alpha && arguments.ground.empty();
    auto channels = arguments.channels;
    if (channels.empty()) channels = is_gray ? "gray" : has_alpha ? "rgba" : "rgb";
    if (channels == "gray") return write_as(convert<Gray>(picture), loaded.info, arguments, format);
    if constexpr (!is_deep) {
        if (channels == "palette")
            return write_as(convert(picture, palette_for(picture)), loaded.info, arguments, format);
        if (channels == "rgb") return write_as(convert<Rgb8>(picture), loaded.info, arguments, format);
    } else {
        if (channels == "palette") throw WrongCall{"--channels palette goes with 8 bits (--bits 8)"};
        if (channels == "rgb") {
            // Opaque.
            fill(picture, Box{.at = {}, .size = picture.size()},
                 Ink{Color{}, {.blend = Blend::replace, .channels = Channels::alpha}});
        }
    }
    write_as(std::move(picture), loaded.info, arguments, format);
}

}  // namespace

Exit resave(const ResaveArguments& arguments) {
    check(arguments);
    const auto format = format_for(arguments);
    if (!arguments.size.empty()) (void)pair_of(arguments.size, "--size");
    if (!arguments.ground.empty()) (void)color_of(arguments.ground);
    const auto loaded = read(arguments.from);
    const auto is_unchanged =
        arguments.size.empty() && arguments.ground.empty() && arguments.channels.empty() && arguments.bits == 0;
    if (is_unchanged) {
        std::visit([&](const auto& bitmap) { write_as(bitmap, loaded.info, arguments, format); }, loaded.bitmap);
        return Exit::done;
    }
    const auto is_deep = arguments.bits == 16 || (arguments.bits == 0 && loaded.info.bits == 16);
    if (is_deep) {
        change_and_write<Rgba16, Gray16, true>(loaded, arguments, format);
    } else {
        change_and_write<Rgba8, Gray8, false>(loaded, arguments, format);
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
    const auto picture = loaded.as<Rgba16>();
    for (const auto& at : places) {
        const auto deep = picture.color16_at(at);
        const auto color = picture.color_at(at);
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
        const auto first = read(arguments.first).as<Rgba16>();
        const auto second = read(arguments.second).as<Rgba16>();
        if (first.size() != second.size()) {
            fmt::print("the sizes differ: {} x {} and {} x {} pixels\n", first.size().width, first.size().height,
                       second.size().width, second.size().height);
            return 1;
        }
        const auto found = compare(first, second, arguments.tolerance);
        if (!arguments.shown.empty()) save(differences_shown(first, second, arguments.tolerance), arguments.shown);
        const auto all = std::int64_t{first.size().width} * first.size().height;
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

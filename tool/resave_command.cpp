// The command that writes a picture in another format.
#include "output.hpp"
#include "picture_commands.hpp"
#include "picture_input.hpp"

#include <coldbrick/coldbrick.hpp>

#include <optional>
#include <string>
#include <utility>
#include <variant>

#include <fmt/core.h>

namespace coldbrick::tool {

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

// The picture in its own format: a part of it, in another size if nothing is turned before that, turned and mirrored.
LoadedPicture read_changed(const ResaveArguments& arguments, Changes& changes) {
    const auto is_turned = changes.turned != Quarters::none || changes.mirrored != Mirror::none;
    Excerpt excerpt{.part = changes.part};
    if (changes.size && !is_turned) {
        excerpt.size = *std::exchange(changes.size, std::nullopt);
        excerpt.scaling = changes.scaling;
    }
    auto loaded = read_by(arguments.from, arguments.limits,
                          [&](auto&& source, const LoadLimits& allowed) { return load_any(source, excerpt, allowed); });
    std::visit(
        [&](auto& bitmap) {
            if (is_turned) bitmap = turned(std::as_const(bitmap), changes.turned, changes.mirrored);
            loaded.info.size = bitmap.size();
        },
        loaded.bitmap);
    return loaded;
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
    Changes changes{arguments};
    const auto are_none = changes.are_none();
    const auto format = format_for(arguments);
    (void)options_for(arguments);
    const auto loaded = read_changed(arguments, changes);
    const Destination destination{.arguments = arguments, .format = format, .info = loaded.info};
    const auto is_deep = changes.bits == 16 || (changes.bits == 0 && loaded.info.bits == 16);
    if (are_none) {
        std::visit([&](const auto& bitmap) { write_to(destination, bitmap); }, loaded.bitmap);
    } else if (is_deep) {
        change_and_write<Rgba16, Gray16>(loaded, changes, destination);
    } else {
        change_and_write<Rgba8, Gray8>(loaded, changes, destination);
    }
    return Exit::done;
}

}  // namespace coldbrick::tool

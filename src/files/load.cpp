// Files, streams and memory to pictures.
#include "coldbrick/load.hpp"

#include "files/codecs.hpp"

#include <algorithm>
#include <array>
#include <cerrno>
#include <filesystem>
#include <fstream>
#include <istream>
#include <optional>
#include <string>
#include <system_error>
#include <variant>

namespace coldbrick::inline v0 {

namespace fs = std::filesystem;

namespace {

using detail::FileBytes;

void check_length(std::uint64_t length, const LoadLimits& limits) {
    if (length <= limits.file_bytes) return;
    throw Error{"the file has " + std::to_string(length) + " bytes; allowed are " + std::to_string(limits.file_bytes)};
}

// The kind by the first bytes; throws Error for those of none.
const detail::Codec& codec_for(FileBytes file) {
    if (const auto* const codec = detail::codec_of(file)) return *codec;
    if (file.empty()) throw Error{"the file is empty"};
    const auto names = detail::codecs_in_words(
        [](const detail::Codec& codec) { return std::array{codec.read != nullptr ? codec.name : std::string_view{}}; });
    throw Error{"the file is none of " + names + ", by its first bytes"};
}

// No further than its first bytes if those are of no picture.
void expect_picture(FileBytes first) { (void)codec_for(first); }

// As far as the limit, and one byte further. look() is given the first bytes, and throws Error to read no further.
// read(to, count) returns how many bytes it has read, fewer only at the end. `length` is how long the file says that it
// is, or 0.
template <class Read, class Look>
std::vector<std::uint8_t> read_all(const LoadLimits& limits, std::uint64_t length, const Read& read, const Look& look) {
    check_length(length, limits);
    std::vector<std::uint8_t> bytes;
    constexpr std::size_t first_bytes = 16;
    constexpr std::size_t usual = 1 << 16;
    for (auto at_once = first_bytes; bytes.size() <= limits.file_bytes;) {
        const auto before = bytes.size();
        bytes.resize(before + at_once);
        const auto count = read(bytes.data() + before, at_once);
        bytes.resize(before + count);
        if (before == 0) {
            look(bytes);
            if (length > 0) bytes.reserve(static_cast<std::size_t>(length) + usual);
        }
        if (count < at_once) break;
        at_once = usual;
    }
    check_length(bytes.size(), limits);
    return bytes;
}

std::vector<std::uint8_t> read_all(std::istream& stream, const LoadLimits& limits, std::uint64_t length = 0) {
    return read_all(
        limits, length,
        [&](std::uint8_t* to, std::size_t count) {
            stream.read(reinterpret_cast<char*>(to), static_cast<std::streamsize>(count));
            if (stream.bad()) throw Error{"stream: the picture cannot be read from it"};
            return static_cast<std::size_t>(stream.gcount());
        },
        expect_picture);
}

void check_name(const fs::path& path) {
    if (path.native().find('\0') != std::string::npos) throw Error{"cannot be read: the name has a NUL byte"};
}

std::vector<std::uint8_t> read_file(const fs::path& path, const LoadLimits& limits) {
    std::error_code unknown;
    check_name(path);
    if (fs::is_directory(path, unknown)) detail::fail_to_read(EISDIR);
    errno = 0;
    std::ifstream file{path, std::ios::binary};
    if (!file) detail::fail_to_read(errno);
    const auto length = fs::is_regular_file(path, unknown) ? fs::file_size(path, unknown) : 0;
    return read_all(file, limits, unknown ? 0 : length);
}

template <class Look>
std::vector<std::uint8_t> read_regular_file(const fs::path& path, const LoadLimits& limits, const Look& look) {
    check_name(path);
    const detail::OpenFile file{path};
    return read_all(
        limits, file.length(), [&](std::uint8_t* to, std::size_t count) { return file.read(to, count); }, look);
}

PictureInfo read_picture(const detail::ByteSource& file, const LoadLimits& limits, detail::PixelSink& sink) {
    const detail::LoadBudget budget{limits};
    check_length(file.size(), limits);
    std::array<std::uint8_t, 16> first{};
    const auto count = static_cast<std::size_t>(std::min<std::uint64_t>(file.size(), first.size()));
    file.read(0, first.data(), count);
    return codec_for({first.data(), count}).read(file, limits, sink);
}

// Read as it is needed.
PictureInfo read_ordinary_file(const fs::path& path, const LoadLimits& limits, detail::PixelSink& sink) {
    check_name(path);
    const detail::OpenFile file{path};
    const auto length = file.length();
    // Some of the system's say nothing of their length.
    if (length == 0) {
        const auto bytes = read_regular_file(path, limits, expect_picture);
        return read_picture(detail::ByteSource{bytes}, limits, sink);
    }
    return read_picture(detail::ByteSource{file, length}, limits, sink);
}

PictureInfo read_any_file(const fs::path& path, const LoadLimits& limits, detail::PixelSink& sink) {
    std::error_code unknown;
    check_name(path);
    if (fs::is_regular_file(path, unknown)) return read_ordinary_file(path, limits, sink);
    const auto bytes = read_file(path, limits);
    return read_picture(detail::ByteSource{bytes}, limits, sink);
}

// Error with the file's name before what is wrong.
template <class Read>
PictureInfo read_named(const fs::path& path, const Read& read) {
    try {
        return read(path);
    } catch (const LimitError& error) {
        throw LimitError{error.limit(), printable(path.string()) + ": " + error.what()};
    } catch (const Error& error) {
        throw Error{printable(path.string()) + ": " + error.what()};
    }
}

PictureInfo read_source(const FilePath& path, const LoadLimits& limits, detail::PixelSink& sink) {
    return read_named(path.name(), [&](const fs::path& name) { return read_any_file(name, limits, sink); });
}
PictureInfo read_source(FileBytes file, const LoadLimits& limits, detail::PixelSink& sink) {
    return read_picture(detail::ByteSource{file}, limits, sink);
}
PictureInfo read_source(std::istream& stream, const LoadLimits& limits, detail::PixelSink& sink) {
    const auto bytes = read_all(stream, limits);
    return read_picture(detail::ByteSource{bytes}, limits, sink);
}

using AnyBitmap = decltype(LoadedPicture::bitmap);

// In the format that the file has.
template <PixelFormat Format>
bool make_bitmap(const detail::StoredPixels& stored, AnyBitmap& bitmap) {
    if (stored.kernel != &detail::kernel_of<Format>()) return false;
    if constexpr (std::is_same_v<Format, Index8>) {
        bitmap = Bitmap<Index8>{stored.size, stored.palette->palette};
    } else {
        bitmap = Bitmap<Format>{stored.size};
    }
    return true;
}

template <class Source, class... More>
LoadedPicture load_any_from(Source& source, const More&... more) {
    LoadedPicture result{.bitmap = Bitmap<Gray8>{{.width = 1, .height = 1}}, .info = {}};
    const auto make = [&](const detail::StoredPixels& stored) {
        const auto make_one_of = [&]<class... Format>(const std::variant<Bitmap<Format>...>&) {
            (void)(make_bitmap<Format>(stored, result.bitmap) || ...);
        };
        make_one_of(result.bitmap);
        return std::visit([](auto& bitmap) { return detail::SurfaceAccess::of(bitmap); }, result.bitmap);
    };
    result.info = detail::load_into(source, more..., detail::load_target(nullptr, make));
    return result;
}

template <class Source>
LoadedColors load_colors_from(Source& source, std::span<const Point> places, const LoadLimits& limits) {
    detail::PlacesSink sink{places};
    auto info = read_source(source, limits, sink);
    return {.colors = std::move(sink.colors()), .info = std::move(info)};
}

}  // namespace

FileFormat file_format_of(const FilePath& path) {
    auto suffix = fs::path{path.name()}.extension().string();
    std::transform(suffix.begin(), suffix.end(), suffix.begin(),
                   [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
    for (const auto& codec : detail::codecs()) {
        if (!suffix.empty() &&
            std::find(codec.suffixes.begin(), codec.suffixes.end(), suffix) != codec.suffixes.end()) {
            return codec.format;
        }
    }
    throw Error{printable(path.name()) + ": " +
                (suffix.empty() ? "the name has no suffix" : "the suffix is " + printable(suffix)) + "; allowed are " +
                detail::codecs_in_words([](const detail::Codec& codec) { return codec.suffixes; })};
}

std::optional<FileFormat> file_format_of(std::span<const std::uint8_t> file) noexcept {
    const auto* const codec = detail::codec_of(file);
    return codec != nullptr ? std::optional{codec->format} : std::nullopt;
}

std::string_view name_of(FileFormat format) noexcept {
    const auto* const codec = detail::codec_of(format);
    return codec != nullptr ? codec->name : std::string_view{};
}

std::vector<FileFormat> file_formats() {
    std::vector<FileFormat> formats;
    for (const auto& codec : detail::codecs()) formats.push_back(codec.format);
    return formats;
}

std::vector<std::string> suffixes_of(FileFormat format) {
    std::vector<std::string> suffixes;
    const auto* const codec = detail::codec_of(format);
    if (codec == nullptr) return suffixes;
    for (const auto suffix : codec->suffixes) {
        if (!suffix.empty()) suffixes.emplace_back(suffix);
    }
    return suffixes;
}

void detail::check_size(std::string_view kind, std::int64_t width, std::int64_t height, const LoadLimits& limits) {
    const auto size = std::to_string(width) + " x " + std::to_string(height);
    if (width < 1 || height < 1) {
        throw Error{std::string{kind} + ": its size is " + size + "; it must have at least one pixel"};
    }
    const auto is_over = width > limits.side || height > limits.side ||
                         static_cast<std::uint64_t>(width) * static_cast<std::uint64_t>(height) > limits.pixels;
    if (!is_over) return;
    throw Error{std::string{kind} + ": its size is " + size + "; allowed are " + std::to_string(limits.pixels) +
                " pixels, and sides up to " + std::to_string(limits.side)};
}

void detail::check_shrinkage(std::string_view kind, Size size, std::uint64_t file_bytes, const LoadLimits& limits) {
    constexpr auto harmless = std::uint64_t{1} << 20U;
    const auto pixels = pixel_count(size);
    if (pixels <= harmless || fits_bytes(pixels, file_bytes, limits)) return;
    throw Error{std::string{kind} + ": it has " + std::to_string(file_bytes) + " bytes for " + std::to_string(pixels) +
                " pixels; allowed are " + std::to_string(limits.pixels_per_byte) +
                " pixels to a byte (limit pixels_per_byte)"};
}

bool detail::fits_bytes(std::uint64_t pixels, std::uint64_t file_bytes, const LoadLimits& limits) noexcept {
    return limits.pixels_per_byte > 0 && pixels / limits.pixels_per_byte <= file_bytes;
}

void detail::check_memory(std::string_view kind, std::uint64_t bytes, const LoadLimits& limits) {
    if (bytes <= limits.memory) return;
    throw Error{std::string{kind} + ": reading it takes " + std::to_string(bytes) + " bytes of memory; allowed are " +
                std::to_string(limits.memory) + " (limit memory)"};
}

PictureInfo detail::load_into(const FilePath& path, const LoadLimits& limits, const LoadTarget& target) {
    PictureSink sink{target};
    return read_source(path, limits, sink);
}
PictureInfo detail::load_into(FileBytes file, const LoadLimits& limits, const LoadTarget& target) {
    PictureSink sink{target};
    return read_source(file, limits, sink);
}
PictureInfo detail::load_into(std::istream& stream, const LoadLimits& limits, const LoadTarget& target) {
    PictureSink sink{target};
    return read_source(stream, limits, sink);
}
namespace {

template <class Source>
PictureInfo load_excerpt(Source& source, const Excerpt& excerpt, const LoadLimits& limits,
                         const detail::LoadTarget& target) {
    detail::ExcerptSink sink{target, excerpt};
    auto info = read_source(source, limits, sink);
    sink.finish();
    return info;
}

}  // namespace

PictureInfo detail::load_into(const FilePath& path, const Excerpt& excerpt, const LoadLimits& limits,
                              const LoadTarget& target) {
    return load_excerpt(path, excerpt, limits, target);
}
PictureInfo detail::load_into(FileBytes file, const Excerpt& excerpt, const LoadLimits& limits,
                              const LoadTarget& target) {
    return load_excerpt(file, excerpt, limits, target);
}
PictureInfo detail::load_into(std::istream& stream, const Excerpt& excerpt, const LoadLimits& limits,
                              const LoadTarget& target) {
    return load_excerpt(stream, excerpt, limits, target);
}
PictureInfo detail::load_regular_file(const FilePath& path, const LoadLimits& limits, const LoadTarget& target) {
    PictureSink sink{target};
    return read_named(path.name(), [&](const fs::path& name) { return read_ordinary_file(name, limits, sink); });
}

std::vector<std::uint8_t> detail::read_picture_file(const FilePath& path, const LoadLimits& limits) {
    return read_file(path.name(), limits);
}

std::string detail::read_text_file(const std::string& path, std::uint64_t most) {
    try {
        const auto bytes = read_regular_file(path, LoadLimits{.file_bytes = most}, [](FileBytes) {});
        return std::string{bytes.begin(), bytes.end()};
    } catch (const Error& error) {
        throw Error{printable(path) + ": " + error.what()};
    }
}

LoadedPicture load_any(const FilePath& path, const LoadLimits& limits) { return load_any_from(path, limits); }
LoadedPicture load_any(FileBytes file, const LoadLimits& limits) { return load_any_from(file, limits); }
LoadedPicture load_any(std::istream& stream, const LoadLimits& limits) { return load_any_from(stream, limits); }

LoadedPicture load_any(const FilePath& path, const Excerpt& excerpt, const LoadLimits& limits) {
    return load_any_from(path, excerpt, limits);
}
LoadedPicture load_any(FileBytes file, const Excerpt& excerpt, const LoadLimits& limits) {
    return load_any_from(file, excerpt, limits);
}
LoadedPicture load_any(std::istream& stream, const Excerpt& excerpt, const LoadLimits& limits) {
    return load_any_from(stream, excerpt, limits);
}

namespace {

template <class Source>
PictureSurvey survey_of(Source& source, std::size_t most_colors, const LoadLimits& limits) {
    detail::SurveySink sink{most_colors};
    auto info = read_source(source, limits, sink);
    return {.info = std::move(info),
            .needs = sink.survey().needs(),
            .colors = sink.survey().colors(),
            .palette_size = sink.palette_size()};
}

}  // namespace

PictureSurvey survey(const FilePath& path, std::size_t most_colors, const LoadLimits& limits) {
    return survey_of(path, most_colors, limits);
}
PictureSurvey survey(FileBytes file, std::size_t most_colors, const LoadLimits& limits) {
    return survey_of(file, most_colors, limits);
}
PictureSurvey survey(std::istream& stream, std::size_t most_colors, const LoadLimits& limits) {
    return survey_of(stream, most_colors, limits);
}

LoadedColors load_colors(const FilePath& path, std::span<const Point> places, const LoadLimits& limits) {
    return load_colors_from(path, places, limits);
}
LoadedColors load_colors(FileBytes file, std::span<const Point> places, const LoadLimits& limits) {
    return load_colors_from(file, places, limits);
}
LoadedColors load_colors(std::istream& stream, std::span<const Point> places, const LoadLimits& limits) {
    return load_colors_from(stream, places, limits);
}

}  // namespace coldbrick::inline v0

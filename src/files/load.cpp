// Files, streams and memory to pictures.
#include "coldbrick/load.hpp"

#include "files/readers.hpp"

#include <algorithm>
#include <array>
#include <cerrno>
#include <fstream>
#include <istream>
#include <string>
#include <system_error>

namespace coldbrick {

namespace fs = std::filesystem;

namespace {

struct Kind {
    FileFormat format;
    std::string_view name;
    std::string_view suffix;
};
constexpr auto kinds = std::to_array<Kind>({{FileFormat::png, "png", ".png"},
                                            {FileFormat::jpeg, "jpeg", ".jpg"},
                                            {FileFormat::jpeg, "jpeg", ".jpeg"},
                                            {FileFormat::pbm, "pbm", ".pbm"},
                                            {FileFormat::pgm, "pgm", ".pgm"},
                                            {FileFormat::ppm, "ppm", ".ppm"},
                                            {FileFormat::pnm, "pnm", ".pnm"},
                                            {FileFormat::pam, "pam", ".pam"},
                                            {FileFormat::bmp, "bmp", ".bmp"},
                                            {FileFormat::qoi, "qoi", ".qoi"}});

bool begins_with(std::span<const std::uint8_t> file, std::string_view magic) noexcept {
    return file.size() >= magic.size() && std::equal(magic.begin(), magic.end(), file.begin(), [](char c, auto byte) {
               return static_cast<std::uint8_t>(c) == byte;
           });
}

using Bytes = std::vector<std::uint8_t>;

void check_length(std::uint64_t length, const LoadLimits& limits) {
    if (length <= limits.file_bytes) return;
    throw Error{"the file has " + std::to_string(length) + " bytes; allowed are " + std::to_string(limits.file_bytes)};
}

// As far as the limit, and one byte further.
Bytes read_all(std::istream& stream, const LoadLimits& limits) {
    Bytes bytes;
    constexpr std::size_t at_once = 1 << 16;
    while (stream && bytes.size() <= limits.file_bytes) {
        const auto before = bytes.size();
        bytes.resize(before + at_once);
        stream.read(reinterpret_cast<char*>(bytes.data() + before), at_once);
        bytes.resize(before + static_cast<std::size_t>(stream.gcount()));
    }
    if (stream.bad()) throw Error{"stream: the picture cannot be read from it"};
    check_length(bytes.size(), limits);
    return bytes;
}

Bytes read_file(const fs::path& path, const LoadLimits& limits) {
    const auto fail = [](std::errc reason) {
        throw Error{"cannot be read: " + std::make_error_code(reason).message()};
    };
    std::error_code unknown;
    if (fs::is_directory(path, unknown)) fail(std::errc::is_a_directory);
    errno = 0;
    std::ifstream file{path, std::ios::binary};
    if (!file) fail(static_cast<std::errc>(errno));
    return read_all(file, limits);
}

}  // namespace

FileFormat file_format_of(const fs::path& path) {
    auto suffix = path.extension().string();
    std::transform(suffix.begin(), suffix.end(), suffix.begin(),
                   [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
    const auto* const found =
        std::find_if(kinds.begin(), kinds.end(), [&](const Kind& kind) { return kind.suffix == suffix; });
    if (found != kinds.end()) return found->format;
    throw Error{path.string() + ": " + (suffix.empty() ? "the name has no suffix" : "the suffix is " + suffix) +
                "; allowed are .png, .jpg, .jpeg, .pbm, .pgm, .ppm, .pnm, .pam, .bmp and .qoi"};
}

std::optional<FileFormat> file_format_of(std::span<const std::uint8_t> file) noexcept {
    if (begins_with(file, "\x89PNG\r\n\x1a\n")) return FileFormat::png;
    if (begins_with(file, "\xff\xd8\xff")) return FileFormat::jpeg;
    if (begins_with(file, "BM")) return FileFormat::bmp;
    if (begins_with(file, "qoif")) return FileFormat::qoi;
    if (file.size() < 3 || file[0] != 'P') return std::nullopt;
    switch (file[1]) {
        case '1':
        case '4':
            return FileFormat::pbm;
        case '2':
        case '5':
            return FileFormat::pgm;
        case '3':
        case '6':
            return FileFormat::ppm;
        case '7':
            return FileFormat::pam;
        default:
            return std::nullopt;
    }
}

std::string_view name_of(FileFormat format) noexcept {
    const auto* const found =
        std::find_if(kinds.begin(), kinds.end(), [=](const Kind& kind) { return kind.format == format; });
    return found != kinds.end() ? found->name : std::string_view{};
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

LoadedPicture load_any(std::span<const std::uint8_t> file, const LoadLimits& limits) {
    check_length(file.size(), limits);
    const auto format = file_format_of(file);
    if (!format) {
        throw Error{file.empty()
                        ? "the file is empty"
                        : "the file is none of png, jpeg, pbm, pgm, ppm, pam, bmp and qoi, by its first bytes"};
    }
    switch (*format) {
        case FileFormat::png:
            return detail::read_png(file, limits);
        case FileFormat::jpeg:
            return detail::read_jpeg(file, limits);
        case FileFormat::pam:
            return detail::read_pam(file, limits);
        case FileFormat::bmp:
            return detail::read_bmp(file, limits);
        case FileFormat::qoi:
            return detail::read_qoi(file, limits);
        default:
            return detail::read_pnm(file, limits);
    }
}

LoadedPicture load_any(const fs::path& path, const LoadLimits& limits) {
    try {
        return load_any(read_file(path, limits), limits);
    } catch (const Error& error) {
        throw Error{path.string() + ": " + error.what()};
    }
}

LoadedPicture load_any(std::istream& stream, const LoadLimits& limits) {
    return load_any(read_all(stream, limits), limits);
}

}  // namespace coldbrick

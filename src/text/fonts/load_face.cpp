// Font files from paths and memory.
#include "text/fonts/font_face.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <string>
#include <system_error>
#include <utility>

namespace coldbrick::inline v0 {

namespace {

namespace fs = std::filesystem;

// The bytes of a file that is one: reading of a pipe might never end.
detail::FontBytes read(std::string_view path) {
    const auto name = printable(path);
    const auto refuse = [&](const std::string& why) { throw Error{name + ": cannot be read: " + why}; };
    if (path.find('\0') != std::string_view::npos) refuse("its name has a NUL byte");
    std::error_code unknown;
    const fs::path place{path};
    const auto status = fs::status(place, unknown);
    if (unknown || !fs::exists(status)) refuse(unknown ? unknown.message() : "No such file or directory");
    if (!fs::is_regular_file(status)) refuse("it is no regular file");
    constexpr std::uintmax_t most = 1U << 28U;
    const auto size = fs::file_size(place, unknown);
    if (unknown) refuse(unknown.message());
    if (size > most) {
        throw Error{name + ": it has " + std::to_string(size) + " bytes; allowed are " + std::to_string(most)};
    }
    std::vector<std::uint8_t> bytes(static_cast<std::size_t>(size));
    std::ifstream file{place, std::ios::binary};
    file.read(reinterpret_cast<char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
    if (!file) refuse(std::strerror(errno));
    return std::make_shared<const std::vector<std::uint8_t>>(std::move(bytes));
}

Face face_of(std::string from, detail::FontBytes bytes, int number) {
    return Face{detail::make_shared_value<detail::FontFace>(
        detail::make_shared_value<detail::FontFile>(std::move(from), std::move(bytes), number, std::vector<FaceAxis>{}),
        std::vector<FaceFeature>{})};
}

constexpr auto memory = "font in memory";

}  // namespace

Face load_face(std::string_view path, int number, std::string_view name) {
    return face_of(printable(name.empty() ? path : name), read(path), number);
}

Face load_face(std::span<const std::uint8_t> file, int number) {
    return face_of(memory, std::make_shared<const std::vector<std::uint8_t>>(file.begin(), file.end()), number);
}

int count_faces(std::string_view path) { return detail::count_font_faces(printable(path), *read(path)); }

int count_faces(std::span<const std::uint8_t> file) { return detail::count_font_faces(memory, file); }

bool can_load_faces() noexcept { return true; }

}  // namespace coldbrick::inline v0

#include "scene/scene_files.hpp"

#include "files/readers.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <iterator>
#include <system_error>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

namespace fs = std::filesystem;

// Whether a path without links and dots is below a folder.
bool is_below(const fs::path& path, const fs::path& folder) {
    const auto [in_folder, in_path] = std::mismatch(folder.begin(), folder.end(), path.begin(), path.end());
    return in_folder == folder.end() || (std::next(in_folder) == folder.end() && in_folder->empty());
}

}  // namespace

// Links are followed first: one that leaves the folder is of no use.
std::optional<fs::path> SceneFiles::place_of(const Word& word, const std::string& file, std::string_view what) {
    const auto refuse = [&](const std::string& why, std::string advice = {}) {
        faults_.add(word, "the " + std::string{what} + " " + in_quotes(file) + " " + why, std::move(advice));
        return std::nullopt;
    };
    if (file.find('\0') != std::string::npos) return refuse("has a NUL byte in its name");
    std::error_code unknown;
    const auto base = fs::path{folder_.empty() ? "." : folder_};
    const auto path = fs::canonical(base / file, unknown);
    if (unknown) return refuse("cannot be read: " + unknown.message());
    auto folders = limits_.files_from;
    folders.push_back(base.string());
    for (const auto& folder : folders) {
        const auto real = fs::canonical(folder, unknown);
        if (!unknown && is_below(path, real)) return path;
    }
    return refuse("lies outside of the scene's folder",
                  "a scene may read files from there only if its user allows it "
                  "(files_from)");
}

std::optional<std::string> SceneFiles::text_of(const Word& word, const std::string& file, std::string_view what,
                                               std::uint64_t most) {
    const auto path = place_of(word, file, what);
    return path ? text_at(word, *path, file, most) : std::nullopt;
}

std::optional<std::string> SceneFiles::text_at(const Word& word, const fs::path& path, const std::string& file,
                                               std::uint64_t most) {
    try {
        return read_text_file(path.string(), most);
    } catch (const Error& error) {
        faults_.add(word, by_name(error.what(), path, file));
        return std::nullopt;
    }
}

std::string SceneFiles::by_name(std::string_view message, const fs::path& path, const std::string& file) {
    const auto full_name = printable(path.string());
    if (!message.starts_with(full_name)) return std::string{message};
    return printable(file) + std::string{message.substr(full_name.size())};
}

}  // namespace coldbrick::inline v0::detail

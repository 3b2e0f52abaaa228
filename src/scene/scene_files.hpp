// The files that a scene names.
#pragma once

#include "scene/budget.hpp"
#include "scene/tokens.hpp"

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

namespace coldbrick::inline v0::detail {

// Finds files below the scene's folder, and below those that its user allows besides.
class SceneFiles {
  public:
    // Names are relative to the folder.
    SceneFiles(std::string_view folder, const SceneLimits& limits, Faults& faults)
        : folder_{folder}, limits_{limits}, faults_{faults} {}

    // Where a file is; nothing if it is not there, or lies elsewhere.
    std::optional<std::filesystem::path> place_of(const Word& word, const std::string& file, std::string_view what);

    // The text of a file of at most so many bytes; nothing if it cannot be read.
    std::optional<std::string> text_of(const Word& word, const std::string& file, std::string_view what,
                                       std::uint64_t most);

    // The same of a file at its path, which a fault calls by its name in the scene.
    std::optional<std::string> text_at(const Word& word, const std::filesystem::path& path, const std::string& file,
                                       std::uint64_t most);

    // What a message says of a file at its full path, by the name that the scene gives it.
    [[nodiscard]] static std::string by_name(std::string_view message, const std::filesystem::path& path,
                                             const std::string& file);

  private:
    std::string folder_;
    const SceneLimits& limits_;
    Faults& faults_;
};

}  // namespace coldbrick::inline v0::detail

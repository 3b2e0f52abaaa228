// The files that a scene names.
#pragma once

#include "scene/budget.hpp"
#include "scene/words.hpp"

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

namespace coldbrick::inline v0::detail {

// Finds files below the scene's folder, and below those that its user allows besides.
class SceneFiles {
  public:
    // Names are relative to the folder.
    SceneFiles(std::string_view folder, const Budget& budget, Faults& faults)
        : folder_{folder}, budget_{budget}, faults_{faults} {}

    // The name between a word's quotes; nothing if it has none. What says which kind of file it is of.
    std::optional<std::string> name_in(const Word& word, std::string_view what, std::string_view example);

    // Where a file is; nothing if it is not there, or lies elsewhere.
    std::optional<std::filesystem::path> place_of(const Word& word, const std::string& file, std::string_view what);

    // What a message says of a file at its full path, by the name that the scene gives it.
    [[nodiscard]] static std::string by_name(std::string_view message, const std::filesystem::path& path,
                                             const std::string& file);

  private:
    std::string folder_;
    const Budget& budget_;
    Faults& faults_;
};

}  // namespace coldbrick::inline v0::detail

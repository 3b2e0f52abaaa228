// Faces in scenes: the built-in ones, out of font files, and by names of one's own.
#pragma once

#include "scene/arguments.hpp"
#include "scene/tables.hpp"

#include "coldbrick/face.hpp"

#include <map>
#include <optional>
#include <set>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

[[nodiscard]] bool is_built_in_face(std::string_view name) noexcept;

// The face that is always there of a name; nothing for others.
[[nodiscard]] std::optional<Face> built_in_face(std::string_view name);

// Reads font files by the names that stand in a scene, each once.
class FaceReader {
  public:
    FaceReader(SceneFiles& files, LoadedFiles& loaded, SceneBudget& budget, Faults& faults)
        : files_{files}, loaded_{loaded}, budget_{budget}, faults_{faults} {}

    // What "face NAME = FACE ..." says, from FACE on.
    std::optional<Face> read(const GivenValue& of, Arguments& given);

  private:
    std::optional<Face> base(const GivenValue& of, Arguments& given);
    std::optional<Face> load(const Word& of, const std::string& file, int number);

    SceneFiles& files_;
    LoadedFiles& loaded_;
    SceneBudget& budget_;
    Faults& faults_;
    std::map<std::pair<std::string, int>, Face> read_;  // by the names in the scene
    std::set<std::string, std::less<>> paid_;           // the paths that the budget knows
};

}  // namespace coldbrick::inline v0::detail

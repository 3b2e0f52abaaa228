// Pictures in scenes: pasted, or as the ground.
#pragma once

#include "scene/arguments.hpp"
#include "scene/tables.hpp"

#include "coldbrick/scene.hpp"

#include <array>
#include <filesystem>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>

namespace coldbrick::inline v0::detail {

// Reads picture files by the names that stand in a scene, each once, and keeps what pastes make of them, each once.
class PictureReader {
  public:
    PictureReader(SceneFiles& files, LoadedFiles& loaded, SceneBudget& budget, Faults& faults)
        : files_{files}, loaded_{loaded}, budget_{budget}, faults_{faults} {}

    // The picture of a file's name, that stands at a word; null if there is a fault.
    std::shared_ptr<const Bitmap<Rgba8>> read(const Word& name, const std::string& file);

    // The part of a picture, mirrored, turned and resized; null if there is no memory for it.
    std::shared_ptr<const Bitmap<Rgba8>> shaped(const Word& name, const std::shared_ptr<const Bitmap<Rgba8>>& picture,
                                                const Paste& how);

  private:
    using Shaped = std::pair<const void*, std::array<int, 10>>;

    std::shared_ptr<const Bitmap<Rgba8>> load(const Word& name, const std::filesystem::path& path,
                                              const std::string& file);

    SceneFiles& files_;
    LoadedFiles& loaded_;
    SceneBudget& budget_;
    Faults& faults_;
    std::map<std::string, std::shared_ptr<const Bitmap<Rgba8>>, std::less<>> read_;  // by the names in the scene
    std::set<std::string, std::less<>> paid_;                                        // the paths that the budget knows
    std::map<Shaped, std::shared_ptr<const Bitmap<Rgba8>>> shaped_;
};

// The picture as a drawing keeps it.
[[nodiscard]] Shared<KeptPicture> kept(const std::shared_ptr<const Bitmap<Rgba8>>& picture);

// A picture as it is laid on.
struct Pasted {
    Shared<KeptPicture> picture;
    Point at;           // its upper left pixel
    Transform by = {};  // then
};

// The figure of "paste".
[[nodiscard]] std::optional<Pasted> read_paste(const Word& name, const std::string& file, PictureReader& pictures,
                                               Arguments& given);

}  // namespace coldbrick::inline v0::detail

// Pictures in scenes: pasted, or as the ground.
#pragma once

#include "scene/arguments.hpp"

#include "coldbrick/scene.hpp"

#include <map>

namespace coldbrick::detail {

// Reads picture files by the names that stand in a scene, each once.
class PictureReader {
  public:
    // Names are relative to the folder.
    PictureReader(std::string_view folder, Faults& faults) : folder_{folder}, faults_{faults} {}

    // The picture of a name between quotes; null if there is a fault.
    std::shared_ptr<const Bitmap<Rgba8>> read(const Word& name);

  private:
    std::string folder_;
    Faults& faults_;
    std::map<std::string, std::shared_ptr<const Bitmap<Rgba8>>, std::less<>> read_;
};

// The figure of "paste".
[[nodiscard]] std::optional<Pasted> read_paste(const Word& name, PictureReader& pictures, Arguments& given);

}  // namespace coldbrick::detail

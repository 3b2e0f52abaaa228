// The files that scenes read, each once, however often a program is run.
#pragma once

#include "scene/scene_files.hpp"

#include "coldbrick/face.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/table.hpp"

#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <set>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

// What several runs share, from several threads.
// By their paths without links and dots, so that a file is kept once, however it is named.
struct LoadedFiles {
    std::mutex mutex;
    std::map<std::string, std::shared_ptr<const Bitmap<Rgba8>>, std::less<>> pictures;
    std::map<std::pair<std::string, int>, Face> faces;
    std::map<std::string, std::shared_ptr<const Table>, std::less<>> tables;
};

// Reads tables by the names that stand in a scene.
class TableReader {
  public:
    TableReader(SceneFiles& files, LoadedFiles& loaded, SceneBudget& budget, Faults& faults)
        : files_{files}, loaded_{loaded}, budget_{budget}, faults_{faults} {}

    // Null if there is a fault.
    std::shared_ptr<const Table> read(const Word& word, const std::string& file);

  private:
    SceneFiles& files_;
    LoadedFiles& loaded_;
    SceneBudget& budget_;
    Faults& faults_;
    std::map<std::string, std::shared_ptr<const Table>, std::less<>> read_;  // by the names that the scene gives
    std::set<std::string, std::less<>> paid_;                                // the paths that the budget knows
};

}  // namespace coldbrick::inline v0::detail

// What of a scene is seen, in one picture or in some.
#pragma once

#include <coldbrick/coldbrick.hpp>

#include <cstddef>
#include <cstdint>
#include <map>
#include <mutex>
#include <string>
#include <tuple>
#include <vector>

namespace coldbrick::tool {

// Where a statement begins: file (empty for the scene itself), line, column.
using StatementPlace = std::tuple<std::string, int, int>;
[[nodiscard]] StatementPlace statement_of(const Scene& scene, std::size_t number);

// Sheets of more pixels are drawn once, and not explained: that takes two more of them, and six bytes for each pixel.
inline constexpr std::int64_t most_explained = std::int64_t{1} << 24U;
[[nodiscard]] constexpr bool is_explained(const Scene& scene) noexcept {
    return std::int64_t{scene.size.width} * scene.size.height <= most_explained;
}

// Gathers, of each statement, whether one of its drawings is seen. Pictures may be noted on several threads.
class Shown {
  public:
    void note(const Scene& scene, const Explanation& explanation);

    // The same where only the boxes are known that the drawings touched.
    void note(const Scene& scene, const std::vector<Box>& touched);

    // Whether there is a drawing of a statement that has not been seen yet.
    [[nodiscard]] bool needs(const Scene& scene) const;

    // "9 of 12 drawings show", of the pictures that were noted.
    [[nodiscard]] std::string summary() const;

    // Prints remarks of the first picture, and why statements were never seen, on standard error.
    void warn() const;

  private:
    void note_call(const Scene& scene, std::size_t number, bool is_seen, const CallStory& story);
    void note_remarks(const Scene& scene);

    struct Entry {
        bool is_seen = false;
        std::size_t calls = 0;
        std::string why;  // nothing of the first of them shows
    };

    mutable std::mutex mutex_;
    std::map<StatementPlace, Entry> statements_;
    std::vector<std::string> remarks_;
    std::size_t more_remarks_ = 0;
    bool has_picture_ = false;
    std::size_t seen_ = 0;
    std::size_t all_ = 0;
};

}  // namespace coldbrick::tool

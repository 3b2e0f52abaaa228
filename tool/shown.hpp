// What of a scene is seen, in one picture or in some.
#pragma once

#include <coldbrick/coldbrick.hpp>

#include <cstddef>
#include <map>
#include <mutex>
#include <string>
#include <tuple>
#include <vector>

namespace coldbrick::tool {

// Where a statement begins: file (empty for the scene itself), line, column.
using StatementPlace = std::tuple<std::string, int, int>;
[[nodiscard]] StatementPlace statement_of(const Scene& scene, std::size_t number);

// Gathers, of each statement, whether one of its drawings is seen. Pictures may be noted on several threads.
class Shown {
  public:
    void note(const Scene& scene, const Explanation& explanation);

    // Whether there is a drawing of a statement that has not been seen yet.
    [[nodiscard]] bool needs(const Scene& scene) const;

    // "9 of 12 drawings show", of the pictures that were noted.
    [[nodiscard]] std::string summary() const;

    // Prints remarks of the first picture, and why statements were never seen, on standard error.
    void warn() const;

  private:
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

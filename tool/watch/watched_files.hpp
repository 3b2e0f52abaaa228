// The files that a page shows, and when they change.
#pragma once

#include "watch/followed_file.hpp"

#include <condition_variable>
#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

namespace coldbrick::tool {

// Looks at files several times a second, on a thread of its own.
class WatchedFiles {
  public:
    explicit WatchedFiles(std::vector<std::string> paths);
    WatchedFiles(const WatchedFiles&) = delete;
    WatchedFiles(WatchedFiles&&) = delete;
    WatchedFiles& operator=(const WatchedFiles&) = delete;
    WatchedFiles& operator=(WatchedFiles&&) = delete;
    ~WatchedFiles();

    [[nodiscard]] std::size_t size() const noexcept { return files_.size(); }
    [[nodiscard]] const std::string& path(std::size_t number) const { return files_.at(number).path; }

    [[nodiscard]] const FollowedFile& file(std::size_t number) const { return files_.at(number).file; }

    // Other files that a picture is made of: one that changes is a change of the file itself.
    void set_parts(std::size_t number, const std::vector<std::string>& paths);

    // The file has been written by us: that is no news.
    void note_written(std::size_t number);

    // How often each file has changed.
    using Changes = std::vector<std::uint64_t>;

    // Waits for other numbers than these, at most so many milliseconds, and no longer than until stop(). Returns what
    // they are then.
    [[nodiscard]] Changes wait(const Changes& known, int milliseconds) const;

    void stop();
    [[nodiscard]] bool is_stopped() const;

  private:
    // What changes when a file changes.
    struct Stamp {
        std::filesystem::file_time_type time;
        std::uintmax_t bytes = 0;
        bool exists = false;
        friend bool operator==(const Stamp&, const Stamp&) = default;
    };
    struct Part {
        std::string path;
        Stamp stamp;
    };
    struct File {
        std::string path;
        FollowedFile file;
        Stamp stamp;
        std::vector<Part> parts;
        std::uint64_t changes = 0;
    };

    static Stamp stamp_of(const std::string& path);
    void look();
    [[nodiscard]] Changes changes_now() const;

    mutable std::mutex mutex_;
    mutable std::condition_variable changed_;
    std::vector<File> files_;
    bool is_stopped_ = false;
    std::jthread thread_;
};

}  // namespace coldbrick::tool

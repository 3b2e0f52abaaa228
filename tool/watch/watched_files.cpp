#include "watch/watched_files.hpp"

#include <algorithm>
#include <chrono>
#include <utility>

namespace coldbrick::tool {

WatchedFiles::WatchedFiles(std::vector<std::string> paths) {
    for (auto& path : paths) {
        const auto stamp = stamp_of(path);
        FollowedFile file{path};
        files_.push_back({.path = std::move(path), .file = std::move(file), .stamp = stamp, .parts = {}});
    }
    thread_ = std::jthread{[this] {
        constexpr std::chrono::milliseconds between{60};
        std::unique_lock lock{mutex_};
        while (!is_stopped_) {
            look();
            changed_.wait_for(lock, between, [this] { return is_stopped_; });
        }
    }};
}

WatchedFiles::~WatchedFiles() { stop(); }

WatchedFiles::Stamp WatchedFiles::stamp_of(const std::string& path) {
    std::error_code error;
    Stamp stamp;
    stamp.time = std::filesystem::last_write_time(path, error);
    if (error) return {};
    stamp.bytes = std::filesystem::file_size(path, error);
    stamp.exists = !error;
    return stamp;
}

void WatchedFiles::look() {
    auto is_new = false;
    for (auto& file : files_) {
        auto has_changed = false;
        const auto update = [&](Stamp& known, const std::string& path) {
            auto now = stamp_of(path);
            // A file that is just being replaced is there again soon.
            if (now == known || !now.exists) return;
            known = now;
            has_changed = true;
        };
        update(file.stamp, file.path);
        for (auto& part : file.parts) update(part.stamp, part.path);
        if (has_changed) ++file.changes;
        is_new = is_new || has_changed;
    }
    if (is_new) changed_.notify_all();
}

void WatchedFiles::set_parts(std::size_t number, const std::vector<std::string>& paths) {
    const std::scoped_lock lock{mutex_};
    auto& parts = files_.at(number).parts;
    std::erase_if(parts,
                  [&](const Part& part) { return std::find(paths.begin(), paths.end(), part.path) == paths.end(); });
    for (const auto& path : paths) {
        const auto is_known =
            std::any_of(parts.begin(), parts.end(), [&](const Part& part) { return part.path == path; });
        if (!is_known) parts.push_back({.path = path, .stamp = stamp_of(path)});
    }
}

void WatchedFiles::note_written(std::size_t number) {
    const std::scoped_lock lock{mutex_};
    auto& file = files_.at(number);
    file.stamp = stamp_of(file.path);
}

WatchedFiles::Changes WatchedFiles::changes_now() const {
    Changes all;
    for (const auto& file : files_) all.push_back(file.changes);
    return all;
}

WatchedFiles::Changes WatchedFiles::wait(const Changes& known, int milliseconds) const {
    std::unique_lock lock{mutex_};
    changed_.wait_for(lock, std::chrono::milliseconds{milliseconds},
                      [&] { return is_stopped_ || changes_now() != known; });
    return changes_now();
}

void WatchedFiles::stop() {
    const std::scoped_lock lock{mutex_};
    is_stopped_ = true;
    changed_.notify_all();
}

bool WatchedFiles::is_stopped() const {
    const std::scoped_lock lock{mutex_};
    return is_stopped_;
}

}  // namespace coldbrick::tool

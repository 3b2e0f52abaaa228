#include "shown.hpp"

#include <utility>

#include <fmt/core.h>

namespace coldbrick::tool {

namespace {

constexpr std::size_t most_reported = 20;

}  // namespace

StatementPlace statement_of(const Scene& scene, std::size_t number) {
    const auto place = scene.place_of(number);
    return {scene.file_of(number), place.line, place.column};
}

void Shown::note(const Scene& scene, const Explanation& explanation) {
    const std::scoped_lock lock{mutex_};
    for (std::size_t i = 0; i < explanation.calls.size(); ++i) {
        const auto& story = explanation.calls[i];
        note_call(scene, i, story.showing == Showing::seen, story);
    }
    note_remarks(scene);
}

void Shown::note(const Scene& scene, const std::vector<Box>& touched) {
    const std::scoped_lock lock{mutex_};
    CallStory outside;
    outside.showing = Showing::outside;
    for (std::size_t i = 0; i < touched.size(); ++i) note_call(scene, i, !touched[i].empty(), outside);
    note_remarks(scene);
}

void Shown::note_call(const Scene& scene, std::size_t number, bool is_seen, const CallStory& story) {
    auto& entry = statements_[statement_of(scene, number)];
    if (!is_seen && entry.calls == 0) entry.why = explain_unseen(scene, number, story);
    entry.is_seen = entry.is_seen || is_seen;
    ++entry.calls;
    ++all_;
    seen_ += is_seen ? 1 : 0;
}

void Shown::note_remarks(const Scene& scene) {
    if (std::exchange(has_picture_, true)) return;
    for (const auto& [place, what, file] : scene.remarks) {
        if (remarks_.size() == most_reported) {
            ++more_remarks_;
            continue;
        }
        remarks_.push_back(
            fmt::format("{}:{}:{}: {}", printable(file.empty() ? scene.name : file), place.line, place.column, what));
    }
}

bool Shown::needs(const Scene& scene) const {
    const std::scoped_lock lock{mutex_};
    if (!has_picture_) return true;
    for (std::size_t i = 0; i < scene.drawing.size(); ++i) {
        const auto found = statements_.find(statement_of(scene, i));
        if (found == statements_.end() || !found->second.is_seen) return true;
    }
    return false;
}

std::string Shown::summary() const { return fmt::format("{} of {} drawings show", seen_, all_); }

void Shown::warn() const {
    for (const auto& remark : remarks_) fmt::print(stderr, "{}\n", remark);
    if (more_remarks_ > 0) fmt::print(stderr, "... and {} more remarks\n", more_remarks_);
    std::size_t unseen = 0;
    for (const auto& [statement, entry] : statements_) {
        if (entry.is_seen || ++unseen > most_reported) continue;
        const auto often = entry.calls > 1 ? fmt::format(" (the first of {} times)", entry.calls) : "";
        fmt::print(stderr, "{}{}\n", entry.why, often);
    }
    if (unseen > most_reported) fmt::print(stderr, "... and {} more of which nothing shows\n", unseen - most_reported);
}

}  // namespace coldbrick::tool

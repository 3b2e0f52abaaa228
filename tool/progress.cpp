#include "progress.hpp"

#include <algorithm>
#include <cstdio>

#include <fmt/core.h>
#include <unistd.h>

namespace coldbrick::tool {

Progress::Progress(std::string what, std::size_t count, bool is_quiet)
    : what_{std::move(what)}, count_{count}, is_shown_{!is_quiet && ::isatty(STDERR_FILENO) != 0} {}

Progress::~Progress() {
    if (is_written_) fmt::print(stderr, "\r\033[K");
}

void Progress::report(std::size_t done) {
    if (!is_shown_) return;
    using namespace std::chrono_literals;
    const auto now = Clock::now();
    if (now - begin_ < 1s || (is_written_ && now - last_ < 100ms)) return;
    constexpr std::size_t width = 30;
    const auto filled = count_ == 0 ? width : std::min(width, width * done / count_);
    const auto passed = std::chrono::duration<double>{now - begin_}.count();
    const auto left =
        done == 0 ? 0 : passed * static_cast<double>(count_ - std::min(done, count_)) / static_cast<double>(done);
    fmt::print(stderr, "\r\033[K|{}{}| {} of {} {}, {:.0f} s left", std::string(filled, '='),
               std::string(width - filled, ' '), done, count_, what_, left);
    std::fflush(stderr);
    is_written_ = true;
    last_ = now;
}

}  // namespace coldbrick::tool

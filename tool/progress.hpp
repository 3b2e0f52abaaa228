// How far something is that takes long.
#pragma once

#include <chrono>
#include <cstddef>
#include <string>

namespace coldbrick::tool {

// A line on standard error that is written over again, if that is a terminal: from one second on, and gone in the end.
class Progress {
  public:
    // "frames", and how many there are. Quiet: never.
    Progress(std::string what, std::size_t count, bool is_quiet);
    Progress(const Progress&) = delete;
    Progress(Progress&&) = delete;
    Progress& operator=(const Progress&) = delete;
    Progress& operator=(Progress&&) = delete;
    ~Progress();

    // So many are done.
    void report(std::size_t done);

  private:
    using Clock = std::chrono::steady_clock;

    std::string what_;
    std::size_t count_;
    bool is_shown_;
    bool is_written_ = false;
    Clock::time_point begin_ = Clock::now();
    Clock::time_point last_ = begin_;
};

}  // namespace coldbrick::tool

// What writes moving pictures: one encoder for each kind of file.
#pragma once

#include "files/packed.hpp"

#include "coldbrick/frames.hpp"

#include <cmath>
#include <cstdint>
#include <memory>
#include <vector>

namespace coldbrick::inline v0::detail {

// Takes frames of one size.
class FrameEncoder {
  public:
    FrameEncoder() noexcept = default;
    FrameEncoder(const FrameEncoder&) = delete;
    FrameEncoder(FrameEncoder&&) = delete;
    FrameEncoder& operator=(const FrameEncoder&) = delete;
    FrameEncoder& operator=(FrameEncoder&&) = delete;
    virtual ~FrameEncoder() = default;

    virtual void add(const Surface& picture, double seconds) = 0;

    // All that is left to be written: the file, or nothing where that has been done frame by frame.
    virtual Bytes finish() = 0;
};

std::unique_ptr<FrameEncoder> png_frames(const FrameOptions& options);
std::unique_ptr<FrameEncoder> gif_frames(const FrameOptions& options);
std::unique_ptr<FrameEncoder> webp_frames(const FrameOptions& options);

// Seconds to whole ticks, of which there are so many to a second: what one frame is rounded by, the next makes up for.
class Ticks {
  public:
    explicit Ticks(int to_a_second) noexcept : to_a_second_{to_a_second} {}
    int next(double seconds) noexcept {
        seconds_ += seconds;
        const auto until = std::llround(seconds_ * to_a_second_);
        const auto ticks = until - written_until_;
        written_until_ = until;
        return static_cast<int>(ticks);
    }

  private:
    int to_a_second_;
    double seconds_ = 0;
    long long written_until_ = 0;
};

// The rows of the frame before, to find what has changed.
class LastFrame {
  public:
    // A box around the bytes of rows that differ, in pixels of so many bytes; all of it the first time, and nothing
    // where nothing differs. Then these are the last ones.
    Box changed_in(const Packed& frame);

  private:
    Bytes rows_;
};

// The part of a picture that is in a box.
[[nodiscard]] Surface part_of(const Surface& picture, const Box& box) noexcept;

}  // namespace coldbrick::inline v0::detail

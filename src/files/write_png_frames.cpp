// Animated PNG: Portable Network Graphics (PNG) Specification (Third Edition), sections 11.3.6 and 4.9.
#include "files/frame_encoders.hpp"
#include "files/png_parts.hpp"
#include "files/png_pieces.hpp"

#include "coldbrick/error.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

class PngFrames final : public FrameEncoder {
  public:
    explicit PngFrames(const FrameOptions& options) : options_{options} {}

    void add(const Surface& picture, double seconds) override {
        auto frame = pack_with_palette(picture);
        check_alike(frame);
        auto box = last_.changed_in(frame);
        // A frame has at least one pixel.
        if (box.empty()) box = {.at = {}, .size = {.width = 1, .height = 1}};
        const auto is_first = count_ == 0;
        const auto pixels =
            png_pixels(is_first ? frame : pack_with_palette(part_of(picture, box)), options_.stills.effort, 1);
        if (is_first) {
            first_ = {frame.size, frame.channels, frame.bits, {}, frame.palette};
            first_pixels_ = pixels;
            first_ticks_ = ticks_.next(seconds);
        } else {
            add_frame(box, pixels, ticks_.next(seconds));
        }
        ++count_;
    }

    Bytes finish() override {
        Bytes file;
        PngChunks chunks{file};
        add_header(chunks, *first_);
        const auto is_moving = count_ > 1;
        if (is_moving) {
            chunks.add("acTL", [&](Bytes& to) {
                put_big(to, count_, 4);
                put_big(to, static_cast<std::uint32_t>(options_.loops), 4);
            });
        }
        if (first_->palette) add_palette(chunks, *first_->palette);
        if (is_moving) add_control(chunks, 0, {.at = {}, .size = first_->size}, first_ticks_);
        chunks.add("IDAT", [&](Bytes& to) { put_all(to, first_pixels_); });
        put_all(file, frames_);
        chunks.add("IEND", [](Bytes&) {});
        return file;
    }

  private:
    // All frames have one header.
    void check_alike(const Packed& frame) const {
        if (!first_) return;
        if (frame.channels != first_->channels || frame.bits != first_->bits) {
            throw Error{"png: it has " + std::to_string(frame.channels) + " channels of " + std::to_string(frame.bits) +
                        " bits, and the first frame " + std::to_string(first_->channels) + " of " +
                        std::to_string(first_->bits)};
        }
        if (frame.palette != first_->palette) throw Error{"png: it has another palette than the first frame"};
    }

    static void add_control(PngChunks& chunks, std::uint32_t number, const Box& box, int ticks) {
        chunks.add("fcTL", [&](Bytes& to) {
            put_big(to, number, 4);
            put_big(to, static_cast<std::uint32_t>(box.size.width), 4);
            put_big(to, static_cast<std::uint32_t>(box.size.height), 4);
            put_big(to, static_cast<std::uint32_t>(box.at.x), 4);
            put_big(to, static_cast<std::uint32_t>(box.at.y), 4);
            put_big(to, static_cast<std::uint32_t>(ticks), 2);
            put_big(to, ticks_to_a_second, 2);
            put_bytes(to, {0, 0});  // stays; in place of what was there
        });
    }

    void add_frame(const Box& box, const Bytes& pixels, int ticks) {
        // The chunks go behind those of the first frame, without the beginning of a file.
        if (frames_.capacity() - frames_.size() < pixels.size()) frames_.reserve(2 * (frames_.size() + pixels.size()));
        Bytes file = std::move(frames_);
        const auto is_first = file.empty();
        if (is_first) file.push_back(0);
        {
            PngChunks chunks{file};
            add_control(chunks, number_++, box, ticks);
            chunks.add("fdAT", [&](Bytes& to) {
                put_big(to, number_++, 4);
                put_all(to, std::span{pixels.begin(), pixels.size()});
            });
        }
        if (is_first) file.erase(file.begin());
        frames_ = std::move(file);
    }

    static constexpr std::uint32_t ticks_to_a_second = 1000;

    FrameOptions options_;
    LastFrame last_;
    Ticks ticks_{ticks_to_a_second};
    std::optional<Packed> first_;  // without its pixels
    Bytes first_pixels_;
    int first_ticks_ = 0;
    Bytes frames_;
    std::uint32_t count_ = 0;
    std::uint32_t number_ = 1;  // of the next chunk of a frame
};

}  // namespace

std::unique_ptr<FrameEncoder> png_frames(const FrameOptions& options) { return std::make_unique<PngFrames>(options); }

}  // namespace coldbrick::inline v0::detail

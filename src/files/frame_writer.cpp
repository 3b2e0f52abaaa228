// Frames to files and streams, by one encoder or another.
#include "files/codecs.hpp"
#include "files/frame_encoders.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <charconv>
#include <cstring>
#include <ostream>
#include <string>
#include <utility>

namespace coldbrick::inline v0 {

namespace detail {

Box LastFrame::changed_in(const Packed& frame) {
    const auto bytes = frame.row_bytes();
    const auto height = static_cast<std::size_t>(frame.size.height);
    const auto whole = Box{.at = {}, .size = frame.size};
    const auto row = [&](std::size_t y) { return rows_.data() + y * bytes; };
    if (rows_.size() != bytes * height) {
        rows_.resize(bytes * height);
        for (std::size_t y = 0; y < height; ++y) std::memcpy(row(y), frame.row(static_cast<int>(y)), bytes);
        return whole;
    }
    auto changed = Box{};
    for (std::size_t y = 0; y < height; ++y) {
        const auto* const now = frame.row(static_cast<int>(y));
        if (std::memcmp(row(y), now, bytes) == 0) continue;
        const auto first = std::mismatch(now, now + bytes, row(y)).first - now;
        auto last = static_cast<std::ptrdiff_t>(bytes) - 1;
        while (now[last] == row(y)[last]) --last;
        // Of a byte, or of several pixels in one.
        const auto bits = std::ptrdiff_t{1} * frame.bits * frame.channels;
        const auto left = static_cast<int>(first * 8 / bits);
        const auto right = static_cast<int>(std::min<std::ptrdiff_t>((last * 8 + 7) / bits, frame.size.width - 1));
        changed = enclosing(changed, Box{.at = {.x = left, .y = static_cast<int>(y)},
                                         .size = {.width = right - left + 1, .height = 1}});
        std::memcpy(row(y), now, bytes);
    }
    return changed;
}

Surface part_of(const Surface& picture, const Box& box) noexcept {
    auto part = picture;
    part.window = {.at = {.x = picture.window.at.x + box.at.x, .y = picture.window.at.y + box.at.y}, .size = box.size};
    return part;
}

namespace {

// Each frame to a file of its own, or behind the one before on a stream.
class StillFrames final : public FrameEncoder {
  public:
    StillFrames(std::string name, std::ostream* stream, FileFormat format, const FrameOptions& options)
        : name_{std::move(name)},
          stream_{stream},
          format_{format},
          options_{options.stills},
          number_{options.first_number} {}

    void add(const Surface& picture, double /*seconds*/) override {
        const auto bytes = encode(picture, format_, options_);
        stream_ != nullptr ? write_stream(*stream_, bytes) : write_file(frame_name(name_, number_), bytes);
        ++number_;
    }
    Bytes finish() override { return {}; }

  private:
    std::string name_;
    std::ostream* stream_;
    FileFormat format_;
    SaveOptions options_;
    int number_;
};

// What an encoder gives in the end goes to a file, or to a stream.
class FileFrames final : public FrameEncoder {
  public:
    FileFrames(std::unique_ptr<FrameEncoder> encoder, std::string path, std::ostream* stream)
        : encoder_{std::move(encoder)}, path_{std::move(path)}, stream_{stream} {}

    void add(const Surface& picture, double seconds) override { encoder_->add(picture, seconds); }
    Bytes finish() override {
        auto bytes = encoder_->finish();
        stream_ != nullptr ? write_stream(*stream_, bytes) : write_file(path_, bytes);
        return bytes;
    }

  private:
    std::unique_ptr<FrameEncoder> encoder_;
    std::string path_;
    std::ostream* stream_;
};

void check(const FrameOptions& options) {
    const auto refuse = [](const std::string& what, int value, int least, int most) {
        throw Error{"frames: " + what + " is " + std::to_string(value) + "; allowed is " + std::to_string(least) +
                    " to " + std::to_string(most)};
    };
    constexpr auto most_loops = 65535;
    if (options.loops < 0 || options.loops > most_loops) refuse("loops", options.loops, 0, most_loops);
    if (options.colors < 2 || options.colors > 256) refuse("colors", options.colors, 2, 256);
    if (options.quality && (*options.quality < 0 || *options.quality > 100))
        refuse("quality", *options.quality, 0, 100);
    if (options.first_number < 0) refuse("first_number", options.first_number, 0, 1 << 30);
    check_choice("frames", "palettes", options.palettes, {"each", "all"});
    check_choice("frames", "dithering", options.dithering, {"none", "ordered", "diffused"});
}

std::unique_ptr<FrameEncoder> encoder_for(FileFormat format, const FrameOptions& options, std::string path,
                                          std::ostream* stream) {
    check(options);
    const auto to_file = [&](std::unique_ptr<FrameEncoder> encoder) {
        return std::make_unique<FileFrames>(std::move(encoder), path, stream);
    };
    if (stream == nullptr && has_frame_number(path)) {
        (void)frame_name(path, 0);  // which checks it
        return std::make_unique<StillFrames>(std::move(path), nullptr, format, options);
    }
    if (format == FileFormat::png) return to_file(png_frames(options));
    if (format == FileFormat::gif) return to_file(gif_frames(options));
    if (format == FileFormat::webp) return to_file(webp_frames(options));
    const auto is_streamed = format == FileFormat::ppm || format == FileFormat::pam || format == FileFormat::pgm ||
                             format == FileFormat::pbm || format == FileFormat::pnm;
    if (stream != nullptr && is_streamed) {
        return std::make_unique<StillFrames>(std::string{}, stream, format, options);
    }
    throw Error{(stream != nullptr ? std::string{} : printable(path) + ": ") + "frames: a " +
                std::string{name_of(format)} + " file holds one picture; png, gif and webp hold several" +
                (stream != nullptr ? ", and ppm and pam follow each other on a stream"
                                   : ", and {frame} in the name writes one file for each")};
}

}  // namespace

}  // namespace detail

bool has_frame_number(std::string_view name) noexcept { return name.find("{frame") != std::string_view::npos; }

std::string frame_name(std::string_view name, int frame) {
    constexpr std::string_view word = "{frame";
    std::string result;
    while (true) {
        const auto begin = name.find(word);
        result += name.substr(0, begin);
        if (begin == std::string_view::npos) return result;
        const auto close = name.find('}', begin);
        const auto inside = close == std::string_view::npos
                                ? std::string_view{"?"}
                                : name.substr(begin + word.size(), close - begin - word.size());
        auto digits = 1;
        constexpr auto most_digits = 9;
        auto is_sound = inside.empty();
        if (inside.starts_with(":0") && inside.size() > 2) {
            const auto [end, error] = std::from_chars(inside.data() + 2, inside.data() + inside.size(), digits);
            is_sound =
                error == std::errc{} && end == inside.data() + inside.size() && digits >= 1 && digits <= most_digits;
        }
        if (!is_sound) {
            throw Error{printable(name) +
                        ": in the name of a file stands {frame}, or {frame:03} for three digits at least"};
        }
        auto number = std::to_string(frame);
        const auto width = static_cast<std::size_t>(digits);
        if (number.size() < width) number.insert(0, width - number.size(), '0');
        result += number;
        name.remove_prefix(close + 1);
    }
}

FrameWriter::FrameWriter(const FilePath& path, const FrameOptions& options)
    : FrameWriter{path, file_format_of(path), options} {}

FrameWriter::FrameWriter(const FilePath& path, FileFormat format, const FrameOptions& options)
    : encoder_{detail::encoder_for(format, options, path.name(), nullptr)} {}

FrameWriter::FrameWriter(std::ostream& stream, FileFormat format, const FrameOptions& options)
    : encoder_{detail::encoder_for(format, options, {}, &stream)} {}

FrameWriter::FrameWriter(FrameWriter&& other) noexcept = default;
FrameWriter& FrameWriter::operator=(FrameWriter&& other) noexcept = default;
FrameWriter::~FrameWriter() = default;

void FrameWriter::add_surface(const detail::Surface& picture, double seconds) {
    const auto number = "frame " + std::to_string(count_) + ": ";
    if (!encoder_) throw Error{number + "the file has been finished"};
    const auto size = picture.window.size;
    constexpr auto longest = 65.0;  // of 16 bits of thousandths, as PNG has them
    if (!(seconds >= 0 && seconds <= longest)) {
        throw Error{number + "it is to be shown for " + detail::in_digits(seconds) + " seconds; allowed is 0 to 65"};
    }
    if (picture.window.empty()) throw Error{number + "the view's clip is empty; it must have at least one pixel"};
    if (count_ > 0 && size != size_) {
        throw Error{number + "its size is " + detail::in_words(size) + ", and that of the first " +
                    detail::in_words(size_)};
    }
    try {
        encoder_->add(picture, seconds);
    } catch (const Error& error) {
        throw Error{number + error.what()};
    }
    size_ = size;
    ++count_;
}

std::uint64_t FrameWriter::finish() {
    if (!encoder_) throw Error{"frames: the file has been finished"};
    if (count_ == 0) throw Error{"frames: there is none; a file has at least one"};
    const auto bytes = encoder_->finish().size();
    encoder_.reset();
    return bytes;
}

}  // namespace coldbrick::inline v0

// QOI, by "The Quite OK Image Format Specification", version 1.0.
#include "files/qoi.hpp"
#include "files/samples.hpp"

#include <algorithm>
#include <array>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

// The pixels in turn, each by what the bytes say of it and of those before.
class QoiPixels {
  public:
    explicit QoiPixels(ByteReader& reader) noexcept : reader_{reader} {}

    Color next() {
        if (run_ > 0) {
            --run_;
            return last_;
        }
        const auto tag = reader_.byte();
        if (tag == qoi_rgb || tag == qoi_rgba) {
            read_channels(tag == qoi_rgba);
        } else {
            read_short(tag);
        }
        seen_[qoi_place(last_)] = last_;
        return last_;
    }

    // Whether a run goes on beyond the last pixel.
    [[nodiscard]] bool is_running() const noexcept { return run_ > 0; }

  private:
    void read_channels(bool has_alpha) {
        last_.red = reader_.byte();
        last_.green = reader_.byte();
        last_.blue = reader_.byte();
        if (has_alpha) last_.alpha = reader_.byte();
    }

    void read_short(unsigned tag) {
        const auto low = tag & 63U;
        switch (tag >> 6U) {
            case 0:
                last_ = seen_[low];
                break;
            case 1:
                change(((low >> 4U) & 3U) - 2U, ((low >> 2U) & 3U) - 2U, (low & 3U) - 2U);
                break;
            case 2: {
                const unsigned more = reader_.byte();
                const auto green = low - 32U;
                change(green + (more >> 4U) - 8U, green, green + (more & 15U) - 8U);
                break;
            }
            default:
                run_ = static_cast<int>(low);  // and this one
        }
    }

    // Channels go round.
    void change(unsigned red, unsigned green, unsigned blue) noexcept {
        last_.red = static_cast<std::uint8_t>(last_.red + red);
        last_.green = static_cast<std::uint8_t>(last_.green + green);
        last_.blue = static_cast<std::uint8_t>(last_.blue + blue);
    }

    ByteReader& reader_;
    std::array<Color, 64> seen_ = qoi_unseen();
    Color last_{};
    int run_ = 0;
};

// The header, checked.
PictureInfo read_header(ByteReader& reader, const LoadLimits& limits) {
    (void)reader.take(4);
    const auto width = reader.big(4);
    const auto height = reader.big(4);
    check_size("qoi", width, height, limits);
    const int channels = reader.byte();
    const int space = reader.byte();
    if (channels != 3 && channels != 4) {
        throw Error{"qoi: it has " + std::to_string(channels) + " channels; allowed are 3 and 4"};
    }
    // A run of 62 pixels takes a byte.
    constexpr auto longest_run = 62;
    if (static_cast<std::uint64_t>(width) * height > std::uint64_t{longest_run} * reader.rest()) {
        throw Error{"qoi: the file is too short for its " + std::to_string(width) + " x " + std::to_string(height) +
                    " pixels"};
    }
    auto info = PictureInfo{.format = FileFormat::qoi,
                            .size = {.width = static_cast<int>(width), .height = static_cast<int>(height)},
                            .channels = channels,
                            .bits = 8,
                            .has_alpha = channels == 4};
    if (space > 1) info.oddities.push_back("its colour space is " + std::to_string(space) + "; 0 and 1 are known");
    return info;
}

void read_pixels(QoiPixels& pixels, PictureInfo& info, const Receiving& to) {
    if (info.channels == 4) {
        return receive_pixels<Rgba8>(
            to,
            [&](int, int, std::uint8_t* pixel) {
                const auto color = pixels.next();
                static_assert(sizeof color == 4);
                std::memcpy(pixel, &color, 4);
            },
            skip_none);
    }
    auto is_translucent = false;
    receive_pixels<Rgb8>(
        to,
        [&](int, int, std::uint8_t* pixel) {
            const auto color = pixels.next();
            is_translucent = is_translucent || color.alpha != 255;
            std::memcpy(pixel, &color, 3);
        },
        skip_none);
    if (is_translucent) {
        info.oddities.emplace_back("it says 3 channels, but has translucent pixels, whose alpha is left out");
    }
}

}  // namespace

PictureInfo read_qoi(FileBytes file, const LoadLimits& limits, PixelSink& sink) {
    ByteReader reader{"qoi", file};
    auto info = read_header(reader, limits);
    QoiPixels pixels{reader};
    read_pixels(pixels, info, {.kind = "qoi", .size = info.size, .limits = limits, .sink = sink});
    if (pixels.is_running()) info.oddities.emplace_back("its last run goes on beyond the last pixel");
    const auto end = reader.take(qoi_end.size());
    if (!std::equal(end.begin(), end.end(), qoi_end.begin())) {
        throw Error{"qoi: its pixels are not followed by the end mark"};
    }
    note_rest(info, reader.rest());
    return info;
}

}  // namespace coldbrick::inline v0::detail

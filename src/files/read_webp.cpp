// WebP (RFC 9649), by libwebp.
#include "files/read_frames.hpp"
#include "files/samples.hpp"

#include <algorithm>
#include <memory>

#include <webp/decode.h>
#include <webp/demux.h>

namespace coldbrick::inline v0::detail {

namespace {

struct FreeDemuxer {
    void operator()(WebPDemuxer* demuxer) const noexcept { WebPDemuxDelete(demuxer); }
};
struct FreeDecoder {
    void operator()(WebPAnimDecoder* decoder) const noexcept { WebPAnimDecoderDelete(decoder); }
};

[[noreturn]] void fail() { throw Error{"webp: the file is damaged, or ends too early"}; }

// What the file says, checked before anything is decoded.
PictureInfo look_at(FileBytes file, const LoadLimits& limits) {
    const WebPData whole{.bytes = file.data(), .size = file.size()};
    const std::unique_ptr<WebPDemuxer, FreeDemuxer> demuxer{WebPDemux(&whole)};
    if (!demuxer) fail();
    const auto number = [&](WebPFormatFeature of) { return WebPDemuxGetI(demuxer.get(), of); };
    const auto width = number(WEBP_FF_CANVAS_WIDTH);
    const auto height = number(WEBP_FF_CANVAS_HEIGHT);
    check_size("webp", width, height, limits);
    const auto flags = number(WEBP_FF_FORMAT_FLAGS);
    PictureInfo info{.format = FileFormat::webp,
                     .size = {.width = static_cast<int>(width), .height = static_cast<int>(height)},
                     .channels = 3,
                     .bits = 8,
                     .has_alpha = (flags & ALPHA_FLAG) != 0};
    check_shrinkage("webp", info.size, file.size(), limits);
    info.frames = static_cast<int>(std::max(1U, number(WEBP_FF_FRAME_COUNT)));
    if ((flags & ANIMATION_FLAG) != 0) info.loops = static_cast<int>(number(WEBP_FF_LOOP_COUNT));
    WebPIterator frame{};
    if (WebPDemuxGetFrame(demuxer.get(), 1, &frame) != 0) {
        do {
            constexpr auto thousandths = 1000.0;
            info.has_alpha = info.has_alpha || frame.has_alpha != 0;
            if (info.frames > 1) info.seconds += frame.duration / thousandths;
        } while (WebPDemuxNextFrame(&frame) != 0);
        WebPDemuxReleaseIterator(&frame);
    }
    if (info.has_alpha) info.channels = 4;
    return info;
}

// Calls take(pixels, until) with each frame as it is shown, in RGBA, and with the thousandths of a second that it is
// shown until; as long as it says so.
template <class Take>
void decode_frames(FileBytes file, const Take& take) {
    WebPAnimDecoderOptions options;
    if (WebPAnimDecoderOptionsInit(&options) == 0) throw Error{"webp: the library is of another version"};
    options.color_mode = MODE_RGBA;
    const WebPData whole{.bytes = file.data(), .size = file.size()};
    const std::unique_ptr<WebPAnimDecoder, FreeDecoder> decoder{WebPAnimDecoderNew(&whole, &options)};
    if (!decoder) fail();
    auto goes_on = true;
    while (goes_on && WebPAnimDecoderHasMoreFrames(decoder.get()) != 0) {
        std::uint8_t* pixels = nullptr;
        auto until = 0;
        if (WebPAnimDecoderGetNext(decoder.get(), &pixels, &until) == 0) fail();
        goes_on = take(pixels, until);
    }
}

// A still picture, as it is in the file.
void send_still(FileBytes file, const PictureInfo& info, const LoadLimits& limits, PixelSink& sink) {
    const auto channels = static_cast<std::size_t>(info.channels);
    const auto row_bytes = channels * static_cast<std::size_t>(info.size.width);
    const auto bytes = row_bytes * static_cast<std::size_t>(info.size.height);
    sink.begin("webp", {.kernel = channels == 4 ? &rgba8_kernel : &rgb8_kernel, .size = info.size}, limits, bytes);
    std::vector<std::uint8_t> pixels(bytes);
    const auto stride = static_cast<int>(row_bytes);
    const auto* const done = channels == 4 ? WebPDecodeRGBAInto(file.data(), file.size(), pixels.data(), bytes, stride)
                                           : WebPDecodeRGBInto(file.data(), file.size(), pixels.data(), bytes, stride);
    if (done == nullptr) fail();
    for (int y = 0; y < info.size.height; ++y)
        sink.take_row(pixels.data() + static_cast<std::size_t>(y) * row_bytes, y);
}

}  // namespace

PictureInfo read_webp(FileBytes file, const LoadLimits& limits, PixelSink& sink) {
    auto info = look_at(file, limits);
    if (info.frames == 1) {
        send_still(file, info, limits, sink);
        return info;
    }
    // The decoder keeps two frames.
    const auto row_bytes = 4 * static_cast<std::size_t>(info.size.width);
    sink.begin("webp", {.kernel = &rgba8_kernel, .size = info.size}, limits,
               2 * row_bytes * static_cast<std::size_t>(info.size.height));
    decode_frames(file, [&](const std::uint8_t* pixels, int) {
        for (int y = 0; y < info.size.height; ++y) sink.take_row(pixels + static_cast<std::size_t>(y) * row_bytes, y);
        return false;
    });
    return info;
}

Film read_webp_film(FileBytes file, const LoadLimits& limits) {
    const auto info = look_at(file, limits);
    FilmMaker maker{"webp", info.size, static_cast<std::uint64_t>(info.frames) + 2, limits};
    maker.film().info = info;
    maker.film().info.seconds = 0;
    auto before = 0;
    if (info.frames == 1) {
        maker.canvas() = load<Rgba8>(file, limits);
        maker.add(0);
    } else {
        decode_frames(file, [&](const std::uint8_t* pixels, int until) {
            constexpr auto thousandths = 1000.0;
            const auto bytes = bytes_of(maker.canvas());
            std::copy_n(pixels, bytes.size(), bytes.begin());
            maker.add((until - before) / thousandths);
            before = until;
            return true;
        });
    }
    if (maker.film().frames.empty()) fail();
    maker.film().loops = info.loops;
    return std::move(maker.film());
}

}  // namespace coldbrick::inline v0::detail

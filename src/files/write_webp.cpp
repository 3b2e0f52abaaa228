// WebP (RFC 9649), by libwebp; still and moving.
#include "files/frame_encoders.hpp"
#include "files/writers.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/convert.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <memory>
#include <optional>
#include <string>

#include <webp/encode.h>
#include <webp/mux.h>

namespace coldbrick::inline v0::detail {

namespace {

// The bytes of one picture.
Bytes webp_bytes(const Surface& surface, std::optional<int> quality, Effort effort) {
    const auto size = surface.window.size;
    constexpr auto most = 16383;
    if (size.width > most || size.height > most) {
        throw Error{"webp: its size is " + in_words(size) + "; allowed are sides up to 16383"};
    }
    Bitmap<Rgba8> pixels{size};
    convert(surface, SurfaceAccess::of(pixels));
    WebPConfig config;
    WebPPicture picture;
    if (WebPConfigInit(&config) == 0 || WebPPictureInit(&picture) == 0)
        throw Error{"webp: the library is of another version"};
    if (quality) {
        config.quality = static_cast<float>(*quality);
        config.method = effort == Effort::most ? 6 : 4;
    } else {
        WebPConfigLosslessPreset(&config, effort == Effort::most ? 9 : 3);
        config.exact = 1;  // also the colours of what is transparent
    }
    picture.use_argb = 1;
    picture.width = size.width;
    picture.height = size.height;
    WebPMemoryWriter writer;
    WebPMemoryWriterInit(&writer);
    picture.writer = WebPMemoryWrite;
    picture.custom_ptr = &writer;
    const auto is_written = WebPPictureImportRGBA(&picture, pixels.bytes().data(), size.width * 4) != 0 &&
                            WebPEncode(&config, &picture) != 0;
    const auto error = picture.error_code;
    WebPPictureFree(&picture);
    const std::unique_ptr<WebPMemoryWriter, void (*)(WebPMemoryWriter*)> freed{&writer, WebPMemoryWriterClear};
    if (!is_written) throw Error{"webp: it cannot be written (libwebp's error " + std::to_string(error) + ")"};
    return {writer.mem, writer.mem + writer.size};
}

struct FreeMux {
    void operator()(WebPMux* mux) const noexcept { WebPMuxDelete(mux); }
};

class WebpFrames final : public FrameEncoder {
  public:
    explicit WebpFrames(const FrameOptions& options) : options_{options}, mux_{WebPMuxNew()} {
        if (!mux_) throw Error{"webp: there is no memory for it"};
    }

    void add(const Surface& picture, double seconds) override {
        auto box = last_.changed_in(pack_as_is(picture));
        const auto size = picture.window.size;
        if (box.empty()) box = {.at = {}, .size = {.width = 1, .height = 1}};
        // A frame begins at even coordinates (RFC 9649, section 2.7.1.1).
        const auto right = box.last().x;
        const auto bottom = box.last().y;
        box.at = {.x = box.at.x / 2 * 2, .y = box.at.y / 2 * 2};
        box.size = {.width = right - box.at.x + 1, .height = bottom - box.at.y + 1};
        auto bytes = webp_bytes(part_of(picture, box), options_.quality, options_.stills.effort);
        WebPMuxFrameInfo info{};
        info.bitstream = {.bytes = bytes.data(), .size = bytes.size()};
        info.x_offset = box.at.x;
        info.y_offset = box.at.y;
        info.duration = ticks_.next(seconds);
        info.id = WEBP_CHUNK_ANMF;
        info.dispose_method = WEBP_MUX_DISPOSE_NONE;
        info.blend_method = WEBP_MUX_NO_BLEND;
        check(WebPMuxPushFrame(mux_.get(), &info, 1));
        if (count_++ == 0) first_ = std::move(bytes);
        size_ = size;
    }

    Bytes finish() override {
        if (count_ == 1) return std::move(first_);
        check(WebPMuxSetCanvasSize(mux_.get(), size_.width, size_.height));
        const WebPMuxAnimParams params{.bgcolor = 0, .loop_count = options_.loops};
        check(WebPMuxSetAnimationParams(mux_.get(), &params));
        WebPData file{};
        check(WebPMuxAssemble(mux_.get(), &file));
        const std::unique_ptr<WebPData, void (*)(WebPData*)> freed{&file, WebPDataClear};
        return {file.bytes, file.bytes + file.size};
    }

  private:
    static void check(WebPMuxError error) {
        if (error != WEBP_MUX_OK)
            throw Error{"webp: it cannot be written (libwebp's error " + std::to_string(error) + ")"};
    }

    FrameOptions options_;
    std::unique_ptr<WebPMux, FreeMux> mux_;
    LastFrame last_;
    Ticks ticks_{1000};
    Size size_;
    Bytes first_;
    int count_ = 0;
};

}  // namespace

std::unique_ptr<FrameEncoder> webp_frames(const FrameOptions& options) { return std::make_unique<WebpFrames>(options); }

Bytes write_webp(const Surface& picture, const SaveOptions& options) {
    (void)of_8_bits(pack_as_is(picture), "webp");
    return webp_bytes(picture, std::nullopt, options.effort);
}

}  // namespace coldbrick::inline v0::detail

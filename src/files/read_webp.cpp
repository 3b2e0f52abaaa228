// WebP (RFC 9649), by libwebp; the frames of moving ones are taken out of their container and put together here.
#include "files/read_frames.hpp"
#include "files/samples.hpp"

#include <algorithm>
#include <new>
#include <optional>
#include <string_view>

#include <webp/decode.h>

namespace coldbrick::inline v0::detail {

namespace {

[[noreturn]] void fail() { throw Error{"webp: the file is damaged, or ends too early"}; }

constexpr auto thousandths = 1000.0;

std::uint32_t little(FileBytes bytes, std::size_t at, std::size_t count) {
    std::uint32_t number = 0;
    for (std::size_t i = 0; i < count; ++i) number |= std::uint32_t{bytes[at + i]} << (8 * i);
    return number;
}

// A chunk of the container: its name, and what is in it (RFC 9649, section 2.3).
struct WebpChunk {
    std::string_view kind;
    FileBytes bytes;
    FileBytes whole;  // with its header, and what fills it up to an even length
};

// The next chunk, and leaves what is behind it; nothing at the end. Throws Error for one that is cut short.
std::optional<WebpChunk> take_chunk(FileBytes& rest) {
    constexpr std::size_t header = 8;
    if (rest.empty()) return std::nullopt;
    if (rest.size() < header) fail();
    const auto length = std::size_t{little(rest, 4, 4)};
    if (length > rest.size() - header) fail();
    const auto padded = std::min(rest.size(), header + length + length % 2);
    const auto chunk = WebpChunk{.kind = {reinterpret_cast<const char*>(rest.data()), 4},
                                 .bytes = rest.subspan(header, length),
                                 .whole = rest.first(padded)};
    rest = rest.subspan(padded);
    return chunk;
}

// What stands in the container behind its own header.
FileBytes chunks_of(FileBytes file) {
    constexpr std::size_t header = 12;
    if (file.size() < header) fail();
    const auto length = std::size_t{little(file, 4, 4)};
    constexpr std::size_t before_length = 8;
    if (length < header - before_length || length > file.size() - before_length) fail();
    return file.subspan(header, length - (header - before_length));
}

// A frame of a moving picture (RFC 9649, section 2.7.1.1).
struct WebpFrame {
    Box box;
    double seconds = 0;
    bool is_cleared = false;  // when it has been shown
    bool is_over = false;     // blended over what is there, not in place of it
    bool has_alpha = false;
    FileBytes image;  // its chunks
};

WebpFrame frame_in(FileBytes chunk, Size canvas) {
    constexpr std::size_t header = 16;
    if (chunk.size() < header) fail();
    const auto flags = chunk[header - 1];
    const auto number = [&](std::size_t at) { return static_cast<int>(little(chunk, at, 3)); };
    WebpFrame frame{.box = {.at = {.x = 2 * number(0), .y = 2 * number(3)},
                            .size = {.width = number(6) + 1, .height = number(9) + 1}},
                    .seconds = number(12) / thousandths,
                    .is_cleared = (flags & 1U) != 0,
                    .is_over = (flags & 2U) == 0,
                    .image = chunk.subspan(header)};
    if (intersection(frame.box, Box{.at = {}, .size = canvas}) != frame.box) {
        throw Error{"webp: a frame lies beyond the picture's edges"};
    }
    constexpr std::size_t alpha_bit = 12;  // of a lossless picture's header: behind its mark and both sides
    for (auto rest = frame.image; const auto part = take_chunk(rest);) {
        const auto is_lossless_with_alpha =
            part->kind == "VP8L" && part->bytes.size() > 4 && (little(part->bytes, 1, 4) >> (16 + alpha_bit) & 1U) != 0;
        frame.has_alpha = frame.has_alpha || part->kind == "ALPH" || is_lossless_with_alpha;
    }
    return frame;
}

// Calls use(frame) for each frame, in turn.
template <class Use>
void for_each_frame(FileBytes file, Size canvas, const Use& use) {
    for (auto rest = chunks_of(file); const auto chunk = take_chunk(rest);) {
        spend_work(4);
        if (chunk->kind == "ANMF") use(frame_in(chunk->bytes, canvas));
    }
}

bool is_moving(FileBytes file) {
    WebPBitstreamFeatures features;
    return WebPGetFeatures(file.data(), file.size(), &features) == VP8_STATUS_OK && features.has_animation != 0;
}

// What the file says, checked before anything is decoded.
PictureInfo look_at(FileBytes file, const LoadLimits& limits) {
    WebPBitstreamFeatures features;
    if (WebPGetFeatures(file.data(), file.size(), &features) != VP8_STATUS_OK) fail();
    check_size("webp", features.width, features.height, limits);
    PictureInfo info{.format = FileFormat::webp,
                     .size = {.width = features.width, .height = features.height},
                     .channels = 3,
                     .bits = 8,
                     .has_alpha = features.has_alpha != 0};
    check_shrinkage("webp", info.size, file.size(), limits);
    auto has_loops = false;
    for (auto rest = chunks_of(file); const auto chunk = take_chunk(rest);) {
        constexpr std::size_t loops_at = 4;  // behind the colour of the ground
        if (chunk->kind != "ANIM" || chunk->bytes.size() < loops_at + 2) continue;
        has_loops = true;
        info.loops = static_cast<int>(little(chunk->bytes, loops_at, 2));
    }
    if (features.has_animation != 0) {
        if (!has_loops) fail();
        auto frames = 0;
        for_each_frame(file, info.size, [&](const WebpFrame& frame) {
            ++frames;
            info.seconds += frame.seconds;
            info.has_alpha = info.has_alpha || frame.has_alpha;
        });
        if (frames == 0) fail();
        info.frames = frames;
        if (frames == 1) info.seconds = 0;
    }
    if (info.has_alpha) info.channels = 4;
    return info;
}

// Decodes a file of one picture into memory of as many bytes as its pixels take.
void decode(FileBytes file, int channels, Size size, std::span<std::uint8_t> pixels) {
    // Lossless pictures are kept as a whole while they are decoded.
    MemoryHold memory;
    memory.add(4 * pixel_count(size));
    WebPDecoderConfig config;
    if (WebPInitDecoderConfig(&config) == 0) throw Error{"webp: the library is of another version"};
    config.output.colorspace = channels == 4 ? MODE_RGBA : MODE_RGB;
    config.output.is_external_memory = 1;
    config.output.u.RGBA = {.rgba = pixels.data(), .stride = channels * size.width, .size = pixels.size()};
    const auto status = WebPDecode(file.data(), file.size(), &config);
    if (status == VP8_STATUS_OUT_OF_MEMORY) throw std::bad_alloc{};
    if (status != VP8_STATUS_OK) fail();
    constexpr auto pixels_of_step = 4U;
    spend_work(pixel_count(size) / pixels_of_step);
}

// A still picture, as it is in the file.
void send_still(FileBytes file, const PictureInfo& info, const LoadLimits& limits, PixelSink& sink) {
    const auto row_bytes = static_cast<std::size_t>(info.channels) * static_cast<std::size_t>(info.size.width);
    const auto bytes = row_bytes * static_cast<std::size_t>(info.size.height);
    sink.begin("webp", {.kernel = info.channels == 4 ? &rgba8_kernel : &rgb8_kernel, .size = info.size}, limits, bytes);
    std::vector<std::uint8_t> pixels(bytes);
    decode(file, info.channels, info.size, pixels);
    for (int y = 0; y < info.size.height; ++y)
        sink.take_row(pixels.data() + static_cast<std::size_t>(y) * row_bytes, y);
}

// A frame's pixels.
Bitmap<Rgba8> pixels_of(const WebpFrame& frame) {
    std::vector<std::uint8_t> file;
    const auto put = [&](std::string_view words) { file.insert(file.end(), words.begin(), words.end()); };
    const auto put_number = [&](std::size_t number, int bytes) {
        for (auto i = 0; i < bytes; ++i)
            file.push_back(static_cast<std::uint8_t>(number >> (8U * static_cast<unsigned>(i))));
    };
    const auto& size = frame.box.size;
    constexpr std::size_t extended = 18;  // the chunk that says that there is alpha beside
    put("RIFF");
    put_number(4 + extended + frame.image.size(), 4);
    put("WEBPVP8X");
    constexpr auto alpha_flag = 0x10U;
    put_number(extended - 8, 4);
    put_number(frame.has_alpha ? alpha_flag : 0, 4);
    put_number(static_cast<std::size_t>(size.width) - 1, 3);
    put_number(static_cast<std::size_t>(size.height) - 1, 3);
    file.insert(file.end(), frame.image.begin(), frame.image.end());
    WebPBitstreamFeatures features;
    const auto is_right = WebPGetFeatures(file.data(), file.size(), &features) == VP8_STATUS_OK &&
                          Size{.width = features.width, .height = features.height} == size;
    if (!is_right) fail();
    Bitmap<Rgba8> pixels{size};
    decode(file, 4, size, bytes_of(pixels));
    return pixels;
}

// Lays a frame on what is there.
void lay(const WebpFrame& frame, Bitmap<Rgba8>& canvas) {
    const auto how = Compositing{.blend = frame.is_over && frame.has_alpha ? Blend::over : Blend::replace};
    paste(canvas, pixels_of(frame), {.at = frame.box.at, .compositing = how});
}

}  // namespace

PictureInfo read_webp(FileBytes file, const LoadLimits& limits, PixelSink& sink) {
    auto info = look_at(file, limits);
    if (!is_moving(file)) {
        send_still(file, info, limits, sink);
        return info;
    }
    const auto row_bytes = 4 * static_cast<std::size_t>(info.size.width);
    sink.begin("webp", {.kernel = &rgba8_kernel, .size = info.size}, limits,
               2 * row_bytes * static_cast<std::size_t>(info.size.height));
    Bitmap<Rgba8> canvas{info.size, Color{.alpha = 0}};
    auto is_first = true;
    for_each_frame(file, info.size, [&](const WebpFrame& frame) {
        if (std::exchange(is_first, false)) lay(frame, canvas);
    });
    for (int y = 0; y < info.size.height; ++y) {
        sink.take_row(bytes_of(canvas).data() + static_cast<std::size_t>(y) * row_bytes, y);
    }
    return info;
}

Film read_webp_film(FileBytes file, const LoadLimits& limits) {
    const auto info = look_at(file, limits);
    FilmMaker maker{"webp", info.size, static_cast<std::uint64_t>(info.frames) + 2, limits};
    maker.film().info = info;
    maker.film().info.seconds = 0;
    if (!is_moving(file)) {
        maker.canvas() = load<Rgba8>(file, limits);
        maker.add(0);
    } else {
        for_each_frame(file, info.size, [&](const WebpFrame& frame) {
            auto& canvas = maker.canvas();
            lay(frame, canvas);
            maker.add(info.frames > 1 ? frame.seconds : 0);
            if (frame.is_cleared) clear(canvas.within(frame.box), Color{.alpha = 0});
        });
    }
    if (maker.film().frames.empty()) fail();
    maker.film().loops = info.loops;
    return std::move(maker.film());
}

}  // namespace coldbrick::inline v0::detail

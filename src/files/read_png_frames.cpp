// Animated PNG: Portable Network Graphics (PNG) Specification (Third Edition), sections 11.3.6 and 4.9. Each frame is
// made a file of its own, of which libpng reads the pixels.
#include "files/png_parts.hpp"
#include "files/read_frames.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <optional>
#include <string>
#include <utility>

#include <libdeflate.h>

namespace coldbrick::inline v0::detail {

namespace {

struct PngChunk {
    std::string_view kind;
    FileBytes bytes;
};

// The chunks of a file, one after the other.
class ChunkReader {
  public:
    explicit ChunkReader(FileBytes file) : reader_{"png", file} { reader_.take(8); }
    explicit ChunkReader(const ByteSource& file) : reader_{"png", file} { reader_.take(8); }

    // Whether there is one more, and it is of that kind.
    [[nodiscard]] bool is_next(std::string_view kind) {
        constexpr std::uint64_t before_data = 8;
        if (is_over_ || reader_.rest() < before_data) return false;
        const auto at = reader_.place();
        const auto bytes = reader_.take(before_data).subspan(4);
        const auto is_kind = std::equal(bytes.begin(), bytes.end(), kind.begin(), kind.end());
        reader_.go_to(at);
        return is_kind;
    }

    // Throws Error for a chunk that is cut short, or whose sum is another. Of a file that is read, its bytes are valid
    // until the next one.
    std::optional<PngChunk> next() {
        if (is_over_ || reader_.rest() == 0) return std::nullopt;
        const auto length = reader_.big(4);
        constexpr std::size_t around_data = 8;
        const auto all = reader_.take(around_data + length);
        const auto summed = all.first(std::size_t{4} + length);
        const auto chunk =
            PngChunk{.kind = {reinterpret_cast<const char*>(summed.data()), 4}, .bytes = summed.subspan(4)};
        if (libdeflate_crc32(0, summed.data(), summed.size()) != ByteReader{"png", all.last(4)}.big(4)) {
            throw Error{"png: a chunk " + printable(chunk.kind) + " is damaged"};
        }
        is_over_ = chunk.kind == "IEND";
        return chunk;
    }

  private:
    ByteReader reader_;
    bool is_over_ = false;
};

// What stands before the pixels of a frame.
struct Control {
    std::uint32_t number = 0;
    Box box;
    double seconds = 0;
    int disposal = 0;  // 0: stays, 1: is cleared, 2: becomes what was there
    int blend = 0;     // 0: in place of what is there, 1: over it
};

Control read_control(const PngChunk& chunk, Size size) {
    ByteReader reader{"png", chunk.bytes};
    Control control;
    control.number = reader.big(4);
    const auto width = reader.big(4);
    const auto height = reader.big(4);
    const auto x = reader.big(4);
    const auto y = reader.big(4);
    const auto parts = reader.big(2);
    const auto to_a_second = reader.big(2);
    control.disposal = reader.byte();
    control.blend = reader.byte();
    const auto fits = [](std::uint32_t at, std::uint32_t length, int whole) {
        return length > 0 && at <= static_cast<std::uint32_t>(whole) &&
               length <= static_cast<std::uint32_t>(whole) - at;
    };
    if (!fits(x, width, size.width) || !fits(y, height, size.height))
        throw Error{"png: a frame lies beyond the picture's edges"};
    if (control.disposal > 2 || control.blend > 1)
        throw Error{"png: a frame is to be laid on in a way that there is not"};
    control.box = {.at = {.x = static_cast<int>(x), .y = static_cast<int>(y)},
                   .size = {.width = static_cast<int>(width), .height = static_cast<int>(height)}};
    control.seconds = static_cast<double>(parts) / (to_a_second == 0 ? 100 : to_a_second);
    return control;
}

// Reads the frames of a file that says that it has some.
class PngFilmReader {
  public:
    PngFilmReader(FileBytes file, const LoadLimits& limits, const PictureInfo& info)
        : file_{file}, limits_{limits}, maker_{"png", info.size, static_cast<std::uint64_t>(info.frames), limits} {
        maker_.film().info = info;
        maker_.film().info.seconds = 0;
    }

    Film read() {
        const auto announced = maker_.film().info.frames;
        ChunkReader chunks{file_};
        while (const auto chunk = chunks.next()) take(*chunk);
        finish_frame();
        auto& film = maker_.film();
        if (film.frames.empty()) throw Error{"png: it says that it has frames, and has none"};
        if (static_cast<int>(film.frames.size()) != announced) {
            throw Error{"png: it says that it has " + std::to_string(announced) + " frames, and has " +
                        std::to_string(film.frames.size())};
        }
        film.loops = film.info.loops;
        return std::move(film);
    }

  private:
    void take(const PngChunk& chunk) {
        if (chunk.kind == "IHDR") {
            header_.assign(chunk.bytes.begin(), chunk.bytes.end());
        } else if (chunk.kind == "PLTE" || chunk.kind == "tRNS") {
            // The first of each counts, as for libpng, and is no longer than a palette can be.
            constexpr std::size_t most = 768;
            auto& has_one = chunk.kind == "PLTE" ? has_palette_ : has_transparency_;
            if (std::exchange(has_one, true) || chunk.bytes.size() > most) return;
            PngChunks to{before_};
            to.add(chunk.kind, [&](Bytes& bytes) { put_all(bytes, chunk.bytes); });
        } else if (chunk.kind == "fcTL") {
            finish_frame();
            control_ = read_control(chunk, maker_.film().size);
            check_number(control_->number);
        } else if (chunk.kind == "IDAT" && control_) {
            pixels_.push_back(chunk.bytes);
        } else if (chunk.kind == "fdAT") {
            if (!control_ || chunk.bytes.size() < 4) throw Error{"png: a frame's pixels come before the frame"};
            ByteReader reader{"png", chunk.bytes};
            check_number(reader.big(4));
            pixels_.push_back(chunk.bytes.subspan(4));
        }
    }

    // Chunks of frames are counted, in their order.
    void check_number(std::uint32_t number) {
        if (number != next_number_++) throw Error{"png: the chunks of its frames are not in order"};
    }

    void finish_frame() {
        if (!control_) return;
        const auto control = *std::exchange(control_, std::nullopt);
        if (pixels_.empty()) throw Error{"png: a frame has no pixels"};
        const auto part = load<Rgba8>(std::span<const std::uint8_t>{file_of(control.box.size)}, limits_);
        pixels_.clear();
        auto& canvas = maker_.canvas();
        auto before = std::optional<Bitmap<Rgba8>>{};
        if (control.disposal == 2) before = canvas;
        paste(canvas, part,
              {.at = control.box.at, .compositing = {.blend = control.blend == 0 ? Blend::replace : Blend::over}});
        maker_.add(control.seconds);
        if (control.disposal == 1) clear(canvas.within(control.box), Color{.alpha = 0});
        if (before)
            canvas = maker_.film().frames.size() == 1 ? Bitmap<Rgba8>{canvas.size(), Color{.alpha = 0}} : *before;
    }

    // A frame's pixels as a file.
    [[nodiscard]] Bytes file_of(Size size) {
        Bytes file;
        PngChunks chunks{file};
        auto header = header_;
        for (auto i = 0U; i < 4; ++i) {
            header[i] = static_cast<std::uint8_t>(static_cast<std::uint32_t>(size.width) >> (24U - 8U * i));
            header[4 + i] = static_cast<std::uint8_t>(static_cast<std::uint32_t>(size.height) >> (24U - 8U * i));
        }
        chunks.add("IHDR", [&](Bytes& to) { put_all(to, header); });
        constexpr std::size_t signature = 8;
        if (!before_.empty()) put_all(file, std::span{before_}.subspan(signature));
        for (const auto pixels : pixels_) chunks.add("IDAT", [&](Bytes& to) { put_all(to, pixels); });
        chunks.add("IEND", [](Bytes&) {});
        return file;
    }

    FileBytes file_;
    const LoadLimits& limits_;
    FilmMaker maker_;
    Bytes header_;
    bool has_palette_ = false;
    bool has_transparency_ = false;
    Bytes before_;  // palette and transparency, behind the beginning of a file
    std::optional<Control> control_;
    std::vector<FileBytes> pixels_;
    std::uint32_t next_number_ = 0;
};

}  // namespace

void read_png_control(const ByteSource& file, PictureInfo& info) {
    ChunkReader chunks{file};
    auto frames = std::uint32_t{0};
    auto seconds = 0.0;
    auto size = Size{};
    auto loops = std::uint32_t{0};
    for (;;) {
        if (frames == 0 && chunks.is_next("IDAT")) return;
        const auto chunk = chunks.next();
        if (!chunk) break;
        ByteReader reader{"png", chunk->bytes};
        if (chunk->kind == "IHDR")
            size = {.width = static_cast<int>(reader.big(4)), .height = static_cast<int>(reader.big(4))};
        if (chunk->kind == "acTL") {
            frames = reader.big(4);
            loops = reader.big(4);
        }
        if (chunk->kind == "fcTL") seconds += read_control(*chunk, size).seconds;
    }
    constexpr std::uint32_t most = 0x7fffffff;
    if (frames == 0 || frames > most) return;
    info.frames = static_cast<int>(frames);
    info.loops = static_cast<int>(std::min(loops, most));
    info.seconds = seconds;
}

Film read_png_film(FileBytes file, const LoadLimits& limits) {
    auto still = load_any(file, limits);
    if (still.info.frames == 1) {
        Film film{.size = still.info.size, .loops = 0, .frames = {}, .info = still.info};
        film.frames.push_back({.picture = std::move(still).as<Rgba8>()});
        return film;
    }
    const auto info = still.info;
    return PngFilmReader{file, limits, info}.read();
}

}  // namespace coldbrick::inline v0::detail

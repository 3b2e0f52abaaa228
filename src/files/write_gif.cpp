// GIF (Graphics Interchange Format, version 89a), by giflib; still and moving.
#include "files/frame_encoders.hpp"
#include "files/writers.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/compare.hpp"
#include "coldbrick/compose.hpp"
#include "coldbrick/convert.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/quantize.hpp"

#include <algorithm>
#include <array>
#include <cstring>
#include <memory>
#include <string>
#include <utility>

#include <gif_lib.h>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto no_transparency = -1;

struct FreeMap {
    void operator()(ColorMapObject* map) const noexcept { GifFreeMapObject(map); }
};
using ColorMap = std::unique_ptr<ColorMapObject, FreeMap>;

// A frame as the file has it.
struct GifFrame {
    Point at;
    Bitmap<Index8> pixels;
    int transparent = no_transparency;  // which number
    int ticks = 0;
    bool is_cleared = false;  // behind it, all is transparent again
};

class GifFile {
  public:
    GifFile() {
        auto error = 0;
        gif_ = EGifOpen(&bytes_, write, &error);
        if (gif_ == nullptr) throw Error{"gif: there is no memory for it"};
        EGifSetGifVersion(gif_, true);
    }
    GifFile(const GifFile&) = delete;
    GifFile(GifFile&&) = delete;
    GifFile& operator=(const GifFile&) = delete;
    GifFile& operator=(GifFile&&) = delete;
    ~GifFile() { close(); }

    void begin(Size size, int loops, bool is_moving, const Palette* palette) {
        constexpr auto bits = 8;
        const auto map = palette != nullptr ? map_of(*palette) : nullptr;
        check(EGifPutScreenDesc(gif_, size.width, size.height, bits, 0, map.get()));
        // Once is said by saying nothing; the number is of the times after the first.
        if (!is_moving || loops == 1) return;
        const auto more = static_cast<unsigned>(loops == 0 ? 0 : loops - 1);
        const std::array<GifByteType, 3> block{1, static_cast<GifByteType>(more & 255U),
                                               static_cast<GifByteType>(more >> 8U)};
        check(EGifPutExtensionLeader(gif_, APPLICATION_EXT_FUNC_CODE));
        check(EGifPutExtensionBlock(gif_, 11, "NETSCAPE2.0"));
        check(EGifPutExtensionBlock(gif_, block.size(), block.data()));
        check(EGifPutExtensionTrailer(gif_));
    }

    void add(const GifFrame& frame, bool has_own_palette) {
        const GraphicsControlBlock control{.DisposalMode = frame.is_cleared ? DISPOSE_BACKGROUND : DISPOSE_DO_NOT,
                                           .UserInputFlag = false,
                                           .DelayTime = frame.ticks,
                                           .TransparentColor = frame.transparent};
        std::array<GifByteType, 4> block{};
        EGifGCBToExtension(&control, block.data());
        check(EGifPutExtension(gif_, GRAPHICS_EXT_FUNC_CODE, block.size(), block.data()));
        const auto map = has_own_palette ? map_of(frame.pixels.palette()) : nullptr;
        const auto size = frame.pixels.size();
        check(EGifPutImageDesc(gif_, frame.at.x, frame.at.y, size.width, size.height, false, map.get()));
        // giflib does not say that it leaves rows as they are.
        std::vector<GifByteType> row;
        for (int y = 0; y < size.height; ++y) {
            const auto* const numbers = frame.pixels.bytes().data() + std::ptrdiff_t{y} * size.width;
            row.assign(numbers, numbers + size.width);
            check(EGifPutLine(gif_, row.data(), size.width));
        }
    }

    Bytes finish() {
        if (!close()) throw Error{"gif: it cannot be finished"};
        return std::move(bytes_);
    }

  private:
    static int write(GifFileType* gif, const GifByteType* bytes, int count) {
        auto& to = *static_cast<Bytes*>(gif->UserData);
        try {
            to.insert(to.end(), bytes, bytes + count);
        } catch (const std::bad_alloc&) {
            return 0;
        }
        return count;
    }

    bool close() noexcept {
        if (gif_ == nullptr) return false;
        auto error = 0;
        return EGifCloseFile(std::exchange(gif_, nullptr), &error) == GIF_OK;
    }

    void check(int result) const {
        if (result == GIF_OK) return;
        const auto* const what = GifErrorString(gif_->Error);
        throw Error{std::string{"gif: "} + (what != nullptr ? what : "it cannot be written")};
    }

    // As many colours as a power of two.
    static ColorMap map_of(const Palette& palette) {
        std::size_t count = 2;
        while (count < palette.size()) count *= 2;
        std::vector<GifColorType> colors(count);
        for (std::size_t i = 0; i < palette.size(); ++i) {
            const auto color = palette[i];
            colors[i] = {.Red = color.red, .Green = color.green, .Blue = color.blue};
        }
        auto map = ColorMap{GifMakeMapObject(static_cast<int>(count), colors.data())};
        if (!map) throw Error{"gif: there is no memory for it"};
        return map;
    }

    Bytes bytes_;
    GifFileType* gif_ = nullptr;
};

void check_side(Size size) {
    constexpr auto most = 65535;
    if (size.width > most || size.height > most) {
        throw Error{"gif: its size is " + in_words(size) + "; allowed are sides up to 65535"};
    }
}

// A picture's pixels as opaque or transparent ones: a colour is in the file or not at all.
Bitmap<Rgba8> solid(const Surface& picture) {
    Bitmap<Rgba8> result{picture.window.size};
    convert(picture, SurfaceAccess::of(result));
    const auto bytes = bytes_of(result);
    constexpr auto half = 128;
    for (std::size_t i = 0; i < bytes.size(); i += 4) {
        if (bytes[i + 3] >= half) {
            bytes[i + 3] = 255;
        } else {
            std::fill_n(&bytes[i], 4, std::uint8_t{0});
        }
    }
    return result;
}

bool is_seen(const std::uint8_t* pixel) noexcept { return pixel[3] != 0; }

// The pixels that are seen, one behind the other: of very many, every so many-th.
Bitmap<Rgba8> seen_pixels(std::span<const Bitmap<Rgba8>> pictures) {
    std::size_t count = 0;
    for (const auto& picture : pictures) count += picture.bytes().size() / 4;
    constexpr std::size_t enough = std::size_t{1} << 22U;
    const auto every = count / enough + 1;
    std::vector<std::uint8_t> seen;
    std::size_t number = 0;
    for (const auto& picture : pictures) {
        const auto& bytes = picture.bytes();
        for (std::size_t i = 0; i < bytes.size(); i += 4) {
            if (is_seen(&bytes[i]) && number++ % every == 0) seen.insert(seen.end(), &bytes[i], &bytes[i] + 4);
        }
    }
    constexpr std::size_t width = 1024;
    if (seen.empty()) seen.assign({0, 0, 0, 255});
    const auto pixels = seen.size() / 4;
    const auto across = std::min(width, pixels);
    const auto down = (pixels + across - 1) / across;
    // The last row is filled with the last of them.
    while (seen.size() < across * down * 4) seen.insert(seen.end(), seen.end() - 4, seen.end());
    Bitmap<Rgba8> result{{.width = static_cast<int>(across), .height = static_cast<int>(down)}};
    std::copy(seen.begin(), seen.end(), bytes_of(result).begin());
    return result;
}

bool has_unseen(const Bitmap<Rgba8>& picture) noexcept {
    const auto& bytes = picture.bytes();
    for (std::size_t i = 0; i < bytes.size(); i += 4) {
        if (!is_seen(&bytes[i])) return true;
    }
    return false;
}

// The palette of what is seen, with one more entry where something is not.
Palette palette_of(std::span<const Bitmap<Rgba8>> pictures, int colors) {
    const auto needs_unseen = std::any_of(pictures.begin(), pictures.end(), has_unseen);
    const auto found = palette_for(seen_pixels(pictures), needs_unseen ? colors - 1 : colors);
    auto all = std::vector<Color>{found.colors().begin(), found.colors().end()};
    if (needs_unseen) all.push_back({.alpha = 0});
    return Palette{std::move(all)};
}

// A patch that lies somewhere on the frame, in a palette that palette_of() gave.
GifFrame in_palette(const Bitmap<Rgba8>& patch, Point at, const Palette& palette, Dithering dithering) {
    GifFrame frame{.at = at, .pixels = {}};
    const auto last = palette.size() - 1;
    if (palette[last].alpha == 0) frame.transparent = static_cast<int>(last);
    // The pattern of thresholds stays where it is when the patch moves.
    Bitmap<Rgba8> shifted{{.width = patch.size().width + (at.x & 7), .height = patch.size().height + (at.y & 7)}};
    if (dithering == Dithering::ordered) {
        paste(shifted, patch, {.at = {.x = at.x & 7, .y = at.y & 7}, .compositing = {.blend = Blend::replace}});
        frame.pixels = ordered(shifted.within({.at = {.x = at.x & 7, .y = at.y & 7}, .size = patch.size()}), palette);
    } else {
        frame.pixels = dithering == Dithering::diffused ? diffused(patch, palette) : convert(patch, palette);
    }
    if (frame.transparent == no_transparency) return frame;
    const auto numbers = bytes_of(frame.pixels);
    for (std::size_t i = 0; i < numbers.size(); ++i) {
        const auto is_there = is_seen(&patch.bytes()[4 * i]);
        if (!is_there) {
            numbers[i] = static_cast<std::uint8_t>(last);
        } else if (numbers[i] == last) {
            // What is seen is never transparent, however dark it is.
            const auto* const pixel = &patch.bytes()[4 * i];
            const auto opaque = Palette{{palette.colors().begin(), palette.colors().end() - 1}};
            numbers[i] = static_cast<std::uint8_t>(opaque.nearest({pixel[0], pixel[1], pixel[2], 255}));
        }
    }
    return frame;
}

class GifFrames final : public FrameEncoder {
  public:
    explicit GifFrames(const FrameOptions& options) : options_{options} {}

    void add(const Surface& picture, double seconds) override {
        check_side(picture.window.size);
        auto now = solid(picture);
        const auto size = now.size();
        if (patches_.empty()) {
            patches_.push_back({.at = {}, .pixels = now, .ticks = ticks_.next(seconds)});
        } else {
            auto patch = changed(now);
            patch.ticks = ticks_.next(seconds);
            if (options_.palettes == FrameOptions::Palettes::each) settle();
            patches_.push_back(std::move(patch));
        }
        size_ = size;
        last_ = std::move(now);
    }

    Bytes finish() override {
        const auto is_moving = frames_.size() + patches_.size() > 1;
        GifFile file;
        if (options_.palettes == FrameOptions::Palettes::all) {
            std::vector<Bitmap<Rgba8>> pictures;
            for (const auto& patch : patches_) pictures.push_back(patch.pixels);
            const auto palette = palette_of(pictures, options_.colors);
            pictures.clear();
            file.begin(size_, options_.loops, is_moving, &palette);
            for (const auto& patch : patches_) file.add(frame_of(patch, palette), false);
        } else {
            settle();
            file.begin(size_, options_.loops, is_moving, nullptr);
            for (const auto& frame : frames_) file.add(frame, true);
        }
        return file.finish();
    }

  private:
    // What is laid on the frame before.
    struct Patch {
        Point at;
        Bitmap<Rgba8> pixels;
        int ticks = 0;
        bool is_cleared = false;
    };

    [[nodiscard]] GifFrame frame_of(const Patch& patch, const Palette& palette) const {
        // Where the palette has all colours, there is nothing to be spread.
        const auto is_exact = count_colors(patch.pixels, palette.size()) <= palette.size();
        auto frame = in_palette(
            patch.pixels, patch.at, palette,
            is_exact && options_.palettes == FrameOptions::Palettes::each ? Dithering::none : options_.dithering);
        frame.ticks = patch.ticks;
        frame.is_cleared = patch.is_cleared;
        return frame;
    }

    // The frame before cannot change any more: it gets its palette.
    void settle() {
        const auto& patch = patches_.back();
        frames_.push_back(frame_of(patch, palette_of(std::span{&patch.pixels, 1}, options_.colors)));
        patches_.clear();
    }

    // The box around what is another than in the frame before; in it, what is the same is not seen. Where something was
    // and is not any more, the frame before is taken away, all of it.
    Patch changed(const Bitmap<Rgba8>& now) {
        const auto& before = last_.bytes();
        const auto& bytes = now.bytes();
        const auto width = static_cast<std::size_t>(now.size().width);
        auto box = Box{};
        auto is_gone = false;
        const auto row_bytes = 4 * width;
        for (std::size_t first = 0; first < bytes.size(); first += row_bytes) {
            if (std::memcmp(&bytes[first], &before[first], row_bytes) == 0) continue;
            const auto y = static_cast<int>(first / row_bytes);
            for (std::size_t i = first; i < first + row_bytes; i += 4) {
                if (std::memcmp(&bytes[i], &before[i], 4) == 0) continue;
                is_gone = is_gone || !is_seen(&bytes[i]);
                const auto x = static_cast<int>((i - first) / 4);
                box = enclosing(box, Box{.at = {.x = x, .y = y}, .size = {.width = 1, .height = 1}});
            }
        }
        if (is_gone) {
            auto& last = patches_.back();
            const auto ticks = last.ticks;
            last = {.at = {}, .pixels = last_, .ticks = ticks, .is_cleared = true};
            return {.at = {}, .pixels = now};
        }
        if (box.empty()) box = {.at = {}, .size = {.width = 1, .height = 1}};
        Patch patch{.at = box.at, .pixels = Bitmap<Rgba8>{box.size}};
        auto* to = bytes_of(patch.pixels).data();
        for (int y = box.at.y; y <= box.last().y; ++y) {
            for (int x = box.at.x; x <= box.last().x; ++x, to += 4) {
                const auto i = 4 * (static_cast<std::size_t>(y) * width + static_cast<std::size_t>(x));
                if (!std::equal(&bytes[i], &bytes[i] + 4, &before[i])) std::copy_n(&bytes[i], 4, to);
            }
        }
        return patch;
    }

    FrameOptions options_;
    Ticks ticks_{100};
    Size size_;
    Bitmap<Rgba8> last_;
    std::vector<Patch> patches_;  // without a palette still: the last one, or all
    std::vector<GifFrame> frames_;
};

}  // namespace

std::unique_ptr<FrameEncoder> gif_frames(const FrameOptions& options) { return std::make_unique<GifFrames>(options); }

// One picture, exactly: of no more than 256 colours.
Bytes write_gif(const Surface& picture, const SaveOptions&) {
    check_side(picture.window.size);
    Bitmap<Rgba8> pixels{picture.window.size};
    convert(picture, SurfaceAccess::of(pixels));
    const auto& bytes = pixels.bytes();
    for (std::size_t i = 0; i < bytes.size(); i += 4) {
        if (bytes[i + 3] == 0 || bytes[i + 3] == 255) continue;
        throw Error{"gif: the picture has pixels that are translucent; in GIF files they are opaque or transparent"};
    }
    const auto one = solid(picture);
    const auto palette = palette_of(std::span{&one, 1}, 256);
    const auto frame = in_palette(one, {}, palette, Dithering::none);
    for (std::size_t i = 0; i < frame.pixels.bytes().size(); ++i) {
        const auto color = palette[frame.pixels.bytes()[i]];
        const auto* const pixel = &one.bytes()[4 * i];
        if (color == Color{pixel[0], pixel[1], pixel[2], pixel[3]}) continue;
        throw Error{"gif: the picture has more than 256 colours; palette_for() and diffused() choose fewer"};
    }
    GifFile file;
    file.begin(one.size(), 1, false, nullptr);
    file.add(frame, true);
    return file.finish();
}

}  // namespace coldbrick::inline v0::detail

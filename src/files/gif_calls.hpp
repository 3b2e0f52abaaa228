// Calls of giflib, to read.
#pragma once

#include "files/readers.hpp"

#include <algorithm>
#include <new>
#include <string>

#include <gif_lib.h>

namespace coldbrick::inline v0::detail {

// A picture of a GIF file, before its pixels.
struct GifImage {
    Box box;
    bool is_interlaced = false;
    Palette palette{{Color{}}};  // with alpha 0 for the transparent colour
    int ticks = 0;               // hundredths of a second
    int disposal = DISPOSAL_UNSPECIFIED;
};

// A file that is read from picture to picture.
class GifReader {
  public:
    explicit GifReader(FileBytes file) : file_{file} {
        auto error = 0;
        gif_ = DGifOpen(this, read, &error);
        if (gif_ == nullptr) fail(error);
    }
    GifReader(const GifReader&) = delete;
    GifReader(GifReader&&) = delete;
    GifReader& operator=(const GifReader&) = delete;
    GifReader& operator=(GifReader&&) = delete;
    ~GifReader() {
        auto error = 0;
        DGifCloseFile(gif_, &error);
    }

    [[nodiscard]] Size size() const noexcept { return {.width = gif_->SWidth, .height = gif_->SHeight}; }

    // Goes to the next picture; false at the end of the file.
    bool next(GifImage& image) {
        image.ticks = 0;
        image.disposal = DISPOSAL_UNSPECIFIED;
        transparent_ = NO_TRANSPARENT_COLOR;
        while (true) {
            auto kind = UNDEFINED_RECORD_TYPE;
            check(DGifGetRecordType(gif_, &kind));
            if (kind == TERMINATE_RECORD_TYPE) return false;
            if (kind == EXTENSION_RECORD_TYPE) read_extension(image);
            if (kind == IMAGE_DESC_RECORD_TYPE) break;
        }
        check(DGifGetImageDesc(gif_));
        const auto& header = gif_->Image;
        image.box = {.at = {.x = header.Left, .y = header.Top},
                     .size = {.width = header.Width, .height = header.Height}};
        image.is_interlaced = header.Interlace;
        if (image.box.size.width < 1 || image.box.size.height < 1) throw Error{"gif: one of its pictures has no pixel"};
        if (intersection(image.box, Box{.at = {}, .size = size()}) != image.box) {
            throw Error{"gif: one of its pictures lies beyond its edges"};
        }
        const auto* const map = header.ColorMap != nullptr ? header.ColorMap : gif_->SColorMap;
        if (map == nullptr) throw Error{"gif: one of its pictures has no palette"};
        std::vector<Color> colors;
        for (int i = 0; i < map->ColorCount; ++i) {
            const auto& color = map->Colors[i];
            colors.push_back(
                {color.Red, color.Green, color.Blue, i == transparent_ ? std::uint8_t{0} : std::uint8_t{255}});
        }
        image.palette = Palette{std::move(colors)};
        return true;
    }

    // Calls take(y, numbers) for each row of the picture, which may come in four passes.
    template <class Take>
    void rows(const GifImage& image, const Take& take) {
        std::vector<GifPixelType> row(static_cast<std::size_t>(image.box.size.width));
        const auto pass = [&](int first, int step) {
            for (auto y = first; y < image.box.size.height; y += step) {
                check(DGifGetLine(gif_, row.data(), image.box.size.width));
                const auto most = *std::max_element(row.begin(), row.end());
                if (most >= image.palette.size()) {
                    throw Error{"gif: a pixel has colour " + std::to_string(most) + ", and the palette " +
                                std::to_string(image.palette.size()) + " colours"};
                }
                take(y, row.data());
            }
        };
        if (!image.is_interlaced) return pass(0, 1);
        pass(0, 8);
        pass(4, 8);
        pass(2, 4);
        pass(1, 2);
    }

    // Goes on without a picture's pixels.
    void skip_rows() {
        auto size = 0;
        GifByteType* block = nullptr;
        check(DGifGetCode(gif_, &size, &block));
        while (block != nullptr) check(DGifGetCodeNext(gif_, &block));
    }

    // As FrameOptions::loops.
    [[nodiscard]] int loops() const noexcept { return loops_; }
    [[nodiscard]] std::size_t rest() const noexcept { return file_.size() - place_; }

  private:
    static int read(GifFileType* gif, GifByteType* to, int count) {
        auto& self = *static_cast<GifReader*>(gif->UserData);
        const auto taken = std::min(static_cast<std::size_t>(std::max(count, 0)), self.rest());
        std::copy_n(self.file_.begin() + static_cast<std::ptrdiff_t>(self.place_), taken, to);
        self.place_ += taken;
        return static_cast<int>(taken);
    }

    void read_extension(GifImage& image) {
        auto code = 0;
        GifByteType* block = nullptr;
        check(DGifGetExtension(gif_, &code, &block));
        auto is_loops = false;
        for (auto number = 0; block != nullptr; ++number) {
            // Each block is its length, and so many bytes.
            const auto length = block[0];
            if (code == GRAPHICS_EXT_FUNC_CODE && number == 0) {
                GraphicsControlBlock control{};
                if (DGifExtensionToGCB(length, block + 1, &control) == GIF_OK) {
                    image.ticks = control.DelayTime;
                    image.disposal = control.DisposalMode;
                    transparent_ = control.TransparentColor;
                }
            }
            constexpr std::string_view name = "NETSCAPE2.0";
            if (code == APPLICATION_EXT_FUNC_CODE && number == 0) {
                is_loops = length == name.size() && std::equal(name.begin(), name.end(), block + 1);
            } else if (is_loops && length >= 3 && block[1] == 1) {
                const auto more = block[2] + 256 * block[3];
                loops_ = more == 0 ? 0 : more + 1;
            }
            check(DGifGetExtensionNext(gif_, &block));
        }
    }

    void check(int result) const {
        if (result != GIF_OK) fail(gif_->Error);
    }

    [[noreturn]] static void fail(int error) {
        if (error == D_GIF_ERR_NOT_ENOUGH_MEM) throw std::bad_alloc{};
        const auto* const what = GifErrorString(error);
        throw Error{std::string{"gif: "} + (what != nullptr ? what : "the file is damaged")};
    }

    FileBytes file_;
    std::size_t place_ = 0;
    GifFileType* gif_ = nullptr;
    int transparent_ = NO_TRANSPARENT_COLOR;
    int loops_ = 1;
};

}  // namespace coldbrick::inline v0::detail

// JPEG, by libjpeg-turbo.
#include "files/exif.hpp"
#include "files/jpeg_calls.hpp"
#include "files/samples.hpp"

#include <array>

namespace coldbrick::detail {

namespace {

class JpegReader {
  public:
    explicit JpegReader(FileBytes file) {
        open_.jpeg.err = faults_.set_up();
        faults_.run([&] {
            jpeg_create_decompress(&open_.jpeg);
            jpeg_mem_src(&open_.jpeg, file.data(), static_cast<unsigned long>(file.size()));
            jpeg_save_markers(&open_.jpeg, JPEG_APP0 + 1, 0xffff);
            jpeg_read_header(&open_.jpeg, TRUE);
        });
    }
    JpegReader(const JpegReader&) = delete;
    JpegReader(JpegReader&&) = delete;
    JpegReader& operator=(const JpegReader&) = delete;
    JpegReader& operator=(JpegReader&&) = delete;
    ~JpegReader() = default;

    [[nodiscard]] const jpeg_decompress_struct& header() const noexcept { return open_.jpeg; }
    [[nodiscard]] const std::vector<std::string>& warnings() const noexcept { return faults_.warnings; }

    [[nodiscard]] int orientation() const noexcept {
        for (const auto* marker = open_.jpeg.marker_list; marker != nullptr; marker = marker->next) {
            const auto found = exif_orientation({marker->data, marker->data_length});
            if (found != 1) return found;
        }
        return 1;
    }

    // Calls take(y, row) for each row, of as many bytes for each pixel as it has components then: gray, RGB, or CMYK.
    template <class Take>
    void read_rows(const Take& take) {
        std::vector<std::uint8_t> row;
        faults_.run([&] {
            if (open_.jpeg.num_components == 4) {
                open_.jpeg.out_color_space = JCS_CMYK;
            } else {
                open_.jpeg.out_color_space = open_.jpeg.num_components == 1 ? JCS_GRAYSCALE : JCS_RGB;
            }
            jpeg_start_decompress(&open_.jpeg);
        });
        row.resize(std::size_t{open_.jpeg.output_width} * static_cast<std::size_t>(open_.jpeg.output_components));
        for (int y = 0; y < static_cast<int>(open_.jpeg.output_height); ++y) {
            auto* const bytes = row.data();
            faults_.run([&] {
                JSAMPROW rows[] = {bytes};
                jpeg_read_scanlines(&open_.jpeg, rows, 1);
            });
            take(y, bytes);
        }
        faults_.run([&] { jpeg_finish_decompress(&open_.jpeg); });
    }

    // How much of the file is behind the picture.
    [[nodiscard]] std::size_t rest() const noexcept {
        return open_.jpeg.src != nullptr ? open_.jpeg.src->bytes_in_buffer : 0;
    }

  private:
    // Closed in any case, also if the file is refused at once.
    struct Open {
        Open() noexcept = default;
        Open(const Open&) = delete;
        Open(Open&&) = delete;
        Open& operator=(const Open&) = delete;
        Open& operator=(Open&&) = delete;
        ~Open() { jpeg_destroy_decompress(&jpeg); }
        jpeg_decompress_struct jpeg{};
    };

    JpegFaults faults_;
    Open open_;
};

// A picture that is stored in one of the eight orientations, to be turned upright.
class Upright {
  public:
    Upright(Size stored, int orientation) noexcept : stored_{stored}, orientation_{orientation} {}

    [[nodiscard]] Size size() const noexcept {
        return orientation_ < 5 ? stored_ : Size{.width = stored_.height, .height = stored_.width};
    }

    // Where a stored pixel comes to lie.
    [[nodiscard]] Point operator()(Point at) const noexcept {
        const auto right = stored_.width - 1 - at.x;
        const auto bottom = stored_.height - 1 - at.y;
        const std::array<Point, 8> places = {{{at.x, at.y},
                                              {right, at.y},
                                              {right, bottom},
                                              {at.x, bottom},
                                              {at.y, at.x},
                                              {bottom, at.x},
                                              {bottom, right},
                                              {at.y, right}}};
        return places[static_cast<std::size_t>(orientation_ - 1)];
    }

  private:
    Size stored_;
    int orientation_;
};

template <PixelFormat Format, class Set>
AnyBitmap read_as(JpegReader& reader, const Upright& upright, int stored_width, int components, const Set& set) {
    Bitmap<Format> bitmap{upright.size()};
    auto* const first = bytes_of(bitmap);
    const auto row_bytes = std::ptrdiff_t{bitmap.size().width} * bytes_per_pixel<Format>;
    reader.read_rows([&](int y, const std::uint8_t* row) {
        for (int x = 0; x < stored_width; ++x, row += components) {
            const auto to = upright({.x = x, .y = y});
            set(row, first + to.y * row_bytes + std::ptrdiff_t{to.x} * bytes_per_pixel<Format>);
        }
    });
    return bitmap;
}

std::optional<Density> density_of(const jpeg_decompress_struct& jpeg) {
    if (jpeg.saw_JFIF_marker == 0 || jpeg.X_density == 0 || jpeg.Y_density == 0) return std::nullopt;
    auto density = Density{.across = double{1} * jpeg.X_density, .down = double{1} * jpeg.Y_density};
    if (jpeg.density_unit == 0) {
        // One to one is what writers say that know nothing.
        if (jpeg.X_density == jpeg.Y_density) return std::nullopt;
        density.unit = Density::Unit::none;
    } else if (jpeg.density_unit == 1) {
        density.unit = Density::Unit::inch;
    } else {
        density.across *= 100;
        density.down *= 100;
    }
    return density;
}

}  // namespace

LoadedPicture read_jpeg(FileBytes file, const LoadLimits& limits) {
    JpegReader reader{file};
    const auto& header = reader.header();
    check_size("jpeg", header.image_width, header.image_height, limits);
    const auto stored =
        Size{.width = static_cast<int>(header.image_width), .height = static_cast<int>(header.image_height)};
    const auto components = header.num_components;
    if (components != 1 && components != 3 && components != 4) {
        throw Error{"jpeg: it has " + std::to_string(components) + " components; allowed are 1, 3 and 4"};
    }
    const auto orientation = reader.orientation();
    const Upright upright{stored, orientation};
    auto info = PictureInfo{.format = FileFormat::jpeg,
                            .size = upright.size(),
                            .channels = components,
                            .bits = header.data_precision,
                            .density = density_of(header)};
    if (orientation != 1) {
        info.oddities.push_back("it is stored turned or mirrored (Exif orientation " + std::to_string(orientation) +
                                "), and read upright");
    }
    // Adobe's programs store CMYK as what is left of white.
    const auto is_inverted = header.saw_Adobe_marker != 0;
    auto bitmap = [&] {
        if (components == 1) {
            return read_as<Gray8>(reader, upright, stored.width, 1,
                                  [](const std::uint8_t* from, std::uint8_t* to) { *to = *from; });
        }
        if (components == 3) {
            return read_as<Rgb8>(reader, upright, stored.width, 3,
                                 [](const std::uint8_t* from, std::uint8_t* to) { std::memcpy(to, from, 3); });
        }
        info.oddities.emplace_back("its colours are CMYK");
        return read_as<Rgb8>(reader, upright, stored.width, 4, [=](const std::uint8_t* from, std::uint8_t* to) {
            const auto light = [&](int i) -> unsigned { return is_inverted ? from[i] : 255U - from[i]; };
            for (int i = 0; i < 3; ++i) to[i] = static_cast<std::uint8_t>((2 * light(i) * light(3) + 255) / 510);
        });
    }();
    for (const auto& warning : reader.warnings()) info.oddities.push_back(warning);
    note_rest(info, reader.rest());
    return {.bitmap = std::move(bitmap), .info = std::move(info)};
}

}  // namespace coldbrick::detail

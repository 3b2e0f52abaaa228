// JPEG, by libjpeg-turbo.
#include "files/exif.hpp"
#include "files/jpeg_calls.hpp"
#include "files/samples.hpp"

#include <array>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

// Leaves reading when a file has more scans than are allowed, or their pixels are too many for its bytes, or the budget
// is spent: libjpeg asks it for each row of blocks of each scan.
class ScanCounter {
  public:
    ScanCounter(std::uint64_t file_bytes, const LoadLimits& limits) noexcept
        : file_bytes_{file_bytes}, limits_{limits} {
        monitor.progress_monitor = [](j_common_ptr jpeg) {
            auto& counter = *reinterpret_cast<ScanCounter*>(jpeg->progress);
            auto& faults = JpegFaults::of(jpeg);
            counter.look(*reinterpret_cast<j_decompress_ptr>(jpeg), faults);
            if (faults.fault[0] != '\0') faults.leave_reading();
        };
    }

    jpeg_progress_mgr monitor{};  // the first member, so that the counter is found from it

  private:
    void look(const jpeg_decompress_struct& jpeg, JpegFaults& faults) noexcept {
        // Those that it has come to, of all scans.
        const auto rows = std::min<std::uint64_t>(
            std::uint64_t{jpeg.input_iMCU_row} * static_cast<unsigned>(jpeg.max_v_samp_factor) * DCTSIZE,
            jpeg.image_height);
        const auto scans = static_cast<std::uint64_t>(std::max(0, jpeg.input_scan_number - 1));
        const auto pixels = (scans * jpeg.image_height + rows) * jpeg.image_width;
        constexpr auto pixels_of_step = 4U;
        if (pixels > pixels_) faults.spend((pixels - pixels_) / pixels_of_step + 1);
        pixels_ = std::max(pixels_, pixels);
        if (jpeg.input_scan_number > limits_.scans) {
            std::snprintf(faults.fault, sizeof faults.fault,
                          "it has more scans than the %d that are allowed (limit scans)", limits_.scans);
        }
        // By arithmetic coding, blocks of no change take no bytes.
        constexpr auto harmless = std::uint64_t{1} << 21U;
        if (jpeg.arith_code == FALSE || pixels_ <= harmless || fits_bytes(pixels_, file_bytes_, limits_)) return;
        std::snprintf(faults.fault, sizeof faults.fault,
                      "its scans have more than the %llu pixels to a byte that are allowed (limit pixels_per_byte)",
                      static_cast<unsigned long long>(limits_.pixels_per_byte));
    }

    std::uint64_t file_bytes_;
    const LoadLimits& limits_;
    std::uint64_t pixels_ = 0;  // of all scans so far
};

class JpegReader {
  public:
    JpegReader(FileBytes file, const LoadLimits& limits) : scans_{file.size(), limits} {
        open_.jpeg.err = faults_.set_up();
        faults_.run([&] {
            jpeg_create_decompress(&open_.jpeg);
            open_.jpeg.progress = &scans_.monitor;
            jpeg_mem_src(&open_.jpeg, file.data(), static_cast<unsigned long>(file.size()));
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

    // What the decoder keeps of the whole picture besides its pixels: the coefficients, if they come in several scans.
    [[nodiscard]] std::uint64_t coefficient_bytes() noexcept {
        if (jpeg_has_multiple_scans(&open_.jpeg) == FALSE) return 0;
        std::uint64_t blocks = 0;
        for (int i = 0; i < open_.jpeg.num_components; ++i) {
            const auto& component = open_.jpeg.comp_info[i];
            blocks += std::uint64_t{component.width_in_blocks} * component.height_in_blocks;
        }
        return blocks * sizeof(JBLOCK);
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
    ScanCounter scans_;
    Open open_;
};

// The orientation of Exif, in one of the segments before the first scan (ITU-T T.81, annex B.1.1.4).
int orientation_in(FileBytes file) noexcept {
    constexpr unsigned first_app = 0xe1;
    constexpr unsigned start_of_scan = 0xda;
    for (std::size_t at = 2; at + 4 <= file.size() && file[at] == 0xff;) {
        const auto marker = file[at + 1];
        if (marker == 0xff) {
            ++at;  // a byte that fills
            continue;
        }
        const auto length = static_cast<std::size_t>(file[at + 2] << 8U | file[at + 3]);
        if (marker == start_of_scan || length < 2 || length > file.size() - at - 2) return 1;
        if (marker == first_app) {
            const auto found = exif_orientation(file.subspan(at + 4, length - 2));
            if (found != 1) return found;
        }
        at += 2 + length;
    }
    return 1;
}

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

    // A stored row.
    void take_row(const std::uint8_t* pixels, int y, PixelSink& sink) const {
        const auto first = (*this)({.x = 0, .y = y});
        const auto second = (*this)({.x = 1, .y = y});
        sink.take(pixels, stored_.width, first, {.x = second.x - first.x, .y = second.y - first.y});
    }

  private:
    Size stored_;
    int orientation_;
};

// Adobe's programs store what is left of white.
enum class CmykKind { ink, light };

void cmyk_to_rgb(const std::uint8_t* from, CmykKind kind, std::vector<std::uint8_t>& row) noexcept {
    for (std::size_t to = 0; to < row.size(); to += 3, from += 4) {
        const auto light = [&](int i) -> unsigned { return kind == CmykKind::light ? from[i] : 255U - from[i]; };
        for (int i = 0; i < 3; ++i) {
            row[to + static_cast<std::size_t>(i)] = static_cast<std::uint8_t>((2 * light(i) * light(3) + 255) / 510);
        }
    }
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

PictureInfo read_jpeg(FileBytes file, const LoadLimits& limits, PixelSink& sink) {
    JpegReader reader{file, limits};
    const auto& header = reader.header();
    check_size("jpeg", header.image_width, header.image_height, limits);
    const auto stored =
        Size{.width = static_cast<int>(header.image_width), .height = static_cast<int>(header.image_height)};
    // By Huffman's code, each block of 64 pixels takes a bit at least, and its coefficients come once.
    constexpr auto most_to_a_byte = std::uint64_t{64} * 8;
    if (header.arith_code == FALSE && pixel_count(stored) / most_to_a_byte > file.size()) {
        throw Error{"jpeg: the file is too short for its pixels"};
    }
    check_shrinkage("jpeg", stored, file.size(), limits);
    const auto components = header.num_components;
    if (components != 1 && components != 3 && components != 4) {
        throw Error{"jpeg: it has " + std::to_string(components) + " components; allowed are 1, 3 and 4"};
    }
    const auto orientation = orientation_in(file);
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
    if (components == 4) info.oddities.emplace_back("its colours are CMYK");
    const auto& kernel = components == 1 ? gray8_kernel : rgb8_kernel;
    sink.begin("jpeg", {.kernel = &kernel, .size = upright.size()}, limits, reader.coefficient_bytes());
    const auto cmyk = header.saw_Adobe_marker != 0 ? CmykKind::light : CmykKind::ink;
    std::vector<std::uint8_t> rgb(components == 4 ? std::size_t{3} * header.image_width : 0);
    reader.read_rows([&](int y, const std::uint8_t* row) {
        if (components == 4) cmyk_to_rgb(row, cmyk, rgb);
        upright.take_row(components == 4 ? rgb.data() : row, y, sink);
    });
    for (const auto& warning : reader.warnings()) info.oddities.push_back(warning);
    note_rest(info, reader.rest());
    return info;
}

}  // namespace coldbrick::inline v0::detail

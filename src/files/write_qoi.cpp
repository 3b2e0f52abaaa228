// QOI, by "The Quite OK Image Format Specification", version 1.0.
#include "files/band_encoder.hpp"
#include "files/qoi.hpp"
#include "files/writers.hpp"

#include <memory>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

class QoiWriter {
  public:
    explicit QoiWriter(Bytes& file) noexcept : file_{file} {}

    void add(Color color) {
        if (color == last_) {
            constexpr auto longest_run = 62;
            if (++run_ == longest_run) end_run();
            return;
        }
        end_run();
        auto& seen = seen_[qoi_place(color)];
        if (seen == color) {
            file_.push_back(static_cast<std::uint8_t>(qoi_place(color)));
        } else {
            seen = color;
            color.alpha == last_.alpha ? add_difference(color) : add_channels(color, true);
        }
        last_ = color;
    }

    void finish() {
        end_run();
        put_all(file_, qoi_end);
    }

  private:
    void end_run() {
        if (run_ > 0) file_.push_back(static_cast<std::uint8_t>(0xc0 | (run_ - 1)));
        run_ = 0;
    }

    // Channels go round: a difference is one from -128 to 127.
    static int difference(std::uint8_t to, std::uint8_t from) noexcept {
        const auto rest = (to - from) & 255;
        return rest < 128 ? rest : rest - 256;
    }
    static bool is_within(int value, int reach) noexcept { return value >= -reach && value < reach; }

    void add_difference(Color color) {
        const auto red = difference(color.red, last_.red);
        const auto green = difference(color.green, last_.green);
        const auto blue = difference(color.blue, last_.blue);
        if (is_within(red, 2) && is_within(green, 2) && is_within(blue, 2)) {
            file_.push_back(static_cast<std::uint8_t>(0x40 | (red + 2) << 4 | (green + 2) << 2 | (blue + 2)));
        } else if (is_within(green, 32) && is_within(red - green, 8) && is_within(blue - green, 8)) {
            file_.push_back(static_cast<std::uint8_t>(0x80 | (green + 32)));
            file_.push_back(static_cast<std::uint8_t>((red - green + 8) << 4 | (blue - green + 8)));
        } else {
            add_channels(color, false);
        }
    }

    void add_channels(Color color, bool has_alpha) {
        put_bytes(file_, {has_alpha ? qoi_rgba : qoi_rgb, color.red, color.green, color.blue});
        if (has_alpha) file_.push_back(color.alpha);
    }

    Bytes& file_;
    std::array<Color, 64> seen_ = qoi_unseen();
    Color last_{};
    int run_ = 0;
};

// Every pixel is encoded by those before, so that rows are only packed on several threads.
class QoiBands final : public BandEncoder {
  public:
    QoiBands(int channels, Size size) noexcept : channels_{channels}, size_{size} {}

    [[nodiscard]] Bytes begin() override {
        Bytes file;
        put_text(file, "qoif");
        put_big(file, static_cast<std::uint32_t>(size_.width), 4);
        put_big(file, static_cast<std::uint32_t>(size_.height), 4);
        put_big(file, channels_ == 4 ? 4 : 3, 1);
        put_big(file, 0, 1);
        return file;
    }

    [[nodiscard]] Prepared prepare(const Band& band) const override {
        const auto rows = pack_as_is(band.rows());
        Prepared prepared;
        for (int y = 0; y < rows.size.height; ++y) put_all(prepared.bytes, std::span{rows.row(y), rows.row_bytes()});
        return prepared;
    }

    [[nodiscard]] Bytes add(Prepared&& band) override {
        const auto channels = static_cast<std::size_t>(channels_);
        for (std::size_t i = 0; i < band.bytes.size(); i += channels) {
            const auto* const bytes = band.bytes.data() + i;
            if (channels == 1) {
                writer_.add(gray(bytes[0]));
            } else {
                const auto alpha = channels == 4 ? bytes[3] : std::uint8_t{255};
                writer_.add({.red = bytes[0], .green = bytes[1], .blue = bytes[2], .alpha = alpha});
            }
        }
        return std::exchange(file_, {});
    }

    [[nodiscard]] Bytes end() override {
        writer_.finish();
        return std::exchange(file_, {});
    }

  private:
    int channels_;
    Size size_;
    Bytes file_;
    QoiWriter writer_{file_};
};

}  // namespace

std::unique_ptr<BandEncoder> qoi_bands(const Surface& like, Size size, const SaveOptions&) {
    const auto kind = of_8_bits(pack_as_is(OnePixel{like}.surface()), "qoi");
    return std::make_unique<QoiBands>(kind.channels, size);
}

Bytes write_qoi(const Surface& picture, const SaveOptions& options) {
    return encode_in_bands(picture, qoi_bands, options);
}

}  // namespace coldbrick::inline v0::detail

#include "files/codecs.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

namespace {

// For a reader that looks at the whole file.
template <PictureInfo (*read)(FileBytes file, const LoadLimits& limits, PixelSink& sink)>
PictureInfo whole(const ByteSource& file, const LoadLimits& limits, PixelSink& sink) {
    return read(file.all(), limits, sink);
}

using namespace std::string_view_literals;

constexpr auto all = std::to_array<Codec>({
    {FileFormat::png, "png", {".png"}, {"\x89PNG\r\n\x1a\n"sv}, read_png, write_png, png_bands},
    {FileFormat::jpeg, "jpeg", {".jpg", ".jpeg"}, {"\xff\xd8\xff"sv}, whole<read_jpeg>, write_jpeg},
    {FileFormat::pbm, "pbm", {".pbm"}, {"P1"sv, "P4"sv}, read_pnm, write_pbm, pbm_bands},
    {FileFormat::pgm, "pgm", {".pgm"}, {"P2"sv, "P5"sv}, read_pnm, write_pgm, pgm_bands},
    {FileFormat::ppm, "ppm", {".ppm"}, {"P3"sv, "P6"sv}, read_pnm, write_ppm, ppm_bands},
    {FileFormat::pnm, "pnm", {".pnm"}, {}, nullptr, write_pnm, pnm_bands},
    {FileFormat::pam, "pam", {".pam"}, {"P7"sv}, read_pam, write_pam, pam_bands},
    {FileFormat::bmp, "bmp", {".bmp"}, {"BM"sv}, whole<read_bmp>, write_bmp, bmp_bands},
    {FileFormat::qoi, "qoi", {".qoi"}, {"qoif"sv}, whole<read_qoi>, write_qoi, qoi_bands},
    {FileFormat::gif, "gif", {".gif"}, {"GIF87a"sv, "GIF89a"sv}, whole<read_gif>, write_gif},
    {FileFormat::webp, "webp", {".webp"}, {"RIFF"sv}, whole<read_webp>, write_webp},
});

// A shorter file than this is none, whatever it begins with.
constexpr std::size_t shortest = 3;

bool begins_with(FileBytes file, std::string_view first) noexcept {
    return !first.empty() && file.size() >= std::max(shortest, first.size()) &&
           std::equal(first.begin(), first.end(), file.begin(),
                      [](char c, auto byte) { return static_cast<std::uint8_t>(c) == byte; });
}

}  // namespace

std::span<const Codec> codecs() noexcept { return all; }

const Codec* codec_of(FileFormat format) noexcept {
    const auto* const found =
        std::find_if(all.begin(), all.end(), [=](const Codec& codec) { return codec.format == format; });
    return found != all.end() ? found : nullptr;
}

const Codec* codec_of(FileBytes file) noexcept {
    const auto* const found = std::find_if(all.begin(), all.end(), [=](const Codec& codec) {
        return std::any_of(codec.first_bytes.begin(), codec.first_bytes.end(),
                           [=](std::string_view first) { return begins_with(file, first); });
    });
    return found != all.end() ? found : nullptr;
}

}  // namespace coldbrick::inline v0::detail

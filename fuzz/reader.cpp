// A fuzz target for one reader of picture files: whatever the bytes, they are read or refused, and do no harm.
#include "checksums.hpp"
#include "files/readers.hpp"
#include "repeats.hpp"

#include "coldbrick/error.hpp"

namespace {

using namespace coldbrick;

constexpr auto reader = std::string_view{COLDBRICK_READER_NAME};

// Some readers look at the whole file, others ask for its bytes.
template <class File>
PictureInfo read_by(PictureInfo (*read)(File file, const LoadLimits& limits, detail::PixelSink& sink),
                    detail::FileBytes file, const LoadLimits& limits, detail::PixelSink& sink) {
    if constexpr (std::is_same_v<File, detail::FileBytes>) {
        return read(file, limits, sink);
    } else {
        return read(detail::ByteSource{file}, limits, sink);
    }
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    // What the reader's caller sees to.
    auto copy = std::vector<std::uint8_t>{bytes, bytes + count};
    if (reader == "png") copy = with_right_checksums(std::move(copy));
    const auto file = detail::FileBytes{copy};
    const auto format = file_format_of(file);
    const auto kind = format ? name_of(*format) : std::string_view{};
    const auto is_ours = kind == reader || (reader == "pnm" && (kind == "pbm" || kind == "pgm" || kind == "ppm"));
    if (!is_ours) return -1;
    try {
        const LoadLimits limits{.pixels = 1 << 16, .side = 1 << 14, .memory = 1 << 20, .text_bytes = 1 << 16};
        (void)detail::bitmap_from<Rgba8>([&](const detail::LoadTarget& target) {
            detail::PictureSink sink{target};
            const auto info = read_by(detail::COLDBRICK_READER, file, limits, sink);
            if (info.size.width * info.size.height > 1 << 16) __builtin_trap();
            return info;
        });
    } catch (const Error&) {
        return 0;
    }
    return 0;
}

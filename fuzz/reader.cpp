// A fuzz target for one reader of picture files: whatever the bytes, they are read or refused, and do no harm.
#include "files/readers.hpp"
#include "repeats.hpp"

#include "coldbrick/error.hpp"

#include <zlib.h>

namespace {

constexpr auto reader = std::string_view{COLDBRICK_READER_NAME};

// With the checksums of a PNG file's chunks as they must be: otherwise hardly anything would get past them.
std::vector<std::uint8_t> with_right_checksums(std::vector<std::uint8_t> file) {
    for (std::size_t at = 8; at + 12 <= file.size();) {
        std::size_t length = 0;
        for (std::size_t i = 0; i < 4; ++i) length = length << 8U | file[at + i];
        if (length > file.size() - at - 12) break;
        const auto sum = crc32(0, file.data() + at + 4, static_cast<uInt>(length + 4));
        at += 8 + length;
        for (std::size_t i = 0; i < 4; ++i) file[at + i] = static_cast<std::uint8_t>(sum >> (24 - 8 * i));
        at += 4;
    }
    return file;
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
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
            const auto info = detail::COLDBRICK_READER(file, limits, sink);
            if (info.size.width * info.size.height > 1 << 16) __builtin_trap();
            return info;
        });
    } catch (const Error&) {
        return 0;
    }
    return 0;
}

// A fuzz target for moving pictures: whatever the bytes, their frames are read or refused, within limits.
#include "checksums.hpp"
#include "repeats.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/frames.hpp>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
    auto file = std::vector<std::uint8_t>{bytes, bytes + count};
    const auto format = file_format_of(std::span<const std::uint8_t>{file});
    if (format != FileFormat::png && format != FileFormat::gif && format != FileFormat::webp) return -1;
    if (format == FileFormat::png) file = with_right_checksums(std::move(file));
    constexpr std::uint64_t most = 1 << 20;
    try {
        const auto film =
            load_frames(file, {.pixels = 1 << 14, .side = 1 << 12, .memory = most, .text_bytes = 1 << 16});
        auto kept = std::uint64_t{0};
        for (const auto& frame : film.frames) {
            kept += frame.picture.bytes().size();
            if (frame.picture.size() != film.size || !(frame.seconds >= 0)) __builtin_trap();
        }
        if (film.frames.empty() || kept > most) __builtin_trap();
    } catch (const Error&) {
        return 0;
    }
    return 0;
}

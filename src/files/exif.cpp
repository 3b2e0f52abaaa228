#include "files/exif.hpp"

#include <algorithm>
#include <string_view>

namespace coldbrick::inline v0::detail {

namespace {

// Numbers in a TIFF structure, of either byte order; 0 beyond its end.
struct Tiff {
    FileBytes bytes;
    bool is_big;

    [[nodiscard]] std::uint32_t number(std::size_t at, std::size_t count) const noexcept {
        if (at > bytes.size() || count > bytes.size() - at) return 0;
        std::uint32_t value = 0;
        for (std::size_t i = 0; i < count; ++i) value = value << 8U | bytes[at + (is_big ? i : count - 1 - i)];
        return value;
    }
};

}  // namespace

int exif_orientation(FileBytes segment) noexcept {
    constexpr auto head = std::string_view{"Exif\0\0", 6};
    if (segment.size() < head.size() + 8 || !std::equal(head.begin(), head.end(), segment.begin())) return 1;
    const auto tiff = segment.subspan(head.size());
    const auto structure = Tiff{.bytes = tiff, .is_big = tiff[0] == 'M'};
    const std::size_t directory = structure.number(4, 4);
    const auto entries = structure.number(directory, 2);
    constexpr auto orientation_tag = 0x0112U;
    for (std::size_t i = 0; i < entries; ++i) {
        const auto entry = directory + 2 + 12 * i;
        if (structure.number(entry, 2) != orientation_tag) continue;
        const auto value = structure.number(entry + 8, 2);
        return value >= 1 && value <= 8 ? static_cast<int>(value) : 1;
    }
    return 1;
}

}  // namespace coldbrick::inline v0::detail

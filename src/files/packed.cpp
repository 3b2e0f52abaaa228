#include "files/packed.hpp"

#include "formats/kernels.hpp"

#include "coldbrick/convert.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

// Pixels that lie in memory as the file has them are not copied.
template <PixelFormat Format>
Packed pack(const Surface& picture) {
    const auto& [at, size] = picture.window;
    auto packed = Packed{.size = size, .channels = bytes_per_pixel<Format>, .bits = 8, .bytes = {}};
    if (picture.kernel == &kernel_of<Format>()) {
        packed.lent = pixel_address(picture, at.x, at.y);
        packed.stride = picture.stride;
        return packed;
    }
    packed.bytes.resize(packed.row_bytes() * static_cast<std::size_t>(size.height));
    const Pixels<Format> rows{Memory{.top_left = packed.bytes.data(), .size = size}};
    convert(picture, SurfaceAccess::of(rows));
    return packed;
}

bool is_deep(const Surface& picture) noexcept { return picture.kernel->load_deep != nullptr; }

// Calls visit(color, x, y) for each pixel in 16 bits, until one says false; gives whether none did.
template <class Visit>
bool visit_all(const Surface& picture, const Visit& visit) {
    const auto [at, size] = picture.window;
    for (int y = at.y; y < at.y + size.height; ++y) {
        for (int x = at.x; x < at.x + size.width; ++x) {
            if (!visit(decode_deep(picture, {.x = x, .y = y}), x, y)) return false;
        }
    }
    return true;
}

// In 16 bits: as many channels as are asked for.
Packed pack_deep(const Surface& picture, int channels) {
    Packed packed{.size = picture.window.size, .channels = channels, .bits = 16, .bytes = {}};
    packed.bytes.reserve(packed.row_bytes() * static_cast<std::size_t>(packed.size.height));
    visit_all(picture, [&](const Color16& color, int, int) {
        const auto values = channels == 2 ? std::array{color.red, color.alpha, color.blue, color.alpha}
                                          : std::array{color.red, color.green, color.blue, color.alpha};
        for (int channel = 0; channel < channels; ++channel) {
            const auto value = values[static_cast<std::size_t>(channel)];
            packed.bytes.push_back(static_cast<std::uint8_t>(value >> 8U));
            packed.bytes.push_back(static_cast<std::uint8_t>(value));
        }
        return true;
    });
    return packed;
}

bool is_gray_color(const Color16& c) noexcept { return c.red == c.green && c.green == c.blue && c.alpha == 65535; }

// Throws the Error unless every pixel fits the file.
template <class Fits>
void check_pixels(const Surface& picture, const Fits& fits, std::string_view format, std::string_view why) {
    visit_all(picture, [&](const Color16& color, int x, int y) {
        if (fits(color)) return true;
        throw Error{std::string{format} + ": " + std::string{why} + ", as pixel " + std::to_string(x) + "," +
                    std::to_string(y)};
    });
}

// Whether it may have translucent pixels.
bool has_alpha(const Surface& picture) {
    if (!picture.kernel->is_indexed) return picture.kernel->has_alpha;
    const auto colors = palette_of(picture).colors();
    return std::any_of(colors.begin(), colors.end(), [](Color color) { return color.alpha != 255; });
}

}  // namespace

bool is_gray(const Surface& picture) noexcept { return picture.kernel->is_gray; }

Packed pack_gray(const Surface& picture, std::string_view format) {
    if (!is_gray(picture)) {
        check_pixels(picture, is_gray_color, format,
                     "the file holds opaque grays only, and the picture has other colours (make it gray first, or "
                     "write png, ppm or pam)");
    }
    return is_deep(picture) ? pack_deep(picture, 1) : pack<Gray8>(picture);
}

Packed pack_rgb(const Surface& picture, std::string_view format) {
    if (has_alpha(picture)) {
        check_pixels(
            picture, [](const Color16& c) { return c.alpha == 65535; }, format,
            "the file holds opaque colours only, and the picture has translucent pixels (write png or pam)");
    }
    return is_deep(picture) ? pack_deep(picture, 3) : pack<Rgb8>(picture);
}

Packed pack_as_is(const Surface& picture) {
    if (is_deep(picture)) return pack_deep(picture, is_gray(picture) ? 1 : 4);
    if (is_gray(picture)) return pack<Gray8>(picture);
    return has_alpha(picture) ? pack<Rgba8>(picture) : pack<Rgb8>(picture);
}

Packed of_8_bits(Packed packed, std::string_view format) {
    if (packed.bits == 8) return packed;
    throw Error{
        std::string{format} +
        ": the file holds 8 bits a channel, and the picture has 16 (make it 8 bits first, or write png, ppm or pam)"};
}

Packed pack_rows_of_bits(const Surface& picture) {
    const auto& [at, size] = picture.window;
    Packed packed{.size = size, .channels = 1, .bits = 1, .bytes = {}};
    packed.bytes.resize(packed.row_bytes() * static_cast<std::size_t>(size.height));
    const Pixels<Bit1> rows{Memory{.top_left = packed.bytes.data(), .size = size}};
    convert(picture, SurfaceAccess::of(rows));
    return packed;
}

Packed pack_with_palette(const Surface& picture) {
    if (!picture.kernel->is_indexed) return pack_as_is(picture);
    Packed packed{.size = picture.window.size, .channels = 1, .bits = 8, .bytes = {}, .palette = palette_of(picture)};
    const auto [at, size] = picture.window;
    for (int y = at.y; y < at.y + size.height; ++y) {
        const auto* const row = pixel_address(picture, at.x, y);
        packed.bytes.insert(packed.bytes.end(), row, row + size.width);
    }
    return packed;
}

namespace {

// What the pixels of a picture need.
struct Needs {
    bool deep = false;
    bool color = false;
    bool alpha = false;
    int gray_bits = 1;  // of opaque grays
};

// One of several hundred colours, found by its bits.
class ColorCounter {
  public:
    void add(Color color) {
        if (is_over_) return;
        const auto key = bits_of(color);
        if (!colors_.empty() && key == last_) return;
        last_ = key;
        auto place = key * 2654435761U >> 22U;
        while (numbers_[place] != 0 && bits_of(colors_[numbers_[place] - 1U]) != key) place = (place + 1) % slots;
        if (numbers_[place] != 0) return;
        is_over_ = colors_.size() == 256;
        if (is_over_) return;
        colors_.push_back(color);
        numbers_[place] = static_cast<std::uint16_t>(colors_.size());
    }
    [[nodiscard]] std::size_t number(Color color) const noexcept {
        const auto key = bits_of(color);
        auto place = key * 2654435761U >> 22U;
        while (bits_of(colors_[numbers_[place] - 1U]) != key) place = (place + 1) % slots;
        return numbers_[place] - 1U;
    }
    [[nodiscard]] bool is_over() const noexcept { return is_over_; }
    [[nodiscard]] const std::vector<Color>& colors() const noexcept { return colors_; }

  private:
    static constexpr std::size_t slots = 1024;
    static std::uint32_t bits_of(Color c) noexcept {
        return std::uint32_t{c.red} << 24U | std::uint32_t{c.green} << 16U | std::uint32_t{c.blue} << 8U | c.alpha;
    }
    std::array<std::uint16_t, slots> numbers_{};  // one more than the colour's; 0: none
    std::vector<Color> colors_;
    std::uint32_t last_ = 0;
    bool is_over_ = false;
};

// The bits of the coarsest scale that has this gray.
int bits_for_gray(unsigned value) noexcept {
    if (value % 255 == 0) return 1;
    if (value % 85 == 0) return 2;
    return value % 17 == 0 ? 4 : 8;
}

Needs needs_of(const Surface& picture, ColorCounter& counter) {
    Needs needs;
    visit_all(picture, [&](const Color16& color, int, int) {
        const auto narrow = narrowed(color);
        needs.deep = needs.deep || widened(narrow) != color;
        needs.color = needs.color || color.red != color.green || color.green != color.blue;
        needs.alpha = needs.alpha || color.alpha != 65535;
        needs.gray_bits = std::max(needs.gray_bits, bits_for_gray(narrow.red));
        counter.add(narrow);
        return true;
    });
    return needs;
}

int bits_for_count(std::size_t colors) noexcept { return colors <= 2 ? 1 : colors <= 4 ? 2 : colors <= 16 ? 4 : 8; }

// Values of a few bits each, the first pixel of a byte in its highest bits.
template <class Value>
Packed pack_bits(const Surface& picture, int bits, const Value& value) {
    Packed packed{.size = picture.window.size, .channels = 1, .bits = bits, .bytes = {}};
    packed.bytes.resize(packed.row_bytes() * static_cast<std::size_t>(packed.size.height));
    visit_all(picture, [&](const Color16& color, int x, int y) {
        const auto column = static_cast<unsigned>(x - picture.window.at.x);
        const auto row = static_cast<std::size_t>(y - picture.window.at.y) * packed.row_bytes();
        const auto per_byte = 8U / static_cast<unsigned>(bits);
        const auto shift = 8U - static_cast<unsigned>(bits) * (column % per_byte + 1U);
        auto& byte = packed.bytes[row + column / per_byte];
        byte = static_cast<std::uint8_t>(byte | value(narrowed(color)) << shift);
        return true;
    });
    return packed;
}

Packed gray_with_alpha(const Surface& picture) {
    Packed packed{.size = picture.window.size, .channels = 2, .bits = 8, .bytes = {}};
    visit_all(picture, [&](const Color16& color, int, int) {
        const auto narrow = narrowed(color);
        packed.bytes.push_back(narrow.red);
        packed.bytes.push_back(narrow.alpha);
        return true;
    });
    return packed;
}

}  // namespace

Packed pack_fewest_bits(const Surface& picture) {
    ColorCounter counter;
    const auto needs = needs_of(picture, counter);
    if (needs.deep) return pack_deep(picture, (needs.color ? 3 : 1) + (needs.alpha ? 1 : 0));
    const auto has_few_colors = !counter.is_over();
    const auto palette_bits = bits_for_count(counter.colors().size());
    const auto is_opaque_gray = !needs.color && !needs.alpha;
    if (is_opaque_gray && (!has_few_colors || needs.gray_bits <= palette_bits)) {
        const auto step = 255U / ((1U << static_cast<unsigned>(needs.gray_bits)) - 1U);
        return pack_bits(picture, needs.gray_bits, [=](Color color) { return color.red / step; });
    }
    if (has_few_colors) {
        // Translucent ones first: only their alpha is written.
        auto colors = counter.colors();
        std::stable_partition(colors.begin(), colors.end(), [](Color color) { return color.alpha != 255; });
        ColorCounter ordered;
        for (const auto& color : colors) ordered.add(color);
        auto packed =
            pack_bits(picture, palette_bits, [&](Color color) { return static_cast<unsigned>(ordered.number(color)); });
        packed.palette = Palette{std::move(colors)};
        return packed;
    }
    if (!needs.color) return gray_with_alpha(picture);
    return needs.alpha ? pack<Rgba8>(picture) : pack<Rgb8>(picture);
}

}  // namespace coldbrick::inline v0::detail

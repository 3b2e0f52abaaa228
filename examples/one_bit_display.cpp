// The tide gauge's display has one bit a pixel, eight pixels in a byte: a format that the library knows nothing
// about. Spans are all it needs.
//
//     one_bit_display gauge.png
#include <coldbrick/coldbrick.hpp>

#include <cstdint>
#include <iostream>
#include <vector>

using namespace coldbrick;

// The display's memory, as its controller reads it.
struct Display {
    static constexpr Size size{128, 64};
    std::vector<std::uint8_t> bytes = std::vector<std::uint8_t>(std::size_t{size.width / 8} * size.height);

    static std::size_t byte_of(int x, int y) {
        return static_cast<std::size_t>(y) * (size.width / 8) + static_cast<std::size_t>(x / 8);
    }

    // Turns the pixels of an area over: dark ones bright, bright ones dark. Each comes once, so none turns back.
    template <class Area>
    void invert(const Area& area) {
        for_each_span(area, {.at = {0, 0}, .size = size}, [&](const Span& run) {
            for (int x = run.x; x < run.x + run.length; ++x)
                bytes[byte_of(x, run.y)] ^= static_cast<std::uint8_t>(0x80 >> x % 8);
        });
    }
};

int main(int argc, char** argv) {
    Display display;
    display.invert(stroked(Box{.at = {0, 0}, .size = Display::size}));
    // The tide of the day, water up to its curve.
    display.invert(
        Polygon{{2, 48}, {20, 22}, {36, 14}, {52, 26}, {68, 46}, {84, 50}, {100, 34}, {125, 10}, {125, 61}, {2, 61}});
    // The hours, and a ring around the hour that it is: they show on dark and on bright.
    for (int hour = 0; hour < 12; ++hour)
        display.invert(Box{.at = {8 + 10 * hour, 54}, .size = {1, hour % 6 == 0 ? 6 : 3}});
    display.invert(Circle{.center = {68, 46}, .radius = 6});
    display.invert(Circle{.center = {68, 46}, .radius = 3});

    // To look at it here: a gray bitmap, each bit a square.
    Bitmap<Gray8> shown{Display::size, gray(30)};
    for (int y = 0; y < Display::size.height; ++y) {
        for (int x = 0; x < Display::size.width; ++x) {
            if ((display.bytes[Display::byte_of(x, y)] & 0x80 >> x % 8) != 0) mark(shown, {x, y}, gray(220));
        }
    }
    const auto* const path = argc > 1 ? argv[1] : "gauge.png";
    save(enlarge(shown, 5), path);
    std::cout << path << '\n';
}

// The tide gauge's display has one bit a pixel, eight pixels in a byte: a format that the library knows
// nothing about. Spans are all it needs.
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

    // Turns the pixels of an area over: dark ones bright, bright ones dark. Each comes once, so none turns
    // back.
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
    // The tide of the day, and the water below it.
    const auto curve =
        std::vector<Point>{{4, 48}, {20, 22}, {36, 14}, {52, 26}, {68, 46}, {84, 50}, {100, 34}, {123, 10}};
    display.invert(stroked(Polyline{.through = curve}));
    auto water = curve;
    water.insert(water.end(), {{123, 63}, {4, 63}});
    display.invert(filled(Polygon{water}, {.edges = Edges::shared}));
    // Now: a ring that shows on both.
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

// The tide gauge's display has one bit a pixel, and a byte holds eight pixels one below the other: an order that no
// format of the library has. Spans are all it needs.
//
//     one_bit_display gauge.png
#include <coldbrick/coldbrick.hpp>

#include <cstdint>
#include <iostream>
#include <vector>

using namespace coldbrick;

// The display's memory, as its controller reads it: strips of eight rows, the uppermost in the lowest bit.
struct Display {
    static constexpr Size size{128, 64};
    std::vector<std::uint8_t> bytes = std::vector<std::uint8_t>(std::size_t{size.width} * (size.height / 8));

    static std::size_t byte_of(int x, int y) {
        return static_cast<std::size_t>(y / 8) * size.width + static_cast<std::size_t>(x);
    }
    [[nodiscard]] bool is_bright(int x, int y) const { return (bytes[byte_of(x, y)] >> y % 8 & 1) != 0; }

    // Turns the pixels of an area over: dark ones bright, bright ones dark. Each comes once, so none turns back.
    template <class Area>
    void invert(const Area& area) {
        for_each_span(area, {.at = {0, 0}, .size = size}, [&](const Span& run) {
            for (int x = run.x; x < run.x + run.length; ++x)
                bytes[byte_of(x, run.y)] ^= static_cast<std::uint8_t>(1 << run.y % 8);
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

    // To look at it here: the library's own format of one bit, with a frame that is drawn on it as on any other.
    Bitmap<Bit1> shown{Display::size + Size{8, 8}, colors::white};
    for (int y = 0; y < Display::size.height; ++y) {
        for (int x = 0; x < Display::size.width; ++x) {
            if (!display.is_bright(x, y)) mark(shown, {x + 4, y + 4}, colors::black);
        }
    }
    stroke(shown, RoundedBox{.box = shown.box(), .corner_radius = 4}, {.width = 2}, colors::black);
    const auto* const path = argc > 1 ? argv[1] : "gauge.png";
    save(enlarge(shown, 5), path);
    std::cout << path << '\n';
}

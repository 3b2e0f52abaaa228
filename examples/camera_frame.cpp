// Marks up a frame of the quay camera in the camera's own memory: blue, green, red, and rows padded to 64 bytes.
//
//     camera_frame marked.png
#include <coldbrick/coldbrick.hpp>

#include <cstdint>
#include <iostream>
#include <vector>

// Stands for the camera: masonry in memory of its own, as the driver would hand it out.
std::vector<std::uint8_t> grab_frame(int width, int height, int stride) {
    std::vector<std::uint8_t> memory(static_cast<std::size_t>(stride) * static_cast<std::size_t>(height), 0x11);
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x) {
            const auto joint = y % 30 < 2 || (x + (y / 30 % 2) * 35) % 70 < 2;
            const auto grain = (x * 7 + y * 13 + x * y) % 23;
            auto* const pixel = memory.data() + std::ptrdiff_t{y} * stride + std::ptrdiff_t{x} * 3;
            for (int channel = 0; channel < 3; ++channel) {
                pixel[channel] = static_cast<std::uint8_t>((joint ? 62 : 118 + 9 * channel) + grain);
            }
        }
    }
    return memory;
}

int main(int argc, char** argv) {
    using namespace coldbrick;
    constexpr int width = 490;
    constexpr int height = 306;
    constexpr int stride = (width * 3 + 63) / 64 * 64;
    auto memory = grab_frame(width, height, stride);

    // The view owns nothing and copies nothing; drawing goes straight into the frame.
    Pixels<Bgr8> frame{{.top_left = memory.data(), .size = {width, height}, .stride = stride}};

    const auto crack = Polyline{.through = {{196, 40}, {204, 88}, {190, 121}, {212, 160}, {205, 214}}};
    const auto seen = stroke(frame, crack, colors::black);

    // A drawing call returns the box that it touched: here it places the mark around the crack.
    const auto margin =
        Box{.at = {seen.at.x - 9, seen.at.y - 9}, .size = {seen.size.width + 18, seen.size.height + 18}};
    fill(frame, margin, 0xffd00030_rgba);
    stroke(frame, margin, 0xffd000_rgb);

    // Only inside this box: a scale along the wall, whose circles are cut where it ends.
    auto strip = frame.within({.at = {300, 250}, .size = {160, 40}});
    clear(strip, gray(24));
    for (int i = 0; i <= 8; ++i)
        fill(strip, Circle{.center = {300 + 20 * i, 270}, .radius = i % 4 == 0 ? 9 : 4}, colors::gold);

    const auto* const path = argc > 1 ? argv[1] : "marked.png";
    save(frame, path);
    std::cout << path << '\n';
}

// Frames that other libraries and devices own, drawn on where they lie, without a copy: interleaved RGB, BGR and BGRA
// with padding, a bitmap stored from bottom to top, planes of one channel each, and a matrix of bytes.
//     foreign_frames PICTURE
#include <coldbrick/coldbrick.hpp>

#include <array>
#include <iostream>
#include <vector>

#if __has_include(<Eigen/Core>)
#include <Eigen/Core>
#define HAS_EIGEN 1
#endif

using namespace coldbrick;

namespace {

constexpr auto size = Size{.width = 120, .height = 90};

// The same on every frame: a buoy before the quay.
template <class Frame>
void draw(Frame&& frame) {
    fill(frame, Box{.at = {0, 58}, .size = {120, 32}}, 0x2a6f97_rgb);
    fill(frame, Polygon{{46, 70}, {74, 70}, {65, 24}, {55, 24}}, {.edge = Edge::smooth}, 0xc1121f_rgb);
    fill(frame, Circle{.center = {60, 18}, .radius = 7}, {.edge = Edge::smooth}, 0xffd166_rgb);
}

// Rows of bytes with room behind each, as cameras give them.
struct Frame {
    std::ptrdiff_t stride;
    std::vector<std::uint8_t> bytes;
    explicit Frame(int pixel_bytes)
        : stride{(size.width * pixel_bytes + 63) / 64 * 64},
          bytes(static_cast<std::size_t>(stride) * static_cast<std::size_t>(size.height), 0xc8) {}
};

}  // namespace

int main(int argc, char** argv) {
    if (argc != 2) {
        std::cerr << "usage: foreign_frames PICTURE\n";
        return 2;
    }
    Bitmap<Rgb8> page{{.width = 3 * 134 + 14, .height = 2 * 104 + 14}, 0x17324a_rgb};
    auto next = Point{14, 14};
    const auto show = [&](const auto& picture) {
        paste(page, picture, {.at = next, .laying = {.blend = Blend::replace}});
        next = next.x + 134 < page.size().width - 100 ? Point{next.x + 134, next.y} : Point{14, next.y + 104};
    };

    // Channels in any order, rows with padding: the stride says how far it is from row to row.
    Frame rgb{3};
    const Pixels<Rgb8> rgb_view{Memory{.top_left = rgb.bytes.data(), .size = size, .stride = rgb.stride}};
    draw(rgb_view);
    show(rgb_view);
    Frame bgr{3};
    const Pixels<Bgr8> bgr_view{Memory{.top_left = bgr.bytes.data(), .size = size, .stride = bgr.stride}};
    draw(bgr_view);
    show(bgr_view);
    Frame bgra{4};
    const Pixels<Bgra8> bgra_view{Memory{.top_left = bgra.bytes.data(), .size = size, .stride = bgra.stride}};
    clear(bgra_view, gray(200));
    draw(bgra_view);
    show(bgra_view);

    // From bottom to top: the top row comes last in memory, and the stride is negative.
    Frame upward{3};
    auto* const last_row = upward.bytes.data() + (size.height - 1) * upward.stride;
    const Pixels<Bgr8> upward_view{Memory{.top_left = last_row, .size = size, .stride = -upward.stride}};
    draw(upward_view);
    show(upward_view);

    // Planes: each channel is a gray picture of its own. A colour is drawn as its channels, one after the other.
    std::array<Frame, 3> planes{Frame{1}, Frame{1}, Frame{1}};
    Bitmap<Rgb8> merged{size};
    const std::array channels{Channels::red, Channels::green, Channels::blue};
    for (std::size_t i = 0; i < 3; ++i) {
        const Pixels<Gray8> plane{Memory{.top_left = planes[i].bytes.data(), .size = size, .stride = planes[i].stride}};
        fill(plane, Circle{.center = {36 + 24 * static_cast<int>(i), 46}, .radius = 30}, {.edge = Edge::smooth},
             gray(40));
        // And back: a plane pasted into one channel of an interleaved picture.
        paste(channel(merged, channels[i]), plane);
    }
    show(merged);

#ifdef HAS_EIGEN
    // A matrix of bytes is a gray picture; its rows must be those of memory.
    Eigen::Matrix<std::uint8_t, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor> matrix =
        Eigen::Matrix<std::uint8_t, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>::Constant(size.height, size.width,
                                                                                               220);
    const Pixels<Gray8> matrix_view{
        Memory{.top_left = matrix.data(),
               .size = {.width = static_cast<int>(matrix.cols()), .height = static_cast<int>(matrix.rows())},
               .stride = matrix.outerStride()}};
    draw(matrix_view);
    show(matrix_view);
#endif

    save(page, argv[1]);
    std::cout << argv[1] << '\n';
}

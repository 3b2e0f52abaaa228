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
        : stride{(std::ptrdiff_t{size.width} * pixel_bytes + 63) / 64 * 64},
          bytes(static_cast<std::size_t>(stride) * static_cast<std::size_t>(size.height), 0xc8) {}
};

// Shows what was drawn, one beside the other.
class Page {
  public:
    template <class Picture>
    void show(const Picture& picture) {
        paste(page_, picture, {.at = next_, .compositing = {.blend = Blend::replace}});
        next_ = next_.x < 200 ? Point{next_.x + 134, next_.y} : Point{14, next_.y + 104};
    }
    void save_as(const char* path) const { save(page_, path); }

  private:
    Bitmap<Rgb8> page_{{.width = 3 * 134 + 14, .height = 2 * 104 + 14}, 0x17324a_rgb};
    Point next_{14, 14};
};

// Channels in any order, rows with padding: the stride says how far it is from row to row.
template <class Format>
void show_interleaved(Page& page) {
    Frame frame{bytes_per_pixel<Format>};
    const Pixels<Format> view{Memory{.top_left = frame.bytes.data(), .size = size, .stride = frame.stride}};
    clear(view, gray(200));
    draw(view);
    page.show(view);
}

// From bottom to top: the top row comes last in memory, and the stride is negative.
void show_upward(Page& page) {
    Frame frame{3};
    auto* const last_row = frame.bytes.data() + (size.height - 1) * frame.stride;
    const Pixels<Bgr8> view{Memory{.top_left = last_row, .size = size, .stride = -frame.stride}};
    draw(view);
    page.show(view);
}

// Planes: each channel is a gray picture of its own. A colour is drawn as its channels, one after the other.
void show_planes(Page& page) {
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
    page.show(merged);
}

// A matrix of bytes is a gray picture; its rows must be those of memory.
#ifdef HAS_EIGEN
void show_matrix(Page& page) {
    using Matrix = Eigen::Matrix<std::uint8_t, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
    Matrix matrix = Matrix::Constant(size.height, size.width, 220);
    const Pixels<Gray8> view{
        Memory{.top_left = matrix.data(),
               .size = {.width = static_cast<int>(matrix.cols()), .height = static_cast<int>(matrix.rows())},
               .stride = matrix.outerStride()}};
    draw(view);
    page.show(view);
}
#endif

}  // namespace

int main(int argc, char** argv) {
    if (argc != 2) {
        std::cerr << "usage: foreign_frames PICTURE\n";
        return 2;
    }
    Page page;
    show_interleaved<Rgb8>(page);
    show_interleaved<Bgr8>(page);
    show_interleaved<Bgra8>(page);
    show_upward(page);
    show_planes(page);
#ifdef HAS_EIGEN
    show_matrix(page);
#endif
    page.save_as(argv[1]);
    std::cout << argv[1] << '\n';
}

// The core alone: draws, and says by its exit code whether a pixel has the colour that it should have.
#include <coldbrick/draw.hpp>
#include <coldbrick/error.hpp>

using namespace coldbrick;

int main() {
    Bitmap<Rgb8> chart{{40, 30}};
    fill(chart, Circle{.center = {20, 15}, .radius = 9}, Edge::smooth, 0xe8b23a_rgb);
    auto is_refused = false;
    try {
        fill(chart, Circle{.center = {20, 15}, .radius = -1}, 0xe8b23a_rgb);
    } catch (const Error&) {
        is_refused = true;
    }
    return is_refused && chart.color_at({20, 15}) == 0xe8b23a_rgb ? 0 : 1;
}

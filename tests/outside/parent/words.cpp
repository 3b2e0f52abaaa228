// Words without font files: says by its exit code whether they are drawn, and font files refused.
#include <coldbrick/draw.hpp>
#include <coldbrick/error.hpp>
#include <coldbrick/text.hpp>

using namespace coldbrick;

int main() {
    Bitmap<Gray8> board{{160, 40}};
    const Text text{.words = "Tarn Quay, berth 4", .at = {4, 4}, .height = 10, .wrap = 80};
    const auto drawn = fill(board, text, Edge::smooth, gray(255));
    auto refused = 0;
    try {
        (void)load_face("quay.ttf");
    } catch (const Error&) {
        ++refused;
    }
    try {
        (void)lay_out({.words = "Quay", .direction = TextDirection::right_to_left});
    } catch (const Error&) {
        ++refused;
    }
    const auto is_right = !drawn.empty() && lay_out(text).lines.size() == 2 && !can_load_faces() && refused == 2;
    return is_right ? 0 : 1;
}

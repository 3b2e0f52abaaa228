// Boxes to spans.
#include "geometry/limits.hpp"
#include "raster/convex_rows.hpp"

namespace coldbrick::detail {

namespace {

class BoxRows {
  public:
    explicit BoxRows(const Box& box) noexcept : window_{window_of(box)} {}
    [[nodiscard]] int top() const noexcept { return window_.top; }
    [[nodiscard]] int bottom() const noexcept { return window_.bottom; }
    [[nodiscard]] Run run(int) const noexcept { return {.left = window_.left, .right = window_.right}; }

  private:
    Window window_;
};

}  // namespace

Box scan_fill(const Box& shape, const Box& clip, const SpanReceiver& receiver) {
    check_box("box", shape);
    return scan_inside(BoxRows{shape}, clip, receiver);
}

Box scan_stroke(const Box& shape, const Box& clip, const SpanReceiver& receiver) {
    check_box("box", shape);
    return scan_outline(BoxRows{shape}, clip, receiver);
}

}  // namespace coldbrick::detail

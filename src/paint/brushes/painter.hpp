// A brush on a surface: what lays one ink on areas.
#pragma once

#include "paint/brushes/general_painter.hpp"
#include "paint/brushes/opaque_writer.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// One colour source-over, by the format's own functions.
class OverPainter {
  public:
    OverPainter(const Surface& surface, Color color) noexcept : surface_{surface}, color_{color} {}

    [[nodiscard]] SpanSink sink() noexcept;

  private:
    static const OverPainter& of(void* context) noexcept { return *static_cast<const OverPainter*>(context); }
    void trace(const Trace& by_step, const TraceSteps& steps) const {
        surface_.kernel->trace(surface_, by_step, steps, color_);
    }

    const Surface& surface_;
    Color color_;
};

// Paints one area after the other. Keeps the surface and the brush by reference.
class Painter {
  public:
    Painter(const Surface& surface, const Brush& brush);
    Painter(const Painter&) = delete;
    Painter(Painter&&) = delete;
    Painter& operator=(const Painter&) = delete;
    Painter& operator=(Painter&&) = delete;
    ~Painter() = default;

    // Lays the ink on the area as far as it lies in the surface's clips, reports it to the surface's observer, and
    // returns the box that was touched.
    Box paint(const AreaRef& area);

  private:
    const Surface& surface_;
    const Brush& brush_;
    std::optional<OverPainter> over_;
    std::optional<GeneralPainter> general_;
    std::optional<OpaquePainter> opaque_;
    SpanSink sink_;
};

}  // namespace coldbrick::inline v0::detail

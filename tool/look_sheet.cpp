// Pictures with rulers.
#include "panels.hpp"
#include "paper.hpp"

#include <algorithm>
#include <string>

namespace coldbrick::tool {

namespace {

constexpr auto title_height = 24;
constexpr auto tick = 6;
constexpr auto least_with_grid = 6;  // pixels of the sheet for each of the picture

// Columns that a number of so many digits takes, with a tick and some room.
int ruler_width(const Panel& panel) {
    const auto last = panel.origin.y + panel.pixels.size().height - 1;
    return bounds(label(std::to_string(last), {})).size.width + tick + 6;
}
constexpr auto ruler_height = 7 + tick + 6;

// Of its pixels or its title, whichever needs more.
Size room_of(const Panel& panel, int scale) {
    const auto size = panel.pixels.size();
    const auto title = bounds(label(panel.title, {}, title_letters)).size.width;
    return {.width = ruler_width(panel) + std::max(size.width * scale, title) + margin,
            .height = title_height + ruler_height + size.height * scale + margin};
}

// Where the panels lie: next to each other, or one below the other.
struct Arrangement {
    bool is_beside = true;
    Size size;
};

Arrangement arranged(const std::vector<Panel>& panels, int scale, bool is_beside) {
    Size size{.width = margin, .height = margin};
    for (const auto& panel : panels) {
        const auto room = room_of(panel, scale);
        if (is_beside) {
            size = {.width = size.width + room.width, .height = std::max(size.height, margin + room.height)};
        } else {
            size = {.width = std::max(size.width, margin + room.width), .height = size.height + room.height};
        }
    }
    return {.is_beside = is_beside, .size = size};
}

constexpr Size usual{.width = 1280, .height = 800};

// The largest scale at which they fit the usual size, 1 at least.
int fitting_scale(const std::vector<Panel>& panels, bool is_beside) {
    constexpr auto most = 64;
    auto scale = 1;
    while (scale < most) {
        const auto [_, size] = arranged(panels, scale + 1, is_beside);
        if (size.width > usual.width || size.height > usual.height) break;
        ++scale;
    }
    return scale;
}

void draw_rulers(Bitmap<Rgb8>& sheet, const Panel& panel, Point at, int scale) {
    constexpr auto least = 44.0;
    const auto size = panel.pixels.size();
    const auto step_x = ruler_step(least / scale);
    const auto step_y = ruler_step(std::max(1.0, 22.0 / scale));
    const auto first = [](int from, int step) { return (from + step - 1) / step * step; };
    const auto middle = scale / 2;
    for (auto x = first(panel.origin.x, step_x); x < panel.origin.x + size.width; x += step_x) {
        const auto column = at.x + (x - panel.origin.x) * scale + middle;
        stroke(sheet, Line{.from = {column, at.y - tick}, .to = {column, at.y - 2}}, writing);
        const auto words = label(std::to_string(x), {column, at.y - tick - 3}, label_letters, TextAnchor::bottom);
        // A number that would hang over the end is left out.
        if (bounds(words).last().x <= at.x + size.width * scale + margin) fill(sheet, words, writing);
    }
    for (auto y = first(panel.origin.y, step_y); y < panel.origin.y + size.height; y += step_y) {
        const auto row = at.y + (y - panel.origin.y) * scale + middle;
        stroke(sheet, Line{.from = {at.x - tick, row}, .to = {at.x - 2, row}}, writing);
        fill(sheet, label(std::to_string(y), {at.x - tick - 3, row}, label_letters, TextAnchor::right), writing);
    }
}

// Between pixels; stronger at each tenth of the picture's own numbers.
void draw_grid(Bitmap<Rgb8>& sheet, const Panel& panel, Point at, int scale) {
    const auto size = panel.pixels.size();
    const auto ink = [](int number) {
        return Ink{with_alpha(gray(number % 10 == 0 ? 255 : 128), number % 10 == 0 ? 150 : 90)};
    };
    for (int x = 1; x < size.width; ++x) {
        fill(sheet, Box{.at = {at.x + x * scale, at.y}, .size = {1, size.height * scale}}, ink(panel.origin.x + x));
    }
    for (int y = 1; y < size.height; ++y) {
        fill(sheet, Box{.at = {at.x, at.y + y * scale}, .size = {size.width * scale, 1}}, ink(panel.origin.y + y));
    }
}

void draw_panel(Bitmap<Rgb8>& sheet, const Panel& panel, Point corner, int scale) {
    const auto size = panel.pixels.size();
    const Point at{corner.x + ruler_width(panel), corner.y + title_height + ruler_height};
    const Box frame{.at = at, .size = {size.width * scale, size.height * scale}};
    fill(sheet, label(panel.title, {at.x, corner.y + 2}, title_letters), writing);
    fill(sheet, frame, [](Point pixel) { return behind(pixel); });
    paste(sheet, enlarge(panel.pixels, scale), {.at = at});
    if (scale >= least_with_grid) draw_grid(sheet, panel, at, scale);
    stroke(sheet, Box{.at = {at.x - 1, at.y - 1}, .size = {frame.size.width + 2, frame.size.height + 2}}, writing);
    draw_rulers(sheet, panel, at, scale);
}

}  // namespace

Bitmap<Rgb8> on_sheet_with_rulers(const std::vector<Panel>& panels, int scale) {
    const auto scale_beside = scale > 0 ? scale : fitting_scale(panels, true);
    const auto scale_below = scale > 0 ? scale : fitting_scale(panels, false);
    const auto beside = arranged(panels, scale_beside, true);
    const auto is_beside =
        scale_beside > scale_below || (scale_beside == scale_below && beside.size.width <= usual.width);
    const auto [_, size] = is_beside ? beside : arranged(panels, scale_below, false);
    Bitmap<Rgb8> sheet{size, paper};
    Point corner{margin, margin};
    for (const auto& panel : panels) {
        const auto used = is_beside ? scale_beside : scale_below;
        draw_panel(sheet, panel, corner, used);
        const auto room = room_of(panel, used);
        is_beside ? corner.x += room.width : corner.y += room.height;
    }
    return sheet;
}

}  // namespace coldbrick::tool

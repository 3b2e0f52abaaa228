#include "shapes_sheet.hpp"

#include <array>
#include <string>
#include <string_view>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

constexpr int cell = 80;
constexpr int columns = 16;
constexpr int rows = 13;

constexpr std::string_view paper = "#f7f3e6";
constexpr std::string_view dark = "#14364f";
constexpr std::string_view light = "#e8b23a";
constexpr std::string_view fill_ink = "#6fb6c9";
constexpr std::string_view mark_ink = "#c8202c";

// The middle of a cell.
struct Cell {
    int x;
    int y;
};

constexpr Cell cell_at(int column, int row) { return {.x = column * cell + cell / 2, .y = row * cell + cell / 2}; }

// Shapes around a middle, as their words in a scene.
using ShapeText = std::string (*)(Cell);

const auto closed_shapes = std::array<ShapeText, columns>{
    [](Cell c) { return fmt::format("box at {},{} size 51,41", c.x - 25, c.y - 20); },
    [](Cell c) { return fmt::format("box at {},{} size 51,41 corner_radius 12", c.x - 25, c.y - 20); },
    [](Cell c) { return fmt::format("circle center {},{} radius 24", c.x, c.y); },
    [](Cell c) { return fmt::format("ellipse center {},{} radii 28,14", c.x, c.y); },
    [](Cell c) { return fmt::format("ellipse center {},{} radii 28,14 turned -30", c.x, c.y); },
    [](Cell c) { return fmt::format("ellipse at {},{} size 8,56", c.x - 4, c.y - 28); },
    [](Cell c) { return fmt::format("sector center {},{} radius 28 sweep 200,340", c.x, c.y + 12); },
    [](Cell c) { return fmt::format("sector center {},{} radii 28,20 turned 20 sweep 30 by 280", c.x, c.y); },
    [](Cell c) { return fmt::format("chord center {},{} radius 26 sweep 150 by 200", c.x, c.y + 6); },
    [](Cell c) {
        return fmt::format("polygon through {},{} {},{} {},{} {},{}", c.x - 26, c.y + 20, c.x - 8, c.y - 24, c.x + 4,
                           c.y + 4, c.x + 28, c.y - 16);
    },
    [](Cell c) {
        return fmt::format("polygon through {},{} {},{} {},{} {},{} through {},{} {},{} {},{}", c.x - 26, c.y - 22,
                           c.x + 26, c.y - 22, c.x + 26, c.y + 22, c.x - 26, c.y + 22, c.x - 14, c.y + 12, c.x,
                           c.y - 14, c.x + 14, c.y + 12);
    },
    [](Cell c) { return fmt::format("polygon center {},{} radius 26 points 6", c.x, c.y); },
    [](Cell c) { return fmt::format("star center {},{} radius 28 points 5", c.x, c.y + 2); },
    [](Cell c) { return fmt::format("ring center {},{} radius 28 inner_radius 17 sweep 130 by 280", c.x, c.y); },
    [](Cell c) {
        return fmt::format("path data \"M{0},{1} C{2},{3} {4},{5} {0},{6} C{7},{5} {8},{3} {0},{1} Z\"", c.x, c.y - 10,
                           c.x + 12, c.y - 36, c.x + 50, c.y - 4, c.y + 24, c.x - 50, c.x - 12);
    },
    [](Cell c) {
        return fmt::format(
            "region circle center {},{} radius 22 minus circle center {},{} radius 15 plus box at {},{} size 20,9",
            c.x - 4, c.y, c.x + 8, c.y - 6, c.x + 6, c.y + 14);
    }};

class SheetText {
  public:
    void line(std::string_view text) {
        text_ += text;
        text_ += '\n';
    }

    template <class... Values>
    void line(fmt::format_string<Values...> form, Values&&... values) {
        text_ += fmt::format(form, std::forward<Values>(values)...) + '\n';
    }

    [[nodiscard]] std::string take() { return std::move(text_); }

  private:
    std::string text_;
};

void add_paper(SheetText& sheet) {
    sheet.line("// Every shape and every kind of stroke. Change a number and draw it again: coldbrick render.");
    sheet.line("sheet size {},{} ink {}", columns * cell, rows * cell, paper);
    sheet.line("// Rules every 10 pixels, and around each cell.");
    for (int x = 10; x < columns * cell; x += 10) {
        sheet.line("stroke line from {0},0 to {0},{1} ink {2}", x, rows * cell, x % cell == 0 ? "#c9c2a8" : "#ece6d2");
    }
    for (int y = 10; y < rows * cell; y += 10) {
        sheet.line("stroke line from 0,{0} to {1},{0} ink {2}", y, columns * cell,
                   y % cell == 0 ? "#c9c2a8" : "#ece6d2");
    }
}

void add_closed_shapes(SheetText& sheet) {
    constexpr auto strokes =
        std::array<std::string_view, 4>{"", "width 7", "width 7 align inside", "width 7 align outside"};
    sheet.line("\n// Filled, and the outline on the fill.");
    for (int column = 0; column < columns; ++column) {
        const auto shape = closed_shapes[static_cast<std::size_t>(column)](cell_at(column, 0));
        sheet.line("fill {} ink {}", shape, fill_ink);
        sheet.line("stroke {} ink {}", shape, dark);
    }
    for (std::size_t row = 1; row < strokes.size(); ++row) {
        sheet.line("\n// Stroked: {}. The fill is below.", strokes[row]);
        for (int column = 0; column < columns; ++column) {
            const auto shape = closed_shapes[static_cast<std::size_t>(column)](cell_at(column, static_cast<int>(row)));
            sheet.line("fill {} ink {}", shape, fill_ink);
            sheet.line("stroke {} {} ink {}", shape, strokes[row], light);
        }
    }
    sheet.line("\n// Dashed.");
    constexpr auto dashes = std::array<std::string_view, 4>{"dash 6,4", "width 5 dash 12,6",
                                                            "width 6 cap round dash 0,10", "width 3 dash 12,4,2,4"};
    for (int column = 0; column < columns; ++column) {
        const auto shape = closed_shapes[static_cast<std::size_t>(column)](cell_at(column, 4));
        sheet.line("stroke {} {} ink {}", shape, dashes[static_cast<std::size_t>(column % 4)], dark);
    }
}

void add_lines(SheetText& sheet) {
    sheet.line("\n// Lines of width 1 to 15, at all slopes.");
    for (int column = 0; column < 8; ++column) {
        const auto [x, y] = cell_at(column, 5);
        sheet.line("stroke line from {},{} to {},{} width {} ink {}", x - 28, y - 28 + 7 * column, x + 28,
                   y + 28 - 7 * column, 1 + 2 * column, dark);
    }
    sheet.line("\n// Caps, with the line itself on top; joins; a miter limit; a dot.");
    constexpr auto caps = std::array<std::string_view, 3>{"flush", "square", "round"};
    for (int i = 0; i < 3; ++i) {
        const auto [x, y] = cell_at(8 + i, 5);
        const auto ends = fmt::format("from {},{} to {},{}", x - 22, y + 10, x + 22, y - 10);
        sheet.line("stroke line {} width 18 cap {} ink {}", ends, caps[static_cast<std::size_t>(i)], light);
        sheet.line("stroke line {} ink {}", ends, mark_ink);
    }
    constexpr auto joins = std::array<std::string_view, 4>{"miter", "bevel", "round", "miter miter_limit 1.2"};
    for (int i = 0; i < 4; ++i) {
        const auto [x, y] = cell_at(11 + i, 5);
        const auto points = fmt::format("through {},{} {},{} {},{}", x - 24, y + 22, x, y - 14, x + 24, y + 22);
        sheet.line("stroke line {} width 15 join {} ink {}", points, joins[static_cast<std::size_t>(i)], light);
        sheet.line("stroke line {} ink {}", points, mark_ink);
    }
    const auto [x, y] = cell_at(15, 5);
    sheet.line("stroke line from {0},{1} to {0},{1} width 21 cap round ink {2}", x - 14, y, light);
    sheet.line("stroke line from {0},{1} to {0},{1} width 21 cap square ink {2}", x + 16, y, light);
}

void add_arcs(SheetText& sheet) {
    sheet.line("\n// Arcs: from, to and by, both ways round; caps. The beginning is marked.");
    constexpr auto sweeps = std::array<std::string_view, columns>{"0,90",
                                                                  "90,0",
                                                                  "0,90 counterclockwise",
                                                                  "270,0",
                                                                  "197,243",
                                                                  "197 by 46",
                                                                  "197 by -314",
                                                                  "0.25turn by -3.1416rad",
                                                                  "-45,45",
                                                                  "45,-45",
                                                                  "0,360",
                                                                  "30 by -1000",
                                                                  "350,10",
                                                                  "10,350",
                                                                  "180 by 1",
                                                                  "90,90"};
    for (int column = 0; column < columns; ++column) {
        const auto [x, y] = cell_at(column, 6);
        const auto sweep = sweeps[static_cast<std::size_t>(column)];
        sheet.line("stroke arc center {},{} radius 28 sweep {} width 7 ink {}", x, y, sweep, dark);
        sheet.line("stroke arc center {},{} radius 18 sweep {} ink {}", x, y, sweep, dark);
        sheet.line("mark at {},{} ink {}", x, y, mark_ink);
    }
    sheet.line("\n// Arcs of ellipses with each cap, dashed, and turned.");
    constexpr auto styles = std::array<std::string_view, 8>{"width 9",
                                                            "width 9 cap square",
                                                            "width 9 cap round",
                                                            "width 4 dash 9,5",
                                                            "turned 30 width 9",
                                                            "turned 30 width 9 cap square",
                                                            "turned 30 width 9 cap round",
                                                            "turned 30 width 6 cap round dash 0,9"};
    for (int column = 0; column < 8; ++column) {
        const auto [x, y] = cell_at(column, 7);
        sheet.line("stroke arc center {},{} radii 28,16 sweep 150,20 {} ink {}", x, y,
                   styles[static_cast<std::size_t>(column)], dark);
    }
}

void add_paths_and_clips(SheetText& sheet) {
    sheet.line("\n// Paths: quadratic and cubic curves, elliptical arcs, loops and cusps.");
    constexpr auto paths = std::array<std::string_view, 4>{
        "m-28,20 q14,-60 28,-20 t28,-20", "m-28,0 c20,-60 36,60 56,0",
        "m-26,18 a30,18 -20 1 1 52,-36 a12,12 0 0 0 -30,6", "m-20,24 c80,-70 -40,-70 40,0"};
    for (int i = 0; i < 8; ++i) {
        const auto [x, y] = cell_at(8 + i, 7);
        const auto data = fmt::format("M{},{} {}", x, y, paths[static_cast<std::size_t>(i % 4)]);
        sheet.line("stroke path data \"{}\" {} ink {}", data, i < 4 ? "" : "width 8 cap round", dark);
    }
    sheet.line("\n// Anchors: the same box placed by each of its nine points at the red pixel.");
    constexpr auto anchors = std::array<std::string_view, 9>{
        "top_left", "top", "top_right", "left", "center", "right", "bottom_left", "bottom", "bottom_right"};
    for (int column = 0; column < 9; ++column) {
        const auto [x, y] = cell_at(column, 8);
        sheet.line("fill box anchor {} at {},{} size 27,19 ink {}", anchors[static_cast<std::size_t>(column)], x, y,
                   fill_ink);
        sheet.line("fill circle center {},{} radius 2 ink {}", x, y, mark_ink);
    }
    sheet.line("\n// Clips: within a circle, outside of it, in either of two but not in both; nested.");
    constexpr auto combinations =
        std::array<std::string_view, 7>{"circle center {x},{y} radius 28",
                                        "circle center {x},{y} radius 28 minus star center {x},{y} radius 26 points 5",
                                        "circle center {l},{y} radius 20 plus circle center {r},{y} radius 20",
                                        "circle center {l},{y} radius 20 within circle center {r},{y} radius 20",
                                        "circle center {l},{y} radius 20 exclusive_or circle center {r},{y} radius 20",
                                        "circle center {l},{y} radius 20 minus circle center {r},{y} radius 20",
                                        "stroke star center {x},{y} radius 24 points 7 inner_radius 12 width 9"};
    for (int i = 0; i < 7; ++i) {
        const auto [x, y] = cell_at(9 + i, 8);
        sheet.line("clip {}", fmt::format(fmt::runtime(combinations[static_cast<std::size_t>(i)]), fmt::arg("x", x),
                                          fmt::arg("y", y), fmt::arg("l", x - 12), fmt::arg("r", x + 12)));
        sheet.line("  fill box at {},{} size 80,80 ink {}", x - 40, y - 40, light);
        for (int k = -12; k <= 12; k += 8) {
            sheet.line("  stroke line from {},{} to {},{} width 3 ink {}", x - 40, y + k - 12, x + 40, y + k + 12,
                       dark);
        }
        sheet.line("end");
    }
}

void add_many_widths(SheetText& sheet) {
    sheet.line("\n// Rings one inside the other, widths odd and even: they tile.");
    for (int column = 0; column < 5; ++column) {
        const auto [x, y] = cell_at(column, 9);
        auto radius = 3;
        for (int ring = 0; radius < 32; ++ring) {
            const auto width = 1 + (column + ring) % 5 + column;
            sheet.line("stroke circle center {},{} radius {} width {} align outside ink {}", x, y, radius, width + 1,
                       ring % 2 == 0 ? dark : fill_ink);
            radius += width + 1;
        }
    }
    sheet.line("\n// Thick strokes of short and sharp paths, and what crosses itself, in a translucent ink.");
    for (int column = 5; column < 12; ++column) {
        const auto [x, y] = cell_at(column, 9);
        const auto width = 2 + 3 * (column - 5);
        sheet.line("stroke line through {},{} {},{} {},{} {},{} width {} join {} ink #14364f90", x - 26, y + 18, x + 24,
                   y - 20, x - 20, y - 22, x + 20, y + 24, width, column % 2 == 0 ? "round" : "miter");
    }
    sheet.line("\n// Flood: what is connected to a pixel.");
    for (int column = 12; column < columns; ++column) {
        const auto [x, y] = cell_at(column, 9);
        sheet.line("fill box at {},{} size 71,71 ink {}", x - 35, y - 35, paper);
        sheet.line("stroke box at {},{} size 71,71 ink {}", x - 35, y - 35, dark);
        sheet.line("stroke star center {},{} radius 30 points {} ink {}", x, y, column - 7, dark);
        sheet.line("stroke circle center {},{} radius 16 ink {}", x, y, dark);
        sheet.line("flood from {},{} neighbors {} ink {}", x, y - (column % 2 == 0 ? 22 : 0),
                   column < 14 ? "four" : "eight", light);
    }
}

void add_smooth_shapes(SheetText& sheet) {
    sheet.line("\n// With smooth edges: filled, and a stroke of width 3 on top.");
    for (int column = 0; column < columns; ++column) {
        const auto shape = closed_shapes[static_cast<std::size_t>(column)](cell_at(column, 10));
        const auto fill = shape.starts_with("region") ? "" : "smooth ";
        sheet.line("fill {} {}ink {}", shape, fill, fill_ink);
        sheet.line("stroke {} width 3 smooth ink {}", shape, dark);
    }
}

void add_inks(SheetText& sheet) {
    sheet.line("\n// Inks: gradients, hatches, a pattern.");
    constexpr auto inks = std::array<std::string_view, 8>{
        "gradient a = linear from 0,0 to 1,1 stops 0,#14364f 0.5,#d9534f 1,#f4dfa0 placing shape",
        "gradient b = linear from 0.4,0 to 0.6,0 stops 0,#14364f 1,#f4dfa0 spread reflect placing shape",
        "gradient c = linear from 0,0.3 to 0,0.5 stops 0,#14364f 1,#f4dfa0 spread repeat placing shape",
        "gradient d = radial center 0.4,0.4 radius 0.6 stops 0,white 1,#14364f placing shape dither ordered",
        "gradient e = conic center 0.5,0.5 from -90 stops 0,#14364f 0.5,#f4dfa0 1,#14364f placing shape",
        "hatch f = spacing 6 angle 45 ink #14364f ground #f4dfa0 placing shape",
        "hatch g = spacing 9 angle -30 width 4 ink #14364f ground #d9534f placing shape",
        "pattern h = size 8,8 ink #f4dfa0 placing shape\n  fill circle center 4,4 radius 2 smooth ink #14364f\nend"};
    for (int column = 0; column < 8; ++column) {
        const auto [x, y] = cell_at(column, 11);
        sheet.line("{}", inks[static_cast<std::size_t>(column)]);
        sheet.line("fill circle center {},{} radius 30 smooth ink {}", x, y, static_cast<char>('a' + column));
    }
    sheet.line("\n// Blend modes: a disc on two bars.");
    constexpr auto blends = std::array<std::string_view, 5>{"multiply", "screen", "overlay", "difference", "add"};
    for (int i = 0; i < 5; ++i) {
        const auto [x, y] = cell_at(8 + i, 11);
        sheet.line("fill box at {},{} size 31,61 ink #2c6e8f", x - 30, y - 30);
        sheet.line("fill box at {},{} size 30,61 ink #c9a227", x + 1, y - 30);
        sheet.line("fill circle center {},{} radius 20 smooth ink #d9534f blend {}", x, y,
                   blends[static_cast<std::size_t>(i)]);
    }
    sheet.line("\n// Groups: turned, scaled, sheared.");
    constexpr auto groups = std::array<std::string_view, 3>{"turn by 25", "scale by 1.3,0.7", "shear by 0.5,0"};
    for (int i = 0; i < 3; ++i) {
        const auto [x, y] = cell_at(13 + i, 11);
        sheet.line("{} about {},{}", groups[static_cast<std::size_t>(i)], x, y);
        sheet.line("  fill box at {},{} size 41,31 corner_radius 7 smooth ink {}", x - 20, y - 15, fill_ink);
        sheet.line("  stroke box at {},{} size 41,31 corner_radius 7 width 3 smooth ink {}", x - 20, y - 15, dark);
        sheet.line("  stroke line from {0},{1} to {2},{1} smooth ink {3}", x - 20, y, x + 20, mark_ink);
        sheet.line("end");
    }
}

void add_words(SheetText& sheet) {
    sheet.line(
        "\n// Words: heights, a broad pen, slanted, hollow, with an ink; the pixel faces; lines; along paths; cut "
        "out.");
    sheet.line("gradient dusk = linear from 0,0 to 0,1 stops 0,#d9534f 1,#14364f placing shape");
    struct Words {
        std::string_view text;
        std::string_view more;  // from where it stands on
    };
    constexpr auto words =
        std::array<Words, 12>{{{"Quay 4", "height 9 ink #14364f"},
                               {"Quay", "height 14 ink #14364f"},
                               {"Quay", "height 20 smooth ink #14364f"},
                               {"Quay", "height 16 weight 5 smooth ink #14364f"},
                               {"Quay", "height 18 slant 15 smooth ink #14364f"},
                               {"Q4", "height 36 weight 9 width 2 smooth ink #c8202c"},
                               {"Q4", "height 36 weight 9 smooth ink dusk"},
                               {"3.2 m", "face pixel height 14 ink #14364f"},
                               {"TIDE 3.2", "face tiny height 10 ink #14364f"},
                               {"The tide turns at noon", "height 8 wrap 60 lines center ink #14364f"},
                               {"The tide turns at noon", "height 8 wrap 66 lines justified ink #14364f"},
                               {"The tide turns", "height 30 fit 64,12 ink #14364f"}}};
    for (std::size_t i = 0; i < words.size(); ++i) {
        const auto [x, y] = cell_at(static_cast<int>(i), 12);
        const auto is_hollow = words[i].more.find("width") != std::string_view::npos;
        sheet.line("{} text \"{}\" at {},{} anchor center {}", is_hollow ? "stroke" : "fill", words[i].text, x, y,
                   words[i].more);
    }
}

void add_words_elsewhere(SheetText& sheet) {
    const auto [x, y] = cell_at(12, 12);
    sheet.line("stroke circle center {},{} radius 22 ink {}", x, y, fill_ink);
    sheet.line(
        "fill text \"around the buoy \" height 7 along \"M{0},{1} A22,22 0 1 1 {2},{1} A22,22 0 1 1 {0},{1}\" smooth "
        "ink {3}",
        x - 22, y, x + 22, dark);
    const auto wave = cell_at(13, 12);
    const auto data = fmt::format("M{},{} q15,-40 30,-14 t36,-10", wave.x - 34, wave.y + 14);
    sheet.line("stroke path data \"{}\" ink {}", data, fill_ink);
    sheet.line("fill text \"ebb and flow\" height 8 along \"{}\" place center smooth ink {}", data, dark);
    const auto anchor = cell_at(14, 12);
    for (const auto* const of : {"baseline", "baseline_right"}) {
        sheet.line("fill text \"qH\" at {},{} anchor {} height 18 smooth ink {}", anchor.x, anchor.y, of, dark);
    }
    sheet.line("stroke line from {0},{1} to {2},{1} ink {3}", anchor.x - 34, anchor.y, anchor.x + 34, mark_ink);
    const auto cut = cell_at(15, 12);
    sheet.line(
        "fill region circle center {0},{1} radius 28 minus text \"Q4\" at {0},{1} anchor center height 26 weight 6 ink "
        "{2}",
        cut.x, cut.y, dark);
}

}  // namespace

std::string shapes_sheet() {
    SheetText sheet;
    add_paper(sheet);
    add_closed_shapes(sheet);
    add_lines(sheet);
    add_arcs(sheet);
    add_paths_and_clips(sheet);
    add_many_widths(sheet);
    add_smooth_shapes(sheet);
    add_inks(sheet);
    add_words(sheet);
    add_words_elsewhere(sheet);
    return sheet.take();
}

}  // namespace coldbrick::tool

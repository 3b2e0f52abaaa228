// The letters of the line face as they are drawn, in units: capitals are 12 high.
#pragma once

#include "geometry/trigonometry.hpp"
#include "text/letters.hpp"

#include "coldbrick/path.hpp"

#include <array>
#include <map>
#include <vector>

namespace coldbrick::inline v0::detail {

// The path of the pen in units of the drawing, and what is filled.
struct Strokes {
    std::vector<Path::Step> steps;

    void add(const Path& path, double factor, Vec by) {
        const auto placed = [=](Position at) { return Position{.x = at.x * factor + by.x, .y = at.y * factor + by.y}; };
        for (const auto& step : path.steps()) {
            steps.push_back({.kind = step.kind,
                             .to = placed(step.to),
                             .control_1 = placed(step.control_1),
                             .control_2 = placed(step.control_2)});
        }
    }
};

// How near to the left and the right edge a letter comes, in bands of its height.
inline constexpr int bands = 17;  // from two units above the capitals to 15 below their top
struct Profile {
    std::array<double, bands> left;   // from the left edge; `nothing` where there is nothing
    std::array<double, bands> right;  // from the right edge
};
inline constexpr double nothing = 1e9;

// A letter, from its left edge on.
struct Letter {
    Strokes lines;
    bool is_filled = false;
    double width = 0;
    Profile profile{};
};

// Figures have one breadth; what stands among them in a number does not come nearer to them.
[[nodiscard]] bool is_figure(char32_t letter) noexcept;
[[nodiscard]] bool is_of_number(char32_t letter) noexcept;

// The drawing of a character; that of the missing box for one that there is none of.
[[nodiscard]] const Letter& line_drawing(char32_t letter);
[[nodiscard]] bool has_line_drawing(char32_t letter);
[[nodiscard]] std::vector<char32_t> line_drawing_characters();

}  // namespace coldbrick::inline v0::detail

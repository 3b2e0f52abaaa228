// Pictures as characters.
#include "panels.hpp"

#include <algorithm>
#include <string>
#include <vector>

#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

// How the pixels of a panel lie on characters.
struct Fitting {
    Size dots;  // what is shown: half lines high, or, enlarged, squares of two columns and a line
    bool is_large = false;
    double step_x = 1;  // pixels of the panel in a dot
    double step_y = 1;

    [[nodiscard]] int columns() const noexcept { return is_large ? 2 * dots.width : dots.width; }
    [[nodiscard]] int lines() const noexcept { return is_large ? dots.height : (dots.height + 1) / 2; }
    [[nodiscard]] double magnification() const noexcept { return (is_large ? 2 : 1) / std::max(step_x, step_y); }
};

int digits(int number) { return static_cast<int>(std::to_string(number).size()); }

// Columns of the ruler on the left.
int ruler_width(const Panel& panel) { return digits(panel.origin.y + panel.pixels.size().height - 1) + 1; }

Fitting fitting(const Panel& panel, Size room) {
    const auto size = panel.pixels.size();
    const auto columns = std::max(1, room.width - ruler_width(panel));
    const auto lines = std::max(1, room.height - 2);  // a title and a ruler
    if (2 * size.width <= columns && size.height <= lines) return {.dots = size, .is_large = true};
    const auto wide = static_cast<double>(size.width) / columns;
    const auto high = static_cast<double>(size.height) / (2.0 * lines);
    const auto step = std::max({1.0, wide, high});
    const auto shown = [&](int side) { return std::max(1, static_cast<int>(side / step)); };
    const Size dots{.width = shown(size.width), .height = shown(size.height)};
    return {.dots = dots,
            .is_large = false,
            .step_x = static_cast<double>(size.width) / dots.width,
            .step_y = static_cast<double>(size.height) / dots.height};
}

// Colours of the terminal, said only where they change.
class Colors {
  public:
    explicit Colors(std::string& text) : text_{text} {}
    ~Colors() { reset(); }
    Colors(const Colors&) = delete;
    Colors(Colors&&) = delete;
    Colors& operator=(const Colors&) = delete;
    Colors& operator=(Colors&&) = delete;

    void front(Color color) { say(front_, color, 38); }
    void back(Color color) { say(back_, color, 48); }
    void no_back() {
        if (back_.is_said) text_ += "\x1b[49m";
        back_ = {};
    }
    void reset() {
        if (front_.is_said || back_.is_said) text_ += "\x1b[0m";
        front_ = back_ = {};
    }

  private:
    struct Said {
        bool is_said = false;
        Color color;
    };

    void say(Said& now, Color color, int which) {
        if (now.is_said && now.color == color) return;
        now = {.is_said = true, .color = color};
        text_ += fmt::format("\x1b[{};2;{};{};{}m", which, color.red, color.green, color.blue);
    }

    std::string& text_;
    Said front_;
    Said back_;
};

// A panel's lines, all equally wide, filled up with spaces.
struct Lines {
    int width = 0;
    std::vector<std::string> text;
};

std::string padded(const std::string& words, int width) {
    const auto count = static_cast<std::size_t>(width);
    if (words.size() > count) return count > 3 ? words.substr(0, count - 3) + "..." : words.substr(0, count);
    return words + std::string(count - words.size(), ' ');
}

// Where a pixel's dot begins.
int dot_of(int pixel, double step) { return static_cast<int>(pixel / step); }

std::string upper_ruler(const Panel& panel, const Fitting& fit) {
    constexpr auto least_columns = 8;
    const std::size_t dot_columns = fit.is_large ? 2 : 1;
    const auto step = ruler_step(least_columns * fit.step_x / static_cast<double>(dot_columns));
    std::string line(static_cast<std::size_t>(fit.columns()), ' ');
    const auto first = (panel.origin.x + step - 1) / step * step;
    const auto end = panel.origin.x + panel.pixels.size().width;
    for (auto x = first; x < end; x += step) {
        const auto column = static_cast<std::size_t>(dot_of(x - panel.origin.x, fit.step_x)) * dot_columns;
        const auto label = "|" + std::to_string(x);
        if (column + label.size() > line.size()) continue;
        line.replace(column, label.size(), label);
    }
    return line;
}

// For each line, the row that a ruler names there.
std::vector<std::string> left_ruler(const Panel& panel, const Fitting& fit) {
    constexpr auto least_lines = 2;
    const auto dot_lines = fit.is_large ? 1.0 : 0.5;
    const auto step = ruler_step(least_lines * fit.step_y / dot_lines);
    const auto width = ruler_width(panel);
    std::vector<std::string> labels(static_cast<std::size_t>(fit.lines()),
                                    std::string(static_cast<std::size_t>(width), ' '));
    const auto end = panel.origin.y + panel.pixels.size().height;
    for (auto y = (panel.origin.y + step - 1) / step * step; y < end; y += step) {
        const auto line = static_cast<std::size_t>(dot_of(y - panel.origin.y, fit.step_y) * dot_lines);
        labels[line] = fmt::format("{:>{}}-", y, width - 1);
    }
    return labels;
}

Lines lines_of(const Panel& panel, Size room) {
    const auto fit = fitting(panel, room);
    auto shown = resized(panel.pixels, fit.dots, fit.step_x > 1 || fit.step_y > 1 ? Scaling::box : Scaling::nearest);
    Bitmap<Rgb8> dots{fit.dots};
    for (int y = 0; y < fit.dots.height; ++y) {
        for (int x = 0; x < fit.dots.width; ++x) mark(dots, Point{x, y}, behind({x, y}));
    }
    paste(dots, shown);
    const auto left = ruler_width(panel);
    const auto title = std::min(room.width - left, static_cast<int>(panel.title.size()));
    const auto width = std::max(fit.columns(), title);
    Lines lines{.width = left + width, .text = {}};
    const std::string margin(static_cast<std::size_t>(left), ' ');
    lines.text.push_back(margin + padded(panel.title, width));
    lines.text.push_back(margin + padded(upper_ruler(panel, fit), width));
    const auto labels = left_ruler(panel, fit);
    for (int line = 0; line < fit.lines(); ++line) {
        auto text = labels[static_cast<std::size_t>(line)];
        {
            Colors colors{text};
            for (int x = 0; x < fit.dots.width; ++x) {
                const auto row = fit.is_large ? line : 2 * line;
                const auto upper = dots.color_at({x, row});
                if (fit.is_large) {
                    colors.back(upper);
                    text += "  ";
                    continue;
                }
                colors.front(upper);
                const auto has_lower = row + 1 < fit.dots.height;
                has_lower ? colors.back(dots.color_at({x, row + 1})) : colors.no_back();
                text += "\u2580";  // upper half block
            }
        }
        text.append(static_cast<std::size_t>(width - fit.columns()), ' ');
        lines.text.push_back(std::move(text));
    }
    return lines;
}

std::string side_by_side(const std::vector<Lines>& panels) {
    std::size_t most = 0;
    for (const auto& panel : panels) most = std::max(most, panel.text.size());
    std::string text;
    for (std::size_t line = 0; line < most; ++line) {
        for (std::size_t i = 0; i < panels.size(); ++i) {
            const auto& panel = panels[i];
            if (i > 0) text += "  ";
            text +=
                line < panel.text.size() ? panel.text[line] : std::string(static_cast<std::size_t>(panel.width), ' ');
        }
        text += '\n';
    }
    return text;
}

}  // namespace

std::string in_terminal(const std::vector<Panel>& panels, Size terminal) {
    const auto count = static_cast<int>(panels.size());
    const auto height = terminal.height - 1;  // the prompt comes below
    const Size beside{.width = (terminal.width - 2 * (count - 1)) / count, .height = height};
    const Size below{.width = terminal.width, .height = height / count};
    const auto least = [&](Size room) {
        auto magnification = fitting(panels.front(), room).magnification();
        for (const auto& panel : panels) magnification = std::min(magnification, fitting(panel, room).magnification());
        return magnification;
    };
    const auto is_beside = least(beside) >= least(below);
    std::vector<Lines> lines;
    lines.reserve(panels.size());
    for (const auto& panel : panels) lines.push_back(lines_of(panel, is_beside ? beside : below));
    if (is_beside) return side_by_side(lines);
    std::string text;
    for (auto& panel : lines) text += side_by_side({panel});
    return text;
}

}  // namespace coldbrick::tool

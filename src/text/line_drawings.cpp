#include "text/line_drawings.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace coldbrick::inline v0::detail {

bool is_figure(char32_t letter) noexcept { return letter >= U'0' && letter <= U'9'; }
bool is_of_number(char32_t letter) noexcept {
    return is_figure(letter) || letter == U'.' || letter == U',' || letter == U':';
}

namespace {

using Kind = Path::Step::Kind;

template <class Use>
void for_each_place(const Strokes& strokes, const Use& use) {
    auto from = Position{};
    constexpr int parts = 12;
    for (const auto& step : strokes.steps) {
        for (int i = step.kind == Kind::move ? parts : 0; i <= parts; ++i) {
            const auto t = static_cast<double>(i) / parts;
            const auto s = 1 - t;
            if (step.kind != Kind::cubic) {
                use(Position{.x = from.x * s + step.to.x * t, .y = from.y * s + step.to.y * t});
                continue;
            }
            const auto at = [&](double a, double b, double c, double d) {
                return a * s * s * s + 3 * b * s * s * t + 3 * c * s * t * t + d * t * t * t;
            };
            use(Position{.x = at(from.x, step.control_1.x, step.control_2.x, step.to.x),
                         .y = at(from.y, step.control_1.y, step.control_2.y, step.to.y)});
        }
        from = step.to;
    }
}

// Moves a letter so that its left edge is at 0, and takes its measures.
void finish(Letter& letter) {
    auto least = nothing;
    auto most = -nothing;
    for_each_place(letter.lines, [&](Position at) {
        least = std::min(least, at.x);
        most = std::max(most, at.x);
    });
    letter.profile.left.fill(nothing);
    letter.profile.right.fill(nothing);
    if (letter.lines.steps.empty()) return;
    for (auto& step : letter.lines.steps) {
        for (auto* const at : {&step.to, &step.control_1, &step.control_2}) at->x -= least;
    }
    letter.width = most - least;
    for_each_place(letter.lines, [&](Position at) {
        // A place has a share in the bands beside it, too, as the pen is round.
        for (const auto reach : {-0.6, 0.6}) {
            const auto band = std::clamp(static_cast<int>(std::floor(at.y + reach + 2)), 0, bands - 1);
            auto& left = letter.profile.left[static_cast<std::size_t>(band)];
            auto& right = letter.profile.right[static_cast<std::size_t>(band)];
            left = std::min(left, at.x);
            right = std::min(right, letter.width - at.x);
        }
    });
}

class Drawings {
  public:
    Drawings() {
        for (const auto& drawing : line_letters()) add(drawing, false);
        for (const auto& drawing : filled_line_letters()) add(drawing, true);
        for (const auto& mark : line_marks()) marks_[mark.mark] = parse_path(mark.path);
        for (const auto& composed : composed_characters()) compose(composed);
        for (const auto& smaller : smaller_characters()) reduce(smaller);
        constexpr std::pair<char32_t, double> spaces[] = {{0x2002, 7},   {0x2003, 16},  {0x2004, 3.6}, {0x2005, 2.4},
                                                          {0x2006, 0.8}, {0x2007, 7},   {0x2008, 0.2}, {0x2009, 0.6},
                                                          {0x200a, 0},   {0x202f, 0.6}, {0x205f, 1.8}, {0x3000, 16}};
        for (const auto& [character, width] : spaces) letters_[character] = space_of(width);
        letters_[U'\t'] = space_of(15.9);
        Letter box;
        box.lines.add(parse_path("M0 0 H6 V12 H0 Z"), 1, {});
        finish(box);
        missing_ = std::move(box);
    }

    [[nodiscard]] const Letter& operator[](char32_t letter) const {
        const auto found = letters_.find(letter);
        return found == letters_.end() ? missing_ : found->second;
    }
    [[nodiscard]] bool has(char32_t letter) const { return letters_.contains(letter); }
    [[nodiscard]] std::vector<char32_t> characters() const {
        std::vector<char32_t> all;
        for (const auto& [character, letter] : letters_) {
            if (character >= U' ') all.push_back(character);
        }
        return all;
    }

  private:
    void add(const LineLetter& drawing, bool is_filled) {
        Letter letter;
        letter.is_filled = is_filled;
        if (!drawing.path.empty()) letter.lines.add(parse_path(drawing.path), 1, {});
        finish(letter);
        if (is_figure(drawing.characters.front())) center(letter, drawing.width);
        if (drawing.path.empty()) letter.width = drawing.width;
        for (const auto character : drawing.characters) letters_[character] = letter;
    }

    // Figures stand in the middle of the breadth that all of them have.
    static void center(Letter& letter, double width) {
        const auto by = (width - letter.width) / 2;
        for (auto& step : letter.lines.steps) {
            for (auto* const at : {&step.to, &step.control_1, &step.control_2}) at->x += by;
        }
        for (auto* const side : {&letter.profile.left, &letter.profile.right}) {
            for (auto& value : *side) value += by;
        }
        letter.width = width;
    }

    static Letter space_of(double width) {
        Letter space;
        finish(space);
        space.width = width;
        return space;
    }

    // How high a letter reaches, and where the middle of what reaches so high is.
    static double top_of(const Letter& letter) {
        auto top = nothing;
        for_each_place(letter.lines, [&](Position at) { top = std::min(top, at.y); });
        return top;
    }

    void compose(const Composed& composed) {
        auto letter = letters_.at(composed.letter);
        const auto& mark = marks_.at(composed.mark);
        const auto is_greek_capital = composed.character >= 0x386 && composed.character <= 0x38f;
        const auto is_tall = top_of(letter) < 2;
        auto at = Vec{letter.width / 2, is_tall ? -4.0 : 0.0};
        switch (composed.mark) {
            case Mark::cedilla:
            case Mark::comma_below:
                at.y = 0;
                break;
            case Mark::ogonek:
                at = {letter.width == 0 ? 0 : letter.width - 0.6, 0};
                break;
            case Mark::apostrophe:
                at = {letter.width + (composed.letter == U'L' ? -1.6 : 1.8), 0};
                break;
            case Mark::acute:
                if (is_greek_capital) at = {-2.6, -0.4};
                break;
            default:
                break;
        }
        letter.lines.add(mark, 1, at);
        finish(letter);
        letters_[composed.character] = std::move(letter);
    }

    void reduce(const Smaller& smaller) {
        constexpr auto factor = 0.56;
        Letter whole;
        auto x = 0.0;
        const auto add_all = [&](std::u32string_view characters, double y) {
            for (const auto character : characters) {
                const auto& letter = letters_.at(character);
                Path path;
                for (const auto& step : letter.lines.steps) {
                    if (step.kind == Kind::move) path.move(step.to);
                    if (step.kind == Kind::line) path.line(step.to);
                    if (step.kind == Kind::cubic) {
                        path.cubic({.control_1 = step.control_1, .control_2 = step.control_2, .to = step.to});
                    }
                    if (step.kind == Kind::close) path.close();
                }
                whole.lines.add(path, factor, {x, y});
                x += factor * letter.width + 1.8;
            }
        };
        const auto is_small_letter = smaller.above == U"a" || smaller.above == U"o";
        add_all(smaller.above, is_small_letter ? -2.2 : 0);
        if (!smaller.below.empty()) {
            x -= 0.6;
            whole.lines.add(parse_path("M5 0 L0 12"), 1, {x, 0});
            x += 4.6;
            add_all(smaller.below, 12 - 12 * factor);
        }
        finish(whole);
        letters_[smaller.character] = std::move(whole);
    }

    std::map<char32_t, Letter> letters_;
    std::map<Mark, Path> marks_;
    Letter missing_;
};

const Drawings& drawings() {
    static const Drawings all;
    return all;
}

}  // namespace

const Letter& line_drawing(char32_t letter) { return drawings()[letter]; }
bool has_line_drawing(char32_t letter) { return drawings().has(letter); }
std::vector<char32_t> line_drawing_characters() { return drawings().characters(); }

}  // namespace coldbrick::inline v0::detail

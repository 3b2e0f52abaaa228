#include "text/pixel_face.hpp"

#include "geometry/limits.hpp"
#include "text/unicode.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <set>

namespace coldbrick::inline v0::detail {

namespace {

// The dots of a letter as columns and rows.
using Dots = std::set<std::pair<int, int>>;  // row, column

struct Drawing {
    Dots dots;
    int width = 0;
};

Drawing drawing_of(std::string_view rows) {
    Drawing drawing;
    const auto above = rows.find('^');
    auto row =
        above == std::string_view::npos
            ? 0
            : -1 - static_cast<int>(std::count(rows.begin(), rows.begin() + static_cast<std::ptrdiff_t>(above), '/'));
    auto column = 0;
    for (const auto c : rows) {
        if (c == '/' || c == '^') {
            ++row;
            column = 0;
            continue;
        }
        if (c == '#') drawing.dots.emplace(row, column);
        drawing.width = std::max(drawing.width, ++column);
    }
    return drawing;
}

int top_of(const Drawing& drawing) noexcept { return drawing.dots.empty() ? 0 : drawing.dots.begin()->first; }
int bottom_of(const Drawing& drawing) noexcept { return drawing.dots.empty() ? 0 : drawing.dots.rbegin()->first; }

void add(Drawing& to, const Drawing& of, int column, int row) {
    for (const auto& [y, x] : of.dots) to.dots.emplace(y + row, x + column);
    to.width = std::max(to.width, column + of.width);
}

// So that nothing lies left of the first column.
void begin_at_left(Drawing& drawing) {
    auto least = 0;
    for (const auto& [row, column] : drawing.dots) least = std::min(least, column);
    if (least == 0) return;
    Dots moved;
    for (const auto& [row, column] : drawing.dots) moved.emplace(row, column - least);
    drawing.dots = std::move(moved);
    drawing.width -= least;
}

Drawing composed_of(Drawing letter, const Drawing& mark, const Composed& composed, int baseline) {
    const auto middle =
        (letter.width - mark.width) / 2 - (mark.width > letter.width && (mark.width - letter.width) % 2 != 0 ? 1 : 0);
    const auto above = top_of(letter) - 2 - bottom_of(mark);
    const auto is_greek_capital = composed.character >= 0x386 && composed.character <= 0x38f;
    switch (composed.mark) {
        case Mark::cedilla:
        case Mark::comma_below:
            add(letter, mark, middle, baseline);
            break;
        case Mark::ogonek:
            add(letter, mark, letter.width - mark.width, baseline);
            break;
        case Mark::apostrophe:
            add(letter, mark, letter.width + (composed.letter == U'L' ? -1 : 1), 0);
            break;
        default:
            if (composed.mark == Mark::acute && is_greek_capital) {
                add(letter, mark, -mark.width, 0);
            } else {
                add(letter, mark, middle, above);
            }
    }
    begin_at_left(letter);
    return letter;
}

// Follows the edges between dots that are set and such that are not, with what is set on the right.
std::vector<std::vector<Vec>> edges_of(const Dots& dots) {
    const auto is_set = [&](int row, int column) { return dots.contains({row, column}); };
    // The sides of dots that are free, by where they begin; each goes clockwise around its dot.
    std::multimap<std::pair<int, int>, std::pair<int, int>> sides;  // (y, x) to (y, x)
    for (const auto& [y, x] : dots) {
        if (!is_set(y - 1, x)) sides.emplace(std::pair{y, x}, std::pair{y, x + 1});
        if (!is_set(y, x + 1)) sides.emplace(std::pair{y, x + 1}, std::pair{y + 1, x + 1});
        if (!is_set(y + 1, x)) sides.emplace(std::pair{y + 1, x + 1}, std::pair{y + 1, x});
        if (!is_set(y, x - 1)) sides.emplace(std::pair{y + 1, x}, std::pair{y, x});
    }
    std::vector<std::vector<Vec>> edges;
    while (!sides.empty()) {
        auto& edge = edges.emplace_back();
        const auto begin = sides.begin()->first;
        auto at = begin;
        auto direction = std::pair{0, 0};
        do {
            // Where dots touch at a corner alone, the edge turns to the right: each keeps its own.
            const auto [first, last] = sides.equal_range(at);
            auto next = first;
            for (auto side = first; side != last; ++side) {
                const auto go = std::pair{side->second.first - at.first, side->second.second - at.second};
                // To the right of (dy, dx) is (dx, -dy).
                if (go == std::pair{direction.second, -direction.first}) next = side;
            }
            const auto go = std::pair{next->second.first - at.first, next->second.second - at.second};
            if (go != direction) edge.push_back({static_cast<double>(at.second), static_cast<double>(at.first)});
            direction = go;
            at = next->second;
            sides.erase(next);
        } while (at != begin);
    }
    return edges;
}

// Letters of one size.
class SizedDots final : public SizedFace {
  public:
    SizedDots(const PixelFace& face, int dot) : face_{face}, dot_{dot} {}

    void shape(const TextRun& run, std::vector<Glyph>& to) const override {
        const auto width = [this](char32_t letter) { return double{1} * face_.letter(letter).width * dot_; };
        const auto gap = [this](char32_t, char32_t) { return double{1} * dot_; };
        shape_letters(run, width, gap, to);
    }
    [[nodiscard]] double outer_gap() const override { return dot_; }
    [[nodiscard]] double line_height() const noexcept override { return (face_.capitals() + 6) * dot_; }
    [[nodiscard]] double height() const noexcept override { return face_.capitals() * dot_; }
    [[nodiscard]] double weight() const noexcept override { return 0; }
    [[nodiscard]] bool is_fitted() const noexcept override { return true; }

    void draw(std::uint32_t letter, const LetterPlace& place, Lettering& to) const override {
        if (is_invisible(letter)) return;
        for (const auto& edge : face_.letter(letter).edges) {
            auto is_first = true;
            for (const auto& corner : edge) {
                const auto at = place(Vec{corner.x, corner.y - face_.capitals()} * dot_);
                is_first ? to.outlines.move(at) : to.outlines.line(at);
                is_first = false;
            }
            to.outlines.close();
        }
    }

  private:
    const PixelFace& face_;
    int dot_;
};

}  // namespace

PixelFace::PixelFace(std::string name, int capitals, std::span<const PixelLetter> letters,
                     std::span<const PixelMark> marks)
    : name_{std::move(name)}, capitals_{capitals} {
    const auto keep = [&](char32_t character, const Drawing& drawing) {
        letters_[character] = {.width = drawing.width, .edges = edges_of(drawing.dots)};
    };
    std::map<char32_t, Drawing> drawings;
    for (const auto& [characters, rows] : letters) {
        const auto drawing = drawing_of(rows);
        for (const auto character : characters) drawings[character] = drawing;
    }
    for (const auto& composed : composed_characters()) {
        const auto letter = drawings.find(composed.letter);
        const auto mark =
            std::find_if(marks.begin(), marks.end(), [&](const PixelMark& of) { return of.mark == composed.mark; });
        if (letter == drawings.end() || mark == marks.end() || drawings.contains(composed.character)) continue;
        keep(composed.character, composed_of(letter->second, drawing_of(mark->rows), composed, capitals));
    }
    for (const auto& [character, drawing] : drawings) keep(character, drawing);
    Drawing box;
    const auto columns = capitals / 2 + 2;
    for (int row = 0; row < capitals; ++row) {
        for (int column = 0; column < columns; ++column) {
            if (row == 0 || column == 0 || row + 1 == capitals || column + 1 == columns) box.dots.emplace(row, column);
        }
    }
    missing_ = {.width = columns, .edges = edges_of(box.dots)};
}

std::vector<char32_t> PixelFace::characters() const {
    std::vector<char32_t> all;
    for (const auto& [character, letter] : letters_) all.push_back(character);
    return all;
}

const PixelFace::Letter& PixelFace::letter(char32_t of) const noexcept {
    const auto found = letters_.find(of);
    return found == letters_.end() ? missing_ : found->second;
}

std::shared_ptr<const SizedFace> PixelFace::new_size(double height, std::optional<double> weight) const {
    const auto dot = std::floor(height / capitals_);
    if (dot < 1 || dot * capitals_ != height) {
        const auto next = (dot + 1) * capitals_;
        throw Error{"text: height is " + in_digits(height) + "; allowed in face " + name_ + " are multiples of " +
                    std::to_string(capitals_) + ", such as " +
                    (dot < 1 ? in_digits(next) : in_digits(dot * capitals_) + " and " + in_digits(next))};
    }
    if (weight) throw Error{"text: weight is given for face " + name_ + "; allowed for faces that have a pen: line"};
    return std::make_shared<const SizedDots>(*this, static_cast<int>(dot));
}

}  // namespace coldbrick::inline v0::detail

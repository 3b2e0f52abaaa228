#include "text/layout.hpp"

#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

constexpr double most_height = 16384;
constexpr char32_t ellipsis = 0x2026;

bool is_space(char32_t c) noexcept {
    return c == U' ' || c == U'\t' || (c >= 0x2000 && c <= 0x200a && c != 0x2007) || c == 0x205f || c == 0x3000;
}

bool ends_line(char32_t c) noexcept { return c == U'\n' || c == 0x2028 || c == 0x2029 || c == 0x85; }

// Whether a line may end behind a character: of Unicode's line breaking (UAX 14), what concerns spaces, hyphens,
// dashes and places for breaks.
bool may_break_after(char32_t c) noexcept {
    return is_space(c) || c == U'-' || c == 0x2010 || c == 0x2012 || c == 0x2013 || c == 0x2014 || c == 0x200b ||
           c == 0xad;
}

// Throws Error unless a number is in its range.
void check(const char* field, double value, double least, double most) {
    if (value >= least && value <= most) return;
    throw Error{std::string{"text: "} + field + " is " + in_digits(value) + "; allowed is " + in_digits(least) +
                " to " + in_digits(most)};
}

double height_of(const Text& text) {
    if (text.em) check("em", *text.em, 1, most_height);
    constexpr auto share_of_capitals = 0.75;
    const auto height = text.em ? *text.em * share_of_capitals : text.height;
    check("height", height, 1, most_height);
    return height;
}

double slope_of(const Text& text) {
    constexpr auto most = 60.0;
    check("slant", text.slant.in_degrees(), -most, most);
    const auto direction = direction_of(text.slant);
    return direction.y / direction.x;
}

void check_numbers(const Text& text) {
    check("at.x", text.at.x, -max_coordinate, max_coordinate);
    check("at.y", text.at.y, -max_coordinate, max_coordinate);
    check("letter_spacing", text.letter_spacing, -most_height, most_height);
    constexpr auto most_line_spacing = 100.0;
    check("line_spacing", text.line_spacing, 0, most_line_spacing);
    if (text.wrap) check("wrap", *text.wrap, 1, max_coordinate);
    if (text.fit) {
        check("fit.box.width", text.fit->box.width, 1, max_coordinate);
        check("fit.box.height", text.fit->box.height, 1, max_coordinate);
        check_choice("text", "fit.by", text.fit->by, {"shrink", "cut"});
    }
    check_choice("text", "lines", text.lines, {"left", "center", "right", "justified"});
    check_choice("text", "anchor", text.anchor,
                 {"top_left", "top", "top_right", "left", "center", "right", "bottom_left", "bottom", "bottom_right",
                  "baseline", "baseline_center", "baseline_right"});
}

// Some of the characters, from one on.
struct Row {
    std::size_t begin;
    std::size_t end;    // behind the last one that belongs to it
    std::size_t shown;  // behind the last one that is drawn: without spaces at the end
    bool ends_paragraph = false;
    bool is_cut = false;  // whether an ellipsis follows
    double width = 0;
    std::vector<double> edges = {};  // where each character begins, and where the last one that is drawn ends
};

class Layouter {
  public:
    Layouter(const Text& text, const SizedFace& face, const std::vector<PlacedCharacter>& characters)
        : text_{text}, face_{face}, characters_{characters} {
        for (std::size_t begin = 0; begin <= characters.size();) {
            auto end = begin;
            while (end < characters.size() && !ends_line(characters[end].character)) ++end;
            // A line feed behind a carriage return.
            const auto shown = end > begin && characters[end - 1].character == U'\r' ? end - 1 : end;
            add_paragraph(begin, shown, end);
            begin = end + 1;
        }
    }

    [[nodiscard]] std::vector<Row>& rows() noexcept { return rows_; }

    [[nodiscard]] double pitch() const noexcept {
        const auto pitch = face_.line_height() * text_.line_spacing;
        return face_.is_fitted() ? std::floor(pitch + 0.5) : pitch;
    }

    [[nodiscard]] double width() const noexcept {
        auto widest = 0.0;
        for (const auto& row : rows_) widest = std::max(widest, row.width);
        return widest;
    }
    [[nodiscard]] double height() const noexcept {
        return face_.height() + pitch() * static_cast<double>(rows_.size() - 1);
    }

    // Leaves out what has no room in a box; says how many characters.
    std::size_t cut(const Size& box) {
        std::size_t left_out = 0;
        const auto most_rows = pitch() > 0 ? std::floor((box.height - face_.height()) / pitch()) + 1 : 1e9;
        const auto rows = static_cast<std::size_t>(std::max(1.0, most_rows));
        if (rows_.size() > rows) {
            for (auto i = rows; i < rows_.size(); ++i) left_out += rows_[i].end - rows_[i].begin;
            rows_.resize(rows);
            left_out += shorten(rows_.back(), box.width, true);
        }
        for (auto& row : rows_) {
            if (row.width > box.width) left_out += shorten(row, box.width, false);
        }
        return left_out;
    }

    // Makes the spaces of a row as wide as brings it to a width.
    void widen(Row& row, double width) const {
        std::vector<std::size_t> spaces;
        for (auto i = row.begin; i < row.shown; ++i) {
            if (is_space(characters_[i].character)) spaces.push_back(i - row.begin);
        }
        if (spaces.empty() || row.width >= width) return;
        const auto more = width - row.width;
        const auto share = [&](std::size_t count) {
            const auto part = more * static_cast<double>(count) / static_cast<double>(spaces.size());
            return face_.is_fitted() ? std::floor(part + 0.5) : part;
        };
        std::size_t passed = 0;
        for (std::size_t i = 0; i < row.edges.size(); ++i) {
            row.edges[i] += share(passed);
            if (passed < spaces.size() && spaces[passed] == i) ++passed;
        }
        row.width = width;
    }

  private:
    [[nodiscard]] char32_t at(std::size_t i) const noexcept { return characters_[i].character; }

    [[nodiscard]] double step(char32_t letter, char32_t next) const {
        return face_.width(letter) + face_.gap(letter, next) + text_.letter_spacing;
    }

    // Where the characters of a row begin and end.
    void measure(Row& row) const {
        row.edges.clear();
        auto x = 0.0;
        for (auto i = row.begin; i < row.shown; ++i) {
            row.edges.push_back(x);
            const auto is_last = i + 1 == row.shown && !row.is_cut;
            if (is_last) x += face_.width(at(i));
            if (!is_last) x += step(at(i), i + 1 < row.shown ? at(i + 1) : ellipsis);
        }
        row.edges.push_back(x);
        row.width = row.is_cut ? x + face_.width(ellipsis) : x;
    }

    void add_row(std::size_t begin, std::size_t end, bool ends_paragraph) {
        auto shown = end;
        while (shown > begin && is_space(at(shown - 1))) --shown;
        // Spaces at the end of a paragraph are there: a caret stands behind them.
        auto row =
            Row{.begin = begin, .end = end, .shown = ends_paragraph ? end : shown, .ends_paragraph = ends_paragraph};
        measure(row);
        rows_.push_back(std::move(row));
    }

    void add_paragraph(std::size_t begin, std::size_t shown, std::size_t) {
        if (text_.wrap) {
            while (begin < shown) {
                const auto end = row_end(begin, shown);
                if (end == shown) break;
                add_row(begin, end, false);
                begin = end;
            }
        }
        add_row(begin, shown, true);
    }

    // Where a row from a character on is broken.
    [[nodiscard]] std::size_t row_end(std::size_t begin, std::size_t end) const {
        auto x = 0.0;
        auto best = begin;
        for (auto i = begin; i < end; ++i) {
            const auto right = x + face_.width(at(i));
            if (right > *text_.wrap && !is_space(at(i))) {
                if (best > begin) return best;
                if (i > begin) return i;  // a word that is longer than a row
                throw Error{"text: wrap is " + in_digits(*text_.wrap) + "; allowed for these words is " +
                            in_digits(right) + " or more, in which the widest letter has room"};
            }
            if (may_break_after(at(i)) && !(i + 1 < end && is_space(at(i + 1)))) best = i + 1;
            if (i + 1 < end) x += step(at(i), at(i + 1));
        }
        return end;
    }

    // Leaves out characters at the end so that the row has room with an ellipsis; says how many. If always, then also
    // where it has room without.
    std::size_t shorten(Row& row, double width, bool always) const {
        const auto before = row.shown;
        const auto mark = face_.width(ellipsis);
        auto shown = row.begin;
        for (auto i = row.begin; i < row.shown; ++i) {
            const auto is_last = i + 1 == row.shown;
            const auto x = row.edges[i - row.begin] + step(at(i), ellipsis);
            if (x + mark <= width && !(is_last && !always) && !is_space(at(i))) shown = i + 1;
        }
        row.is_cut = true;
        row.shown = shown;
        measure(row);
        return before - row.shown;
    }

    const Text& text_;
    const SizedFace& face_;
    const std::vector<PlacedCharacter>& characters_;
    std::vector<Row> rows_;
};

// The upper left corner of the layout box, and its size.
subpixel::Box placed_box(const Text& text, double width, double height, double first_height, bool is_fitted) {
    const auto number = static_cast<int>(text.anchor);
    constexpr auto first_baseline = static_cast<int>(TextAnchor::baseline);
    const auto column = number < first_baseline ? number % 3 : number - first_baseline;
    const auto part = [=](int third, double size) {
        if (third == 0) return 0.0;
        const auto middle = is_fitted ? std::floor(size / 2) : size / 2 - 0.5;
        return third == 1 ? middle : size - 1;
    };
    const auto down = number < first_baseline ? part(number / 3, height) : first_height - 1;
    return {.at = {.x = text.at.x - part(column, width), .y = text.at.y - down},
            .size = {.width = width, .height = height}};
}

double row_begin(TextLines lines, double room, bool is_fitted) noexcept {
    const auto middle = is_fitted ? std::floor(room / 2) : room / 2;
    return lines == TextLines::center ? middle : lines == TextLines::right ? room : 0;
}

void place_rows(const Text& text, Layouter& layouter, double slant, const std::vector<PlacedCharacter>& characters,
                LaidText& to) {
    const auto& face = *to.face;
    auto widest = layouter.width();
    if (text.wrap && text.lines == TextLines::justified) widest = std::max(widest, *text.wrap);
    const auto box = placed_box(text, widest, layouter.height(), face.height(), face.is_fitted());
    to.layout.box = box;
    auto y = box.at.y + face.height() - 1;
    for (auto& row : layouter.rows()) {
        if (text.lines == TextLines::justified && !row.ends_paragraph && !row.is_cut) layouter.widen(row, widest);
        const auto x = box.at.x + row_begin(text.lines, widest - row.width, face.is_fitted());
        const auto byte = [&](std::size_t i) { return i < characters.size() ? characters[i].at : text.words.size(); };
        TextLayout::Line line{
            .begin = byte(row.begin),
            .end = byte(row.end),
            .box = {.at = {.x = x, .y = y - face.height() + 1}, .size = {.width = row.width, .height = face.height()}},
            .baseline = y};
        // Letters begin at the left edge of a pixel and stand on the lower one.
        const auto left = x - 0.5;
        const auto base = y + 0.5;
        for (auto i = row.begin; i < row.shown; ++i) {
            const auto edge = row.edges[i - row.begin];
            line.carets.push_back({.x = x + edge, .y = y});
            to.letters.push_back({.letter = characters[i].character,
                                  .place = {.at = {left + edge, base}, .along = {1, 0}, .slant = slant}});
        }
        line.carets.push_back({.x = x + row.edges.back(), .y = y});
        if (row.is_cut)
            to.letters.push_back({.letter = ellipsis,
                                  .place = {.at = {left + row.edges.back(), base}, .along = {1, 0}, .slant = slant}});
        to.layout.lines.push_back(std::move(line));
        y += layouter.pitch();
    }
}

}  // namespace

LaidText laid(const Text& text) {
    check_numbers(text);
    const auto slant = slope_of(text);
    const auto characters = characters_of(text.words);
    constexpr std::size_t most_characters = 1 << 18;
    if (characters.size() > most_characters) {
        throw Error{"text: the words have " + std::to_string(characters.size()) + " characters; allowed are " +
                    std::to_string(most_characters)};
    }
    const auto& source = text.face.source();
    LaidText result;
    const auto height = height_of(text);
    if (text.along) {
        result.face = source.sized(height, text.weight);
        lay_along(*text.along, text.letter_spacing, slant, characters, result);
    } else {
        std::optional<Layouter> layouter;
        // A breadth that is given goes down with the height.
        const auto lay_at = [&](double next) {
            const auto weight = text.weight ? std::optional{*text.weight * next / height} : std::nullopt;
            result.face = source.sized(next, weight);
            layouter.emplace(text, *result.face, characters);
        };
        const auto is_over = [&] {
            return layouter->width() > text.fit->box.width || layouter->height() > text.fit->box.height;
        };
        lay_at(height);
        if (text.fit && text.fit->by == Overflow::cut) result.layout.left_out = layouter->cut(text.fit->box);
        if (text.fit && text.fit->by == Overflow::shrink && is_over()) {
            // The greatest number of steps with which it has room.
            auto fits = std::ceil(source.least_height() / source.step());
            for (auto over = std::ceil(height / source.step()); over - fits > 1;) {
                const auto middle = std::floor((fits + over) / 2);
                lay_at(middle * source.step());
                (is_over() ? over : fits) = middle;
            }
            lay_at(std::min(height, fits * source.step()));
        }
        result.layout.is_over = text.fit && is_over();
        place_rows(text, *layouter, slant, characters, result);
    }
    result.layout.height = result.face->height();
    result.layout.weight = result.face->weight();
    return result;
}

}  // namespace coldbrick::inline v0::detail

#include "text/layout.hpp"

#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

constexpr double most_height = 16384;

double height_of(const Text& text) {
    if (text.em) check_number("em", *text.em, 1, most_height);
    const auto height = text.em ? text.face.source().height_of_em(*text.em) : text.height;
    check_number(text.em ? "em, as the height of its capitals," : "height", height, text.em ? 1.0 / 16 : 1,
                 most_height);
    return height;
}

double slope_of(const Text& text) {
    constexpr auto most = 60.0;
    check_number("slant", text.slant.in_degrees(), -most, most);
    if (text.slant == Angle{}) return 0;
    const auto direction = direction_of(text.slant);
    return direction.y / direction.x;
}

void check_language(const std::string& language) {
    constexpr std::size_t longest = 64;
    const auto is_of_tag = [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-';
    };
    if (language.size() <= longest && std::all_of(language.begin(), language.end(), is_of_tag)) return;
    throw Error{"text: language is no tag of BCP 47; allowed are letters, figures and hyphens, such as sr or sr-Latn"};
}

void check_text(const Text& text) {
    check_number("at.x", text.at.x, -max_coordinate, max_coordinate);
    check_number("at.y", text.at.y, -max_coordinate, max_coordinate);
    check_number("letter_spacing", text.letter_spacing, -most_height, most_height);
    constexpr auto most_line_spacing = 100.0;
    check_number("line_spacing", text.line_spacing, 0, most_line_spacing);
    if (text.wrap) check_number("wrap", *text.wrap, 1, max_coordinate);
    if (text.fit) {
        check_number("fit.box.width", text.fit->box.width, 1, max_coordinate);
        check_number("fit.box.height", text.fit->box.height, 1, max_coordinate);
        check_choice("text", "fit.by", text.fit->by, {"shrink", "cut"});
    }
    check_choice("text", "lines", text.lines, {"left", "center", "right", "justified"});
    check_choice("text", "direction", text.direction, {"by_words", "left_to_right", "right_to_left"});
    check_choice("text", "anchor", text.anchor,
                 {"top_left", "top", "top_right", "left", "center", "right", "bottom_left", "bottom", "bottom_right",
                  "baseline", "baseline_center", "baseline_right"});
    check_language(text.language);
}

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

// Letters that are drawn one by one begin at quarters of a pixel, so that few drawings of each are needed.
double letter_begin(double x, double height) noexcept {
    constexpr auto parts = 4;
    return height <= most_kept_height ? std::floor(x * parts + 0.5) / parts : x;
}

void place_rows(const Text& text, const TextWords& words, RowSetter& setter, double slant, Carets carets,
                LaidText& to) {
    const auto& face = *to.faces.front();
    auto widest = setter.width();
    if (text.wrap && text.lines == TextLines::justified) widest = std::max(widest, *text.wrap);
    const auto box = placed_box(text, widest, setter.height(), face.height(), face.is_fitted());
    to.layout.box = box;
    auto y = box.at.y + face.height() - 1;
    std::size_t count = 0;
    for (const auto& row : setter.rows()) count += row.glyphs.size();
    to.letters.reserve(count);
    for (auto& row : setter.rows()) {
        if (text.lines == TextLines::justified && !row.ends_paragraph && !row.is_cut) setter.widen(row, widest);
        const auto x = box.at.x + row_begin(text.lines, widest - row.width, face.is_fitted());
        TextLayout::Line line{
            .begin = words.byte(row.begin, text),
            .end = words.byte(row.end, text),
            .box = {.at = {.x = x, .y = y - face.height() + 1}, .size = {.width = row.width, .height = face.height()}},
            .baseline = y};
        // Letters begin at the left edge of a pixel and stand on the lower one.
        const auto left = x - 0.5;
        const auto base = y + 0.5;
        for (const auto& glyph : row.glyphs) {
            const auto origin =
                Vec{letter_begin(left + glyph.x + glyph.offset.x, face.height()), base + glyph.offset.y};
            to.letters.push_back({.face = glyph.face,
                                  .glyph = glyph.number,
                                  .at = words.byte(std::min(row.begin + glyph.cluster, row.shown), text),
                                  .place = {.at = origin, .along = {1, 0}, .slant = slant}});
        }
        if (carets == Carets::all) {
            for (const auto caret : setter.carets(row)) line.carets.push_back({.x = x + caret, .y = y});
        }
        to.layout.lines.push_back(std::move(line));
        to.line_ends.push_back(to.letters.size());
        y += setter.pitch();
    }
}

// Sizes the faces that letters are drawn by.
class Sizer {
  public:
    Sizer(const Text& text, const TextWords& words, double height) : text_{text}, words_{words}, height_{height} {
        if (words.is_uniform()) return;
        is_used_.resize(words.all_faces.size(), false);
        for (const auto face : words.faces) is_used_[face] = true;
    }

    // A breadth that is given goes down with the height; only faces that have a pen take it.
    [[nodiscard]] SizedFaces operator()(double height) const {
        const auto weight = text_.weight ? std::optional{*text_.weight * height / height_} : std::nullopt;
        SizedFaces sized;
        for (std::size_t i = 0; i < words_.all_faces.size(); ++i) {
            const auto& source = words_.all_faces[i].source();
            const auto& own = i == 0 || source.has_pen() ? weight : std::nullopt;
            sized.push_back(i == 0 || is_used_[i] ? source.sized(height, own) : nullptr);
        }
        return sized;
    }

  private:
    const Text& text_;
    const TextWords& words_;
    double height_;
    std::vector<bool> is_used_;
};

// Text in rows, as small as it has to be.
void lay_rows(const Text& text, const TextWords& words, double height, double slant, Carets carets, LaidText& to) {
    const Sizer sized{text, words, height};
    std::optional<RowSetter> setter;
    const auto lay_at = [&](double next) {
        setter.reset();
        to.faces = sized(next);
        setter.emplace(text, words, to.faces);
    };
    const auto is_over = [&] {
        return setter->width() > text.fit->box.width || setter->height() > text.fit->box.height;
    };
    lay_at(height);
    if (text.fit && text.fit->by == Overflow::cut) to.layout.left_out = setter->cut(text.fit->box);
    if (text.fit && text.fit->by == Overflow::shrink && is_over()) {
        // The greatest number of steps with which it has room.
        const auto& source = text.face.source();
        auto fits = std::ceil(source.least_height() / source.step());
        for (auto over = std::ceil(height / source.step()); over - fits > 1;) {
            const auto middle = std::floor((fits + over) / 2);
            lay_at(middle * source.step());
            (is_over() ? over : fits) = middle;
        }
        lay_at(std::min(height, fits * source.step()));
    }
    to.layout.is_over = text.fit && is_over();
    place_rows(text, words, *setter, slant, carets, to);
}

}  // namespace

void check_number(const char* field, double value, double least, double most) {
    if (value >= least && value <= most) return;
    throw Error{std::string{"text: "} + field + " is " + in_digits(value) + "; allowed is " + in_digits(least) +
                " to " + in_digits(most)};
}

void check_steps(const Lettering& letters) {
    constexpr std::size_t most = 1U << 23U;
    if (letters.outlines.steps().size() + letters.lines.steps().size() <= most) return;
    throw Error{"text: its letters have more than " + std::to_string(most) +
                " lines and curves; that many are allowed"};
}

LaidText laid(const Text& text, Carets carets) {
    check_text(text);
    const auto slant = slope_of(text);
    const auto height = height_of(text);
    auto words = words_of(text);
    LaidText result;
    if (text.along) {
        result.faces = Sizer{text, words, height}(height);
        RowSetter setter{text, words, result.faces};
        const auto& row = setter.rows().front();
        lay_along(*text.along, slant, words, row, setter.carets(row), result);
    } else {
        lay_rows(text, words, height, slant, carets, result);
    }
    result.all_faces = std::move(words.all_faces);
    result.layout.height = result.faces.front()->height();
    result.layout.weight = result.faces.front()->weight();
    return result;
}

}  // namespace coldbrick::inline v0::detail

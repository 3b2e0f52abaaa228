#include "text/rows.hpp"

#include "geometry/limits.hpp"
#include "text/unicode.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

constexpr char32_t ellipsis = 0x2026;

}  // namespace

// Of one face, script and direction.
struct RowSetter::Segment {
    std::size_t begin;
    std::size_t end;
    std::uint8_t level;
    std::uint8_t face;
    std::uint32_t script;
};

// How far a character brings the next one.
struct RowSetter::Advance {
    double whole = 0;
    double gap = 0;
    bool begins_cluster = false;
};

RowSetter::RowSetter(const Text& text, const TextWords& words, const SizedFaces& faces)
    : text_{text}, words_{words}, faces_{faces} {
    for (std::size_t face = words.all_faces.size(); face-- > 0;) {
        if (faces[face] == nullptr || !words.all_faces[face].source().has(ellipsis)) continue;
        ellipsis_face_ = static_cast<std::uint8_t>(face);
        has_ellipsis_ = true;
    }
    for (const auto& paragraph : words.paragraphs) add_paragraph(paragraph);
}

double RowSetter::pitch() const noexcept {
    const auto pitch = face().line_height() * text_.line_spacing;
    return face().is_fitted() ? std::floor(pitch + 0.5) : pitch;
}

double RowSetter::width() const noexcept {
    auto widest = 0.0;
    for (const auto& row : rows_) widest = std::max(widest, row.width);
    return widest;
}

double RowSetter::height() const noexcept { return face().height() + pitch() * static_cast<double>(rows_.size() - 1); }

void RowSetter::add_paragraph(const TextWords::Paragraph& paragraph) {
    auto begin = paragraph.begin;
    if (text_.wrap && paragraph.begin < paragraph.end) {
        Row all{.begin = paragraph.begin, .end = paragraph.end, .shown = paragraph.end, .ends_paragraph = true};
        shape(all);
        const auto advances = advances_of(all);
        while (begin < paragraph.end) {
            const auto end = row_end(begin, paragraph, advances);
            if (end == paragraph.end) break;
            add_row({.begin = begin, .end = end, .shown = end});
            begin = end;
        }
    }
    // Spaces at the end of a paragraph are there: a caret stands behind them.
    add_row({.begin = begin, .end = paragraph.end, .shown = paragraph.end, .ends_paragraph = true});
}

void RowSetter::add_row(Row row) {
    while (!row.ends_paragraph && row.shown > row.begin && is_space(words_.letters[row.shown - 1])) --row.shown;
    shape(row);
    rows_.push_back(std::move(row));
}

// Where a row from a character on is broken.
std::size_t RowSetter::row_end(std::size_t begin, const TextWords::Paragraph& paragraph,
                               const std::vector<Advance>& advances) const {
    const auto end = paragraph.end;
    const auto of = [&](std::size_t i) -> const Advance& { return advances[i - paragraph.begin]; };
    std::vector<std::size_t> places;  // where the next row may begin
    auto x = 0.0;
    auto broken = end;
    for (auto i = begin; i < end; ++i) {
        if (!of(i).begins_cluster) continue;
        if (i > begin && words_.begins_line[i]) places.push_back(i);
        const auto right = x + of(i).whole - of(i).gap;
        if (right > *text_.wrap && !is_space(words_.letters[i])) {
            if (places.empty() && i == begin) {
                auto widest = 0.0;
                for (const auto& advance : advances) widest = std::max(widest, advance.whole - advance.gap);
                throw Error{"text: wrap is " + in_digits(*text_.wrap) + "; allowed for these words is " +
                            in_digits(widest) + " or more, in which the widest letter has room"};
            }
            broken = places.empty() ? i : places.back();  // a word that is longer than a row
            break;
        }
        x += of(i).whole;
    }
    // Letters may come to be wider where a row ends, and a hyphen is seen only there.
    constexpr auto most_tries = 8;
    for (auto tries = 0; tries < most_tries && !places.empty() && broken < end; ++tries) {
        Row row{.begin = begin, .end = broken, .shown = broken};
        while (row.shown > begin && is_space(words_.letters[row.shown - 1])) --row.shown;
        shape(row);
        if (row.width <= *text_.wrap || places.front() >= broken) break;
        while (places.back() >= broken) places.pop_back();
        broken = places.back();
    }
    return broken;
}

std::size_t RowSetter::cut(const Size& box) {
    std::size_t left_out = 0;
    const auto most_rows = pitch() > 0 ? std::floor((box.height - face().height()) / pitch()) + 1 : 1e9;
    const auto count = static_cast<std::size_t>(std::max(1.0, most_rows));
    if (rows_.size() > count) {
        for (auto i = count; i < rows_.size(); ++i) left_out += rows_[i].end - rows_[i].begin;
        rows_.resize(count);
        left_out += shorten(rows_.back(), box.width, true);
    }
    for (auto& row : rows_) {
        if (row.width > box.width) left_out += shorten(row, box.width, false);
    }
    return left_out;
}

// Leaves out characters at the end so that the row has room with an ellipsis; says how many. If always, then also where
// it has room without.
std::size_t RowSetter::shorten(Row& row, double width, bool always) const {
    const auto before = row.shown;
    const auto advances = advances_of(row);
    // As many as would have room without the ellipsis, and then fewer until it has room too.
    auto x = 0.0;
    std::vector<std::size_t> ends;
    for (auto i = row.begin; i < row.shown && x <= width; ++i) {
        const auto& advance = advances[i - row.begin];
        if (advance.begins_cluster && i > row.begin && !is_space(words_.letters[i - 1])) ends.push_back(i);
        x += advance.whole;
    }
    if (always && x <= width && row.shown > row.begin && !is_space(words_.letters[row.shown - 1])) {
        ends.push_back(row.shown);
    }
    row.is_cut = true;
    while (true) {
        row.shown = ends.empty() ? row.begin : ends.back();
        shape(row);
        if (row.width <= width || ends.empty()) break;
        ends.pop_back();
    }
    return before - row.shown;
}

std::vector<RowSetter::Advance> RowSetter::advances_of(const Row& row) const {
    std::vector<Advance> advances(row.shown - row.begin);
    for (const auto& glyph : row.glyphs) {
        if (glyph.cluster >= advances.size()) continue;
        auto& advance = advances[glyph.cluster];
        advance.whole += glyph.advance;
        advance.gap = glyph.gap;
        advance.begins_cluster = true;
    }
    return advances;
}

void RowSetter::widen(Row& row, double width) const {
    const auto is_wide = [&](const RowGlyph& glyph) {
        return row.begin + glyph.cluster < row.shown && is_space(words_.letters[row.begin + glyph.cluster]);
    };
    const auto spaces = std::count_if(row.glyphs.begin(), row.glyphs.end(), is_wide);
    if (spaces == 0 || row.width >= width) return;
    const auto more = width - row.width;
    const auto share = [&](std::ptrdiff_t count) {
        const auto part = more * static_cast<double>(count) / static_cast<double>(spaces);
        return face().is_fitted() ? std::floor(part + 0.5) : part;
    };
    std::ptrdiff_t passed = 0;
    for (auto& glyph : row.glyphs) {
        if (!is_wide(glyph)) continue;
        glyph.advance += share(passed + 1) - share(passed);
        ++passed;
    }
    settle(row);
}

std::uint8_t RowSetter::level_of(const Row& row) const {
    const auto after = std::upper_bound(
        words_.paragraphs.begin(), words_.paragraphs.end(), row.begin,
        [](std::size_t begin, const TextWords::Paragraph& paragraph) { return begin < paragraph.begin; });
    return after == words_.paragraphs.begin() ? std::uint8_t{0} : std::prev(after)->level;
}

// What a row is shaped in, from left to right (rules L1 and L2 of UAX 9).
std::vector<RowSetter::Segment> RowSetter::segments(const Row& row, const std::u32string& letters) const {
    const auto ellipsis_is_own = !row.is_cut || ellipsis_face_ == 0;
    if (words_.is_uniform() && ellipsis_is_own) {
        return {{.begin = 0, .end = letters.size(), .level = 0, .face = 0, .script = 0}};
    }
    const auto base = level_of(row);
    const auto count = row.shown - row.begin;
    auto spaces = count;  // those at the end have the direction of the paragraph
    while (spaces > 0 && is_space(words_.letters[row.begin + spaces - 1])) --spaces;
    std::vector<Segment> all;
    auto deepest = base;
    for (std::size_t i = 0; i < letters.size(); ++i) {
        const auto at = row.begin + i;
        const auto is_own = i < count;
        const Segment next{.begin = i,
                           .end = i + 1,
                           .level = i < spaces ? words_.levels[at] : base,
                           .face = is_own ? words_.faces[at] : ellipsis_face_,
                           .script = is_own ? words_.scripts[at] : 0};
        auto* const last = all.empty() ? nullptr : &all.back();
        if (last != nullptr && last->level == next.level && last->face == next.face && last->script == next.script) {
            last->end = i + 1;
        } else {
            all.push_back(next);
        }
        deepest = std::max(deepest, next.level);
    }
    for (auto level = deepest; level >= 1; --level) {
        for (auto begin = all.begin(); begin != all.end();) {
            begin = std::find_if(begin, all.end(), [=](const Segment& of) { return of.level >= level; });
            const auto end = std::find_if(begin, all.end(), [=](const Segment& of) { return of.level < level; });
            std::reverse(begin, end);
            begin = end;
        }
    }
    return all;
}

// The letters of a row as they are seen in it.
std::u32string RowSetter::letters_of(const Row& row) const {
    std::u32string letters;
    spend_work(16 * (row.shown - row.begin));
    letters.reserve(row.shown - row.begin + 3);
    for (auto i = row.begin; i < row.shown; ++i) {
        const auto letter = words_.letters[i];
        const auto is_hidden = (letter < U' ' && letter != U'\t') || (letter == soft_hyphen && i + 1 < row.shown);
        constexpr char32_t nothing_there = 0x200b;
        letters += is_hidden ? nothing_there : letter == soft_hyphen ? U'-' : letter;
    }
    if (row.is_cut) letters += has_ellipsis_ ? std::u32string_view{&ellipsis, 1} : std::u32string_view{U"..."};
    return letters;
}

void RowSetter::shape(Row& row) const {
    const auto letters = letters_of(row);
    row.glyphs.clear();
    row.glyphs.reserve(letters.size());
    std::vector<Glyph> glyphs;
    glyphs.reserve(letters.size());
    for (const auto& segment : segments(row, letters)) {
        const auto& face = *faces_[segment.face];
        glyphs.clear();
        face.shape({.row = letters,
                    .begin = segment.begin,
                    .end = segment.end,
                    .is_right_to_left = segment.level % 2 != 0,
                    .script = segment.script,
                    .language = text_.language,
                    .is_spaced_out = text_.letter_spacing != 0},
                   glyphs);
        if (glyphs.empty()) continue;
        if (!row.glyphs.empty()) {
            auto& last = row.glyphs.back();
            last.gap = std::max(faces_[last.face]->outer_gap(), face.outer_gap());
            last.advance += last.gap;
        }
        for (const auto& [number, cluster, advance, gap, offset] : glyphs) {
            row.glyphs.push_back({.face = segment.face,
                                  .number = number,
                                  .cluster = cluster,
                                  .advance = advance,
                                  .gap = gap,
                                  .offset = offset,
                                  .is_leftward = segment.level % 2 != 0});
        }
    }
    for (std::size_t i = 0; i + 1 < row.glyphs.size(); ++i) {
        auto& glyph = row.glyphs[i];
        if (glyph.cluster == row.glyphs[i + 1].cluster) continue;
        glyph.advance += text_.letter_spacing;
        glyph.gap += text_.letter_spacing;
    }
    settle(row);
}

// Puts the glyphs in their places.
void RowSetter::settle(Row& row) const {
    auto x = 0.0;
    for (auto& glyph : row.glyphs) {
        glyph.x = x;
        x += glyph.advance;
    }
    row.width = x;
}

std::vector<double> RowSetter::carets(const Row& row) const {
    const auto count = row.shown - row.begin;
    const auto& glyphs = row.glyphs;
    spend_work(4 * count);
    std::vector<double> carets(count + 1, 0);
    std::vector<bool> begins(count + 1, false);
    begins[count] = true;
    for (const auto& glyph : glyphs) {
        if (glyph.cluster < count) begins[glyph.cluster] = true;
    }
    const auto is_base = [&](std::size_t i) { return !is_mark(words_.letters[row.begin + i]); };
    for (std::size_t first = 0; first < glyphs.size();) {
        const auto cluster = glyphs[first].cluster;
        auto last = first;
        while (last + 1 < glyphs.size() && glyphs[last + 1].cluster == cluster) ++last;
        const auto left = glyphs[first].x;
        const auto right = glyphs[last].x + glyphs[last].advance - glyphs[last].gap;
        const auto is_leftward = glyphs[first].is_leftward;
        first = last + 1;
        if (cluster >= count) continue;
        auto end = cluster + 1;
        while (!begins[end]) ++end;
        auto bases = 0.0;
        for (auto i = cluster; i < end; ++i) bases += is_base(i) ? 1 : 0;
        auto passed = 0.0;
        for (auto i = cluster; i <= end && i <= count; ++i) {
            const auto part = bases > 0 ? passed / bases : 0;
            const auto at = is_leftward ? right - part * (right - left) : left + part * (right - left);
            // Behind the last one only if none begins there.
            if (i < end || end == count) carets[i] = at;
            if (i < end) passed += is_base(i) ? 1 : 0;
        }
    }
    if (count > 0 && row.is_cut && glyphs.back().cluster >= count) {
        const auto mark =
            std::find_if(glyphs.begin(), glyphs.end(), [=](const RowGlyph& glyph) { return glyph.cluster >= count; });
        carets[count] = mark->x;
    }
    return carets;
}

}  // namespace coldbrick::inline v0::detail

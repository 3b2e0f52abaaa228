#include "text/scan_letters.hpp"

#include "text/glyph_cache.hpp"
#include "text/layout.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace coldbrick::inline v0::detail {

namespace {

constexpr double grid = 1024;

using Ready = GlyphCache::Ready;

// Letters that have been drawn, and where.
struct PlacedReady {
    Ready letters;
    Point at;

    [[nodiscard]] Box box() const noexcept {
        const auto& own = letters->bounds();
        return {.at = {.x = own.at.x + at.x, .y = own.at.y + at.y}, .size = own.size};
    }
};

// A letter's place: the pixel of its origin, and where in that.
struct Origin {
    Point pixel;
    int x;  // in 1024ths
    int y;
};
Origin origin_of(Vec at) noexcept {
    const auto whole = Vec{std::floor(at.x), std::floor(at.y)};
    const auto part = [](double rest) { return static_cast<int>(std::floor(rest * grid + 0.5)); };
    return {.pixel = {.x = static_cast<int>(whole.x), .y = static_cast<int>(whole.y)},
            .x = part(at.x - whole.x),
            .y = part(at.y - whole.y)};
}

// Draws letters from the origin of a group on.
class Drawer {
  public:
    Drawer(const LaidText& text, const Fill& how, double slant) : text_{text}, how_{how}, slant_{slant} {}

    // What letters of a line cover, from left to right, each piece apart from the others.
    std::vector<PlacedReady> line(std::span<const PlacedLetter> letters) {
        find_singles(letters);
        auto& singles = singles_;
        order_.clear();
        for (std::size_t i = 0; i < singles.size(); ++i) {
            if (!singles[i].letters->bounds().empty()) order_.push_back(i);
        }
        const auto left_of = [&](std::size_t i) { return singles[i].box().at.x; };
        const auto is_before = [&](std::size_t a, std::size_t b) { return left_of(a) < left_of(b); };
        if (!std::is_sorted(order_.begin(), order_.end(), is_before)) {
            std::stable_sort(order_.begin(), order_.end(), is_before);
        }
        std::vector<PlacedReady> pieces;
        pieces.reserve(order_.size());
        for (std::size_t begin = 0; begin < order_.size();) {
            auto end = begin + 1;
            auto right = singles[order_[begin]].box().last().x;
            while (end < order_.size() && left_of(order_[end]) <= right) {
                right = std::max(right, singles[order_[end]].box().last().x);
                ++end;
            }
            if (end == begin + 1) {
                pieces.push_back(std::move(singles[order_[begin]]));
            } else {
                pieces.push_back(together(letters, std::span{order_}.subspan(begin, end - begin)));
            }
            begin = end;
        }
        return pieces;
    }

  private:
    // Each letter by itself.
    void find_singles(std::span<const PlacedLetter> letters) {
        keys_.clear();
        wanted_.clear();
        singles_.clear();
        keys_.reserve(letters.size());
        wanted_.reserve(letters.size());
        singles_.reserve(letters.size());
        order_.reserve(letters.size());
        spend_work(8 * letters.size());
        for (const auto& letter : letters) {
            const auto origin = origin_of(letter.place.at);
            keys_.push_back(
                {.face = text_.faces[letter.face]->identity(), .glyph = letter.glyph, .x = origin.x, .y = origin.y});
            singles_.push_back({.letters = nullptr, .at = origin.pixel});
        }
        for (const auto& key : keys_) {
            wanted_.push_back({.key = {.letters = {&key, 1}, .slant = slant_, .edge = how_.edge}});
        }
        auto& store = GlyphCache::of_all();
        store.find_all(wanted_);
        for (std::size_t i = 0; i < letters.size(); ++i) {
            auto& found = wanted_[i].found;
            // It may have come since, with a letter before it.
            if (found == nullptr) found = store.find(wanted_[i].key);
            if (found == nullptr) {
                constexpr std::uint64_t steps_of_letter = 64;
                spend_work(steps_of_letter);
                Lettering one;
                draw(letters[i], singles_[i].at, one);
                found = std::make_shared<const ReadyLetters>(one, how_);
                store.keep(wanted_[i].key, found);
            }
            singles_[i].letters = std::move(found);
        }
    }

    // Letters that share columns: what they cover together.
    PlacedReady together(std::span<const PlacedLetter> letters, std::span<const std::size_t> which) {
        std::vector<std::size_t> in_order(which.begin(), which.end());
        std::sort(in_order.begin(), in_order.end());
        const auto base = origin_of(letters[in_order.front()].place.at).pixel;
        constexpr std::size_t most_kept = 64;
        const auto is_kept = in_order.size() <= most_kept;
        std::vector<LetterKey> keys;
        for (const auto i : is_kept ? std::span<const std::size_t>{in_order} : std::span<const std::size_t>{}) {
            const auto origin = origin_of(letters[i].place.at);
            const auto from_base = [](int pixel, int of_base, int rest) {
                return (pixel - of_base) * static_cast<int>(grid) + rest;
            };
            keys.push_back({.face = text_.faces[letters[i].face]->identity(),
                            .glyph = letters[i].glyph,
                            .x = from_base(origin.pixel.x, base.x, origin.x),
                            .y = from_base(origin.pixel.y, base.y, origin.y)});
        }
        const LettersKey key{.letters = keys, .slant = slant_, .edge = how_.edge};
        auto& store = GlyphCache::of_all();
        auto found = is_kept ? store.find(key) : nullptr;
        if (found == nullptr) {
            Lettering all;
            for (const auto i : in_order) {
                spend_work(16);
                draw(letters[i], base, all);
                check_steps(all);
            }
            found = std::make_shared<const ReadyLetters>(all, how_);
            if (is_kept) store.keep(key, found);
        }
        return {.letters = std::move(found), .at = base};
    }

    // Adds a letter, at its place from a pixel on.
    void draw(const PlacedLetter& letter, Point from, Lettering& to) const {
        const auto origin = origin_of(letter.place.at);
        auto place = letter.place;
        place.at = {origin.pixel.x - from.x + origin.x / grid, origin.pixel.y - from.y + origin.y / grid};
        text_.faces[letter.face]->draw(letter.glyph, place, to);
    }

    const LaidText& text_;
    const Fill& how_;
    double slant_;
    std::vector<LetterKey> keys_;
    std::vector<GlyphCache::Wanted> wanted_;
    std::vector<PlacedReady> singles_;
    std::vector<std::size_t> order_;
};

// Reports what pieces cover inside a clip, as spans or with their coverage.
class Reporter {
  public:
    Reporter(const Box& clip, bool is_smooth, const SpanSink& sink) noexcept
        : sink_{sink},
          left_{clip.at.x},
          right_{std::int64_t{clip.at.x} + clip.size.width},
          reports_cover_{is_smooth && sink.take_cover != nullptr} {}

    // A row of pieces that lie inside the clip as a whole, as spans.
    void add_whole(int y, std::span<const ReadyRows> pieces) {
        auto* next = spans_.data() + span_count_;
        auto* const full = spans_.data() + spans_.size();
        auto reached = std::numeric_limits<int>::min();  // the column behind the last span
        for (const auto& [parts, rows, x, top, height] : pieces) {
            const auto row = static_cast<unsigned>(y - top);
            if (row >= height) continue;
            for (const auto *part = parts + rows[row], *const end = parts + rows[row + 1]; part != end; ++part) {
                const auto begin = part->x + x;
                if (begin == reached) {
                    next[-1].length += part->length;
                } else {
                    if (next == full) next = emptied();
                    *next++ = {.y = y, .x = begin, .length = part->length};
                }
                reached = begin + part->length;
            }
        }
        span_count_ = static_cast<std::size_t>(next - spans_.data());
    }
    // The box around them.
    void take_box(const Box& box) noexcept {
        least_x_ = std::min(least_x_, box.at.x);
        most_x_ = std::max(most_x_, box.last().x + 1);
        least_y_ = std::min(least_y_, box.at.y);
        last_y_ = std::max(last_y_, box.last().y);
    }
    [[nodiscard]] bool reports_cover() const noexcept { return reports_cover_; }

    void add_row(int y, const PlacedReady& piece) {
        const auto& letters = *piece.letters;
        for (const auto& part : letters.row(y - piece.at.y - letters.bounds().at.y)) {
            const auto begin = part.x + piece.at.x;
            const auto from = std::max(begin, left_);
            const auto to = static_cast<int>(std::min<std::int64_t>(std::int64_t{begin} + part.length, right_));
            if (from >= to) continue;
            least_y_ = std::min(least_y_, y);
            last_y_ = std::max(last_y_, y);
            least_x_ = std::min(least_x_, from);
            most_x_ = std::max(most_x_, to);
            if (reports_cover_) {
                const auto* const each = letters.each(part);
                if (cover_count_ == covers_.size()) flush();
                covers_[cover_count_++] = {.y = y,
                                           .x = from,
                                           .length = to - from,
                                           .each = each == nullptr ? nullptr : each + (from - begin),
                                           .all = part.all};
            } else {
                add_span(y, from, to);
            }
        }
    }

    [[nodiscard]] Box finish() {
        flush();
        if (most_x_ < least_x_) return {};
        return Box::between({.from = {least_x_, least_y_}, .to = {most_x_ - 1, last_y_}});
    }

  private:
    void add_span(int y, int from, int to) {
        if (span_count_ > 0) {
            auto& last = spans_[span_count_ - 1];
            if (last.y == y && last.x + last.length == from) {
                last.length = to - last.x;
                return;
            }
        }
        if (span_count_ == spans_.size()) span_count_ = static_cast<std::size_t>(emptied() - spans_.data());
        spans_[span_count_++] = {.y = y, .x = from, .length = to - from};
    }

    // Reports all spans but the last one, which may go on; gives the place of the next.
    Span* emptied() {
        const auto last = spans_.back();
        span_count_ = spans_.size() - 1;
        flush();
        spans_.front() = last;
        return spans_.data() + 1;
    }

    void flush() {
        if (span_count_ > 0) sink_.take(sink_.context, {spans_.data(), span_count_});
        if (cover_count_ > 0) sink_.take_cover(sink_.context, {covers_.data(), cover_count_});
        span_count_ = 0;
        cover_count_ = 0;
    }

    static constexpr std::size_t batch = 256;
    SpanSink sink_;
    int left_;
    std::int64_t right_;
    bool reports_cover_;
    std::array<Span, batch> spans_;
    std::array<CoverSpan, batch> covers_;
    std::size_t span_count_ = 0;
    std::size_t cover_count_ = 0;
    int least_x_ = std::numeric_limits<int>::max();
    int most_x_ = std::numeric_limits<int>::min();
    int least_y_ = std::numeric_limits<int>::max();
    int last_y_ = std::numeric_limits<int>::min();
};

// Pieces of a line, and the rows that they reach over.
struct ReadyLine {
    std::vector<PlacedReady> pieces;
    int top = std::numeric_limits<int>::max();
    int bottom = std::numeric_limits<int>::min();  // the last one

    [[nodiscard]] bool is_inside(const Box& clip) const noexcept {
        return std::all_of(pieces.begin(), pieces.end(),
                           [&](const PlacedReady& piece) { return intersection(piece.box(), clip) == piece.box(); });
    }
};

void report_whole(const ReadyLine& line, Reporter& reporter) {
    std::vector<ReadyRows> rows;
    rows.reserve(line.pieces.size());
    for (const auto& piece : line.pieces) {
        reporter.take_box(piece.box());
        rows.push_back(piece.letters->rows_at(piece.at));
    }
    for (auto y = line.top; y <= line.bottom; ++y) reporter.add_whole(y, rows);
}

// Nothing where lines touch.
std::optional<std::vector<ReadyLine>> ready_lines(const LaidText& laid, const Fill& how, double slant, Point moved) {
    Drawer drawer{laid, how, slant};
    std::vector<ReadyLine> lines;
    auto bottom = std::numeric_limits<int>::min();
    std::size_t begin = 0;
    for (const auto end : laid.line_ends) {
        ReadyLine line{.pieces = drawer.line(std::span{laid.letters}.subspan(begin, end - begin))};
        begin = end;
        for (auto& piece : line.pieces) {
            piece.at = {.x = piece.at.x + moved.x, .y = piece.at.y + moved.y};
            const auto box = piece.box();
            line.top = std::min(line.top, box.at.y);
            line.bottom = std::max(line.bottom, box.last().y);
        }
        if (line.pieces.empty()) continue;
        if (line.top <= bottom) return std::nullopt;
        bottom = line.bottom;
        lines.push_back(std::move(line));
    }
    return lines;
}

// Whether letters lie where whole numbers are far from their limits.
bool is_near(const LaidText& laid, Point moved) noexcept {
    constexpr auto far = 0x1p29;
    return std::abs(moved.x) < far && std::abs(moved.y) < far &&
           std::all_of(laid.letters.begin(), laid.letters.end(), [](const PlacedLetter& letter) {
               return std::abs(letter.place.at.x) < far && std::abs(letter.place.at.y) < far;
           });
}

}  // namespace

std::optional<Box> scan_letters(const Text& text, const Fill& how, Position by, const Box& clip, const SpanSink& sink) {
    if (text.along) return std::nullopt;
    const auto whole = Position{std::floor(by.x), std::floor(by.y)};
    if (how.edge == Edge::crisp && whole != by) return std::nullopt;
    auto laid = detail::laid(text);
    const auto moved = Point{.x = static_cast<int>(whole.x), .y = static_cast<int>(whole.y)};
    const auto in_quarters = [](double rest) { return std::floor(rest * 4 + 0.5) / 4; };
    const auto rest = Vec{in_quarters(by.x - whole.x), in_quarters(by.y - whole.y)};
    for (auto& letter : laid.letters) letter.place.at = letter.place.at + rest;
    if (laid.layout.height > most_kept_height || !is_near(laid, moved)) return std::nullopt;
    const auto slant = laid.letters.empty() ? 0.0 : laid.letters.front().place.slant;
    const auto lines = ready_lines(laid, how, slant, moved);
    if (!lines) return std::nullopt;
    Reporter reporter{clip, how.edge == Edge::smooth, sink};
    for (const auto& line : *lines) {
        if (!reporter.reports_cover() && line.is_inside(clip)) {
            report_whole(line, reporter);
            continue;
        }
        const auto first = std::max(line.top, clip.at.y);
        const auto end = std::min(std::int64_t{line.bottom} + 1, std::int64_t{clip.at.y} + clip.size.height);
        for (auto y = first; y < end; ++y) {
            for (const auto& piece : line.pieces) {
                const auto box = piece.box();
                if (y >= box.at.y && y <= box.last().y) reporter.add_row(y, piece);
            }
        }
    }
    return reporter.finish();
}

}  // namespace coldbrick::inline v0::detail

// Words along a path.
#include "geometry/limits.hpp"
#include "text/layout.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <span>

namespace coldbrick::inline v0 {

namespace detail {

namespace {

// The straight pieces of a path, by how far along they begin.
class MeasuredPath {
  public:
    explicit MeasuredPath(const Path& path) {
        const auto lists = flattened(path);
        for (const auto& list : lists) {
            for (std::size_t i = 0; i + 1 < list.size(); ++i) add(list[i], list[i + 1]);
        }
        if (pieces_.empty()) throw Error{"text: the path that the words follow has no length"};
    }

    [[nodiscard]] double length() const noexcept { return length_; }

    struct Place {
        Vec at;
        Vec along;
    };
    [[nodiscard]] Place operator()(double distance) const noexcept {
        auto after = std::upper_bound(pieces_.begin(), pieces_.end(), distance,
                                      [](double value, const Piece& piece) { return value < piece.begin; });
        if (after != pieces_.begin()) --after;
        return {after->from + after->along * (distance - after->begin), after->along};
    }

  private:
    struct Piece {
        double begin;
        Vec from;
        Vec along;
    };

    void add(Position from, Position to) {
        const auto step = Vec{to.x - from.x, to.y - from.y};
        const auto step_length = detail::length(step);
        if (!(step_length > 0)) return;
        pieces_.push_back({.begin = length_, .from = {from.x, from.y}, .along = step * (1 / step_length)});
        length_ += step_length;
    }

    std::vector<Piece> pieces_;
    double length_ = 0;
};

void check(const TextPath& along) {
    check_choice("text", "along.place", along.place, {"start", "center", "end"});
    check_choice("text", "along.side", along.side, {"left", "right"});
    if (std::abs(along.offset) <= max_coordinate) return;
    throw Error{"text: along.offset is " + in_digits(along.offset) + "; allowed is " + std::to_string(-max_coordinate) +
                " to " + std::to_string(max_coordinate)};
}

double begin_of(TextPath::Place place, double room) noexcept {
    return place == TextPath::Place::center ? room / 2 : place == TextPath::Place::end ? room : 0;
}

// Adds what is drawn as one, the first of it at a place.
void add_cluster(std::span<const RowGlyph> glyphs, std::size_t byte, const LetterPlace& first, LaidText& text) {
    for (const auto& glyph : glyphs) {
        const auto own = Vec{glyph.x - glyphs.front().x + glyph.offset.x, glyph.offset.y};
        auto place = first;
        place.at = first.at + turned(own, first.along);
        text.letters.push_back({.face = glyph.face, .glyph = glyph.number, .at = byte, .place = place});
    }
}

// Of each character, whether something that is drawn begins with it.
std::vector<bool> cluster_begins(const std::vector<RowGlyph>& glyphs, std::size_t count) {
    std::vector<bool> begins(count, false);
    for (const auto& glyph : glyphs) begins[glyph.cluster] = true;
    return begins;
}

// Those before and behind characters that have room.
std::vector<double> carets_with_room(const std::vector<double>& carets, const std::vector<bool>& is_out) {
    std::vector<double> kept;
    for (std::size_t i = 0; i < carets.size(); ++i) {
        const auto has_none = i < is_out.size() ? is_out[i] : i > 0 && is_out[i - 1];
        if (!has_none) kept.push_back(carets[i]);
    }
    return kept;
}

}  // namespace

void lay_along(const TextPath& along, double slant, const TextWords& words, const Row& row,
               const std::vector<double>& carets, LaidText& text) {
    check(along);
    const MeasuredPath measured{along.path};
    const auto begin = along.offset + begin_of(along.place, measured.length() - row.width);
    const auto is_right = along.side == TextPath::Side::right;
    // On the other side the letters hang: they are turned round, and go against the path.
    const auto at = [&](double distance) {
        auto place = measured(is_right ? measured.length() - distance : distance);
        if (is_right) place.along = -place.along;
        return place;
    };
    TextLayout::Line line{
        .begin = 0, .end = words.characters.empty() ? 0 : words.characters.back().at, .box = {}, .baseline = 0};
    const auto& glyphs = row.glyphs;
    const auto begins = cluster_begins(glyphs, words.letters.size());
    // Of each character, whether it has no room.
    std::vector<bool> is_out(words.letters.size(), false);
    for (std::size_t first = 0; first < glyphs.size();) {
        // What is of one character, or drawn as one, is turned together.
        spend_work(16);
        const auto cluster = glyphs[first].cluster;
        auto end = first + 1;
        while (end < glyphs.size() && glyphs[end].cluster == cluster) ++end;
        const auto left = glyphs[first].x;
        const auto right = glyphs[end - 1].x + glyphs[end - 1].advance - glyphs[end - 1].gap;
        const auto middle = begin + (left + right) / 2;
        // What does not fit is left out.
        constexpr auto hardly = 1e-6;
        if (begin + left < -hardly || begin + right > measured.length() + hardly) {
            is_out[cluster] = true;
            for (auto i = cluster + 1; i < is_out.size() && !begins[i]; ++i) is_out[i] = true;
        } else {
            const auto [center, direction] = at(middle);
            const auto origin = center - direction * ((right - left) / 2);
            add_cluster(std::span{glyphs}.subspan(first, end - first), words.characters[cluster].at,
                        {.at = origin, .along = direction, .slant = slant}, text);
        }
        first = end;
    }
    for (const auto caret : carets_with_room(carets, is_out)) {
        const auto [x, y] = at(std::clamp(begin + caret, 0.0, measured.length())).at;
        line.carets.push_back({.x = x, .y = y});
    }
    text.layout.left_out = static_cast<std::size_t>(std::count(is_out.begin(), is_out.end(), true));
    text.layout.lines.push_back(std::move(line));
}

}  // namespace detail

TextPath TextPath::along(const subpixel::Line& line) {
    TextPath result;
    result.path.move(line.from).line(line.to);
    return result;
}

TextPath TextPath::along(const subpixel::Circle& circle) {
    return along(subpixel::Arc{.of = circle, .sweep = {.from = Angle::degrees(180), .by = Angle::degrees(360)}});
}

TextPath TextPath::along(const subpixel::Arc& arc) {
    const auto& box = arc.of.box();
    // The line is that in the middle of the outline of width 1.
    const auto center = detail::Vec{box.at.x + (box.size.width - 1) / 2, box.at.y + (box.size.height - 1) / 2};
    const auto radii = detail::Vec{(box.size.width - 1) / 2, (box.size.height - 1) / 2};
    const auto turn = detail::direction_of(arc.of.turn());
    const auto rim = [&](double degrees) -> Position {
        const auto direction = detail::direction_of(Angle::degrees(degrees));
        const auto own = detail::turned(direction, {turn.x, -turn.y});
        const auto reach = detail::length({own.x / radii.x, own.y / radii.y});
        const auto [x, y] = center + direction * (1 / reach);
        return {.x = x, .y = y};
    };
    if (!(radii.x > 0 && radii.y > 0)) throw Error{"text: the arc that the words follow has no length"};
    const auto by = std::clamp(arc.sweep.by.in_degrees(), -360.0, 360.0);
    const auto from = arc.sweep.from.in_degrees();
    TextPath result;
    result.path.move(rim(from));
    // In parts of less than half a turn, of which each is clear.
    constexpr auto parts = 4;
    for (int i = 1; i <= parts; ++i) {
        result.path.arc({.radii = {.x = radii.x, .y = radii.y},
                         .turned = arc.of.turn(),
                         .large = false,
                         .clockwise = by > 0,
                         .to = rim(from + by * i / parts)});
    }
    return result;
}

}  // namespace coldbrick::inline v0

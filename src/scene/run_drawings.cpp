// Statements that draw.
#include "scene/inks.hpp"
#include "scene/run.hpp"
#include "scene/shape_statements.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <optional>
#include <string>
#include <utility>
#include <variant>

namespace coldbrick::inline v0::detail {

namespace {

// What a transform takes into a box, as a box around it.
Box seen_before(const Transform& by, const Box& box) {
    if (by.is_identity()) return box;
    const auto back = by.inverse();
    constexpr auto far = double{max_coordinate} / 4;
    auto least = Position{far, far};
    auto most = Position{-far, -far};
    for (const auto x : {double{1} * box.at.x - 1, double{1} * box.last().x + 1}) {
        for (const auto y : {double{1} * box.at.y - 1, double{1} * box.last().y + 1}) {
            const auto before = back({x, y});
            least = {std::min(least.x, before.x), std::min(least.y, before.y)};
            most = {std::max(most.x, before.x), std::max(most.y, before.y)};
        }
    }
    const auto pixel = [=](double value) { return static_cast<int>(std::clamp(value, -far, far)); };
    return Box::between(
        {.from = {pixel(least.x - 1), pixel(least.y - 1)}, .to = {pixel(most.x + 1), pixel(most.y + 1)}});
}

}  // namespace

PartsOf Runner::parts_of(const Node& node, const Transform& by) {
    return {.parts = std::span{program_.regions}.subspan(node.first_region, node.region_count),
            .of = arguments_of(0, 0, node),
            .by = by,
            .values = values_,
            .faults = faults_};
}

std::optional<Drawn> Runner::region_figure(const Node& node, Arguments& given) {
    // Only what is near the sheet can show: as far as a stroke may reach, from where a transform takes it.
    const auto is_stroked = node.verb.text == "stroke";
    const auto how = is_stroked ? read_stroke(given) : Stroke{};
    if (!how) return std::nullopt;
    const auto reach = std::min(static_cast<int>(how->width.pixels()), max_coordinate / 4) + 4;
    const auto seen = seen_before(view().by, drawn_box());
    const auto near = Box{.at = {.x = seen.at.x - reach, .y = seen.at.y - reach},
                          .size = {.width = seen.size.width + 2 * reach, .height = seen.size.height + 2 * reach}};
    const auto unmoved = Transform{};
    auto region = read_region(parts_of(node, unmoved), near);
    if (!region) return std::nullopt;
    if (is_stroked) return Figure{stroked(std::move(*region), *how)};
    return Figure{filled(std::move(*region), Fill{.edge = given.edge().value_or(Edge::crisp)})};
}

void Runner::read_drawn(const Node& node, Arguments& given, std::optional<Drawn>& to) {
    try {
        if (node.shape != nullptr) {
            read_figure(*node.shape, node.kind->verb == "stroke", given, to);
        } else if (node.region_count > 0) {
            to = region_figure(node, given);
        } else {
            to = node.kind->verb == "mark" ? read_mark(given) : read_flood(given);
        }
    } catch (const Error& error) {
        to.reset();
        faults_.add(node.word.text.empty() ? node.verb : node.word, error.what());
    }
}

void Runner::drawing(const Node& node) {
    evaluate(node);
    auto given = arguments(node);
    const auto before = faults_.count();
    auto figure = std::optional<Drawn>{};
    read_drawn(node, given, figure);
    if (node.kind->verb == "measure") {
        if (figure) remember(node, *figure);
        return;
    }
    const auto ink = read_ink(given);
    if (ink && ink->color() == nullptr) check_entry(*ink, given);
    if (!figure) return;
    if (node.word.text == "text") remark_overhang(node, std::get<Figure>(*figure));
    if (!ink || faults_.count() != before) return check_call(node, std::move(*figure));
    if (node.slot != no_slot || program_.uses_last) remember(node, *figure);
    add_call(node, std::move(*figure), *ink);
}

// What of a text is beyond the edges of the sheet.
void Runner::remark_overhang(const Node& node, const Figure& text) {
    const auto sheet = drawn_box();
    const auto around = [&]() -> Box {
        try {
            return bounds(text.then(view().by));
        } catch (const Error&) {
            return {};  // reported where it is drawn
        }
    }();
    if (around.empty() || intersection(around, sheet).empty() || intersection(around, sheet) == around) return;
    std::string sides;
    const auto add = [&](int by, std::string_view side) {
        if (by > 0) sides += (sides.empty() ? "" : ", ") + std::string{side} + " by " + std::to_string(by);
    };
    add(sheet.at.x - around.at.x, "on the left");
    add(sheet.at.y - around.at.y, "at the top");
    add(around.last().x - sheet.last().x, "on the right");
    add(around.last().y - sheet.last().y, "at the bottom");
    faults_.remark(node.word, "this text hangs over the sheet: " + sides + " pixels");
}

std::uint64_t Runner::tag_of(const Node& node) {
    auto& number = kinds_[static_cast<std::size_t>(&node - program_.nodes.data())];
    if (number == 0xffffffffU) {
        const auto words = node.words();
        const auto found = std::find(scene_.kinds.begin(), scene_.kinds.end(), words);
        number = static_cast<std::uint32_t>(found - scene_.kinds.begin());
        if (found == scene_.kinds.end()) scene_.kinds.push_back(words);
    }
    return number | static_cast<std::uint64_t>(node.file) << 32U;
}

namespace {

// Draws through a view.
void record(const DrawingView& view, std::uint64_t tag, const Transform& by, Drawn&& what, const Ink& ink,
            const SourcePlace& where) {
    if (auto* const figure = std::get_if<Figure>(&what)) {
        view.recorder().tagged(tag).figure(std::move(*figure), ink, where);
    } else if (const auto* const flood = std::get_if<FloodFrom>(&what)) {
        view.recorder().tagged(tag).flood(*flood, ink, where);
    } else {
        // A pixel stays one, wherever it is moved.
        const auto at = place_pixel(std::get<Mark>(what).at, by);
        const auto unmoved = Box{.at = at, .size = {.width = 1, .height = 1}};
        view.unmoved().recorder().tagged(tag).figure(unmoved, ink, where);
    }
}

SourcePlace source_place(const Node& node) {
    return {.file = "", .line = node.verb.place.line, .column = node.verb.place.column};
}

}  // namespace

void Runner::add_call(const Node& node, Drawn&& what, const Ink& ink) {
    const auto* const figure = std::get_if<Figure>(&what);
    const auto bytes = bytes_of_call + (figure != nullptr ? figure->bytes_besides() : 0);
    if (drawn().drawing.size() >= budget_.limits().calls) {
        return budget_.refuse(
            node.verb,
            "the scene makes more than the " + std::to_string(budget_.limits().calls) + " drawing calls that it may",
            "calls");
    }
    if (!budget_.spend(bytes, node.verb)) return;
    try {
        record(view().view, tag_of(node), view().by, std::move(what), ink, source_place(node));
    } catch (const Error& error) {
        faults_.add(node.word.text.empty() ? node.verb : node.word, error.what());
    }
}

// Whether it could be drawn, where its ink cannot be read.
void Runner::check_call(const Node& node, Drawn&& what) {
    Drawing nowhere;
    const auto elsewhere = nowhere.under(view().by);
    try {
        record(elsewhere, 0, view().by, std::move(what), Color{}, source_place(node));
    } catch (const Error& error) {
        faults_.add(node.word.text.empty() ? node.verb : node.word, error.what());
    }
}

// Keeps where something was drawn, in the coordinates that it was drawn in.
void Runner::remember(const Node& node, const Drawn& what) {
    if (std::holds_alternative<FloodFrom>(what)) return;  // it is not known how far it goes
    const auto* const mark = std::get_if<Mark>(&what);
    try {
        remember_box(node, mark != nullptr ? Box{.at = mark->at, .size = {1, 1}} : bounds(std::get<Figure>(what)));
    } catch (const Error& error) {
        faults_.add(node.word.text.empty() ? node.verb : node.word, error.what());
    }
}

void Runner::remember_box(const Node& node, const Box& box) {
    if (node.slot != no_slot) {
        memory_.boxes.push_back(box);
        slot(node, node.slot) = Value::kept(ValueKind::box, memory_.boxes.size() - 1);
    }
    if (!program_.uses_last || node.verb.text == "measure") return;
    memory_.boxes.front() = box;
    memory_.slot(0, last_slot) = Value::kept(ValueKind::box, 0);
    drawn_ = enclosing(drawn_, box);
}

void Runner::paste(const Node& node) {
    evaluate(node);
    auto given = arguments(node);
    const auto before = faults_.count();
    try {
        const auto file = values_.text(this->given(node, 0));
        const auto pasted =
            file ? read_paste(program_.values[node.first_value].word, *file, pictures_, given) : std::nullopt;
        const auto compositing = read_compositing(given);
        if (!pasted || !compositing || faults_.count() != before) return;
        if (!budget_.spend(bytes_of_call + bytes_of_paste, node.verb)) return;
        view()
            .view.tagged(tag_of(node))
            .recorder()
            .paste(pasted->picture, Paste{.at = pasted->at, .compositing = *compositing}, pasted->by,
                   source_place(node));
        if (node.slot == no_slot && !program_.uses_last) return;
        const auto upright = Box{.at = pasted->at, .size = pasted->picture->surface.window.size};
        remember_box(node, pasted->by.is_identity()
                               ? upright
                               : bounds(transformed(filled(upright, {.edge = Edge::smooth}), pasted->by)));
    } catch (const Error& error) {
        faults_.add(node.verb, error.what());
    }
}

// A palette's entry is an ink only where there is a palette that has it.
void Runner::check_entry(const Ink& ink, Arguments& given) {
    const auto* const entry = std::get_if<PaletteEntry>(&ink.of());
    if (entry == nullptr || has_faulty_palette_) return;
    const auto& of = drawn().palette;
    if (!of) {
        faults_.add(given.word("ink"), "the sheet has no palette", "name one after the sheet, as in: palette quay");
    } else if (entry->number >= static_cast<int>(of->size())) {
        faults_.add(given.word("ink"), "the palette has no entry " + std::to_string(entry->number),
                    "allowed is 0 to " + std::to_string(of->size() - 1));
    }
}

}  // namespace coldbrick::inline v0::detail

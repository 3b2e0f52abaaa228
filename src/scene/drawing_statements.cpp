// The statements that draw or measure.
#include "scene/inks.hpp"
#include "scene/scene_run.hpp"
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

std::optional<Drawn> region_figure(SceneRun& run, const Node& node, Arguments& given) {
    // Only what is near the sheet can show: as far as a stroke may reach, from where a transform takes it.
    const auto is_stroked = node.kind->verb == Verb::stroke;
    const auto how = is_stroked ? read_stroke(given) : Stroke{};
    if (!how) return std::nullopt;
    const auto reach = std::min(static_cast<int>(how->width.pixels()), max_coordinate / 4) + 4;
    const auto seen = seen_before(run.view().by, run.target_box());
    const auto near = Box{.at = {.x = seen.at.x - reach, .y = seen.at.y - reach},
                          .size = {.width = seen.size.width + 2 * reach, .height = seen.size.height + 2 * reach}};
    const auto unmoved = Transform{};
    auto region = read_region(run.parts_of(node, unmoved), near);
    if (!region) return std::nullopt;
    if (is_stroked) return Figure{stroked(std::move(*region), *how)};
    return Figure{filled(std::move(*region), Fill{.edge = given.edge().value_or(Edge::crisp)})};
}

void read_drawn(SceneRun& run, const Node& node, Arguments& given, std::optional<Drawn>& to) {
    try {
        if (node.shape != nullptr) {
            read_figure(*node.shape, node.kind->verb == Verb::stroke, given, to);
        } else if (node.region_count > 0) {
            to = region_figure(run, node, given);
        } else {
            to = node.kind->verb == Verb::mark ? read_mark(given) : read_flood(given);
        }
    } catch (const Error& error) {
        to.reset();
        run.faults.add(node.word.text.empty() ? node.verb : node.word, error.what());
    }
}

std::uint64_t tag_of(SceneRun& run, const Node& node) {
    auto& number = run.kinds[static_cast<std::size_t>(&node - run.program.nodes.data())];
    if (number == no_kind) {
        const auto words = node.words();
        const auto found = std::find(run.scene.kinds.begin(), run.scene.kinds.end(), words);
        number = static_cast<std::uint32_t>(found - run.scene.kinds.begin());
        if (found == run.scene.kinds.end()) run.scene.kinds.push_back(words);
    }
    return number | static_cast<std::uint64_t>(node.file) << 32U;
}

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

// A palette's entry is an ink only where there is a palette that has it.
void check_entry(SceneRun& run, const Ink& ink, Arguments& given) {
    const auto* const entry = std::get_if<PaletteEntry>(&ink.of());
    if (entry == nullptr || run.has_faulty_palette) return;
    const auto& of = run.target().palette;
    if (!of) {
        run.faults.add(given.word("ink"), "the sheet has no palette", "name one after the sheet, as in: palette quay");
    } else if (entry->number >= static_cast<int>(of->size())) {
        run.faults.add(given.word("ink"), "the palette has no entry " + std::to_string(entry->number),
                       "allowed is 0 to " + std::to_string(of->size() - 1));
    }
}

// What of a text is beyond the edges of the sheet.
void remark_overhang(SceneRun& run, const Node& node, const Figure& text) {
    const auto sheet = run.target_box();
    const auto around = [&]() -> Box {
        try {
            return bounds(text.then(run.view().by));
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
    run.faults.remark(node.word, "this text hangs over the sheet: " + sides + " pixels");
}

void add_call(SceneRun& run, const Node& node, Drawn&& what, const Ink& ink) {
    const auto* const figure = std::get_if<Figure>(&what);
    const auto bytes = bytes_of_call + (figure != nullptr ? figure->bytes_besides() : 0);
    if (run.target().drawing.size() >= run.budget.limits().calls) {
        return run.budget.refuse(
            node.verb,
            "the scene makes more than the " + std::to_string(run.budget.limits().calls) + " drawing calls that it may",
            "calls");
    }
    if (!run.budget.spend(bytes, node.verb)) return;
    try {
        record(run.view().view, tag_of(run, node), run.view().by, std::move(what), ink, source_place(node));
    } catch (const Error& error) {
        run.faults.add(node.word.text.empty() ? node.verb : node.word, error.what());
    }
}

// Whether it could be drawn, where its ink cannot be read.
void check_call(SceneRun& run, const Node& node, Drawn&& what) {
    Drawing nowhere;
    const auto elsewhere = nowhere.under(run.view().by);
    try {
        record(elsewhere, 0, run.view().by, std::move(what), Color{}, source_place(node));
    } catch (const Error& error) {
        run.faults.add(node.word.text.empty() ? node.verb : node.word, error.what());
    }
}

void remember_box(SceneRun& run, const Node& node, const Box& box) {
    if (node.slot != no_slot) {
        run.memory.boxes.push_back(box);
        run.slot(node, node.slot) = Value::kept(ValueKind::box, run.memory.boxes.size() - 1);
    }
    if (!run.program.uses_last || node.kind->verb == Verb::measure) return;
    run.memory.boxes.front() = box;
    run.memory.slot(0, last_slot) = Value::kept(ValueKind::box, 0);
    run.drawn_so_far = enclosing(run.drawn_so_far, box);
}

// Keeps where something was drawn, in the coordinates that it was drawn in.
void remember(SceneRun& run, const Node& node, const Drawn& what) {
    if (std::holds_alternative<FloodFrom>(what)) return;  // it is not known how far it goes
    const auto* const mark = std::get_if<Mark>(&what);
    try {
        remember_box(run, node, mark != nullptr ? Box{.at = mark->at, .size = {1, 1}} : bounds(std::get<Figure>(what)));
    } catch (const Error& error) {
        run.faults.add(node.word.text.empty() ? node.verb : node.word, error.what());
    }
}

void run_drawing(SceneRun& run, const Node& node) {
    run.evaluate(node);
    auto given = run.arguments(node);
    const auto before = run.faults.count();
    auto figure = std::optional<Drawn>{};
    read_drawn(run, node, given, figure);
    if (node.kind->verb == Verb::measure) {
        if (figure) remember(run, node, *figure);
        return;
    }
    const auto ink = read_ink(given);
    if (ink && ink->color() == nullptr) check_entry(run, *ink, given);
    if (!figure) return;
    if (node.word.text == "text") remark_overhang(run, node, std::get<Figure>(*figure));
    if (!ink || run.faults.count() != before) return check_call(run, node, std::move(*figure));
    if (node.slot != no_slot || run.program.uses_last) remember(run, node, *figure);
    add_call(run, node, std::move(*figure), *ink);
}

void run_paste(SceneRun& run, const Node& node) {
    run.evaluate(node);
    auto given = run.arguments(node);
    const auto before = run.faults.count();
    try {
        const auto file = run.values.text(run.given(node, 0));
        const auto pasted =
            file ? read_paste(run.program.values[node.first_value].word, *file, run.pictures, given) : std::nullopt;
        const auto compositing = read_compositing(given);
        if (!pasted || !compositing || run.faults.count() != before) return;
        if (!run.budget.spend(bytes_of_call + bytes_of_paste, node.verb)) return;
        run.view()
            .view.tagged(tag_of(run, node))
            .recorder()
            .paste(pasted->picture, Paste{.at = pasted->at, .compositing = *compositing}, pasted->by,
                   source_place(node));
        if (node.slot == no_slot && !run.program.uses_last) return;
        const auto upright = Box{.at = pasted->at, .size = pasted->picture->surface.window.size};
        remember_box(run, node,
                     pasted->by.is_identity()
                         ? upright
                         : bounds(transformed(filled(upright, {.edge = Edge::smooth}), pasted->by)));
    } catch (const Error& error) {
        run.faults.add(node.verb, error.what());
    }
}

}  // namespace

// NOLINTNEXTLINE(readability-function-size): a table
std::vector<StatementKind> drawing_statements() {
    const auto outline_words =
        with_words(with_words(with_words({"as"}, stroke_words(false)), compositing_words()), rim_words());
    return {
        {.verb = Verb::fill,
         .head = Head::shape,
         .forms = {{{"ink"}, with_words({"as"}, compositing_words())}},
         .example = "fill circle center 236,148 radius 34 ink gold",
         .form = "SHAPE",
         .meaning = "a shape, or a text, laid with an ink",
         .run = &run_drawing,
         .is_done_at_once = true},
        {.verb = Verb::flood,
         .forms = {{{"from", "ink"}, with_words({"tolerance", "neighbors"}, compositing_words())}},
         .example = "flood from 12,40 ink teal",
         .form = "from X,Y",
         .meaning = "what is connected to a pixel; tolerance N, neighbors four|eight",
         .run = &run_drawing,
         .is_done_at_once = true},
        {.verb = Verb::mark,
         .forms = {{{"at", "ink"}, with_words({"as"}, compositing_words())}},
         .example = "mark at 9,31 ink red",
         .form = "at X,Y",
         .meaning = "one pixel",
         .run = &run_drawing,
         .is_done_at_once = true},
        {.verb = Verb::measure,
         .head = Head::shape,
         .forms = {{{"as"}, {}}},
         .example = "measure text \"OTTER\" at 44,306 height 18 as word",
         .form = "SHAPE as NAME",
         .meaning = "draws nothing; NAME.left, .right, .top, .bottom, .width, .height say where it would be",
         .run = &run_drawing},
        {.verb = Verb::paste,
         .head = Head::value,
         .forms = {{{"at"},
                    with_words({"size", "part", "turned", "mirrored", "scaling", "without", "as"},
                               compositing_words())}},
         .example = "paste \"quay.png\" at 24,18",
         .form = "\"PICTURE\" at X,Y",
         .meaning = "a picture file; size W,H (0 for a side in proportion), part X,Y,W,H,\nturned ANGLE, mirrored "
                    "left_right|top_bottom, without COLOUR,\nscaling nearest|box|bilinear|lanczos",
         .run = &run_paste,
         .is_done_at_once = true},
        {.verb = Verb::stroke,
         .head = Head::shape,
         .forms = {{{"ink"}, outline_words}},
         .example = "stroke line from 18,431 to 702,377 ink white",
         .form = "SHAPE",
         .meaning = "its outline; width N, align center|inside|outside, cap flush|square|round,\njoin "
                    "miter|bevel|round, miter_limit N, dash ON,OFF,..., dash_offset N",
         .run = &run_drawing,
         .is_done_at_once = true},
    };
}

}  // namespace coldbrick::inline v0::detail

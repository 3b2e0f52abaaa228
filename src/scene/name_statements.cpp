// The statements that give a name to a colour, an ink, a face or a value.
#include "scene/arithmetic.hpp"
#include "scene/inks.hpp"
#include "scene/scene_run.hpp"

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

void run_definition(SceneRun& run, const Node& node) {
    run.evaluate(node);
    const auto verb = node.verb.text;
    if (verb == "color") {
        const auto color = run.values.color(run.given(node, 0));
        if (color) run.slot(node, node.slot) = Value::colored(*color);
        return;
    }
    auto given = run.arguments(node);
    const auto ink = verb == "gradient" ? read_gradient(given) : read_hatch(given);
    if (ink) run.keep_ink(node, *ink);
}

void run_face(SceneRun& run, const Node& node) {
    run.evaluate(node);
    auto given = run.arguments(node);
    const auto face = run.faces.read(run.given(node, 0), given);
    if (!face) return;
    run.memory.faces.push_back(*face);
    run.slot(node, node.slot) = Value::kept(ValueKind::face, run.memory.faces.size() - 1);
}

void run_let(SceneRun& run, const Node& node) {
    run.evaluate(node);
    const auto value = run.given(node, 0);
    auto& to = run.slot(node, node.slot);
    to = {};
    if (value.size() == 1) {
        to = value[0].value;
        // Names have numbers that are numbers: without a value they would be no use.
        if (to.kind == ValueKind::number && !std::isfinite(to.x)) {
            to = {};
            run.faults.add(value.word(), "this has no value (a division by 0, or a number too large)");
        }
        // Blocks in blocks have names of their own: their texts are there together.
        if (to.kind == ValueKind::text && run.memory.text_bytes > run.budget.rest())
            run.budget.spend(run.memory.text_bytes, node.verb);
        return;
    }
    const auto pair = run.values.position(value, -1e300, 1e300);
    if (pair) to = Value::pair(pair->x, pair->y);
}

void run_dial(SceneRun& run, const Node& node) {
    run.evaluate(node);
    auto given = run.arguments(node);
    constexpr auto far = 1e15;
    const auto from = given.real_or("from", 0, -far, far);
    const auto to = given.real_or("to", 0, -far, far);
    const auto step = given.real_or("step", 0, 0, far);
    const auto usual = run.values.real(run.given(node, 0), -far, far);
    if (!from || !to || !step || !usual) return;
    if (*from > *to)
        return run.faults.add(given.word("to"), "this is less than where the dial begins, " + in_digits(*from));
    auto value = *usual;
    const auto name = std::string{node.word.text};
    const auto allowed = "allowed is " + in_digits(*from) + " to " + in_digits(*to);
    const auto set = std::find_if(run.input.set.rbegin(), run.input.set.rend(),
                                  [&](const OutsideValue& v) { return v.name == name; });
    if (set != run.input.set.rend()) {
        const auto number = number_of_text(set->value);
        if (!number)
            return run.faults.add(
                node.word,
                "the dial " + in_quotes(name) + " is set to " + in_quotes(set->value) + ", which is no number",
                allowed);
        value = *number;
    }
    if (value < *from || value > *to) {
        const auto is_set = set != run.input.set.rend();
        return run.faults.add(
            is_set ? node.word : run.given(node, 0).word(),
            "the dial " + in_quotes(name) + (is_set ? " is set to " : " is ") + in_digits(value) + "; " + allowed);
    }
    run.slot(node, node.slot) = Value::number(value);
    run.scene.dials.push_back(
        {.name = name, .value = value, .from = *from, .to = *to, .step = *step, .place = node.word.place});
}

}  // namespace

// NOLINTNEXTLINE(readability-function-size): a table
std::vector<StatementKind> name_statements() {
    const std::vector<std::string_view> gradient_words{"spread", "placing", "dither"};
    return {
        {.verb = Verb::color,
         .head = Head::name,
         .body = Body::one_value,
         .forms = {},
         .example = "color dusk = #39466b",
         .form = "NAME = COLOUR",
         .meaning = "a name of your own for a colour",
         .run = &run_definition,
         .is_before_sheet = true},
        {.verb = Verb::dial,
         .head = Head::name_and_value,
         .forms = {{{"from", "to"}, {"step"}}},
         .example = "dial tide = 3.2 from 0 to 6.5 step 0.1",
         .form = "NAME = N from N to N [step N]",
         .meaning = "a number that --set NAME=N changes",
         .run = &run_dial,
         .is_top_only = true,
         .is_before_sheet = true},
        {.verb = Verb::face,
         .head = Head::name_and_face,
         .forms = {{{}, {"axes", "fallback", "features", "number"}}},
         .example = "face label = \"quay.ttf\"",
         .form = "NAME = \"FONT\"|FACE",
         .meaning = "what letters look like; number N (of a collection), axes wght=700,...,\n"
                    "features tnum,liga=0,..., fallback FACE,...",
         .run = &run_face,
         .is_before_sheet = true},
        {.verb = Verb::gradient,
         .head = Head::name_and_kind,
         .forms = {{{"center", "stops"}, {"from", "placing", "dither"}},
                   {{"from", "to", "stops"}, gradient_words},
                   {{"center", "radius", "stops"}, gradient_words}},
         .example = "gradient sky = linear from 0,0 to 0,200 stops 0,navy 1,gold",
         .form = "NAME = linear from X,Y to X,Y stops 0,COLOUR 50%,COLOUR 1,COLOUR",
         .meaning = "an ink; or: radial center X,Y radius R, conic center X,Y from ANGLE.\nAlso spread "
                    "pad|repeat|reflect, placing target|shape, dither ordered",
         .run = &run_definition,
         .is_before_sheet = true},
        {.verb = Verb::hatch,
         .head = Head::name,
         .forms = {{{"spacing", "ink"}, {"angle", "width", "ground", "offset", "placing"}}},
         .example = "hatch mud = spacing 6 ink black",
         .form = "NAME = spacing N ink COLOUR",
         .meaning = "an ink of lines; angle ANGLE, width N, ground COLOUR",
         .run = &run_definition,
         .is_before_sheet = true},
        {.verb = Verb::let,
         .head = Head::name,
         .body = Body::line,
         .forms = {},
         .example = "let radius = 34",
         .form = "NAME = VALUE",
         .meaning = "a name of your own for a number, pair, colour or text",
         .run = &run_let,
         .is_before_sheet = true},
    };
}

}  // namespace coldbrick::inline v0::detail

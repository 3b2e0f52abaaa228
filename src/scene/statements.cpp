#include "scene/statements.hpp"

#include "scene/parse.hpp"
#include "scene/run.hpp"

#include <algorithm>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

using Words = std::vector<std::string_view>;

std::vector<StatementKind> kinds_to_e() {
    return {
        {.verb = "clip",
         .body = Body::areas,
         .forms = {},
         .example = "clip circle center 80,60 radius 40",
         .form = "SHAPE ... end",
         .meaning = "what stands between is drawn only there; also SHAPE plus|minus|within|exclusive_or SHAPE ...",
         .take = &Runner::begin_clip,
         .block = Block::clip},
        {.verb = "color",
         .head = Head::name,
         .body = Body::one_value,
         .forms = {},
         .example = "color dusk = #39466b",
         .form = "NAME = COLOUR",
         .meaning = "a name of your own for a colour",
         .take = &Runner::define,
         .is_before_sheet = true},
        {.verb = "edges",
         .body = Body::one_value,
         .forms = {},
         .example = "edges smooth",
         .form = "smooth|crisp",
         .meaning = "how all edges look from here on",
         .take = &Runner::edges,
         .reads = Reads::word},
        {.verb = "end",
         .head = Head::own,
         .body = Body::no_value,
         .forms = {},
         .example = "end",
         .form = "",
         .meaning = "ends what has one: clip, move, turn, scale, shear, pattern, repeat, when, shape",
         .take = &Runner::end,
         .parse = &ProgramParser::end},
    };
}

std::vector<StatementKind> kinds_of_f() {
    return {
        {.verb = "face",
         .head = Head::name_and_face,
         .forms = {{{}, {"axes", "fallback", "features", "number"}}},
         .example = "face label = \"quay.ttf\"",
         .form = "NAME = \"FONT\"|FACE",
         .meaning = "what letters look like; number N (of a collection), axes wght=700,...,\n"
                    "features tnum,liga=0,..., fallback FACE,...",
         .take = &Runner::face,
         .is_before_sheet = true},
        {.verb = "fill",
         .head = Head::shape,
         .forms = {{{"ink"}, with_words({"as"}, compositing_words())}},
         .example = "fill circle center 236,148 radius 34 ink gold",
         .form = "SHAPE",
         .meaning = "a shape, or a text, laid with an ink",
         .take = &Runner::drawing,
         .is_done_at_once = true},
    };
}

std::vector<StatementKind> kinds_to_m() {
    const Words gradient_words{"spread", "placing", "dither"};
    return {
        {.verb = "flood",
         .forms = {{{"from", "ink"}, with_words({"tolerance", "neighbors"}, compositing_words())}},
         .example = "flood from 12,40 ink teal",
         .form = "from X,Y",
         .meaning = "what is connected to a pixel; tolerance N, neighbors four|eight",
         .take = &Runner::drawing,
         .is_done_at_once = true},
        {.verb = "gradient",
         .head = Head::name_and_kind,
         .forms = {{{"center", "stops"}, {"from", "placing", "dither"}},
                   {{"from", "to", "stops"}, gradient_words},
                   {{"center", "radius", "stops"}, gradient_words}},
         .example = "gradient sky = linear from 0,0 to 0,200 stops 0,navy 1,gold",
         .form = "NAME = linear from X,Y to X,Y stops 0,COLOUR 50%,COLOUR 1,COLOUR",
         .meaning = "an ink; or: radial center X,Y radius R, conic center X,Y from ANGLE.\nAlso spread "
                    "pad|repeat|reflect, placing target|shape, dither ordered",
         .take = &Runner::define,
         .is_before_sheet = true},
        {.verb = "hatch",
         .head = Head::name,
         .forms = {{{"spacing", "ink"}, {"angle", "width", "ground", "offset", "placing"}}},
         .example = "hatch mud = spacing 6 ink black",
         .form = "NAME = spacing N ink COLOUR",
         .meaning = "an ink of lines; angle ANGLE, width N, ground COLOUR",
         .take = &Runner::define,
         .is_before_sheet = true},
        {.verb = "mark",
         .forms = {{{"at", "ink"}, with_words({"as"}, compositing_words())}},
         .example = "mark at 9,31 ink red",
         .form = "at X,Y",
         .meaning = "one pixel",
         .take = &Runner::drawing,
         .is_done_at_once = true},
    };
}

std::vector<StatementKind> kinds_to_p() {
    return {
        {.verb = "move",
         .forms = {{{"by"}, {}}},
         .example = "move by 10,20",
         .form = "by X,Y ... end",
         .meaning = "what stands between is moved as a whole",
         .take = &Runner::begin_group,
         .block = Block::group},
        {.verb = "palette",
         .body = Body::values,
         .forms = {},
         .example = "palette quay",
         .form = "NAME|COLOUR ...",
         .meaning = "the picture has only these colours; 'ink entry(3)' is one by number",
         .take = &Runner::palette},
        {.verb = "paste",
         .head = Head::value,
         .forms = {{{"at"},
                    with_words({"size", "part", "turned", "mirrored", "scaling", "without", "as"},
                               compositing_words())}},
         .example = "paste \"quay.png\" at 24,18",
         .form = "\"PICTURE\" at X,Y",
         .meaning = "a picture file; size W,H (0 for a side in proportion), part X,Y,W,H,\nturned ANGLE, mirrored "
                    "left_right|top_bottom, without COLOUR,\nscaling nearest|box|bilinear|lanczos",
         .take = &Runner::paste,
         .is_done_at_once = true},
        {.verb = "pattern",
         .head = Head::name,
         .forms = {{{"size"}, {"ink", "offset", "placing"}}},
         .example = "pattern tiles = size 8,8",
         .form = "NAME = size W,H [ink COLOUR] ... end",
         .meaning = "what stands between is drawn on a tile that repeats",
         .take = &Runner::begin_pattern,
         .block = Block::pattern},
    };
}

std::vector<StatementKind> kinds_from_s() {
    const Words outline_words =
        with_words(with_words(with_words({"as"}, stroke_words(false)), compositing_words()), rim_words());
    return {
        {.verb = "scale",
         .forms = {{{"by"}, {"about"}}},
         .example = "scale by 2",
         .form = "by N|X,Y [about X,Y] ... end",
         .meaning = "what stands between is made larger, or mirrored",
         .take = &Runner::begin_group,
         .block = Block::group},
        {.verb = "shear",
         .forms = {{{"by"}, {"about"}}},
         .example = "shear by 0.5,0",
         .form = "by X,Y [about X,Y] ... end",
         .meaning = "what stands between is sheared",
         .take = &Runner::begin_group,
         .block = Block::group},
        {.verb = "sheet",
         .forms = {{{"size"}, {"ink"}}, {{"from"}, {}}},
         .example = "sheet size 720,450 ink navy",
         .form = "size W,H [ink COLOUR]",
         .meaning = "first, once: the buffer and its ground (white);\nor: sheet from \"PICTURE\", a picture file as "
                    "the ground",
         .take = &Runner::sheet,
         .is_top_only = true},
        {.verb = "stroke",
         .head = Head::shape,
         .forms = {{{"ink"}, outline_words}},
         .example = "stroke line from 18,431 to 702,377 ink white",
         .form = "SHAPE",
         .meaning = "its outline; width N, align center|inside|outside, cap flush|square|round,\njoin "
                    "miter|bevel|round, miter_limit N, dash ON,OFF,..., dash_offset N",
         .take = &Runner::drawing,
         .is_done_at_once = true},
        {.verb = "turn",
         .forms = {{{"by"}, {"about"}}},
         .example = "turn by 30 about 80,60",
         .form = "by ANGLE [about X,Y] ... end",
         .meaning = "what stands between is turned",
         .take = &Runner::begin_group,
         .block = Block::group},
    };
}

std::vector<StatementKind> all_kinds() {
    auto all = kinds_to_e();
    for (const auto& more : {kinds_of_f(), kinds_to_m(), kinds_to_p(), kinds_from_s()})
        all.insert(all.end(), more.begin(), more.end());
    for (auto& kind : computing_kinds()) all.push_back(std::move(kind));
    std::sort(all.begin(), all.end(), [](const StatementKind& a, const StatementKind& b) { return a.verb < b.verb; });
    return all;
}

}  // namespace

std::span<const StatementKind> statement_kinds() {
    static const auto all = all_kinds();
    return all;
}

const StatementKind* statement_kind(std::string_view verb) {
    const auto all = statement_kinds();
    const auto found = std::lower_bound(all.begin(), all.end(), verb,
                                        [](const StatementKind& kind, std::string_view of) { return kind.verb < of; });
    return found == all.end() || found->verb != verb ? nullptr : &*found;
}

std::vector<std::string_view> verbs() {
    std::vector<std::string_view> names;
    for (const auto& kind : statement_kinds()) names.push_back(kind.verb);
    return names;
}

}  // namespace coldbrick::inline v0::detail

// The statements that compute: names, loops, conditions, shapes of one's own, frames.
#include "scene/parse.hpp"
#include "scene/run.hpp"
#include "scene/statements.hpp"

namespace coldbrick::inline v0::detail {

namespace {

std::vector<StatementKind> kinds_of_values() {
    return {
        {.verb = "dial",
         .head = Head::name_and_value,
         .forms = {{{"from", "to"}, {"step"}}},
         .example = "dial tide = 3.2 from 0 to 6.5 step 0.1",
         .form = "NAME = N from N to N [step N]",
         .meaning = "a number that --set NAME=N changes",
         .take = &Runner::dial,
         .is_top_only = true,
         .is_before_sheet = true},
        {.verb = "frames",
         .head = Head::value,
         .forms = {{{"rate"}, {"loops", "time"}}},
         .example = "frames 40 rate 20",
         .form = "N rate N",
         .meaning =
             "drawn N times: frame is 0, 1, 2 ..., progress goes from 0 up to 1;\nloops N (0: again and again), time "
             "SECONDS of this frame",
         .take = &Runner::frames,
         .is_top_only = true},
    };
}

std::vector<StatementKind> kinds_of_names() {
    return {
        {.verb = "let",
         .head = Head::name,
         .body = Body::line,
         .forms = {},
         .example = "let radius = 34",
         .form = "NAME = VALUE",
         .meaning = "a name of your own for a number, pair, colour or text",
         .take = &Runner::let,
         .is_before_sheet = true},
        {.verb = "measure",
         .head = Head::shape,
         .forms = {{{"as"}, {}}},
         .example = "measure text \"OTTER\" at 44,306 height 18 as word",
         .form = "SHAPE as NAME",
         .meaning = "draws nothing; NAME.left, .right, .top, .bottom, .width, .height say where it would be",
         .take = &Runner::drawing},
        {.verb = "seed",
         .body = Body::one_value,
         .forms = {},
         .example = "seed 7",
         .form = "N",
         .meaning = "random() gives the same numbers again from here on",
         .take = &Runner::seed,
         .reads = Reads::number,
         .is_before_sheet = true},
    };
}

std::vector<StatementKind> kinds_of_flow() {
    return {
        {.verb = "include",
         .head = Head::own,
         .forms = {},
         .example = "include \"quay-parts.brick\"",
         .form = "\"FILE\"",
         .meaning = "the statements of another file, beside this one",
         .take = nullptr,
         .parse = &ProgramParser::include,
         .is_before_sheet = true},
        {.verb = "otherwise",
         .head = Head::own,
         .forms = {},
         .example = "otherwise when tide > 1",
         .form = "[when CONDITION]",
         .meaning = "in 'when': what is run if nothing before is",
         .take = &Runner::otherwise,
         .parse = &ProgramParser::otherwise},
        {.verb = "repeat",
         .head = Head::own,
         .forms = {},
         .example = "repeat 7 as i",
         .form = "N as NAME ... end",
         .meaning =
             "NAME from 0 to N-1; or: from A to B [step C] as NAME;\nor: row of \"TABLE.csv\" as NAME (NAME.column); "
             "number NAME counts too",
         .take = &Runner::begin_repeat,
         .parse = &ProgramParser::repeat,
         .block = Block::repeat},
    };
}

std::vector<StatementKind> kinds_of_shapes() {
    return {
        {.verb = "shape",
         .head = Head::own,
         .forms = {},
         .example = "shape buoy at, size = 12, tint = red",
         .form = "NAME at, NAME = VALUE, ... end",
         .meaning = "a shape of your own, drawn from its own 0,0, with the words that it takes",
         .take = &Runner::skip_shape,
         .parse = &ProgramParser::shape,
         .block = Block::shape,
         .is_before_sheet = true},
        {.verb = "use",
         .head = Head::own,
         .forms = {},
         .example = "use buoy at 361,129 tint green",
         .form = "NAME at X,Y ...",
         .meaning = "draws a shape of your own",
         .take = &Runner::begin_use,
         .parse = &ProgramParser::use},
        {.verb = "when",
         .head = Head::own,
         .forms = {},
         .example = "when tide > 3",
         .form = "CONDITION ... end",
         .meaning = "what is run only if it is so; = < > are written == < > <= >= !=, and, or, not",
         .take = &Runner::when,
         .parse = &ProgramParser::when,
         .block = Block::when},
    };
}

}  // namespace

std::vector<StatementKind> computing_kinds() {
    std::vector<StatementKind> all;
    for (auto* const kinds : {&kinds_of_values, &kinds_of_names, &kinds_of_flow, &kinds_of_shapes}) {
        for (auto& kind : kinds()) all.push_back(std::move(kind));
    }
    return all;
}

}  // namespace coldbrick::inline v0::detail

#include "scene/statements.hpp"

#include "scene/evaluate.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

namespace {

std::vector<StatementKind> all_kinds() {
    using Words = std::vector<std::string_view>;
    const Words gradient_words{"spread", "placing", "dither"};
    const Words outline_words = with_words(with_words(stroke_words(false), laying_words()), rim_words());
    return {
        {.verb = "clip",
         .body = Body::areas,
         .forms = {},
         .example = "clip circle center 80,60 radius 40",
         .take = &Evaluator::begin_clip,
         .has_end = true},
        {.verb = "color",
         .head = Head::name,
         .body = Body::one_value,
         .forms = {},
         .example = "color dusk = #39466b",
         .take = &Evaluator::define},
        {.verb = "edges", .body = Body::one_value, .forms = {}, .example = "edges smooth", .take = &Evaluator::edges},
        {.verb = "end", .body = Body::no_value, .forms = {}, .example = "end", .take = &Evaluator::end},
        {.verb = "fill",
         .head = Head::shape,
         .forms = {{{"ink"}, laying_words()}},
         .example = "fill circle center 236,148 radius 34 ink gold",
         .take = &Evaluator::drawing},
        {.verb = "flood",
         .forms = {{{"from", "ink"}, with_words({"tolerance", "neighbors"}, laying_words())}},
         .example = "flood from 12,40 ink teal",
         .take = &Evaluator::drawing},
        {.verb = "gradient",
         .head = Head::name_and_kind,
         .forms = {{{"center", "stops"}, {"from", "placing", "dither"}},
                   {{"from", "to", "stops"}, gradient_words},
                   {{"center", "radius", "stops"}, gradient_words}},
         .example = "gradient sky = linear from 0,0 to 0,200 stops 0,navy 1,gold",
         .take = &Evaluator::define},
        {.verb = "hatch",
         .head = Head::name,
         .forms = {{{"spacing", "ink"}, {"angle", "width", "ground", "offset", "placing"}}},
         .example = "hatch mud = spacing 6 ink black",
         .take = &Evaluator::define},
        {.verb = "mark",
         .forms = {{{"at", "ink"}, laying_words()}},
         .example = "mark at 9,31 ink red",
         .take = &Evaluator::drawing},
        {.verb = "move",
         .forms = {{{"by"}, {}}},
         .example = "move by 10,20",
         .take = &Evaluator::begin_group,
         .has_end = true},
        {.verb = "palette", .body = Body::values, .forms = {}, .example = "palette quay", .take = &Evaluator::palette},
        {.verb = "paste",
         .head = Head::picture,
         .forms = {{{"at"}, with_words({"size", "part", "turned", "mirrored", "scaling", "without"}, laying_words())}},
         .example = "paste \"quay.png\" at 24,18",
         .take = &Evaluator::paste},
        {.verb = "pattern",
         .head = Head::name,
         .forms = {{{"size"}, {"ink", "offset", "placing"}}},
         .example = "pattern tiles = size 8,8",
         .take = &Evaluator::begin_pattern,
         .has_end = true},
        {.verb = "scale",
         .forms = {{{"by"}, {"about"}}},
         .example = "scale by 2",
         .take = &Evaluator::begin_group,
         .has_end = true},
        {.verb = "shear",
         .forms = {{{"by"}, {"about"}}},
         .example = "shear by 0.5,0",
         .take = &Evaluator::begin_group,
         .has_end = true},
        {.verb = "sheet",
         .forms = {{{"size"}, {"ink"}}, {{"from"}, {}}},
         .example = "sheet size 720,450 ink navy",
         .take = &Evaluator::sheet},
        {.verb = "stroke",
         .head = Head::shape,
         .forms = {{{"ink"}, outline_words}},
         .example = "stroke line from 18,431 to 702,377 ink white",
         .take = &Evaluator::drawing},
        {.verb = "turn",
         .forms = {{{"by"}, {"about"}}},
         .example = "turn by 30 about 80,60",
         .take = &Evaluator::begin_group,
         .has_end = true},
    };
}

}  // namespace

std::span<const StatementKind> statement_kinds() {
    static const auto all = all_kinds();
    return all;
}

const StatementKind* statement_kind(std::string_view verb) noexcept {
    const auto all = statement_kinds();
    const auto found =
        std::find_if(all.begin(), all.end(), [&](const StatementKind& kind) { return kind.verb == verb; });
    return found == all.end() ? nullptr : &*found;
}

std::vector<std::string_view> verbs() {
    std::vector<std::string_view> names;
    for (const auto& kind : statement_kinds()) names.push_back(kind.verb);
    return names;
}

}  // namespace coldbrick::inline v0::detail

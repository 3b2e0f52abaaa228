// The statements that begin and end blocks of drawings: clips, groups and patterns.
#include "scene/inks.hpp"
#include "scene/parse.hpp"
#include "scene/scene_run.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/pattern.hpp"
#include "coldbrick/smooth_region.hpp"

#include <algorithm>
#include <memory>
#include <optional>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

void run_clip(SceneRun& run, const Node& node) {
    run.evaluate(node);
    auto next = run.view();
    next.own = {};
    const auto parts = run.parts_of(node, next.by);
    const auto is_smooth = std::any_of(parts.parts.begin(), parts.parts.end(), [&](const RegionPart& part) {
        const auto given = std::span{run.program.arguments}.subspan(part.first_argument, part.argument_count);
        return std::any_of(given.begin(), given.end(),
                           [](const Argument& argument) { return argument.keyword == Key{"smooth"}.number(); });
    });
    try {
        if (is_smooth) {
            auto region = read_smooth_region(parts, run.target_box()).value_or(SmoothRegion{});
            // A byte for each pixel at most, and twice that while it is made.
            if (!run.budget.spend(pixel_count(region.bounds().size), node.verb)) return;
            next.view = next.view.within(region);
        } else {
            auto region = read_region(parts, run.target_box()).value_or(Region{});
            if (!run.budget.spend(region.spans().size() * sizeof(Span), node.verb)) return;
            next.view = next.view.within(region);
        }
    } catch (const Error& error) {
        run.faults.add(node.verb, error.what());
    }
    run.budget.check_time(node.verb);
    if (run.open(node)) run.push_view(std::move(next));
}

// move by 10,20; turn by 30 about 80,60; scale by 2 or by 2,-1; shear by 0.5,0.
std::optional<Transform> group_transform(SceneRun& run, std::string_view verb, Arguments& given) {
    const auto about = given.position_or("about", {});
    if (!about) return std::nullopt;
    const auto around = [&](const Transform& by) {
        return Transform{}.move({-about->x, -about->y}).then(by).move(*about);
    };
    if (verb == "turn") {
        const auto angle = given.angle_or("by", {});
        return angle ? std::optional{around(Transform{}.turn(*angle))} : std::nullopt;
    }
    const auto value = given.value("by");
    const auto is_one = verb == "scale" && value.size() == 1 && value[0].value.kind != ValueKind::pair;
    const auto by = is_one ? given.real_or("by", 1, -max_coordinate, max_coordinate) : std::nullopt;
    const auto pair = is_one ? std::optional{Position{by.value_or(1), by.value_or(1)}} : given.position("by");
    if (!pair || (is_one && !by)) return std::nullopt;
    if (verb == "move") return Transform{}.move(*pair);
    if (verb == "shear") return around(Transform{}.shear(*pair));
    if (pair->x == 0 || pair->y == 0) {
        run.faults.add(value.word(), "scaled by 0, everything would be flat",
                       "allowed are other factors, also negative ones");
        return std::nullopt;
    }
    return around(Transform{}.scale(*pair));
}

void run_group(SceneRun& run, const Node& node) {
    run.evaluate(node);
    auto given = run.arguments(node);
    const auto by = group_transform(run, node.verb.text, given);
    if (!run.open(node)) return;
    auto next = run.view();
    next.own = {};
    // What is in the group is moved by it first, and then by the groups around it.
    if (by) {
        next.own = *by;
        next.by = by->then(next.by);
        next.view = next.view.under(*by);
    }
    run.push_view(std::move(next));
}

void run_pattern(SceneRun& run, const Node& node) {
    run.evaluate(node);
    SceneRun::View next{.view = run.scene.drawing.under({})};
    auto given = run.arguments(node);
    constexpr auto most_side = 4096;
    const auto size = given.size("size");
    const auto ground = given.color_or("ink", {.alpha = 0});
    const auto offset = given.has("offset") ? given.point("offset") : Point{};
    const auto placing = read_placing(given);
    if (size && (size->width > most_side || size->height > most_side)) {
        run.faults.add(given.word("size"),
                       "a pattern is at most " + std::to_string(most_side) + " pixels wide and high");
    } else if (size && ground && offset && placing &&
               run.budget.spend(pixel_count(*size) * (bytes_per_pixel<Rgba8> + sizeof(Color16)), given.word("size"))) {
        next.pattern = std::make_shared<Scene>(
            Scene{.name = run.scene.name, .size = *size, .ground = *ground, .drawing = {}, .limits = run.scene.limits});
        next.view = next.pattern->drawing.under({});
        next.offset = *offset;
        next.placing = *placing;
    }
    if (run.open(node)) run.push_view(std::move(next));
}

void end_pattern(SceneRun& run, const Node& begin, const SceneRun::View& view) {
    if (begin.slot == no_slot || !view.pattern || run.faults.count() > 0) return;
    auto tile = view.pattern->sheet<Rgba8>();
    render(*view.pattern, tile, [](std::size_t, const Box&) {});
    run.budget.give_back(pixel_count(tile.size()) * bytes_per_pixel<Rgba8> + view.pattern->drawing.bytes());
    run.keep_ink(begin, Pattern::of(tile, {.offset = view.offset, .placing = view.placing}));
}

// Goes back to the beginning of a loop; false if it is over.
bool next_round(SceneRun& run, SceneRun::OpenBlock& block, const Node& node) {
    if (++block.done == block.count) return false;
    run.usual_edge = block.edge;
    run.memory.drop_to(block.marks);
    run.set_loop_names(block, node);
    run.next = block.node + 1;
    return true;
}

void run_end(SceneRun& run, const Node& node) {
    const auto& begin = run.program.nodes[node.end];
    if (run.blocks.empty()) return;
    auto& block = run.blocks.back();
    if (begin.kind->block == Block::repeat && next_round(run, block, begin)) return;
    if (begin.kind->block == Block::pattern && block.has_view) {
        const auto view = std::move(run.views.back());
        run.close();
        return end_pattern(run, begin, view);
    }
    run.close();
}

}  // namespace

// NOLINTNEXTLINE(readability-function-size): a table
std::vector<StatementKind> block_statements() {
    return {
        {.verb = Verb::clip,
         .body = Body::areas,
         .forms = {},
         .example = "clip circle center 80,60 radius 40",
         .form = "SHAPE ... end",
         .meaning = "what stands between is drawn only there; also SHAPE plus|minus|within|exclusive_or SHAPE ...",
         .run = &run_clip,
         .block = Block::clip},
        {.verb = Verb::end,
         .head = Head::own,
         .body = Body::no_value,
         .forms = {},
         .example = "end",
         .form = "",
         .meaning = "ends what has one: clip, move, turn, scale, shear, pattern, repeat, when, shape",
         .run = &run_end,
         .parse = &ProgramParser::end},
        {.verb = Verb::move,
         .forms = {{{"by"}, {}}},
         .example = "move by 10,20",
         .form = "by X,Y ... end",
         .meaning = "what stands between is moved as a whole",
         .run = &run_group,
         .block = Block::group},
        {.verb = Verb::pattern,
         .head = Head::name,
         .forms = {{{"size"}, {"ink", "offset", "placing"}}},
         .example = "pattern tiles = size 8,8",
         .form = "NAME = size W,H [ink COLOUR] ... end",
         .meaning = "what stands between is drawn on a tile that repeats",
         .run = &run_pattern,
         .block = Block::pattern},
        {.verb = Verb::scale,
         .forms = {{{"by"}, {"about"}}},
         .example = "scale by 2",
         .form = "by N|X,Y [about X,Y] ... end",
         .meaning = "what stands between is made larger, or mirrored",
         .run = &run_group,
         .block = Block::group},
        {.verb = Verb::shear,
         .forms = {{{"by"}, {"about"}}},
         .example = "shear by 0.5,0",
         .form = "by X,Y [about X,Y] ... end",
         .meaning = "what stands between is sheared",
         .run = &run_group,
         .block = Block::group},
        {.verb = Verb::turn,
         .forms = {{{"by"}, {"about"}}},
         .example = "turn by 30 about 80,60",
         .form = "by ANGLE [about X,Y] ... end",
         .meaning = "what stands between is turned",
         .run = &run_group,
         .block = Block::group},
    };
}

}  // namespace coldbrick::inline v0::detail

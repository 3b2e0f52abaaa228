// The statements of the whole picture: its sheet, palette, edges and frames.
#include "scene/scene_run.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

void check_size(SceneRun& run, Size size, const GivenValue& at) {
    const auto pixels = pixel_count(size);
    if (pixels > run.budget.limits().sheet_pixels) {
        run.budget.refuse(at.word(),
                          "the sheet has " + std::to_string(pixels) + " pixels; allowed are " +
                              std::to_string(run.budget.limits().sheet_pixels),
                          "sheet_pixels");
    }
}

void run_sheet(SceneRun& run, const Node& node) {
    run.evaluate(node);
    auto given = run.arguments(node);
    if (given.has("from")) {
        const auto file = run.values.text(given.value("from"));
        const auto picture = file ? run.pictures.read(given.word("from"), *file) : nullptr;
        if (!picture) return;
        run.scene.picture = kept(picture);
        run.scene.size = picture->size();
        const auto& bytes = picture->bytes();
        auto is_opaque = true;
        for (std::size_t i = 3; i < bytes.size(); i += 4) is_opaque = is_opaque && bytes[i] == 255;
        run.scene.ground = is_opaque ? gray(255) : Color{.alpha = 0};
    } else {
        const auto size = given.size("size");
        const auto ground = given.has("ink") ? given.color("ink") : std::optional{gray(255)};
        if (!size || !ground) return;
        check_size(run, *size, given.value("size"));
        run.scene.size = *size;
        run.scene.ground = *ground;
    }
    run.memory.slot(0, width_slot) = Value::number(run.scene.size.width);
    run.memory.slot(0, height_slot) = Value::number(run.scene.size.height);
}

void run_edges(SceneRun& run, const Node& node) {
    const auto& word = run.program.values[node.first_value].word;
    if (word.text == "smooth") {
        run.usual_edge = Edge::smooth;
    } else if (word.text == "crisp") {
        run.usual_edge = Edge::crisp;
    } else {
        run.faults.add(word, "unknown edges " + in_quotes(word.text), "allowed are smooth and crisp");
    }
}

void run_palette(SceneRun& run, const Node& node) {
    run.evaluate(node);
    const auto& first = run.program.values[node.first_value];
    if (node.value_count == 1 && run.program.parts[first.first_part].kind == Part::Kind::raw) {
        if (const auto* const known = palettes::find(first.word.text)) {
            run.scene.palette = *known;
            return;
        }
        const auto names = palettes::names();
        const auto near = nearest_word(first.word.text, {names.begin(), names.end()});
        run.has_faulty_palette = true;
        run.faults.add(first.word, "unknown palette " + in_quotes(first.word.text),
                       near.empty() ? "allowed are " + in_words({names.begin(), names.end()}, "and") + ", or colours"
                                    : "did you mean " + in_quotes(near) + "?");
        return;
    }
    std::vector<Color> colors;
    for (std::uint32_t i = 0; i < node.value_count; ++i) {
        if (const auto color = run.values.color(run.given(node, i))) colors.push_back(*color);
    }
    run.has_faulty_palette = true;
    if (colors.size() != node.value_count) return;
    try {
        run.scene.palette = Palette{std::move(colors)};
        run.has_faulty_palette = false;
    } catch (const Error& error) {
        run.faults.add(node.verb, error.what());
    }
}

void run_seed(SceneRun& run, const Node& node) {
    run.evaluate(node);
    constexpr auto most = 9007199254740991.0;  // 2^53 - 1: whole numbers up to here are exact
    const auto number = run.values.real(run.given(node, 0), 0, most);
    if (!number) return;
    if (*number != std::floor(*number)) {
        return run.faults.add(run.given(node, 0).word(),
                              "this is " + in_digits(*number) + "; a whole number is needed");
    }
    run.memory.random.seed(static_cast<std::uint64_t>(*number));
}

void run_frames(SceneRun& run, const Node& node) {
    const auto most = static_cast<int>(std::min<std::uint64_t>(run.budget.limits().frames, 1U << 30U));
    // How many there are comes first: the time of a frame may depend on its progress.
    const auto& word = run.program.values[node.first_value];
    std::vector<Value> first;
    for (std::uint32_t i = 0; i < word.part_count; ++i)
        first.push_back(run.machine.evaluate(run.program.parts[word.first_part + i], word, i));
    const auto count = run.values.whole(GivenValue{word, first.data()}, 1, max_coordinate);
    if (!count) return;
    if (*count > most) {
        return run.budget.refuse(
            word.word, "the scene has " + std::to_string(*count) + " frames; allowed are " + std::to_string(most),
            "frames");
    }
    run.memory.slot(0, progress_slot) = Value::number(static_cast<double>(run.input.frame) / *count);
    run.scene.frames.count = *count;
    if (run.input.frame < 0 || run.input.frame >= *count) {
        throw Error{"there is no frame " + std::to_string(run.input.frame) + "; the scene has frames 0 to " +
                    std::to_string(*count - 1)};
    }
    run.evaluate(node);
    auto given = run.arguments(node);
    constexpr auto most_rate = 1000.0;
    constexpr auto most_loops = 65535;  // of 16 bits, as GIF has them
    constexpr auto longest = 65.0;      // animated PNG: up to 65535 thousandths
    const auto rate = given.real_or("rate", 1, 1.0 / 60, most_rate);
    const auto loops = given.whole_or("loops", 0, 0, most_loops);
    const auto time = given.real_or("time", 1 / rate.value_or(1), 0, longest);
    if (!rate || !loops || !time) return;
    run.scene.frames.rate = *rate;
    run.scene.frames.loops = *loops;
    run.scene.frames.time = *time;
}

}  // namespace

std::vector<StatementKind> sheet_statements() {
    return {
        {.verb = Verb::edges,
         .body = Body::one_value,
         .forms = {},
         .example = "edges smooth",
         .form = "smooth|crisp",
         .meaning = "how all edges look from here on",
         .run = &run_edges,
         .reads = Reads::word},
        {.verb = Verb::frames,
         .head = Head::value,
         .forms = {{{"rate"}, {"loops", "time"}}},
         .example = "frames 40 rate 20",
         .form = "N rate N",
         .meaning =
             "drawn N times: frame is 0, 1, 2 ..., progress goes from 0 up to 1;\nloops N (0: again and again), time "
             "SECONDS of this frame",
         .run = &run_frames,
         .is_top_only = true},
        {.verb = Verb::palette,
         .body = Body::values,
         .forms = {},
         .example = "palette quay",
         .form = "NAME|COLOUR ...",
         .meaning = "the picture has only these colours; 'ink entry(3)' is one by number",
         .run = &run_palette},
        {.verb = Verb::seed,
         .body = Body::one_value,
         .forms = {},
         .example = "seed 7",
         .form = "N",
         .meaning = "random() gives the same numbers again from here on",
         .run = &run_seed,
         .reads = Reads::number,
         .is_before_sheet = true},
        {.verb = Verb::sheet,
         .forms = {{{"size"}, {"ink"}}, {{"from"}, {}}},
         .example = "sheet size 720,450 ink navy",
         .form = "size W,H [ink COLOUR]",
         .meaning = "first, once: the buffer and its ground (white);\nor: sheet from \"PICTURE\", a picture file as "
                    "the ground",
         .run = &run_sheet,
         .is_top_only = true},
    };
}

}  // namespace coldbrick::inline v0::detail

// What painted a pixel, and what has become of every drawing.
#include "color_words.hpp"
#include "picture_input.hpp"
#include "render_scene.hpp"
#include "scene_input.hpp"
#include "shown.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <cstdint>
#include <map>
#include <string>
#include <vector>

#include <fmt/core.h>
#include <nlohmann/json.hpp>

namespace coldbrick::tool {

namespace {

using Json = nlohmann::ordered_json;

std::string file_of(const Scene& scene, std::size_t call) {
    const auto file = scene.file_of(call);
    return file.empty() ? scene.name : file;
}

// "harbour.brick:5:1"
std::string place_in_words(const Scene& scene, std::size_t call) {
    const auto [line, column] = scene.place_of(call);
    return fmt::format("{}:{}:{}", printable(file_of(scene, call)), line, column);
}

// The same without the name of the scene itself: "5:1".
std::string short_place(const Scene& scene, std::size_t call) {
    const auto [line, column] = scene.place_of(call);
    const auto file = scene.file_of(call);
    return fmt::format("{}{}{}:{}", printable(file), file.empty() ? "" : ":", line, column);
}

std::string coverage_in_words(const PixelStep& step) {
    if (step.coverage == 255) return "all of it";
    return fmt::format("{:.3g} % of it", 100.0 * step.coverage / 255);
}

Color colour_of(const PixelStory& story) { return story.steps.empty() ? story.ground : story.steps.back().after; }

void print_story(const Scene& scene, const PixelStory& story) {
    fmt::print("{},{} is {}\n", story.at.x, story.at.y, in_words(colour_of(story)));
    std::size_t places = 0;
    std::size_t kinds = 0;
    for (const auto& step : story.steps) {
        places = std::max(places, place_in_words(scene, step.call).size());
        kinds = std::max(kinds, scene.kind_of(step.call).size());
    }
    const std::string ground = "the ground";
    const auto width = std::max(places + 2 + kinds, ground.size());
    fmt::print("    {:<{}}  {}\n", ground, width, in_words(story.ground));
    for (const auto& step : story.steps) {
        const auto what = fmt::format("{:<{}}  {}", place_in_words(scene, step.call), places, scene.kind_of(step.call));
        const auto effect = step.changes ? in_words(step.after) : std::string{"changes nothing"};
        fmt::print("    {:<{}}  {}  ({} with {})\n", what, width, effect, coverage_in_words(step), in_words(step.ink));
    }
}

Json json_of_call(const Scene& scene, std::size_t call) {
    const auto [line, column] = scene.place_of(call);
    return {{"call", call},
            {"file", file_of(scene, call)},
            {"line", line},
            {"column", column},
            {"statement", scene.kind_of(call)}};
}

Json json_of(const Scene& scene, const PixelStory& story) {
    auto steps = Json::array();
    for (const auto& step : story.steps) {
        auto json = json_of_call(scene, step.call);
        json["coverage"] = step.coverage / 255.0;
        json["ink"] = hex(step.ink);
        json["before"] = hex(step.before);
        json["after"] = hex(step.after);
        json["changes"] = step.changes;
        json["covers"] = step.covers;
        steps.push_back(std::move(json));
    }
    return {{"x", story.at.x},
            {"y", story.at.y},
            {"color", hex(colour_of(story))},
            {"ground", hex(story.ground)},
            {"steps", std::move(steps)}};
}

std::string_view word_of(Showing showing) {
    constexpr std::array<std::string_view, 7> words{"seen",        "outside",   "clipped", "nothing",
                                                    "transparent", "unchanged", "covered"};
    return words[static_cast<std::size_t>(showing)];
}

// How often pixels are touched.
constexpr auto most_counted = 65535;  // for a pixel, in Explanation::layers

struct Overdraw {
    std::int64_t touches = 0;
    std::int64_t pixels = 0;  // that are touched at all
    int most = 0;
    Point most_at;
};

Overdraw overdraw_of(const Explanation& explanation) {
    Overdraw overdraw;
    for (const auto& story : explanation.calls) overdraw.touches += story.touched;
    const auto& layers = explanation.layers;
    for (int y = 0; y < layers.size().height; ++y) {
        for (int x = 0; x < layers.size().width; ++x) {
            const int count = layers.color16_at({.x = x, .y = y}).red;
            overdraw.pixels += count > 0 ? 1 : 0;
            if (count <= overdraw.most) continue;
            overdraw.most = count;
            overdraw.most_at = {.x = x, .y = y};
        }
    }
    return overdraw;
}

Json json_of(const Scene& scene, const Explanation& explanation) {
    auto calls = Json::array();
    for (std::size_t i = 0; i < explanation.calls.size(); ++i) {
        const auto& story = explanation.calls[i];
        auto json = json_of_call(scene, i);
        json["showing"] = word_of(story.showing);
        json["touched"] = story.touched;
        json["changed"] = story.changed;
        json["seen"] = story.seen;
        json["over"] = {{"left", story.over.left},
                        {"top", story.over.top},
                        {"right", story.over.right},
                        {"bottom", story.over.bottom}};
        auto covers = Json::array();
        for (const auto& cover : story.covered_by) covers.push_back({{"call", cover.call}, {"pixels", cover.pixels}});
        json["covered_by"] = std::move(covers);
        if (story.showing != Showing::seen) json["reason"] = explain_unseen(scene, i, story);
        calls.push_back(std::move(json));
    }
    const auto overdraw = overdraw_of(explanation);
    return {{"scene", scene.name},
            {"width", scene.size.width},
            {"height", scene.size.height},
            {"calls", std::move(calls)},
            {"overdraw",
             {{"touches", overdraw.touches},
              {"pixels", overdraw.pixels},
              {"most", overdraw.most},
              {"at", {overdraw.most_at.x, overdraw.most_at.y}}}}};
}

// The drawings of a statement together.
struct StatementStory {
    std::size_t first = 0;
    std::size_t calls = 0;
    std::size_t seen_calls = 0;
    CallStory sum;
};

std::vector<StatementStory> by_statement(const Scene& scene, const Explanation& explanation) {
    std::map<StatementPlace, std::size_t> numbers;
    std::vector<StatementStory> all;
    for (std::size_t i = 0; i < explanation.calls.size(); ++i) {
        const auto& story = explanation.calls[i];
        const auto [found, is_new] = numbers.try_emplace(statement_of(scene, i), all.size());
        if (is_new) {
            all.emplace_back().first = i;
            all.back().sum = story;
            all.back().sum.touched = all.back().sum.changed = all.back().sum.seen = 0;
        }
        auto& of = all[found->second];
        ++of.calls;
        of.seen_calls += story.showing == Showing::seen ? 1 : 0;
        of.sum.touched += story.touched;
        of.sum.changed += story.changed;
        of.sum.seen += story.seen;
        of.sum.over.left = std::max(of.sum.over.left, story.over.left);
        of.sum.over.top = std::max(of.sum.over.top, story.over.top);
        of.sum.over.right = std::max(of.sum.over.right, story.over.right);
        of.sum.over.bottom = std::max(of.sum.over.bottom, story.over.bottom);
    }
    return all;
}

// "12 left, 3 below"; empty if nothing reaches over.
std::string over_in_words(const Margins& over) {
    std::string words;
    const auto add = [&](int pixels, const char* side) {
        if (pixels > 0) words += fmt::format("{}{} {}", words.empty() ? "" : ", ", pixels, side);
    };
    add(over.left, "left");
    add(over.top, "above");
    add(over.right, "right");
    add(over.bottom, "below");
    return words;
}

void print_table(const Scene& scene, const std::vector<StatementStory>& statements) {
    std::size_t places = 5;
    std::size_t kinds = 9;
    for (const auto& of : statements) {
        places = std::max(places, short_place(scene, of.first).size());
        kinds = std::max(kinds, scene.kind_of(of.first).size());
    }
    fmt::print("{:<{}}  {:<{}}  {:>8}  {:>9}  {:>9}  {:>9}  {}\n", "place", places, "statement", kinds, "drawings",
               "touched", "changed", "seen", "over the sheet");
    for (const auto& of : statements) {
        const auto line = fmt::format("{:<{}}  {:<{}}  {:>8}  {:>9}  {:>9}  {:>9}  {}", short_place(scene, of.first),
                                      places, scene.kind_of(of.first), kinds, of.calls, of.sum.touched, of.sum.changed,
                                      of.sum.seen, over_in_words(of.sum.over));
        fmt::print("{}\n", line.substr(0, line.find_last_not_of(' ') + 1));
    }
}

void print_explanation(const Scene& scene, const Explanation& explanation) {
    const auto seen = std::count_if(explanation.calls.begin(), explanation.calls.end(),
                                    [](const CallStory& story) { return story.showing == Showing::seen; });
    fmt::print("{}: {} x {} pixels, {} of {} drawings show\n\n", printable(scene.name), scene.size.width,
               scene.size.height, seen, explanation.calls.size());
    const auto statements = by_statement(scene, explanation);
    print_table(scene, statements);
    auto has_printed = false;
    for (const auto& of : statements) {
        if (of.seen_calls > 0) continue;
        if (!std::exchange(has_printed, true)) fmt::print("\n");
        const auto often = of.calls > 1 ? fmt::format(" (the first of {} times)", of.calls) : "";
        fmt::print("{}{}\n", explain_unseen(scene, of.first, explanation.calls[of.first]), often);
    }
    const auto overdraw = overdraw_of(explanation);
    if (overdraw.pixels == 0) return;
    fmt::print("\na pixel is drawn on {:.3g} times, where it is at all; most often {}{} times, first at {},{}\n",
               static_cast<double>(overdraw.touches) / static_cast<double>(overdraw.pixels),
               overdraw.most == most_counted ? "at least " : "", overdraw.most, overdraw.most_at.x, overdraw.most_at.y);
}

// Bytes of names that are no UTF-8 are replaced; what is beyond ASCII is escaped, so that nothing moves a terminal.
void print_json(const Json& json) { fmt::print("{}\n", json.dump(2, ' ', true, Json::error_handler_t::replace)); }

}  // namespace

Exit explain(const ExplainArguments& arguments) {
    std::vector<Point> places;
    for (const auto& words : arguments.places) places.push_back(pair_of(words, "the pixel"));
    if (!places.empty() && !arguments.overdraw.empty()) {
        throw WrongCall{"-o writes a picture of the whole; leave out the pixels"};
    }
    const auto file = read_scene(arguments);
    const auto scene = file.program.evaluate(file.input);
    const auto sheet = Box{.at = {}, .size = scene.size};
    for (const auto at : places) {
        if (contains(sheet, at)) continue;
        throw Error{fmt::format("{}: the pixel {},{} is not on the sheet; it has 0,0 to {},{}", printable(scene.name),
                                at.x, at.y, sheet.last().x, sheet.last().y)};
    }
    if (places.empty()) {
        const auto explanation = coldbrick::explain(scene);
        if (!arguments.overdraw.empty()) save(overdraw_shown(explanation), arguments.overdraw);
        arguments.as_json ? print_json(json_of(scene, explanation)) : print_explanation(scene, explanation);
        return Exit::done;
    }
    auto list = Json::array();
    within_limits(scene, [&] {
        for (const auto at : places) {
            const auto story = coldbrick::explain(scene, at);
            arguments.as_json ? list.push_back(json_of(scene, story)) : print_story(scene, story);
        }
    });
    if (arguments.as_json) print_json(list);
    return Exit::done;
}

}  // namespace coldbrick::tool

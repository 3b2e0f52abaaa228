// Scenes that have been read, to be evaluated.
#include "scene/parse.hpp"
#include "scene/report.hpp"
#include "scene/scene_run.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <string>
#include <tuple>
#include <utility>

namespace coldbrick::inline v0 {

namespace detail {

struct LoadedProgram {
    LoadedProgram(std::string_view of, std::string_view in, const SceneLimits& with)
        : name{of}, folder{in}, limits{with} {}

    std::string name;
    std::string folder;
    SceneLimits limits;
    Program program;
    std::vector<Remark> remarks;
    DrawLimits spent = nothing_spent;  // by parsing it: time; its memory is counted anew for each picture
    std::size_t faults = 0;
    mutable LoadedFiles files;
};

namespace {

// Parses, and leaves the faults to be reported with those of a first run.
void parse_into(LoadedProgram& loaded, std::string_view text, const std::vector<std::string>& outside, Faults& faults) {
    SceneBudget budget{loaded.limits, faults};
    const BudgetScope scope{&budget.of_calls()};
    SceneFiles files{loaded.folder, loaded.limits, faults};
    ProgramParser parser{loaded.program, files, budget, faults};
    parser.parse(text, outside);
    loaded.spent.seconds = budget.of_calls().spent().seconds;
    loaded.remarks = faults.take_remarks();
}

// Runs it, with what it takes to be kept already paid for.
Scene run(const LoadedProgram& loaded, const SceneInput& input, Faults& faults) {
    Scene scene{.name = loaded.name,
                .size = {},
                .ground = {},
                .drawing = {},
                .limits = SceneBudget::drawing_limits(loaded.limits)};
    for (std::size_t i = 1; i < loaded.program.sources.size(); ++i)
        scene.files.push_back(loaded.program.sources[i].name);
    SceneBudget budget{loaded.limits, faults, loaded.spent};
    const BudgetScope scope{&budget.of_calls()};
    SceneFiles files{loaded.folder, loaded.limits, faults};
    budget.spend(loaded.program.bytes(), {.text = {}, .place = {.line = 1, .column = 1}});
    run_program({loaded.program, input, files, loaded.files, budget, faults}, scene);
    scene.spent = budget.of_calls().spent();
    scene.remarks = loaded.remarks;
    for (auto& remark : faults.take_remarks()) scene.remarks.push_back(std::move(remark));
    return scene;
}

// Says so where a value is given for nothing, or not given.
void check_input(const LoadedProgram& loaded, const SceneInput& input) {
    const auto& [frame, set] = input;
    std::vector<std::string_view> known{loaded.program.dials.begin(), loaded.program.dials.end()};
    known.insert(known.end(), loaded.program.outside.begin(), loaded.program.outside.end());
    for (const auto& value : set) {
        if (includes(known, value.name)) continue;
        const auto near = nearest_word(value.name, known);
        throw Error{printable(loaded.name) + ": the scene has no dial " + in_quotes(value.name) +
                    (!near.empty()   ? "; did you mean " + in_quotes(near) + "?"
                     : known.empty() ? "; it has none"
                                     : "; it has " + in_words(known, "and"))};
    }
    for (const auto& name : loaded.program.outside) {
        const auto is_it = [&](const OutsideValue& value) { return value.name == name; };
        if (std::none_of(set.begin(), set.end(), is_it)) {
            throw Error{printable(loaded.name) + ": there is no value for " + in_quotes(name)};
        }
    }
}

}  // namespace

}  // namespace detail

Scene SceneProgram::evaluate(const SceneInput& input) const {
    detail::check_input(*loaded_, input);
    detail::Faults faults;
    auto scene = detail::run(*loaded_, input, faults);
    if (faults.count() > 0) detail::throw_scene_error(std::move(faults), loaded_->program.sources, loaded_->name);
    if (input.frame < 0 || input.frame >= scene.frames.count) {
        throw Error{
            printable(loaded_->name) + ": there is no frame " + std::to_string(input.frame) + "; the scene has " +
            (scene.frames.count == 1 ? "one picture" : "frames 0 to " + std::to_string(scene.frames.count - 1))};
    }
    return scene;
}

std::vector<std::string> SceneProgram::dials() const { return loaded_->program.dials; }

bool SceneProgram::uses(std::string_view name) const {
    const auto& [dials, used] = std::tie(loaded_->program.dials, loaded_->program.used);
    return std::find(dials.begin(), dials.end(), name) != dials.end() ||
           std::find(used.begin(), used.end(), name) != used.end();
}

SceneProgram parse_program(std::string_view text, std::string_view name, std::string_view folder,
                           const SceneLimits& limits, const std::vector<std::string>& outside) {
    auto loaded = std::make_shared<detail::LoadedProgram>(name, folder, limits);
    detail::Faults faults;
    detail::parse_into(*loaded, text, outside, faults);
    if (faults.count() > 0) {
        // What is wrong with its values is reported at the same time, as far as it can be without those from outside.
        if (outside.empty() && loaded->program.is_whole) detail::run(*loaded, {}, faults);
        detail::throw_scene_error(std::move(faults), loaded->program.sources, name);
    }
    return SceneProgram{std::move(loaded)};
}

Scene parse_scene(std::string_view text, std::string_view name, std::string_view folder, const SceneLimits& limits) {
    return parse_program(text, name, folder, limits).evaluate();
}

}  // namespace coldbrick::inline v0

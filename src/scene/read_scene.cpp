// The text of a scene to its drawing, statement by statement.
#include "scene/evaluate.hpp"
#include "scene/report.hpp"
#include "scene/statements.hpp"

#include <string>
#include <utility>

namespace coldbrick::inline v0 {

namespace detail {

namespace {

std::string advice_to_begin() { return "begin with, for example: " + std::string{statement_kind("sheet")->example}; }

const Word& beginning() {
    static const Word place{.text = "", .place = {.line = 1, .column = 1}};
    return place;
}

// Says so if a scene draws before there is a sheet.
void check_first(const Word& first, Faults& faults) {
    const auto is_drawing = first.text != "sheet" && statement_kind(first.text) != nullptr;
    if (is_drawing) faults.add(first, "the first statement must be the sheet", advice_to_begin());
}

void read_statements(std::string_view text, Evaluator& evaluator, Budget& budget, Faults& faults) {
    StatementReader reader{text, faults};
    auto sheet_seen = false;
    auto is_first = true;
    while (const auto statement = budget.is_spent() ? std::nullopt : reader.next()) {
        const auto& verb = statement->words[0];
        if (std::exchange(is_first, false)) check_first(verb, faults);
        budget.count_statement(verb);
        const auto word_bytes = statement->words.size() * sizeof(Word);
        if (budget.is_spent() || !budget.spend(word_bytes, verb)) return;
        const auto is_sheet = verb.text == "sheet";
        if (is_sheet && sheet_seen) {
            faults.add(verb, "the sheet is given twice", "a scene has one sheet, its first statement");
        } else {
            const auto parsed = parse_statement(*statement, faults);
            parsed ? evaluator.take(*parsed) : evaluator.take_faulty(*statement);
        }
        sheet_seen = sheet_seen || is_sheet;
        budget.give_back(word_bytes);
    }
    if (is_first) faults.add(beginning(), "the scene is empty", advice_to_begin());
}

}  // namespace

}  // namespace detail

Scene parse_scene(std::string_view text, std::string_view name, std::string_view folder, const SceneLimits& limits) {
    detail::Faults faults;
    detail::Budget budget{limits, faults};
    detail::ValueReader values{faults};
    detail::SceneFiles files{folder, budget, faults};
    detail::PictureReader pictures{files, budget, faults};
    detail::FaceReader faces{files, budget, faults};
    Scene scene{.name = std::string{name}, .size = {}, .ground = {}, .drawing = {}, .seconds = limits.seconds};
    detail::Evaluator evaluator{values, pictures, faces, budget, faults, scene};
    if (text.size() > limits.scene_bytes) {
        budget.refuse(detail::beginning(),
                      "the scene has " + std::to_string(text.size()) + " bytes; allowed are " +
                          std::to_string(limits.scene_bytes),
                      "scene_bytes");
    }
    detail::read_statements(text, evaluator, budget, faults);
    if (!budget.is_spent()) evaluator.finish();
    if (faults.count() == 0) {
        scene.remarks = faults.take_remarks();
        return scene;
    }
    const auto count = faults.count();
    detail::throw_scene_error(std::move(faults).sorted(), count, text, name);
}

}  // namespace coldbrick::inline v0

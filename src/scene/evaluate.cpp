#include "scene/evaluate.hpp"

#include "scene/grammar.hpp"
#include "scene/report.hpp"

namespace coldbrick {

namespace detail {

void Evaluator::take(const ParsedStatement& statement) {
    const auto& verb = statement.verb.text;
    if (verb == "sheet") return sheet(statement);
    if (verb == "clip") return begin_clip(statement);
    if (verb != "end") return drawing(statement);
    if (clips_.empty()) {
        faults_.add(statement.verb, "there is nothing to end", "'end' closes a 'clip'");
    } else {
        clips_.pop_back();
    }
}

void Evaluator::take_faulty(const Word& verb) {
    if (verb.text == "clip") clips_.push_back({.word = verb, .region = std::make_shared<const Region>()});
}

void Evaluator::finish() {
    for (const auto& clip : clips_) faults_.add(clip.word, "this clip has no end", "write 'end' on a line after it");
}

void Evaluator::sheet(const ParsedStatement& statement) {
    Arguments given{statement.arguments, values_, faults_};
    const auto size = given.size("size");
    const auto ground = given.has("ink") ? given.color("ink") : std::optional{gray(255)};
    if (!size || !ground) return;
    constexpr auto most_pixel_bytes = 4U;
    const auto bytes =
        std::uint64_t{most_pixel_bytes} * static_cast<unsigned>(size->width) * static_cast<unsigned>(size->height);
    if (bytes > max_bitmap_bytes) {
        faults_.add(given.value("size"), "the sheet has too many pixels; allowed are " +
                                             std::to_string(max_bitmap_bytes / most_pixel_bytes) + " in all");
    }
    scene_.size = *size;
    scene_.ground = *ground;
}

std::optional<Figure> Evaluator::region_figure(const ParsedStatement& statement, Arguments& given) {
    // Only what is near the sheet can show: as far as a stroke may reach.
    const auto is_stroked = statement.verb.text == "stroke";
    const auto how = is_stroked ? read_stroke(given) : Stroke{};
    if (!how) return std::nullopt;
    const auto reach = std::min(how->width, max_coordinate / 4) + 4;
    const auto near = Box{.at = {.x = -reach, .y = -reach},
                          .size = {.width = scene_.size.width + 2 * reach, .height = scene_.size.height + 2 * reach}};
    auto region = read_region(statement.parts, near, values_, faults_);
    if (!region) return std::nullopt;
    if (is_stroked) return stroked(std::move(*region), *how);
    return std::move(*region);
}

void Evaluator::drawing(const ParsedStatement& statement) {
    Arguments given{statement.arguments, values_, faults_};
    const auto before = faults_.count();
    auto figure = std::optional<Figure>{};
    try {
        const auto is_region = statement.shape && statement.shape->text == "region";
        figure = is_region ? region_figure(statement, given) : read_figure(statement.words(), given);
        if (figure) check(*figure);
    } catch (const Error& error) {
        faults_.add(statement.shape ? *statement.shape : statement.verb, error.what());
    }
    const auto ink = given.color("ink");
    if (!figure || !ink || faults_.count() != before) return;
    scene_.calls.push_back({.figure = std::move(*figure),
                            .ink = *ink,
                            .place = statement.verb.place,
                            .words = statement.words(),
                            .clip = clips_.empty() ? nullptr : clips_.back().region});
}

void Evaluator::begin_clip(const ParsedStatement& statement) {
    const auto sheet = Box{.at = {.x = 0, .y = 0}, .size = scene_.size};
    auto region = std::optional<Region>{};
    try {
        region = read_region(statement.parts, sheet, values_, faults_);
    } catch (const Error& error) {
        faults_.add(statement.verb, error.what());
    }
    auto inner = region ? std::move(*region) : Region{};
    if (!clips_.empty()) inner = intersection(inner, *clips_.back().region);
    clips_.push_back({.word = statement.verb, .region = std::make_shared<const Region>(std::move(inner))});
}

namespace {

// Says so if the scene has no statements, or draws before there is a sheet.
void check_start(const std::vector<Statement>& statements, Faults& faults) {
    constexpr auto advice = "begin with, for example: sheet size 720,450 ink navy";
    if (statements.empty()) {
        faults.add({.text = "", .place = {.line = 1, .column = 1}}, "the scene is empty", advice);
        return;
    }
    const auto& first = statements[0].words[0];
    const auto is_drawing = first.text != "sheet" && std::find(verbs.begin(), verbs.end(), first.text) != verbs.end();
    if (is_drawing) faults.add(first, "the first statement must be the sheet", advice);
}

}  // namespace

}  // namespace detail

Scene parse_scene(std::string_view text, std::string_view name) {
    detail::Faults faults;
    detail::ValueReader values{faults};
    Scene scene{.name = std::string{name}, .size = {}, .ground = {}, .calls = {}};
    detail::Evaluator evaluator{values, faults, scene};
    const auto statements = detail::split_statements(text, faults);
    detail::check_start(statements, faults);
    auto sheet_seen = false;
    for (const auto& statement : statements) {
        const auto& verb = statement.words[0];
        const auto is_sheet = verb.text == "sheet";
        if (is_sheet && sheet_seen) {
            faults.add(verb, "the sheet is given twice", "a scene has one sheet, its first statement");
            continue;
        }
        sheet_seen = sheet_seen || is_sheet;
        const auto parsed = detail::parse_statement(statement, faults);
        parsed ? evaluator.take(*parsed) : evaluator.take_faulty(verb);
    }
    evaluator.finish();
    if (faults.count() == 0) return scene;
    detail::throw_scene_error(std::move(faults).sorted(), text, name);
}

}  // namespace coldbrick

// The areas of regions and clips: shapes with their arguments, and between them how they are joined.
#include "scene/parse.hpp"
#include "scene/shape_statements.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

namespace {

Joiner joiner_of(std::string_view word) noexcept {
    if (word == "minus") return Joiner::minus;
    if (word == "within") return Joiner::within;
    return word == "exclusive_or" ? Joiner::exclusive : Joiner::plus;
}

struct Area {
    RegionPart part;
    std::vector<ReadArgument> arguments = {};
};

// Cuts the words into areas. Arguments of the statement itself, as `own` has them, may stand among those of any.
class AreaReader {
  public:
    AreaReader(const std::vector<StatementForm>& own, Scope& scope, Faults& faults)
        : own_{own}, scope_{scope}, faults_{faults} {}

    void read(std::span<const Word> words, const Word& before) {
        auto joiner = Joiner::plus;
        last_ = before;
        while (true) {
            const auto next = next_joiner(words);
            const auto count = static_cast<std::size_t>(next - words.begin());
            read_area(joiner, words.first(count));
            if (next == words.end()) return;
            joiner = joiner_of(current_spelling(*next, faults_).text);
            last_ = *next;
            words = words.subspan(count + 1);
        }
    }

    std::vector<Area> areas;
    std::vector<ReadArgument> of_statement;

  private:
    // The first word that joins areas: not one behind a keyword that takes a word, as in "blend exclusive_or".
    static std::span<const Word>::iterator next_joiner(std::span<const Word> words) {
        const auto* before = static_cast<const Keyword*>(nullptr);
        return std::find_if(words.begin(), words.end(), [&](const Word& word) {
            const auto is_value = before != nullptr && before->takes == Takes::word;
            before = is_value ? nullptr : find_keyword(word.text);
            return !is_value && is_joiner(word.text);
        });
    }

    // Whether a word is a keyword of the statement itself.
    [[nodiscard]] bool is_own(const Word& word) const {
        return std::any_of(own_.begin(), own_.end(), [&](const StatementForm& form) {
            return includes(form.needed, word.text) || includes(form.optional, word.text);
        });
    }

    void read_area(Joiner joiner, std::span<const Word> words) {
        Area area{.part = {.joiner = joiner, .word = last_}};
        // The statement's own arguments may also stand before the shape.
        while (words.size() > 1 && is_own(words.front())) {
            of_statement.push_back({.keyword = words[0], .values = {words[1]}});
            words = words.subspan(2);
        }
        if (!words.empty() && words.front().text == "stroke") {
            area.part.is_stroked = true;
            words = words.subspan(1);
        }
        if (words.empty()) {
            faults_.add(last_, in_quotes(last_.text) + " has no shape after it",
                        "allowed are " + in_words(shape_names(), "and"));
            return;
        }
        area.part.word = words.front();
        area.part.shape = shape_statement(words.front().text);
        const auto text = std::string{words.front().text};
        const auto& forms = forms_of((area.part.is_stroked ? "stroke part " : "part ") + text);
        if (forms.empty()) {
            refuse_shape(words.front(), area.part.is_stroked, faults_);
            return;
        }
        auto all = forms;
        all.insert(all.end(), own_.begin(), own_.end());
        const auto before = faults_.count();
        for (auto& argument : read_arguments(words.subspan(1), all, scope_, faults_, joiners)) {
            (is_own(argument.keyword) ? of_statement : area.arguments).push_back(std::move(argument));
        }
        if (faults_.count() != before) return;
        check_form(
            {.words = text, .place = area.part.word, .given = area.arguments, .may_repeat_through = text == "polygon"},
            forms, faults_);
        areas.push_back(std::move(area));
    }

    const std::vector<StatementForm>& own_;
    Scope& scope_;
    Faults& faults_;
    Word last_;
};

}  // namespace

void ProgramParser::areas(const Statement& statement, std::size_t begin, const std::vector<StatementForm>& own,
                          Node& node) {
    const auto before = faults_.count();
    AreaReader reader{own, scope_, faults_};
    reader.read(std::span{statement.words}.subspan(begin), statement.words[begin - 1]);
    if (faults_.count() == before && !own.empty()) {
        check_form({.words = node.words(),
                    .place = node.word.text.empty() ? node.verb : node.word,
                    .given = reader.of_statement,
                    .may_repeat_through = false},
                   own, faults_);
    }
    if (faults_.count() != before) return;
    keep(reader.of_statement, node);
    for (auto& area : reader.areas) {
        area.part.first_argument = static_cast<std::uint32_t>(program_.arguments.size());
        for (const auto& argument : area.arguments) keep(argument);
        area.part.argument_count = static_cast<std::uint32_t>(program_.arguments.size()) - area.part.first_argument;
        program_.regions.push_back(area.part);
    }
    node.region_count = static_cast<std::uint32_t>(program_.regions.size()) - node.first_region;
}

}  // namespace coldbrick::inline v0::detail

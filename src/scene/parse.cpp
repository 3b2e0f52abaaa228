#include "scene/parse.hpp"

#include "scene/parse_arguments.hpp"
#include "scene/statements.hpp"

#include "coldbrick/color.hpp"

#include <algorithm>
#include <optional>
#include <span>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

std::string advice_for_shape(std::string_view verb, std::string_view shape) {
    if (verb != "stroke" && is_line(shape)) {
        return "a line has no inside; write 'stroke " + std::string{shape} + "'";
    }
    return suggestion(shape, shape_names());
}

void refuse_shape(const Word& shape, std::string_view verb, Faults& faults) {
    const auto article = shape.text == "arc" ? "an " : "a ";
    const auto what =
        is_line(shape.text) ? article + shape.text + " cannot be filled" : "unknown shape " + in_quotes(shape.text);
    faults.add(shape, what, advice_for_shape(verb, shape.text));
}

// Reads the areas of a region: shapes with their arguments, and between them how they are joined. Arguments of the
// statement itself, as `own` has them, may stand among those of any part.
class PartReader {
  public:
    PartReader(std::span<const Word> words, const std::vector<StatementForm>& own, Faults& faults)
        : words_{words}, own_{own}, faults_{faults} {}

    void read(ParsedStatement& statement) {
        auto joiner = std::string{"plus"};
        while (true) {
            const auto next = std::find_if(words_.begin(), words_.end(),
                                           [](const Word& word) { return includes(joiners, word.text); });
            const auto count = static_cast<std::size_t>(next - words_.begin());
            read_part(statement, joiner, words_.first(count));
            if (next == words_.end()) return;
            joiner = next->text;
            last_ = *next;
            words_ = words_.subspan(count + 1);
        }
    }

    // What a part's fault is told about if it has no word of its own.
    void set_place(const Word& place) { last_ = place; }

  private:
    // Whether a word is a keyword of the statement itself.
    [[nodiscard]] bool is_own(const Word& word) const {
        return std::any_of(own_.begin(), own_.end(), [&](const StatementForm& form) {
            return includes(form.needed, word.text) || includes(form.optional, word.text);
        });
    }

    void read_part(ParsedStatement& statement, const std::string& joiner, std::span<const Word> words) {
        RegionPart part{.joiner = joiner, .shape = last_};
        // The statement's own arguments may also stand before the shape.
        while (words.size() > 1 && is_own(words.front())) {
            statement.arguments.push_back({.keyword = words[0], .values = {words[1]}});
            words = words.subspan(2);
        }
        if (!words.empty() && words.front().text == "stroke") {
            part.is_stroked = true;
            words = words.subspan(1);
        }
        if (words.empty()) {
            faults_.add(last_, in_quotes(last_.text) + " has no shape after it",
                        "allowed are " + in_words(shape_names(), "and"));
            return;
        }
        part.shape = words.front();
        const auto kind = std::string{part.is_stroked ? "stroke part " : "part "};
        const auto& forms = forms_of(kind + part.shape.text);
        if (forms.empty()) return refuse_shape(part.shape, part.is_stroked ? "stroke" : "fill", faults_);
        auto all = forms;
        all.insert(all.end(), own_.begin(), own_.end());
        const auto before = faults_.count();
        for (auto& argument : read_arguments(words.subspan(1), all, faults_, joiners)) {
            (is_own(argument.keyword) ? statement.arguments : part.arguments).push_back(std::move(argument));
        }
        if (faults_.count() != before) return;
        check_form({.words = part.shape.text,
                    .place = part.shape,
                    .given = part.arguments,
                    .may_repeat_through = part.shape.text == "polygon"},
                   forms, faults_);
        statement.parts.push_back(std::move(part));
    }

    std::span<const Word> words_;
    const std::vector<StatementForm>& own_;
    Faults& faults_;
    Word last_;
};

void parse_parts(const Statement& statement, std::size_t begin, const std::vector<StatementForm>& own, Faults& faults,
                 ParsedStatement& parsed) {
    PartReader reader{std::span{statement.words}.subspan(begin), own, faults};
    reader.set_place(statement.words[begin - 1]);
    reader.read(parsed);
}

// NAME = at the beginning of a definition, and of a gradient its kind. Gives the number of words that these are; 0 if
// there was a fault.
std::size_t parse_name(const Statement& statement, const StatementKind& kind, Faults& faults, ParsedStatement& parsed) {
    const auto& words = statement.words;
    const auto verb = std::string_view{words[0].text};
    if (words.size() < 3 || words[2].text != "=") {
        faults.add(words.size() > 1 ? words[1] : words[0], in_quotes(verb) + " needs a name and '='",
                   "for example: " + std::string{kind.example});
        return 0;
    }
    const auto is_letter = [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; };
    const auto is_plain = [&](char c) { return is_letter(c) || (c >= '0' && c <= '9'); };
    const auto& name = words[1].text;
    if (!is_letter(name.front()) || !std::all_of(name.begin(), name.end(), is_plain)) {
        faults.add(words[1], in_quotes(name) + " is no name",
                   "a name has letters, digits and _, and begins with a letter");
        return 0;
    }
    const auto is_word = find_keyword(name) != nullptr || statement_kind(name) != nullptr ||
                         includes(shape_names(), name) || includes(gradients, name) || includes(joiners, name);
    if (is_word || find_color(name)) {
        faults.add(words[1], in_quotes(name) + (is_word ? " is a word of the language" : " is the name of a colour"),
                   "choose another name, such as my_" + name);
        return 0;
    }
    parsed.name = words[1];
    if (kind.head == Head::name) return 3;
    if (kind.head == Head::name_and_face) {
        if (words.size() < 4) {
            faults.add(words[2], "there is no face after '='", "for example: " + std::string{kind.example});
            return 0;
        }
        parsed.values = {words[3]};
        return 4;
    }
    if (words.size() < 4 || !includes(gradients, words[3].text)) {
        const auto& place = words.size() < 4 ? words[2] : words[3];
        faults.add(place, words.size() < 4 ? "the gradient has no kind" : "unknown gradient " + in_quotes(place.text),
                   suggestion(words.size() < 4 ? "" : place.text, {gradients.begin(), gradients.end()}));
        return 0;
    }
    parsed.shape = words[3];
    return 4;
}

// How many words stand before the arguments: verb, shape, name. 0 if there was a fault.
std::size_t parse_head(const Statement& statement, const StatementKind& kind, Faults& faults, ParsedStatement& parsed) {
    const auto& words = statement.words;
    if (kind.defines()) return parse_name(statement, kind, faults, parsed);
    if (kind.head == Head::nothing) return 1;
    const auto is_shape = kind.head == Head::shape;
    if (words.size() == 1) {
        faults.add(
            words[0], in_quotes(kind.verb) + " has no " + (is_shape ? "shape" : "picture") + " after it",
            is_shape ? "allowed are " + in_words(shape_names(), "and") : "for example: " + std::string{kind.example});
        return 0;
    }
    if (is_shape) {
        parsed.shape = words[1];
    } else {
        parsed.values = {words[1]};
    }
    return 2;
}

void parse_values(const Statement& statement, std::size_t begin, Body body, Faults& faults, ParsedStatement& parsed) {
    const auto& words = statement.words;
    const auto verb = std::string_view{words[0].text};
    parsed.values.assign(words.begin() + static_cast<std::ptrdiff_t>(begin), words.end());
    const auto most = body == Body::no_value ? 0U : 1U;
    if (parsed.values.empty() && body != Body::no_value) {
        faults.add(words.back(), in_quotes(verb) + " has no value after it");
    } else if (body != Body::values && parsed.values.size() > most) {
        faults.add(parsed.values[most], in_quotes(verb) + (most == 0 ? " takes nothing" : " takes one value"));
    }
}

}  // namespace

std::optional<ParsedStatement> parse_statement(const Statement& statement, Faults& faults) {
    if (!statement.sound) return std::nullopt;
    const auto& words = statement.words;
    const auto before = faults.count();
    ParsedStatement parsed{.verb = words[0], .shape = std::nullopt, .arguments = {}};
    const auto verb = std::string_view{words[0].text};
    if (verb.starts_with('#')) {
        faults.add(words[0], "a comment begins with //", "write // instead of #");
        return std::nullopt;
    }
    const auto* const kind = statement_kind(verb);
    if (kind == nullptr) {
        faults.add(words[0], "unknown statement " + in_quotes(verb), suggestion(verb, verbs()));
        return std::nullopt;
    }
    const auto begin = parse_head(statement, *kind, faults, parsed);
    if (begin == 0) return std::nullopt;
    const auto& forms = forms_of(parsed.words());
    if (kind->body == Body::areas) {
        parse_parts(statement, 1, forms, faults, parsed);
    } else if (kind->body != Body::arguments) {
        parse_values(statement, begin, kind->body, faults, parsed);
    } else if (forms.empty()) {
        refuse_shape(*parsed.shape, verb, faults);
    } else if (parsed.shape && parsed.shape->text == "region") {
        parse_parts(statement, 2, forms, faults, parsed);
    } else {
        parsed.arguments = read_arguments(std::span{words}.subspan(begin), forms, faults);
    }
    if (faults.count() == before && !forms.empty()) {
        check_form({.words = parsed.words(),
                    .place = parsed.shape ? *parsed.shape : parsed.verb,
                    .given = parsed.arguments,
                    .may_repeat_through = parsed.shape && parsed.shape->text == "polygon"},
                   forms, faults);
    }
    if (faults.count() != before) return std::nullopt;
    return parsed;
}

}  // namespace coldbrick::inline v0::detail

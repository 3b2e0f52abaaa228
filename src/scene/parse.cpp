#include "scene/parse.hpp"

#include "scene/grammar.hpp"

#include <algorithm>
#include <map>

namespace coldbrick::detail {

const std::vector<Form>& forms_of(std::string_view words) {
    static const auto forms = std::map<std::string_view, std::vector<Form>>{
        {"sheet", {{{"size"}, {"ink"}}}},
        {"mark", {{{"at", "ink"}, {}}}},
        {"fill box", {{{"at", "size", "ink"}, {}}, {{"from", "to", "ink"}, {}}}},
        {"fill circle", {{{"center", "radius", "ink"}, {}}}},
        {"fill ellipse", {{{"center", "radii", "ink"}, {}}, {{"at", "size", "ink"}, {}}}},
        {"fill polygon", {{{"through", "ink"}, {"rule", "edges"}}}},
        {"stroke box", {{{"at", "size", "ink"}, {}}, {{"from", "to", "ink"}, {}}}},
        {"stroke circle", {{{"center", "radius", "ink"}, {}}}},
        {"stroke ellipse", {{{"center", "radii", "ink"}, {}}, {{"at", "size", "ink"}, {}}}},
        {"stroke line", {{{"from", "to", "ink"}, {}}, {{"through", "ink"}, {"closed"}}}},
        {"stroke polygon", {{{"through", "ink"}, {}}}}};
    static const std::vector<Form> none;
    const auto found = forms.find(words);
    return found == forms.end() ? none : found->second;
}

namespace {

template <class List>
bool includes(const List& list, std::string_view word) {
    return std::find(list.begin(), list.end(), word) != list.end();
}

const Keyword* find_keyword(std::string_view word) {
    const auto* const found =
        std::find_if(keywords.begin(), keywords.end(), [&](const Keyword& k) { return k.name == word; });
    return found == keywords.end() ? nullptr : found;
}

// "did you mean 'circle'?", or what is allowed.
std::string suggestion(std::string_view word, const std::vector<std::string_view>& known) {
    const auto near = nearest_word(word, known);
    return near.empty() ? "allowed are " + in_words(known, "and") : "did you mean " + quoted(near) + "?";
}

// All keywords of the forms, each once.
std::vector<std::string_view> keywords_of(const std::vector<Form>& forms) {
    std::vector<std::string_view> names;
    const auto add = [&](const std::vector<std::string_view>& more) {
        for (const auto name : more) {
            if (!includes(names, name)) names.push_back(name);
        }
    };
    for (const auto& form : forms) add(form.needed);
    for (const auto& form : forms) add(form.optional);
    return names;
}

// "at, size and ink, or from, to and ink".
std::string forms_in_words(const std::vector<Form>& forms) {
    std::string text;
    for (const auto& form : forms) {
        if (!text.empty()) text += ", or ";
        text += in_words(form.needed, "and");
    }
    return text;
}

// Cuts the words after verb and shape into arguments.
class ArgumentReader {
  public:
    ArgumentReader(const std::vector<Word>& words, std::size_t begin, const std::vector<Form>& forms, Faults& faults)
        : words_{words}, at_{begin}, known_{keywords_of(forms)}, faults_{faults} {}

    std::vector<Argument> read() {
        std::vector<Argument> arguments;
        while (at_ < words_.size()) {
            const auto& word = words_[at_];
            const auto* const keyword = find_keyword(word.text);
            if (keyword == nullptr) {
                refuse_word(word);
                continue;
            }
            ++at_;
            arguments.push_back({.keyword = word, .values = values(*keyword)});
            if (keyword->takes != Takes::nothing && arguments.back().values.empty()) {
                faults_.add(word, quoted(word.text) + " has no value after it");
            }
        }
        return arguments;
    }

  private:
    [[nodiscard]] bool at_value() const { return at_ < words_.size() && find_keyword(words_[at_].text) == nullptr; }

    std::vector<Word> values(const Keyword& keyword) {
        std::vector<Word> result;
        if (keyword.takes == Takes::one_value && at_value()) {
            result.push_back(words_[at_++]);
            if (result[0].text.ends_with(',') && at_value()) ++at_;  // told as a pair with a space in it
        }
        while (keyword.takes == Takes::pairs && at_value() && could_be_pair(words_[at_].text)) {
            result.push_back(words_[at_++]);
            if (result.back().text.ends_with(',') && at_value()) ++at_;
        }
        return result;
    }

    // A mistyped keyword among pairs is told as such.
    [[nodiscard]] static bool could_be_pair(std::string_view word) {
        return word.find_first_of(",0123456789(") != std::string_view::npos;
    }

    // Says so once, and leaves out the words up to the next keyword, which would be told as wrong only for this.
    void refuse_word(const Word& word) {
        const auto looks_like_value = could_be_pair(word.text) || word.text.starts_with('#');
        faults_.add(
            word,
            looks_like_value ? quoted(word.text) + " has no keyword before it" : "unknown keyword " + quoted(word.text),
            suggestion(word.text, known_));
        while (at_value()) ++at_;
    }

    const std::vector<Word>& words_;
    std::size_t at_;
    std::vector<std::string_view> known_;
    Faults& faults_;
};

// Which form the arguments have, with faults for what is too much or missing.
void check_form(const ParsedStatement& statement, const std::vector<Form>& forms, Faults& faults) {
    const auto words = statement.words();
    const auto gives = [&](std::string_view name) {
        return std::any_of(statement.arguments.begin(), statement.arguments.end(),
                           [&](const Argument& a) { return a.keyword.text == name; });
    };
    const auto matches = [&](const Form& form) { return std::count_if(form.needed.begin(), form.needed.end(), gives); };
    const auto& form = *std::max_element(forms.begin(), forms.end(),
                                         [&](const Form& a, const Form& b) { return matches(a) < matches(b); });
    for (std::size_t i = 0; i < statement.arguments.size(); ++i) {
        const auto& keyword = statement.arguments[i].keyword;
        const auto first = std::find_if(statement.arguments.begin(), statement.arguments.end(),
                                        [&](const Argument& a) { return a.keyword.text == keyword.text; });
        const auto is_repeat = first != statement.arguments.begin() + static_cast<std::ptrdiff_t>(i);
        const auto may_repeat = keyword.text == "through" && statement.shape && statement.shape->text == "polygon";
        if (!includes(form.needed, keyword.text) && !includes(form.optional, keyword.text)) {
            faults.add(keyword, quoted(keyword.text) + " does not belong here",
                       quoted(words) + " takes " + forms_in_words(forms));
        } else if (is_repeat && !may_repeat) {
            faults.add(keyword, quoted(keyword.text) + " is given twice");
        }
    }
    std::vector<std::string_view> missing;
    std::copy_if(form.needed.begin(), form.needed.end(), std::back_inserter(missing),
                 [&](std::string_view name) { return !gives(name); });
    if (missing.empty()) return;
    const auto& place = statement.shape ? *statement.shape : statement.verb;
    faults.add(place, quoted(words) + " needs " + in_words(missing, "and"),
               forms.size() > 1 ? "it takes " + forms_in_words(forms) : std::string{});
}

std::string advice_for_shape(std::string_view verb, std::string_view shape) {
    if (verb == "fill" && shape == "line") return "a line has no inside; write 'stroke line'";
    return suggestion(shape, {shapes.begin(), shapes.end()});
}

}  // namespace

std::optional<ParsedStatement> parse_statement(const Statement& statement, Faults& faults) {
    if (!statement.sound) return std::nullopt;
    const auto& words = statement.words;
    const auto before = faults.count();
    ParsedStatement parsed{.verb = words[0], .shape = std::nullopt, .arguments = {}};
    const auto verb = std::string_view{words[0].text};
    if (!includes(verbs, verb)) {
        faults.add(words[0], "unknown statement " + quoted(verb), suggestion(verb, {verbs.begin(), verbs.end()}));
        return std::nullopt;
    }
    if (verb == "fill" || verb == "stroke") {
        if (words.size() == 1) {
            faults.add(words[0], quoted(verb) + " has no shape after it",
                       "allowed are " + in_words({shapes.begin(), shapes.end()}, "and"));
            return std::nullopt;
        }
        parsed.shape = words[1];
    }
    const auto& forms = forms_of(parsed.words());
    if (forms.empty()) {
        const auto is_line = parsed.shape->text == "line";
        faults.add(*parsed.shape, is_line ? "a line cannot be filled" : "unknown shape " + quoted(words[1].text),
                   advice_for_shape(verb, words[1].text));
        return std::nullopt;
    }
    parsed.arguments = ArgumentReader{words, parsed.shape ? 2U : 1U, forms, faults}.read();
    if (faults.count() == before) check_form(parsed, forms, faults);
    if (faults.count() != before) return std::nullopt;
    return parsed;
}

}  // namespace coldbrick::detail

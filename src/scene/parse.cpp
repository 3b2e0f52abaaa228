#include "scene/parse.hpp"

#include "scene/grammar.hpp"

#include "coldbrick/color.hpp"

#include <algorithm>
#include <optional>
#include <span>
#include <string>

namespace coldbrick::inline v0::detail {

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

std::string in_small_letters(std::string_view word) {
    std::string small{word};
    std::transform(small.begin(), small.end(), small.begin(),
                   [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
    return small;
}

// "did you mean 'circle'?", or what is allowed.
std::string suggestion(std::string_view word, const std::vector<std::string_view>& known) {
    const auto small = in_small_letters(word);
    if (small != word && includes(known, small)) {
        return "write " + in_quotes(small) + ": the language's words are in small letters";
    }
    const auto near = nearest_word(word, known);
    return near.empty() ? "allowed are " + in_words(known, "and") : "did you mean " + in_quotes(near) + "?";
}

// All keywords of the forms, each once.
std::vector<std::string_view> keywords_of(const std::vector<StatementForm>& forms) {
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
std::string forms_in_words(const std::vector<StatementForm>& forms) {
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
    // Other words that might have been meant where a keyword is unknown are known too.
    ArgumentReader(std::span<const Word> words, const std::vector<StatementForm>& forms, Faults& faults,
                   std::span<const std::string_view> others = {})
        : words_{words}, known_{keywords_of(forms)}, faults_{faults} {
        known_.insert(known_.end(), others.begin(), others.end());
    }

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
                faults_.add(word, in_quotes(word.text) + " has no value after it");
            }
        }
        return arguments;
    }

  private:
    [[nodiscard]] bool at_value() const { return at_ < words_.size() && find_keyword(words_[at_].text) == nullptr; }

    std::vector<Word> values(const Keyword& keyword) {
        std::vector<Word> result;
        if (keyword.takes == Takes::word && at_ < words_.size()) result.push_back(words_[at_++]);
        if (keyword.takes == Takes::one_value && at_value()) {
            result.push_back(words_[at_++]);
            if (result[0].text.ends_with(',') && at_value()) ++at_;  // told as a pair with a space in it
        }
        while (keyword.takes == Takes::pairs && at_value() && could_be_pair(words_[at_].text)) {
            const auto is_second = !result.empty() && is_number(result.back().text) && is_number(words_[at_].text);
            if (is_second || is_operator(words_[at_].text)) break;  // told as a slip
            result.push_back(words_[at_++]);
            if (result.back().text.ends_with(',') && at_value()) ++at_;
        }
        return result;
    }

    // A mistyped keyword among pairs is told as such.
    [[nodiscard]] static bool could_be_pair(std::string_view word) {
        return word.find_first_of(",0123456789(") != std::string_view::npos;
    }

    static bool is_number(std::string_view word) {
        const auto digits = word.substr(word.starts_with('-') ? 1 : 0);
        const auto is_part = [](char c) { return (c >= '0' && c <= '9') || c == '.'; };
        return !digits.empty() && std::all_of(digits.begin(), digits.end(), is_part);
    }
    static bool is_operator(std::string_view word) { return word == "+" || word == "-" || word == "*" || word == "/"; }

    void refuse(const Word& word, std::string what, std::string advice) {
        faults_.add(word, std::move(what), std::move(advice));
        at_ = words_.size();
    }

    // The commonest slips, each with its cause. Says whether it was one; nothing more is read of the statement then.
    bool refuse_slip(const Word& word) {
        const auto before = at_ > 0 ? std::string_view{words_[at_ - 1].text} : std::string_view{};
        const auto next = at_ + 1 < words_.size() ? words_[at_ + 1].text : std::string{};
        if (word.text.starts_with('#') && find_keyword(before) == nullptr) {
            refuse(word, "a '#' begins a colour; a comment begins with //", "write // before what is not to be read");
        } else if (is_number(before) && is_number(word.text)) {
            refuse(word, "there is no comma between " + in_quotes(before) + " and " + in_quotes(word.text),
                   "a pair is written without spaces: " + std::string{before} + "," + word.text);
        } else if (is_operator(word.text)) {
            refuse(word, "an expression has no spaces but in parentheses",
                   "write " + std::string{before} + word.text + next + ", or parentheses around each number");
        } else if (word.text == "color" || word.text == "colour") {
            refuse(word, "the colour of a drawing is its ink", "for example: ink " + (next.empty() ? "red" : next));
        } else if (includes(verbs, word.text) && !includes(known_, word.text)) {
            refuse(word, in_quotes(word.text) + " begins another statement",
                   "write each statement on a line of its own");
        } else {
            return false;
        }
        return true;
    }

    // Says so once, and leaves out the words up to the next keyword, which would be told as wrong only for this.
    void refuse_word(const Word& word) {
        if (refuse_slip(word)) return;
        const auto looks_like_value = could_be_pair(word.text) || word.text.starts_with('#');
        faults_.add(word,
                    looks_like_value ? in_quotes(word.text) + " has no keyword before it"
                                     : "unknown keyword " + in_quotes(word.text),
                    suggestion(word.text, known_));
        while (at_value()) ++at_;
    }

    std::span<const Word> words_;
    std::size_t at_ = 0;
    std::vector<std::string_view> known_;
    Faults& faults_;
};

// What is checked against forms: "fill circle" and its arguments, told at a place if something is missing.
struct GivenArguments {
    std::string words;
    const Word& place;
    const std::vector<Argument>& given;
    bool may_repeat_through;
};

// Which form the arguments have, with faults for what is too much or missing.
void check_form(const GivenArguments& arguments, const std::vector<StatementForm>& forms, Faults& faults) {
    const auto& [words, place, given, may_repeat_through] = arguments;
    const auto gives = [&of = given](std::string_view name) {
        return std::any_of(of.begin(), of.end(), [&](const Argument& a) { return a.keyword.text == name; });
    };
    const auto matches = [&](const StatementForm& form) {
        return std::count_if(form.needed.begin(), form.needed.end(), gives);
    };
    const auto& form =
        *std::max_element(forms.begin(), forms.end(),
                          [&](const StatementForm& a, const StatementForm& b) { return matches(a) < matches(b); });
    for (std::size_t i = 0; i < given.size(); ++i) {
        const auto& keyword = given[i].keyword;
        const auto first =
            std::find_if(given.begin(), given.end(), [&](const Argument& a) { return a.keyword.text == keyword.text; });
        const auto is_repeat = first != given.begin() + static_cast<std::ptrdiff_t>(i);
        if (!includes(form.needed, keyword.text) && !includes(form.optional, keyword.text)) {
            faults.add(keyword, in_quotes(keyword.text) + " does not belong here",
                       in_quotes(words) + " takes " + forms_in_words(forms));
        } else if (is_repeat && !(keyword.text == "through" && may_repeat_through)) {
            faults.add(keyword, in_quotes(keyword.text) + " is given twice");
        }
    }
    std::vector<std::string_view> missing;
    std::copy_if(form.needed.begin(), form.needed.end(), std::back_inserter(missing),
                 [&](std::string_view name) { return !gives(name); });
    if (missing.empty()) return;
    faults.add(place, in_quotes(words) + " needs " + in_words(missing, "and"),
               forms.size() > 1 ? "it takes " + forms_in_words(forms) : std::string{});
}

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
        for (auto& argument : ArgumentReader{words.subspan(1), all, faults_, joiners}.read()) {
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

bool takes_shape(std::string_view verb) { return verb == "fill" || verb == "stroke"; }

void parse_parts(const Statement& statement, std::size_t begin, const std::vector<StatementForm>& own, Faults& faults,
                 ParsedStatement& parsed) {
    PartReader reader{std::span{statement.words}.subspan(begin), own, faults};
    reader.set_place(statement.words[begin - 1]);
    reader.read(parsed);
}

bool is_definition(std::string_view verb) {
    return verb == "color" || verb == "gradient" || verb == "hatch" || verb == "pattern";
}

// NAME = at the beginning of a definition, and of a gradient its kind. Gives the number of words that these are; 0 if
// there was a fault.
std::size_t parse_name(const Statement& statement, Faults& faults, ParsedStatement& parsed) {
    const auto& words = statement.words;
    const auto verb = std::string_view{words[0].text};
    constexpr auto advice = "for example: color dusk = #39466b";
    if (words.size() < 3 || words[2].text != "=") {
        faults.add(words.size() > 1 ? words[1] : words[0], in_quotes(verb) + " needs a name and '='", advice);
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
    const auto is_word = find_keyword(name) != nullptr || includes(verbs, name) || includes(shape_names(), name) ||
                         includes(gradients, name) || includes(joiners, name);
    if (is_word || find_color(name)) {
        faults.add(words[1], in_quotes(name) + (is_word ? " is a word of the language" : " is the name of a colour"),
                   "choose another name, such as my_" + name);
        return 0;
    }
    parsed.name = words[1];
    if (verb != "gradient") return 3;
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
std::size_t parse_head(const Statement& statement, Faults& faults, ParsedStatement& parsed) {
    const auto& words = statement.words;
    const auto verb = std::string_view{words[0].text};
    if (is_definition(verb)) return parse_name(statement, faults, parsed);
    if (verb == "paste") {
        if (words.size() == 1)
            faults.add(words[0], "'paste' has no picture after it", "for example: paste \"quay.png\" at 24,18");
        if (words.size() > 1) parsed.values = {words[1]};
        return words.size() > 1 ? 2 : 0;
    }
    if (!takes_shape(verb)) return 1;
    if (words.size() == 1) {
        faults.add(words[0], in_quotes(verb) + " has no shape after it",
                   "allowed are " + in_words(shape_names(), "and"));
        return 0;
    }
    parsed.shape = words[1];
    return 2;
}

// Statements of which only values follow: those of a color, palette or edges; end has none.
bool takes_values(std::string_view verb) {
    return verb == "color" || verb == "palette" || verb == "edges" || verb == "end";
}

void parse_values(const Statement& statement, std::size_t begin, Faults& faults, ParsedStatement& parsed) {
    const auto& words = statement.words;
    const auto verb = std::string_view{words[0].text};
    parsed.values.assign(words.begin() + static_cast<std::ptrdiff_t>(begin), words.end());
    const auto is_list = verb == "palette";
    const auto most = verb == "end" ? 0U : 1U;
    if (parsed.values.empty() && verb != "end") {
        faults.add(words.back(), in_quotes(verb) + " has no value after it");
    } else if (!is_list && parsed.values.size() > most) {
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
    if (!includes(verbs, verb)) {
        faults.add(words[0], "unknown statement " + in_quotes(verb), suggestion(verb, {verbs.begin(), verbs.end()}));
        return std::nullopt;
    }
    const auto begin = parse_head(statement, faults, parsed);
    if (begin == 0) return std::nullopt;
    const auto& forms = forms_of(parsed.words());
    if (takes_values(verb)) {
        parse_values(statement, begin, faults, parsed);
    } else if (verb == "clip") {
        parse_parts(statement, 1, forms, faults, parsed);
    } else if (forms.empty()) {
        refuse_shape(*parsed.shape, verb, faults);
    } else if (parsed.shape && parsed.shape->text == "region") {
        parse_parts(statement, 2, forms, faults, parsed);
    } else {
        parsed.arguments = ArgumentReader{std::span{words}.subspan(begin), forms, faults}.read();
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

#include "scene/parse_arguments.hpp"

#include "scene/statements.hpp"

namespace coldbrick::inline v0::detail {

const Keyword* find_keyword(std::string_view word) {
    const auto* const found =
        std::find_if(keywords.begin(), keywords.end(), [&](const Keyword& k) { return k.name == word; });
    return found == keywords.end() ? nullptr : found;
}

namespace {

std::string in_small_letters(std::string_view word) {
    std::string small{word};
    std::transform(small.begin(), small.end(), small.begin(),
                   [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
    return small;
}

}  // namespace

std::string suggestion(std::string_view word, const std::vector<std::string_view>& known) {
    const auto small = in_small_letters(word);
    if (small != word && includes(known, small)) {
        return "write " + in_quotes(small) + ": the language's words are in small letters";
    }
    const auto near = nearest_word(word, known);
    return near.empty() ? "allowed are " + in_words(known, "and") : "did you mean " + in_quotes(near) + "?";
}

void refuse_shape(const Word& shape, bool is_stroked, Faults& faults) {
    const auto name = std::string{shape.text};
    if (!is_line(name) || is_stroked) {
        return faults.add(shape, "unknown shape " + in_quotes(name), suggestion(name, shape_names()));
    }
    faults.add(shape, (name == "arc" ? "an " : "a ") + name + " cannot be filled",
               "a line has no inside; write 'stroke " + name + "'");
}

namespace {

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
    ArgumentReader(std::span<const Word> words, const std::vector<StatementForm>& forms, Scope& scope, Faults& faults,
                   std::span<const std::string_view> others)
        : words_{words}, known_{keywords_of(forms)}, scope_{scope}, faults_{faults} {
        known_.insert(known_.end(), others.begin(), others.end());
    }

    std::vector<ReadArgument> read() {
        std::vector<ReadArgument> arguments;
        // Words to be drawn need no keyword.
        const auto is_words = [&](const Word& word) {
            const auto name = word.text.substr(0, word.text.find('.'));
            return word.text.starts_with('"') || (find_keyword(name) == nullptr && is_own_name(name));
        };
        if (!words_.empty() && includes(known_, "words") && is_words(words_[0])) {
            arguments.push_back({.keyword = {.text = "words", .place = words_[0].place}, .values = {words_[0]}});
            ++at_;
        }
        while (at_ < words_.size()) {
            const auto word = as_keyword(words_[at_]);
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
    // The name of a value, of one's own or such as the sheet's width.
    [[nodiscard]] bool is_own_name(std::string_view word) const {
        const auto* const known = scope_.find(word);
        return known != nullptr && known->shape == no_slot;
    }

    // A keyword as it is spelled now, if it is one that is known here.
    [[nodiscard]] Word as_keyword(const Word& word) const {
        return includes(known_, new_spelling(word.text)) ? current_spelling(word, faults_) : word;
    }

    [[nodiscard]] bool at_value() const {
        if (at_ == words_.size()) return false;
        const auto text = words_[at_].text;
        return find_keyword(text) == nullptr && !includes(known_, new_spelling(text));
    }

    // The same behind a keyword, where names may be those of keywords.
    [[nodiscard]] bool at_first_value() const {
        return at_value() || (at_ < words_.size() && is_own_name(words_[at_].text));
    }

    std::vector<Word> values(const Keyword& keyword) {
        std::vector<Word> result;
        if (keyword.takes == Takes::word && at_ < words_.size()) result.push_back(words_[at_++]);
        if (keyword.takes == Takes::one_value && at_first_value()) {
            result.push_back(words_[at_++]);
            if (result[0].text.ends_with(',') && at_value()) ++at_;  // reported as a pair with a space in it
        }
        while (keyword.takes == Takes::pairs && at_value() && could_be_pair(words_[at_].text)) {
            const auto is_second = !result.empty() && is_number(result.back().text) && is_number(words_[at_].text);
            if (is_second || is_operator(words_[at_].text)) break;  // reported as a slip
            result.push_back(words_[at_++]);
            if (result.back().text.ends_with(',') && at_value()) ++at_;
        }
        return result;
    }

    // A mistyped keyword among pairs is reported as such.
    [[nodiscard]] bool could_be_pair(std::string_view word) const {
        if (word.find_first_of(",0123456789(") != std::string_view::npos) return true;
        return is_own_name(word.substr(0, word.find_first_of(".+-*/^")));
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
        const auto next = std::string{at_ + 1 < words_.size() ? words_[at_ + 1].text : std::string_view{}};
        if (word.text.starts_with('#') && find_keyword(before) == nullptr) {
            refuse(word, "a '#' begins a colour; a comment begins with //", "write // before what is not to be read");
        } else if (is_number(before) && is_number(word.text)) {
            refuse(word, "there is no comma between " + in_quotes(before) + " and " + in_quotes(word.text),
                   "a pair is written without spaces: " + std::string{before} + "," + std::string{word.text});
        } else if (is_operator(word.text)) {
            refuse(
                word, "an expression has no spaces but in parentheses",
                "write " + std::string{before} + std::string{word.text} + next + ", or parentheses around each number");
        } else if (word.text == "color" || word.text == "colour") {
            refuse(word, "the colour of a drawing is its ink", "for example: ink " + (next.empty() ? "red" : next));
        } else if (statement_kind(word.text) != nullptr && !includes(known_, word.text)) {
            refuse(word, in_quotes(word.text) + " begins another statement",
                   "write each statement on a line of its own");
        } else {
            return false;
        }
        return true;
    }

    // Says so once, and leaves out the words up to the next keyword, which would be reported as wrong only for this.
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
    Scope& scope_;
    Faults& faults_;
};

}  // namespace

std::vector<ReadArgument> read_arguments(std::span<const Word> words, const std::vector<StatementForm>& forms,
                                         Scope& scope, Faults& faults, std::span<const std::string_view> others) {
    return ArgumentReader{words, forms, scope, faults, others}.read();
}

void check_form(const GivenArguments& arguments, const std::vector<StatementForm>& forms, Faults& faults) {
    const auto& [words, place, given, may_repeat_through] = arguments;
    const auto gives = [&of = given](std::string_view name) {
        return std::any_of(of.begin(), of.end(), [&](const ReadArgument& a) { return a.keyword.text == name; });
    };
    const auto matches = [&](const StatementForm& form) {
        return std::count_if(form.needed.begin(), form.needed.end(), gives);
    };
    const auto& form =
        *std::max_element(forms.begin(), forms.end(),
                          [&](const StatementForm& a, const StatementForm& b) { return matches(a) < matches(b); });
    for (std::size_t i = 0; i < given.size(); ++i) {
        const auto& keyword = given[i].keyword;
        const auto first = std::find_if(given.begin(), given.end(),
                                        [&](const ReadArgument& a) { return a.keyword.text == keyword.text; });
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

}  // namespace coldbrick::inline v0::detail

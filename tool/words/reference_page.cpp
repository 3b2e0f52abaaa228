#include "words/reference_page.hpp"

#include "words/embedded_pages.hpp"

#include <coldbrick/scene_words.hpp>

#include <algorithm>
#include <sstream>
#include <utility>

namespace coldbrick::tool {

namespace {

std::vector<std::string> lines_of(std::string_view text) {
    std::vector<std::string> lines;
    std::istringstream in{std::string{text}};
    for (std::string line; std::getline(in, line);) lines.push_back(line);
    return lines;
}

std::string trimmed(const std::string& text) {
    const auto first = text.find_first_not_of(' ');
    if (first == std::string::npos) return "";
    return text.substr(first, text.find_last_not_of(' ') - first + 1);
}

std::vector<std::string> split(const std::string& text, char at) {
    std::vector<std::string> parts;
    std::istringstream in{text};
    for (std::string part; std::getline(in, part, at);) {
        part = trimmed(part);
        if (!part.empty()) parts.push_back(part);
    }
    return parts;
}

// The cells of a table's row, between its bars.
PageWord word_of(const std::string& row) {
    std::vector<std::string> cells;
    std::istringstream in{row.substr(1)};
    for (std::string cell; std::getline(in, cell, '|');) cells.push_back(trimmed(cell));
    constexpr std::size_t of_statements = 8;
    if (cells.size() < of_statements) {
        // A call's: argument, value, unit, range, default, what it says.
        cells.resize(std::max<std::size_t>(cells.size(), 6));
        return {.word = cells[0],
                .value = cells[1],
                .cpp = {},
                .unit = cells[2],
                .range = cells[3].empty() ? "any" : cells[3],
                .usual = cells[4],
                .tries = {},
                .meaning = cells[5]};
    }
    return {.word = cells[0],
            .value = cells[1],
            .cpp = cells[2],
            .unit = cells[3],
            .range = cells[4],
            .usual = cells[5],
            .tries = split(cells[6], ';'),
            .meaning = cells[7]};
}

// Reads a page line by line.
class PageReader {
  public:
    explicit PageReader(std::string_view markdown) : lines_{lines_of(markdown)} {}

    ReferencePage run() {
        while (next_ < lines_.size()) {
            const auto& line = lines_[next_++];
            if (line.starts_with("# "))
                page_.name = line.substr(2);
            else if (line.starts_with("```"))
                take_code(line.substr(3));
            else if (line.starts_with("|"))
                take_row(line);
            else if (!line.empty() && !line.starts_with("#"))
                take_text(line);
        }
        end_text();
        return std::move(page_);
    }

  private:
    void take_code(const std::string& kind) {
        std::string code;
        while (next_ < lines_.size() && lines_[next_] != "```") code += lines_[next_++] + "\n";
        ++next_;
        if (kind == "brick" && page_.scene.empty()) {
            page_.scene = code;
        } else if (kind == "brick") {
            // The words in front of it are no note.
            page_.also.push_back(std::exchange(text_, {}) + "\n" + code);
        }
        if (kind == "cpp") page_.cpp = code;
        if (kind == "brick fault" || kind == "cpp fault") page_.faults.push_back({.scene = code, .message = {}});
        if (kind == "text" && !page_.faults.empty()) page_.faults.back().message = code;
    }

    void take_row(const std::string& line) {
        if (line.starts_with("| word |") || line.starts_with("| argument |") || line.starts_with("|---")) return;
        page_.words.push_back(word_of(line));
    }

    void take_text(const std::string& line) {
        if (page_.scene.empty() && page_.cpp.empty()) {
            page_.what += (page_.what.empty() ? "" : " ") + line;
            return;
        }
        end_text();
        text_ = line;
    }

    // A text that no code has followed is a note.
    void end_text() {
        if (!text_.empty()) page_.notes += (page_.notes.empty() ? "" : " ") + std::exchange(text_, {});
    }

    std::vector<std::string> lines_;
    std::size_t next_ = 0;
    std::string text_;
    ReferencePage page_;
};

const SceneKeyword* keyword_of(const std::string& word) {
    const auto& keywords = scene_words().keywords;
    const auto found = std::find_if(keywords.begin(), keywords.end(),
                                    [&](const SceneKeyword& keyword) { return keyword.name == word; });
    return found == keywords.end() ? nullptr : &*found;
}

// Behind the values of a keyword that stands at a place. A value may be a word that is a keyword elsewhere.
std::vector<std::string>::const_iterator behind_values(const std::vector<std::string>& words,
                                                       std::vector<std::string>::const_iterator at) {
    using enum SceneKeyword::Takes;
    const auto* const keyword = keyword_of(*at++);
    if (keyword == nullptr || keyword->takes == nothing || at == words.end()) return at;
    if (keyword->takes != pairs) return at + 1;
    while (at != words.end() && keyword_of(*at) == nullptr) ++at;
    return at;
}

// Words as a statement has them: quoted ones whole.
std::vector<std::string> words_of(const std::string& line) {
    std::vector<std::string> words;
    std::string word;
    auto is_quoted = false;
    for (const auto c : line) {
        if (c == '"') is_quoted = !is_quoted;
        if (c == ' ' && !is_quoted) {
            if (!word.empty()) words.push_back(std::exchange(word, {}));
        } else {
            word += c;
        }
    }
    if (!word.empty()) words.push_back(word);
    return words;
}

// The keywords that the statement takes that a line begins.
bool takes(const std::vector<std::string>& words, const std::string& keyword) {
    const auto& statements = scene_words().statements;
    // "fill circle", "sheet", and "gradient NAME = linear".
    const auto begins = [&](const std::string& name) {
        const auto parts = words_of(name);
        if (words.empty() || words[0] != parts[0]) return false;
        if (parts.size() == 1) return true;
        return (words.size() > 1 && words[1] == parts[1]) || (words.size() > 3 && words[3] == parts[1]);
    };
    return std::any_of(statements.begin(), statements.end(), [&](const SceneStatement& statement) {
        const auto has = [&](const std::vector<std::string>& list) {
            return std::find(list.begin(), list.end(), keyword) != list.end();
        };
        return begins(statement.words) &&
               std::any_of(statement.forms.begin(), statement.forms.end(),
                           [&](const SceneForm& form) { return has(form.needed) || has(form.optional); });
    });
}

std::string joined(const std::vector<std::string>& lines) {
    std::string text;
    for (const auto& line : lines) text += line + "\n";
    return text;
}

}  // namespace

ReferencePage parse_page(std::string_view markdown) { return PageReader{markdown}.run(); }

const std::vector<std::string>& page_names() {
    static const auto names = [] {
        std::vector<std::string> all;
        for (const auto& page : embedded_pages()) all.emplace_back(page.name);
        for (const auto& page : call_pages()) all.emplace_back(page.name);
        std::sort(all.begin(), all.end());
        return all;
    }();
    return names;
}

std::optional<ReferencePage> reference_page(std::string_view name) {
    for (const auto& pages : {embedded_pages(), call_pages()}) {
        for (const auto& page : pages) {
            if (page.name == name) return parse_page(page.content);
        }
    }
    return std::nullopt;
}

std::vector<std::string> with_value(const std::string& scene, const std::string& word, const std::string& value) {
    // Words without a value are there, or not.
    if (value == "without") return {scene};
    auto lines = lines_of(scene);
    const auto setting = word + (value.empty() || value == "with" ? "" : " " + value);
    for (auto& line : lines) {
        const auto words = words_of(line);
        const auto found = std::find(words.begin(), words.end(), word);
        if (found == words.end() || !takes(words, word)) continue;
        const auto end = behind_values(words, found);
        std::string changed = line.substr(0, line.find_first_not_of(' '));
        for (auto at = words.begin(); at != words.end(); ++at) {
            if (at > found && at < end) continue;
            changed += (at == words.begin() ? "" : " ") + (at == found ? setting : *at);
        }
        line = changed;
        return {joined(lines)};
    }
    std::vector<std::string> scenes;
    for (auto& line : lines) {
        const auto words = words_of(line);
        if (words.empty() || words[0] == "sheet" || !takes(words, word)) continue;
        const auto before = line;
        line += " " + setting;
        scenes.push_back(joined(lines));
        line = before;
    }
    return scenes;
}

namespace {

// The page of a statement, also of one whose name is only nearly right; empty if there is none.
std::string page_of(const std::vector<std::string>& words) {
    const auto nearest_of = [](const std::string& word) {
        const auto& names = page_names();
        if (std::binary_search(names.begin(), names.end(), word)) return word;
        return std::string{nearest_word(word, std::vector<std::string_view>{names.begin(), names.end()})};
    };
    if (words.empty()) return "";
    auto verb = nearest_of(words[0]);
    const auto has_shape = verb == "fill" || verb == "stroke" || verb == "measure" || verb == "clip";
    if (!has_shape || words.size() < 2) return verb;
    auto shape = nearest_of(words[1]);
    const auto& shapes = scene_words().shapes;
    const auto is_shape =
        std::any_of(shapes.begin(), shapes.end(), [&](const SceneEntry& of) { return of.name == shape; });
    return is_shape ? shape : verb;
}

}  // namespace

std::string pages_hint(const std::vector<Fault>& faults, std::string_view scene) {
    const auto lines = lines_of(scene);
    std::vector<std::string> pages;
    constexpr std::size_t most = 3;
    for (const auto& fault : faults) {
        const auto is_about_words =
            fault.what.starts_with("unknown ") || fault.what.find("does not belong here") != std::string::npos ||
            fault.what.find("is missing") != std::string::npos || fault.what.find(" needs ") != std::string::npos;
        const auto number = static_cast<std::size_t>(fault.place.line);
        if (!is_about_words || !fault.file.empty() || number < 1 || number > lines.size()) continue;
        auto page = page_of(words_of(lines[number - 1]));
        if (page.empty() || std::find(pages.begin(), pages.end(), page) != pages.end() || pages.size() == most)
            continue;
        pages.push_back(std::move(page));
    }
    std::string hint;
    for (const auto& page : pages) hint += "\n'coldbrick words " + page + "' tells what it takes, with pictures";
    return hint;
}

}  // namespace coldbrick::tool

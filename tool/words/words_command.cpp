// The reference in the terminal.
#include "commands.hpp"
#include "output.hpp"
#include "words/embedded_pages.hpp"
#include "words/page_picture.hpp"
#include "words/reference_page.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <string>
#include <vector>

#include <fmt/core.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace coldbrick::tool {

namespace {

constexpr std::size_t line_width = 100;

// Words in lines of that width, each after an indent.
std::string wrapped(const std::string& words, std::size_t indent) {
    std::string text;
    std::string line(indent, ' ');
    for (std::size_t at = 0; at < words.size();) {
        const auto end = std::min(words.find(' ', at), words.size());
        const auto word = words.substr(at, end - at);
        if (line.size() + word.size() > line_width && line.size() > indent) {
            text += line.substr(0, line.find_last_not_of(' ') + 1) + "\n";
            line.assign(indent, ' ');
        }
        line += word + " ";
        at = end + 1;
    }
    return text + line.substr(0, line.find_last_not_of(' ') + 1) + "\n";
}

std::string indented(const std::string& code) {
    std::string text;
    for (std::size_t at = 0; at < code.size();) {
        const auto end = std::min(code.find('\n', at), code.size());
        text += (end > at ? "    " : "") + code.substr(at, end - at) + "\n";
        at = end + 1;
    }
    return text;
}

// A table's rows say much in little: "a pixel number, -9 to 9; needed".
std::string details_of(const PageWord& word) {
    std::vector<std::string> parts;
    if (!word.unit.empty()) parts.push_back(word.unit);
    if (word.range != "any") parts.push_back(word.range);
    if (word.usual == "needed") {
        parts.emplace_back("needed");
    } else if (word.usual != "none" && (word.usual.starts_with("with ") || word.usual.starts_with("instead "))) {
        parts.push_back(word.usual);
    } else if (word.usual != "none") {
        parts.push_back("usually " + word.usual);
    }
    if (!word.cpp.empty()) parts.push_back("in C++ " + word.cpp);
    return fmt::format("{}", fmt::join(parts, "; "));
}

void print_page(const ReferencePage& page) {
    fmt::print("{}\n\n{}\n{}", page.name, wrapped(page.what, 0), indented(page.scene));
    if (!page.cpp.empty()) fmt::print("{}{}", page.scene.empty() ? "" : "\nThe same in C++:\n\n", indented(page.cpp));
    if (!page.notes.empty()) fmt::print("\n{}", wrapped(page.notes, 0));
    for (const auto& scene : page.also) {
        const auto end = scene.find('\n');
        fmt::print("\n{}\n\n{}", scene.substr(0, end), indented(scene.substr(end + 1)));
    }
    if (!page.words.empty()) fmt::print("\nWhat it takes:\n\n");
    for (const auto& word : page.words) {
        fmt::print("    {}{}{}\n{}{}", word.word, word.value.empty() ? "" : " ", word.value, wrapped(word.meaning, 8),
                   wrapped(details_of(word), 8));
    }
    if (!page.faults.empty()) fmt::print("\nWhat goes wrong:\n");
    for (const auto& fault : page.faults) fmt::print("\n{}", indented(fault.message));
}

void print_list() {
    const auto print = [](const std::vector<std::string>& names, const auto& is_of) {
        for (const auto& name : names) {
            if (!is_of(name)) continue;
            const auto page = *reference_page(name);
            const auto first = page.what.substr(0, page.what.find(". ") + 1);  // its first sentence; npos + 1 is none
            const auto lines = wrapped(first.empty() ? page.what : first, 15);
            fmt::print("    {:<10} {}", name, lines.substr(lines.find_first_not_of(' ')));
        }
    };
    const auto& shapes = scene_words().shapes;
    const auto is_shape = [&](const std::string& name) {
        return std::any_of(shapes.begin(), shapes.end(), [&](const SceneEntry& shape) { return shape.name == name; });
    };
    fmt::print("Statements:\n\n");
    const auto is_call = [](const std::string& name) {
        const auto pages = call_pages();
        return std::any_of(pages.begin(), pages.end(), [&](const EmbeddedPage& page) { return page.name == name; });
    };
    print(page_names(), [&](const std::string& name) { return !is_shape(name) && !is_call(name); });
    fmt::print("\nShapes, to be filled and stroked:\n\n");
    print(page_names(), is_shape);
    fmt::print("\nCalls of the library that are no statements:\n\n");
    print(page_names(), is_call);
    fmt::print("\n'coldbrick words circle' prints a page, '-o circle.png' draws it.\n");
}

// Where a word is taken that is no page of its own.
std::vector<std::string> pages_with(const std::string& word) {
    std::vector<std::string> names;
    for (const auto& name : page_names()) {
        const auto page = *reference_page(name);
        const auto has =
            std::any_of(page.words.begin(), page.words.end(), [&](const PageWord& of) { return of.word == word; });
        if (has) names.push_back(name);
    }
    return names;
}

void print_json() {
    auto statements = nlohmann::ordered_json::array();
    for (const auto& statement : scene_words().statements) {
        auto forms = nlohmann::ordered_json::array();
        for (const auto& [needed, optional] : statement.forms)
            forms.push_back({{"needed", needed}, {"optional", optional}});
        statements.push_back({{"words", statement.words}, {"forms", std::move(forms)}});
    }
    auto verbs = nlohmann::ordered_json::array();
    for (const auto& verb : scene_words().verbs) verbs.push_back(verb.name);
    auto shapes = nlohmann::ordered_json::array();
    for (const auto& shape : scene_words().shapes) shapes.push_back(shape.name);
    using enum SceneKeyword::Takes;
    auto keywords = nlohmann::ordered_json::object();
    for (const auto& keyword : scene_words().keywords) {
        keywords[keyword.name] = keyword.takes == nothing ? "nothing" : keyword.takes == pairs ? "several" : "one";
    }
    const nlohmann::ordered_json all{{"verbs", std::move(verbs)},
                                     {"shapes", std::move(shapes)},
                                     {"keywords", std::move(keywords)},
                                     {"statements", std::move(statements)}};
    fmt::print("{}\n", all.dump(2, ' ', true));
}

ReferencePage page_for(const std::string& word) {
    if (auto page = reference_page(word)) return std::move(*page);
    const auto taken = pages_with(word);
    if (!taken.empty()) {
        throw Error{fmt::format("'{}' is a word of {}; 'coldbrick words {}' tells about it", word,
                                fmt::join(taken, ", "), taken.front())};
    }
    const auto& names = page_names();
    const auto near = nearest_word(word, std::vector<std::string_view>{names.begin(), names.end()});
    throw Error{fmt::format("there is no page '{}'; {}", printable(word),
                            near.empty() ? "'coldbrick words' lists them" : fmt::format("did you mean '{}'?", near))};
}

}  // namespace

Exit words(const WordsArguments& arguments) {
    if (arguments.as_json) {
        print_json();
        return Exit::done;
    }
    if (arguments.word.empty()) {
        if (!arguments.picture.empty()) throw WrongCall{"words: -o draws one page; name it"};
        print_list();
        return Exit::done;
    }
    const auto page = page_for(arguments.word);
    if (arguments.picture.empty()) {
        if (!arguments.only.empty()) throw WrongCall{"words: --only is for -o PICTURE"};
        print_page(page);
        return Exit::done;
    }
    SaveArguments as;
    as.picture = arguments.picture;
    const auto format = format_for(as);
    const auto picture = [&] {
        if (arguments.only.empty()) return page_picture(page);
        if (arguments.only == "scene") return page_scene(page);
        const auto found = std::find_if(page.words.begin(), page.words.end(), [&](const PageWord& of) {
            return of.word == arguments.only && !of.tries.empty();
        });
        if (found == page.words.end()) {
            throw Error{fmt::format("the page '{}' has no pictures of '{}'", page.name, printable(arguments.only))};
        }
        return word_picture(page, *found);
    }();
    put_file(arguments.picture, encode(picture, format),
             fmt::format("{} x {} pixels", picture.size().width, picture.size().height));
    return Exit::done;
}

}  // namespace coldbrick::tool

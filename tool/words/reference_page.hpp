// Pages of the reference: what a statement or a shape is for, how it is written, what it takes, what goes wrong.
#pragma once

#include <coldbrick/scene.hpp>

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace coldbrick::tool {

// A word that a statement takes.
struct PageWord {
    std::string word;
    std::string value;  // how its value is written
    std::string cpp;    // its name in C++
    std::string unit;
    std::string range;               // "0 to 255", "a, b, c", or "any"
    std::string usual;               // what it is when it is left out; "needed", "none", or words
    std::vector<std::string> tries;  // values that show what it changes; of words without one "without" and "with"
    std::string meaning;
};

struct PageFault {
    std::string scene;
    std::string message;
};

struct ReferencePage {
    std::string name;
    std::string what;
    std::string scene;              // a whole one
    std::vector<std::string> also;  // other forms of it, with words in front
    std::string cpp;                // that draws the same; empty where there is nothing like it
    std::string notes;
    std::vector<PageWord> words;
    std::vector<PageFault> faults;
};

// The names of all pages, in alphabetical order.
[[nodiscard]] const std::vector<std::string>& page_names();

// Nothing if there is none of that name.
[[nodiscard]] std::optional<ReferencePage> reference_page(std::string_view name);

// A page as it is written in docs/reference.
[[nodiscard]] ReferencePage parse_page(std::string_view markdown);

// Scenes with another value for a word: in the first statement that has it, or else in each that may take it.
[[nodiscard]] std::vector<std::string> with_value(const std::string& scene, const std::string& word,
                                                  const std::string& value);

// A line that names the pages of the statements in which words are wrong: "'coldbrick words circle' says what it
// takes, with pictures"; empty where there is nothing to say.
[[nodiscard]] std::string pages_hint(const std::vector<Fault>& faults, std::string_view scene);

}  // namespace coldbrick::tool

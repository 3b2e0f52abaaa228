// coldbrick/scene_words.hpp - the words of the scene language, from the tables that its parser reads: for editors,
// completion, and references.
//
//     for (const SceneStatement& statement : scene_words().statements) std::cout << statement.words << '\n';
#pragma once

#include "coldbrick/detail/public.hpp"

#include <string>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// One form of a statement: keywords that it needs, and those that may be left out.
struct SceneForm {
    std::vector<std::string> needed;
    std::vector<std::string> optional;
};

struct SceneStatement {
    std::string words;             // how it begins: "sheet", "fill circle", "gradient linear"
    std::vector<SceneForm> forms;  // none for statements without keywords
};

// A verb or a shape as help lists it.
struct SceneEntry {
    std::string name;
    std::string form;     // what follows it
    std::string meaning;  // lines
    std::string example;  // of verbs: a statement
    // Of verbs: whether an 'end' belongs to it; and whether what stands before that is drawn elsewhere than it says.
    bool has_end = false;
    bool moves = false;
};

struct SceneKeyword {
    std::string name;
    enum class Takes { nothing, value, word, pairs } takes = Takes::value;
};

struct SceneFunction {
    std::string name;
    std::string example;
};

struct SceneWords {
    std::vector<SceneEntry> verbs;
    std::vector<SceneEntry> shapes;
    std::vector<SceneStatement> statements;  // of all verbs, and of each with each shape
    std::vector<SceneKeyword> keywords;
    std::vector<SceneFunction> functions;
    std::vector<std::string> joiners;  // of regions: plus, minus, within, xor
};

[[nodiscard]] const SceneWords& scene_words();

}  // namespace v0
}  // namespace coldbrick

// A scene's text to a program: known statements, known names, each keyword once, with as many values as it takes, and
// all that a statement needs.
#pragma once

#include "scene/budget.hpp"
#include "scene/compile.hpp"
#include "scene/parse_arguments.hpp"
#include "scene/program.hpp"
#include "scene/scene_files.hpp"
#include "scene/statements.hpp"

#include <span>
#include <string>
#include <vector>

namespace coldbrick::inline v0::detail {

class ProgramParser {
  public:
    ProgramParser(Program& program, SceneFiles& files, SceneBudget& budget, Faults& faults);

    // Reads all of it. Statements with faults are there too, marked, so that what follows is looked at.
    void parse(std::string_view text, const std::vector<std::string>& outside);

    // The statements that say themselves what follows their verb.
    void repeat(const Statement& statement, Node& node);
    void when(const Statement& statement, Node& node);
    void otherwise(const Statement& statement, Node& node);
    void shape(const Statement& statement, Node& node);
    void use(const Statement& statement, Node& node);
    void include(const Statement& statement, Node& node);
    void end(const Statement& statement, Node& node);

  private:
    struct OpenBlock {
        std::uint32_t node;
        Block block;
        std::vector<std::uint32_t> branches = {};  // of when: the statement that each begins with
        bool has_last = false;                     // of when: whether there is an otherwise without condition
    };

    void read(std::string_view text);
    void take(const Statement& statement);
    void check_place(const Statement& statement, const StatementKind& kind);
    void take_kind(const Statement& statement, Node& node);
    void begin_block(const Node& node, std::uint32_t number);
    void after_end(const Node& node);

    std::size_t head(const Statement& statement, Node& node);
    std::size_t name(const Statement& statement, Node& node);
    // A parameter may also be named width or height.
    bool is_name(const Word& word, bool may_be_kept);
    void body(const Statement& statement, std::size_t begin, Node& node);
    void values(const Statement& statement, std::size_t begin, Node& node);
    void areas(const Statement& statement, std::size_t begin, const std::vector<StatementForm>& own, Node& node);
    void keep(const std::vector<ReadArgument>& read, Node& node);
    void keep(const ReadArgument& read);
    void define_names(const Statement& statement, Node& node);
    void define_faulty(const Statement& statement, const StatementKind& kind, Node& node);
    std::uint32_t loop_name(const Word& name);
    void repeat_words(const Statement& statement, Node& node);
    bool parameter(const Word& word, ShapeDefinition& definition);

    // What stands in a statement from a word on, as one word.
    Word rest_of(const Statement& statement, std::size_t begin);
    void value(const Word& word, Reads reads);

    Program& program_;
    SceneFiles& files_;
    SceneBudget& budget_;
    Faults& faults_;
    Scope scope_;
    Compiler compiler_;
    std::vector<OpenBlock> blocks_;
    std::vector<std::string> including_;  // files that are being read
    std::uint16_t file_ = 0;
    std::uint64_t text_bytes_ = 0;
    bool sheet_seen_ = false;
    bool is_open_ = false;  // whether the block that a statement begins has been begun in the scope
    bool frames_seen_ = false;
    bool first_reported_ = false;
    bool is_empty_ = true;
};

}  // namespace coldbrick::inline v0::detail

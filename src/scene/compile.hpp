// Values as they are written to parts of a program.
#pragma once

#include "scene/functions.hpp"
#include "scene/grammar.hpp"
#include "scene/scope.hpp"

#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

class Compiler {
  public:
    Compiler(Program& program, Scope& scope, Faults& faults) : program_{program}, scope_{scope}, faults_{faults} {}

    // A word after a keyword: one part for each value between its commas.
    ValueWord word(const Word& word, Reads reads);

    // What texts are from here on, for the fault of one without quotes.
    void expect_text(std::string_view what, std::string_view example) noexcept {
        text_ = what;
        text_example_ = example;
    }

  private:
    Part part(const Word& part, Reads reads);
    Part labelled(const Word& part);
    Part face(const Word& part);
    Part expression(const Word& part, Reads reads);

    Program& program_;
    Scope& scope_;
    Faults& faults_;
    std::string_view text_ = "words";
    std::string_view text_example_;
};

// What stands between quotes: \n is a line's end, \" a quote, \\ a backslash.
[[nodiscard]] std::string unquoted(std::string_view text);

}  // namespace coldbrick::inline v0::detail

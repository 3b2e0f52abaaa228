// Statements to drawing calls.
#pragma once

#include "scene/figures.hpp"

namespace coldbrick::detail {

// Takes one statement after the other.
class Evaluator {
  public:
    Evaluator(ValueReader& values, Faults& faults, Scene& scene) : values_{values}, faults_{faults}, scene_{scene} {}

    void take(const ParsedStatement& statement);

    // One that has been told as wrong, of which only its first word is known: what it begins still has an end.
    void take_faulty(const Word& verb);

    // Says so where something was begun that has no end.
    void finish();

  private:
    void sheet(const ParsedStatement& statement);
    void drawing(const ParsedStatement& statement);
    void begin_clip(const ParsedStatement& statement);
    std::optional<Figure> region_figure(const ParsedStatement& statement, Arguments& given);

    struct OpenClip {
        Word word;
        std::shared_ptr<const Region> region;
    };

    ValueReader& values_;
    Faults& faults_;
    Scene& scene_;
    std::vector<OpenClip> clips_;
};

}  // namespace coldbrick::detail

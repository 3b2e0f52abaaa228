// Statements to drawing calls.
#pragma once

#include "scene/faces.hpp"
#include "scene/figures.hpp"
#include "scene/pictures.hpp"

#include <memory>
#include <optional>

namespace coldbrick::inline v0::detail {

// Takes one statement after the other.
class Evaluator {
  public:
    Evaluator(ValueReader& values, PictureReader& pictures, FaceReader& faces, Budget& budget, Faults& faults,
              Scene& scene)
        : values_{values}, pictures_{pictures}, faces_{faces}, budget_{budget}, faults_{faults}, scene_{scene} {}

    void take(const ParsedStatement& statement);

    // What it does for each kind: those that draw, those that begin or end something, those that give a name to an ink
    // or a face.
    void sheet(const ParsedStatement& statement);
    void drawing(const ParsedStatement& statement);
    void paste(const ParsedStatement& statement);
    void begin_clip(const ParsedStatement& statement);
    void begin_group(const ParsedStatement& statement);
    void begin_pattern(const ParsedStatement& statement);
    void end(const ParsedStatement& statement);
    void define(const ParsedStatement& statement);
    void face(const ParsedStatement& statement);
    void edges(const ParsedStatement& statement);
    void palette(const ParsedStatement& statement);

    // One that has been told as wrong: what it begins still has an end, and what it names is still a name.
    void take_faulty(const Statement& statement);

    // Says so where something was begun that has no end.
    void finish();

  private:
    // What has been begun and not ended: what all drawing in it is under.
    struct Block {
        Word word;
        DrawingView view;  // clipped and moved as all that is drawn in it
        Transform by = {};
        std::shared_ptr<Scene> pattern = nullptr;  // the tile that is drawn, of a pattern
        std::optional<Word> name = {};
        Point offset = {};
        Placing placing = Placing::target;
    };

    void add_call(const ParsedStatement& statement, const Drawn& what, const std::optional<Ink>& ink);
    std::uint64_t kind_number(const ParsedStatement& statement);
    void remark_overhang(const ParsedStatement& statement, const Figure& text);
    void check_entry(const Ink& ink, Arguments& given);
    std::optional<Drawn> region_figure(const ParsedStatement& statement, Arguments& given);
    std::optional<Transform> group_transform(std::string_view verb, Arguments& given);

    // The block that a new one begins in, or the whole sheet.
    [[nodiscard]] Block inner(const Word& word);
    // What is drawn on: the sheet, or the pattern that has been begun.
    [[nodiscard]] Scene& drawn();
    [[nodiscard]] Box drawn_box();

    ValueReader& values_;
    PictureReader& pictures_;
    FaceReader& faces_;
    Budget& budget_;
    Faults& faults_;
    Scene& scene_;
    std::vector<Block> blocks_;
    Edge usual_edge_ = Edge::crisp;
    bool has_faulty_palette_ = false;
};

}  // namespace coldbrick::inline v0::detail

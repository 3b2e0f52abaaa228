// A program to drawing calls.
#pragma once

#include "scene/faces.hpp"
#include "scene/figures.hpp"
#include "scene/scene_pictures.hpp"
#include "scene/statements.hpp"
#include "scene/tables.hpp"

#include <memory>
#include <optional>
#include <vector>

namespace coldbrick::inline v0::detail {

// What a run works with.
struct RunWith {
    const Program& program;
    const SceneInput& input;
    SceneFiles& files;
    LoadedFiles& loaded;
    SceneBudget& budget;
    Faults& faults;
};

// Runs the statements of a program, one after the other.
class Runner {
  public:
    Runner(const RunWith& with, Scene& scene);

    void run();

    // What it does for each kind of statement: those that draw, those that begin or end something, those that give a
    // name to a value, those that say what is run.
    void sheet(const Node& node);
    void drawing(const Node& node);
    void paste(const Node& node);
    void begin_clip(const Node& node);
    void begin_group(const Node& node);
    void begin_pattern(const Node& node);
    void end(const Node& node);
    void define(const Node& node);
    void face(const Node& node);
    void edges(const Node& node);
    void palette(const Node& node);
    void let(const Node& node);
    void dial(const Node& node);
    void seed(const Node& node);
    void frames(const Node& node);
    void begin_repeat(const Node& node);
    void when(const Node& node);
    void otherwise(const Node& node);
    void skip_shape(const Node& node);
    void begin_use(const Node& node);

  private:
    // What all drawing is under.
    struct View {
        DrawingView view;  // clipped and moved as all that is drawn in it
        Transform by = {};
        Transform own = {};                        // what the block that began it adds
        std::shared_ptr<Scene> pattern = nullptr;  // the tile that is drawn, of a pattern
        Point offset = {};
        Placing placing = Placing::target;
    };

    // What has been begun and not ended.
    struct OpenBlock {
        std::uint32_t node;
        bool is_use = false;
        bool has_view = false;
        Edge edge = Edge::crisp;  // of what stands around it
        Memory::Marks marks = {};
        double from = 0;  // of a repeat
        double step = 1;
        std::uint64_t count = 0;
        std::uint64_t done = 0;
        std::uint32_t return_to = 0;  // of a use
        std::size_t bytes = 0;        // of its values
        Box drawn_before = {};        // of a use: what it has drawn so far is in drawn_
    };

    void set_outside();
    void take(const Node& node);
    void evaluate(const Node& node);
    [[nodiscard]] Arguments arguments(const Node& node);
    [[nodiscard]] ArgumentsOf arguments_of(std::uint32_t first, std::uint32_t count, const Node& node) const;
    [[nodiscard]] GivenValue given(const Node& node, std::uint32_t number) const;
    [[nodiscard]] std::string way() const;

    bool open(const Node& node);
    void push_view(View view);
    void close();
    void end_pattern(const Node& begin, const View& view);
    bool next_round(OpenBlock& block, const Node& node);
    void set_loop_names(const OpenBlock& block, const Node& node);
    bool read_repeat(const Node& node, OpenBlock& block);

    void read_drawn(const Node& node, Arguments& given, std::optional<Drawn>& to);
    void add_call(const Node& node, Drawn&& what, const Ink& ink);
    void check_call(const Node& node, Drawn&& what);
    [[nodiscard]] std::uint64_t tag_of(const Node& node);
    void remember(const Node& node, const Drawn& what);
    void remember_box(const Node& node, const Box& box);
    void remark_overhang(const Node& node, const Figure& text);
    void check_entry(const Ink& ink, Arguments& given);
    Value parameter_value(const Node& node, const ShapeDefinition& shape, std::uint32_t number);
    std::optional<Drawn> region_figure(const Node& node, Arguments& given);
    [[nodiscard]] PartsOf parts_of(const Node& node, const Transform& by);
    std::optional<Transform> group_transform(std::string_view verb, Arguments& given);
    void check_size(Size size, const GivenValue& at);
    void keep_ink(const Node& node, const Ink& ink);

    [[nodiscard]] const View& view() const noexcept { return views_.back(); }
    // What is drawn on: the sheet, or the pattern that has been begun.
    [[nodiscard]] Scene& drawn();
    [[nodiscard]] Box drawn_box();
    [[nodiscard]] Value& slot(const Node& node, std::uint32_t number) { return memory_.slot(node.level, number); }

    const Program& program_;
    const SceneInput& input_;
    SceneBudget& budget_;
    Faults& faults_;
    Scene& scene_;
    Memory memory_;
    Machine machine_;
    ValueReader values_;
    PictureReader pictures_;
    FaceReader faces_;
    TableReader tables_;
    std::vector<Value> evaluated_;  // of the statement that is run
    std::vector<OpenBlock> blocks_;
    std::vector<View> views_;
    std::vector<std::uint32_t> kinds_;  // of each statement, its number among the scene's kinds
    std::uint32_t next_ = 0;            // the statement that is run next
    Edge usual_edge_ = Edge::crisp;
    bool has_faulty_palette_ = false;
    Box drawn_{};  // by what is used, if anything asks for it
};

}  // namespace coldbrick::inline v0::detail

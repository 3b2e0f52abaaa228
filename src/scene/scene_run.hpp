// A scene that is being run: what its statements share. Each group of statements has a file of its own
// (sheet_statements.cpp and the others), whose functions take the run.
#pragma once

#include "scene/faces.hpp"
#include "scene/figures.hpp"
#include "scene/scene_pictures.hpp"
#include "scene/statements.hpp"
#include "scene/tables.hpp"

#include <memory>
#include <string>
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

// Of a statement whose kind has no number yet.
constexpr std::uint32_t no_kind = 0xffffffffU;

struct SceneRun {
    // What all drawing is under.
    struct View {
        DrawingView view;  // clipped and moved as all that is drawn in it
        Transform by = {};
        Transform own = {};                        // what the block that began it adds
        std::shared_ptr<Scene> pattern = nullptr;  // the tile that is drawn, of a pattern
        Point offset = {};
        Placing placing = Placing::target;
    };

    // A block that has begun and not ended.
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
        Box drawn_before = {};        // of a use: what it has drawn so far is in drawn_so_far
    };

    SceneRun(const RunWith& with, Scene& to);

    // Evaluates the values of a statement; arguments and values are read from them until the next call.
    void evaluate(const Node& node);
    [[nodiscard]] Arguments arguments(const Node& node);
    [[nodiscard]] ArgumentsOf arguments_of(std::uint32_t first, std::uint32_t count, const Node& node) const;
    [[nodiscard]] GivenValue given(const Node& node, std::uint32_t number) const;
    // The parts of a region.
    [[nodiscard]] PartsOf parts_of(const Node& node, const Transform& by);

    // Begins the block of a statement: false, with a fault, if it may not begin. A view is that of the innermost block
    // and ends with it.
    bool open(const Node& node);
    void push_view(View view);
    void close();
    // Sets the names of a loop for its next round.
    void set_loop_names(const OpenBlock& block, const Node& node);

    [[nodiscard]] const View& view() const noexcept { return views.back(); }
    // What is drawn on: the sheet, or the pattern that has been begun; and its pixels.
    [[nodiscard]] Scene& target() { return view().pattern ? *view().pattern : scene; }
    [[nodiscard]] Box target_box() { return {.at = {.x = 0, .y = 0}, .size = target().size}; }
    [[nodiscard]] Value& slot(const Node& node, std::uint32_t number) { return memory.slot(node.level, number); }
    // Gives the ink to the name that a statement defines.
    void keep_ink(const Node& node, const Ink& ink);

    const Program& program;
    const SceneInput& input;
    SceneBudget& budget;
    Faults& faults;
    Scene& scene;
    Memory memory;
    Machine machine;
    ValueReader values;
    PictureReader pictures;
    FaceReader faces;
    TableReader tables;
    std::vector<Value> evaluated;  // of the statement that is run
    std::vector<OpenBlock> blocks;
    std::vector<View> views;
    std::vector<std::uint32_t> kinds;  // of each statement, its number among the scene's kinds
    std::uint32_t next = 0;            // the statement that is run next
    Edge usual_edge = Edge::crisp;
    bool has_faulty_palette = false;
    Box drawn_so_far{};  // by what is used, if anything asks for it
};

// Runs the statements of a program, one after the other, and records what they draw in the scene.
void run_program(const RunWith& with, Scene& scene);

}  // namespace coldbrick::inline v0::detail

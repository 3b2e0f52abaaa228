// The tool's commands: each reads its arguments and gives its exit code.
#pragma once

#include <optional>
#include <stdexcept>
#include <string>
#include <vector>

namespace coldbrick::tool {

// 0: done. 1: a fault in the input, or a file that cannot be read or written. 2: a wrong call.
enum class Exit { done = 0, fault = 1, wrong_call = 2 };

// Words on the command line that cannot be meant; main() says so and gives Exit::wrong_call.
class WrongCall : public std::runtime_error {
  public:
    using std::runtime_error::runtime_error;
};

// Where a picture goes, and how it is written.
struct SaveArguments {
    std::string picture;                 // a path, or "-" for standard output
    std::string kind;                    // png, jpg, pbm and so on; empty: as the picture's suffix says
    bool small = false;                  // PNG as small as it can be, however long it takes
    std::optional<int> quality;          // of JPEG; of moving WebP, which is without loss otherwise
    std::optional<int> colors;           // of GIF
    std::string dithering = "diffused";  // of GIF: none, ordered, diffused
    bool one_palette = false;            // of moving GIF, for all frames
};

struct OutputArguments : SaveArguments {
    std::vector<int> scales = {1};  // how many pixels wide and high each pixel becomes; one picture for each
};

// Which picture of a scene.
struct SceneArguments {
    std::string scene;                    // a path, or "-" for standard input
    std::vector<std::string> files_from;  // folders that the scene may read pictures from, besides its own
    std::vector<std::string> limits;      // "NAME=NUMBER" each
    std::vector<std::string> set;         // "NAME=VALUE" each
    std::optional<int> frame;             // one of them
};

struct RenderArguments : OutputArguments, SceneArguments {
    std::string frames;    // some of them: "10..19"
    std::string rows;      // a table: one picture for each row
    unsigned threads = 0;  // 0: one for each core
    bool quiet = false;
};

// Draws a scene to one picture file, or one for each scale, frame, or row of a table; without a picture it only says
// what it would draw.
Exit render(const RenderArguments& arguments);

struct ExplainArguments : SceneArguments {
    std::vector<std::string> places;  // "X,Y" each; none: the whole picture
    std::string overdraw;             // where a picture of how often pixels are touched goes; empty: nowhere
    bool as_json = false;
};

// Says what painted pixels, or what has become of every drawing of a scene.
Exit explain(const ExplainArguments& arguments);

struct LookArguments : SceneArguments {
    std::string second;          // another picture or scene, to compare with; empty: none
    std::string part;            // "X,Y,W,H"; empty: all
    std::string picture;         // where it goes as a PNG, or the like; empty: the terminal
    std::optional<int> scale;    // of the picture file
    std::optional<int> columns;  // of the terminal
    std::optional<int> lines;
};

// Shows a picture or a scene in the terminal, or enlarged with rulers as a picture.
Exit look(const LookArguments& arguments);

struct WatchArguments : SceneArguments {
    std::vector<std::string> files;  // scenes and pictures
    int port = 0;                    // 0: any that is free
};

// Serves a page that shows scenes and pictures and follows their files, until it is interrupted.
Exit watch(const WatchArguments& arguments);

struct WordsArguments {
    std::string word;     // of a page; empty: a list of them
    std::string picture;  // where the page's picture goes; empty: the page goes to standard output
    std::string only;     // what of it is drawn: "scene", or a word; empty: all
    bool as_json = false;
};

// Prints or draws pages of the reference.
Exit words(const WordsArguments& arguments);

struct ShapesArguments : OutputArguments {
    bool as_scene = false;  // write the sheet's scene to standard output instead
};

// Draws a sheet of every shape and kind of stroke.
Exit shapes(const ShapesArguments& arguments);

struct FacesArguments : ShapesArguments {
    std::vector<std::string> fonts;  // font files; none: the faces that are always there
};

// Draws a sheet of faces.
Exit faces(const FacesArguments& arguments);

}  // namespace coldbrick::tool

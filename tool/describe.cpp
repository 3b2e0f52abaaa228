#include "describe.hpp"

#include "output.hpp"

#include "coldbrick/scene.hpp"

#include <string>

namespace coldbrick::tool {

namespace {

constexpr auto introduction =
    R"(coldbrick draws pictures from scenes: text files that say what to draw, one statement a line. It also
tells what picture files are, writes them anew, and compares them.)";

constexpr auto example = R"(
An example. Write this to harbour.brick:

    sheet  size 72,45 ink midnightblue          // first the size and the ground
    fill   circle  center 52,12 radius 7 ink gold
    fill   box     from 0,31 to 71,44 ink steelblue
    fill   polygon through 12,31 40,31 34,38 18,38 ink firebrick
    stroke line    from 26,30 to 26,14 ink white

and draw it, each pixel as a square of 8 by 8:

    coldbrick render harbour.brick -o harbour.png --scale 8

Exit code: 0 all is drawn, 1 a fault in the scene or a file that cannot be read or written,
2 a wrong call. 'coldbrick render --help' has more.
)";

constexpr auto render_footer = R"(
Statements, drawn from top to bottom, later ones on top:

)";

constexpr auto render_notes = R"(
Boxes, circles and ellipses given by 'at' take 'anchor' top_left|top|top_right|left|center|right|bottom_left|
bottom|bottom_right. Fills and strokes take smooth, crisp, opacity 40%, blend multiply|screen|..., channels red,alpha, light linear.

Each drawing statement has an ink, as in 'ink seagreen': a CSS colour name, #rgb, #rgba, #rrggbb, #rrggbbaa,
rgb(11,34,57), rgba(11,34,57,128), gray(196), hsl(210,50%,40%), or a name of your own. Angles are degrees, clockwise from east: 90, 0.25turn, 1.57rad.
'//' begins a comment; a line that ends with '\' goes on in the next. Numbers can be expressions: 18+4*25, or
(18 + 100) with spaces. 'coldbrick shapes' draws a sheet of it all.

A scene with 'frames' becomes a moving picture: -o tide.png, tide.gif or tide.webp; -o 'tide-{frame:03}.png' one file
for each frame; -o - --kind pam one picture after the other, for other programs.

A statement that shows nothing on the sheet is reported by its line; that is no error.
)";

constexpr auto shapes_footer = R"(
From top to bottom: closed shapes filled with their outline, stroked with width 7 centred, inside and outside,
and dashed; lines, caps and joins; arcs by sixteen sweeps; arcs of ellipses, and paths; the nine anchors, and
clips; rings, thick strokes that cross themselves, floods; smooth edges; inks, blend modes, groups; words. Rules
every 10 pixels.
)";

CLI::App* add_command(CLI::App& app, const char* name, const char* what) {
    auto* const command = app.add_subcommand(name, what);
    command->set_help_flag("-h,--help", "Tell what it does and takes");
    command->group("Commands");
    return command;
}

void add_save(CLI::App& command, SaveArguments& arguments) {
    command
        .add_option(
            "--kind", arguments.kind,
            kinds_in_words("or") + ". Without it the suffix of the picture's name says; on standard output: png")
        ->type_name("KIND");
    command.add_flag("--small", arguments.small,
                     "The smallest PNG, however long it takes: in fewer bits where they hold the picture");
    command
        .add_option("--quality", arguments.quality, "Of JPEG, 1 to 100 (90); of moving WebP, which has no loss without")
        ->type_name("N");
}

void add_limits(CLI::App& command, std::vector<std::string>& limits) {
    command
        .add_option("--limit", limits,
                    "Allow more, or less, than usual, as in memory=8000000000; a message that a limit is met names it")
        ->type_name("NAME=NUMBER");
}

void add_output(CLI::App& command, OutputArguments& arguments) {
    add_save(command, arguments);
    command
        .add_option("--scale", arguments.scales,
                    "Draw each pixel as a square of N by N. Several, as in 1,4: one picture for each, "
                    "named PICTURE-xN but for N = 1")
        ->delimiter(',')
        ->type_name("N");
}

// What says which picture of a scene.
void add_scene(CLI::App& command, SceneArguments& arguments, const char* frame) {
    command
        .add_option("--files-from", arguments.files_from,
                    "A folder from which the scene may read pictures, besides the one that it is in")
        ->type_name("FOLDER");
    command.add_option("--set", arguments.set, "Set a dial, or another name that the scene uses, as in tide=4")
        ->type_name("NAME=VALUE");
    command.add_option("--frame", arguments.frame, frame)->type_name("N");
    add_limits(command, arguments.limits);
}

void add_explain(CLI::App& app, ExplainArguments& arguments) {
    auto* const explain =
        add_command(app, "explain", "Say which statements painted a pixel, and why others do not show");
    explain->add_option("SCENE", arguments.scene, "The scene file; - for standard input")->required();
    explain->add_option("PIXEL", arguments.places,
                        "Pixels, X,Y each; 0,0 is the upper left one. Without any: the whole picture");
    explain
        ->add_option(
            "-o,--output", arguments.overdraw,
            "A picture of how often each pixel is drawn on: black for never, blue for once, red for most often")
        ->type_name("PICTURE");
    explain->add_flag("--json", arguments.as_json, "As JSON");
    add_scene(*explain, arguments, "Explain this frame; without it the first, 0");
    explain->footer(
        "\nOf a pixel: each drawing that touches it, in order, its colour after it, how much of it is covered, with\n"
        "which ink. Of the whole: in how many pixels each statement's drawings touch it, change it, and are seen in "
        "the\n"
        "end; and why, where they are not: outside, clipped, transparent, the colour already, covered later.\n");
}

void add_look(CLI::App& app, LookArguments& arguments) {
    auto* const look = add_command(app, "look", "Show a picture or a scene in the terminal, or enlarged with rulers");
    look->add_option("FILE", arguments.scene, "A picture or a scene; - for a picture on standard input")->required();
    look->add_option("OTHER", arguments.second, "Another one: both are shown, and where they differ");
    look->add_option("--part", arguments.part, "Only this part of it")->type_name("X,Y,W,H");
    look->add_option("-o,--output", arguments.picture,
                     "Write it as a picture: enlarged, with rulers, and a grid from 6 to 1 on")
        ->type_name("PICTURE");
    look->add_option("--scale", arguments.scale,
                     "How wide and high a pixel becomes in that; without it, as 1280 by 800 hold")
        ->type_name("N");
    look->add_option("--columns", arguments.columns, "As if the terminal were so wide")->type_name("N");
    look->add_option("--lines", arguments.lines, "As if the terminal were so high")->type_name("N");
    add_scene(*look, arguments, "Show this frame of a scene; without it the first, 0");
    look->footer(
        "\nIn a terminal of 24-bit colour. A pixel is half a line high; small pictures have pixels of two columns and "
        "a\n"
        "line; of large ones several become one.\n");
}

void add_watch(CLI::App& app, WatchArguments& arguments) {
    auto* const watch = add_command(app, "watch", "Show scenes and pictures on a page in the browser, live");
    watch->add_option("FILE", arguments.files, "Scenes, which can be edited on the page, and pictures")->required();
    watch->add_option("--port", arguments.port, "Serve it there; without it, any port that is free")->type_name("N");
    watch
        ->add_option("--files-from", arguments.files_from,
                     "A folder from which scenes may read pictures, besides the one that they are in")
        ->type_name("FOLDER");
    watch->add_option("--set", arguments.set, "Set a dial, or another name that scenes use, as in tide=4")
        ->type_name("NAME=VALUE");
    add_limits(*watch, arguments.limits);
    watch->footer(
        "\nIt prints the address of a page that only this machine can open, and only who knows it. The page shows the\n"
        "picture and follows the file: saved, it is drawn anew. Nothing is written before 'Save' is pressed there.\n");
}

void add_words(CLI::App& app, WordsArguments& arguments) {
    auto* const words = add_command(app, "words", "Tell about the words of scenes: what each takes, with pictures");
    words->add_option("WORD", arguments.word, "A statement or a shape, such as circle. Without it: a list of them");
    words->add_option("-o,--output", arguments.picture, "Draw its page: an example, and what its words change")
        ->type_name("PICTURE");
    words->add_option("--only", arguments.only, "Draw only the example, as 'scene', or what one word changes")
        ->type_name("WHAT");
    words->add_flag("--json", arguments.as_json, "All words of the language as JSON");
}

void add_render(CLI::App& app, RenderArguments& arguments) {
    auto* const render = add_command(app, "render", "Draw a scene to a picture file");
    render->add_option("SCENE", arguments.scene, "The scene file; - for standard input")->required();
    render
        ->add_option("-o,--output", arguments.picture,
                     "The picture file; - for standard output. Without it the scene is only checked")
        ->type_name("PICTURE");
    add_output(*render, arguments);
    add_scene(*render, arguments, "Draw one frame only; the first is 0");
    render->add_option("--frames", arguments.frames, "Draw some frames only, as in 10..19")->type_name("A..B");
    render
        ->add_option("--rows", arguments.rows,
                     "Draw one picture for each row of a table of comma-separated values; its columns are names in the "
                     "scene, and in -o 'out/{name}.png'; {row:03} is the row's number")
        ->type_name("TABLE");
    render->add_option("--colors", arguments.colors, "How many colours a GIF has, 2 to 256 (256)")->type_name("N");
    render
        ->add_option("--dithering", arguments.dithering,
                     "How a GIF tells other colours: none, ordered or diffused (diffused)")
        ->type_name("HOW");
    render->add_flag("--one-palette", arguments.one_palette, "The same palette for all frames of a GIF");
    render->add_option("--threads", arguments.threads, "On so many threads; without it, one for each core")
        ->type_name("N");
    render->add_flag(
        "--quiet", arguments.quiet,
        "Say nothing but faults and remarks, show no progress, and draw once: what is hidden is not looked for");
    render->footer(render_footer + scene_usage() + render_notes);
}

void add_shapes(CLI::App& app, ShapesArguments& arguments) {
    auto* const shapes = add_command(app, "shapes", "Draw a sheet of every shape and kind of stroke");
    shapes->add_option("-o,--output", arguments.picture, "The picture file; - for standard output")
        ->type_name("PICTURE");
    add_output(*shapes, arguments);
    shapes->add_flag("--scene", arguments.as_scene,
                     "Print the sheet's scene instead, to look up how something is said");
    shapes->footer(shapes_footer);
}

void add_faces(CLI::App& app, FacesArguments& arguments) {
    auto* const faces = add_command(app, "faces", "Draw all letters of faces");
    faces->add_option("FONT", arguments.fonts, "Font files. Without any: the faces that are always there");
    faces->add_option("-o,--output", arguments.picture, "The picture file; - for standard output")
        ->type_name("PICTURE");
    add_output(*faces, arguments);
    faces->add_flag("--scene", arguments.as_scene, "Print the sheet's scene instead");
    faces->footer(
        "\nWords at several heights, in pixels of their capitals, and every character: of face line, pixel, tiny, or "
        "of\n"
        "each face of the font files, with its features and axes.\n");
}

void add_info(CLI::App& app, InfoArguments& arguments) {
    auto* const info = add_command(app, "info", "Say what picture files are, and what is odd about them");
    info->add_option("PICTURE", arguments.pictures, "Picture files; - for standard input")->required();
    info->add_flag("--json", arguments.as_json, "As JSON: a list with an object for each");
    add_limits(*info, arguments.limits);
    info->footer("\nExit code: 1 if a file cannot be read; the others are told all the same.\n");
}

void add_resave(CLI::App& app, ResaveArguments& arguments) {
    auto* const resave = add_command(app, "resave", "Write a picture in another format, size, depth or channel set");
    resave->add_option("IN", arguments.from, "The picture file; - for standard input")->required();
    resave->add_option("OUT", arguments.picture, "The new file; - for standard output")->required();
    add_save(*resave, arguments);
    resave->add_option("--part", arguments.part, "Take only this part of the picture")->type_name("X,Y,W,H");
    resave->add_option("--mirrored", arguments.mirrored, "left_right or top_bottom, before it is turned")
        ->type_name("HOW");
    resave->add_option("--turned", arguments.turned, "90, 180 or 270 degrees clockwise")->type_name("ANGLE");
    resave->add_option("--size", arguments.size, "The new size; 0 for a side that is to be in proportion")
        ->type_name("W,H");
    resave
        ->add_option("--scaling", arguments.scaling,
                     "nearest, box, bilinear or lanczos. Without it: box to reduce, bilinear to enlarge")
        ->type_name("HOW");
    resave->add_option("--channels", arguments.channels, "gray, rgb, rgba or palette")->type_name("SET");
    resave->add_option("--colors", arguments.colors, "How many a palette has at most, 1 to 256 (256)")->type_name("N");
    resave->add_flag("--diffused", arguments.diffused,
                     "Pass on to the pixels around what the colours of a palette lack");
    resave->add_option("--bits", arguments.bits, "8 or 16 for each channel")->type_name("N");
    resave->add_option("--on", arguments.ground, "Lay the picture on a ground of this colour, a CSS name or #rrggbb")
        ->type_name("COLOUR");
    resave->add_flag("--plain", arguments.plain, "PNM as text");
    resave->add_flag("--keep", arguments.keeps, "Keep density and texts too");
    add_limits(*resave, arguments.limits);
    resave->footer("\nFor example: coldbrick resave wall.png wall.jpg --size 640,0 --quality 80 --on white\n");
}

void add_pick(CLI::App& app, PickArguments& arguments) {
    auto* const pick = add_command(app, "pick", "Say the colours of pixels");
    pick->add_option("PICTURE", arguments.picture, "The picture file; - for standard input")->required();
    pick->add_option("PIXEL", arguments.places, "Pixels, X,Y each; 0,0 is the upper left one")->required();
    add_limits(*pick, arguments.limits);
    pick->footer("\nExit code: 1 if a pixel lies outside the picture.\n");
}

void add_differ(CLI::App& app, DifferArguments& arguments) {
    auto* const differ = add_command(app, "differ", "Compare two pictures pixel by pixel");
    differ->add_option("A", arguments.first, "A picture file; - for standard input")->required();
    differ->add_option("B", arguments.second, "The other one")->required();
    differ->add_option("-o,--output", arguments.shown, "A picture of A in pale grays, and of what differs in red")
        ->type_name("PICTURE");
    differ->add_option("--tolerance", arguments.tolerance, "How much a channel may differ, in 255ths (0)")
        ->type_name("N");
    add_limits(*differ, arguments.limits);
    differ->footer("\nExit code: 0 if they are equal, 1 if they differ, 2 if they cannot be compared.\n");
}

}  // namespace

void describe(CLI::App& app, Arguments& arguments) {
    app.description(introduction);
    app.footer(example);
    app.set_version_flag("--version", "coldbrick " COLDBRICK_VERSION, "Tell the version");
    app.set_help_flag("-h,--help", "Tell what there is");
    app.require_subcommand(1);
    app.get_formatter()->label("REQUIRED", "");
    app.get_formatter()->label("TEXT", "");
    app.get_formatter()->label("OPTIONS", "options");
    app.get_formatter()->label("SUBCOMMAND", "command");
    app.get_formatter()->label("Subcommands", "Commands");
    app.get_formatter()->label("Positionals", "It takes");
    add_render(app, arguments.render);
    add_explain(app, arguments.explain);
    add_look(app, arguments.look);
    add_watch(app, arguments.watch);
    add_words(app, arguments.words);
    add_shapes(app, arguments.shapes);
    add_faces(app, arguments.faces);
    add_info(app, arguments.info);
    add_resave(app, arguments.resave);
    add_pick(app, arguments.pick);
    add_differ(app, arguments.differ);
}

}  // namespace coldbrick::tool

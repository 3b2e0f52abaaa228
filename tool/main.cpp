// coldbrick: draws scenes written as text. Arguments in, messages out.
#include "commands.hpp"

#include "coldbrick/error.hpp"

#include <new>

#include <CLI/CLI.hpp>
#include <fmt/core.h>

namespace {

constexpr auto introduction =
    R"(coldbrick draws pictures from scenes: text files that say what to draw, one statement a line.)";

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
2 a wrong call. 'coldbrick render --help' tells more.
)";

constexpr auto render_footer = R"(
Statements, drawn from top to bottom, later ones on top:

    sheet  size W,H [ink COLOUR]                   first, once: the buffer and its ground (white)
    mark   at X,Y                                  one pixel
    flood  from X,Y                                what is connected to it; tolerance N, neighbors four|eight
    fill   SHAPE, stroke SHAPE                     a shape, or its outline
    clip   SHAPE ... end                           what stands between is drawn only there
    move by X,Y, turn by ANGLE, scale by N|X,Y, shear by X,Y [about X,Y] ... end
                                                   what stands between is moved as a whole
    edges  smooth|crisp                            how all edges look from here on
    color  NAME = COLOUR                           a name of your own for a colour
    gradient NAME = linear from X,Y to X,Y stops 0,COLOUR 50%,COLOUR 1,COLOUR
                                                   an ink; or: radial center X,Y radius R, conic center X,Y from ANGLE.
                                                   Also spread pad|repeat|reflect, placing target|shape, dither ordered
    hatch  NAME = spacing N angle ANGLE width N ink COLOUR [ground COLOUR]
    pattern NAME = size W,H [ink COLOUR] ... end   what stands between is drawn on a tile that repeats
    palette NAME|COLOUR ...                        the picture has only these colours; 'ink entry(3)' is one by number

    box      at X,Y size W,H                       or: from X,Y to X,Y (both corners belong to it); round R
    circle   center X,Y radius R
    ellipse  center X,Y radii RX,RY                or: at X,Y size W,H; turned ANGLE
    arc, sector, chord                             as circle or ellipse, and: sweep FROM,TO [counterclockwise]
                                                   or: sweep FROM by ANGLE. Arcs are only stroked
    polygon  through X,Y X,Y X,Y ...               or: center X,Y radius R points N. Also rule evenodd|nonzero,
                                                   edges inclusive|shared; 'through' again begins another ring
    star     center X,Y radius R points N          also inner_radius R, turned ANGLE
    path     data "M 10,80 C 40,10 65,10 95,80"    path data as in SVG
    line     from X,Y to X,Y                       or: through X,Y X,Y ... [closed]. Lines are only stroked
    region   SHAPE plus|minus|within|xor SHAPE ... also for clip

Boxes, circles and ellipses given by 'at' take 'anchor' top_left|top|top_right|left|center|right|bottom_left|
bottom|bottom_right. Strokes take width N, align center|inside|outside, cap flush|square|round,
join miter|bevel|round, miter_limit N, dash ON,OFF,..., dash_offset N. Both fills and strokes take smooth, crisp,
opacity 40%, blend multiply|screen|..., channels red,alpha, light linear.

Each drawing statement has an ink, as in 'ink seagreen': a CSS colour name, #rgb, #rgba, #rrggbb, #rrggbbaa,
rgb(11,34,57), rgba(11,34,57,128), gray(196), hsl(210,50%,40%), or a name of your own. Angles are degrees, clockwise from east: 90, 0.25turn, 1.57rad.
'//' begins a comment; a line that ends with '\' goes on in the next. Numbers can be expressions: 18+4*25, or
(18 + 100) with spaces. 'coldbrick shapes' draws a sheet of it all.

A statement that shows nothing on the sheet is told by its line; that is no error.
)";

constexpr auto shapes_footer = R"(
From top to bottom: closed shapes filled with their outline, stroked with width 7 centred, inside and outside,
and dashed; lines, caps and joins; arcs by sixteen sweeps; arcs of ellipses, and paths; the nine anchors, and
clips; rings, thick strokes that cross themselves, floods; smooth edges; inks, blend modes, groups. Rules every
10 pixels.
)";

void add_output(CLI::App& command, coldbrick::tool::OutputArguments& arguments) {
    command
        .add_option("--kind", arguments.kind,
                    "png, jpg, pbm (black and white), pgm (gray), ppm, pnm, pam, bmp or qoi. Without it the suffix of "
                    "PICTURE says; on standard output: png")
        ->type_name("KIND");
    command
        .add_option("--scale", arguments.scales,
                    "Draw each pixel as a square of N by N. Several, as in 1,4: one picture for each, "
                    "named PICTURE-xN but for N = 1")
        ->delimiter(',')
        ->type_name("N");
}

void add_render(CLI::App& app, coldbrick::tool::RenderArguments& arguments) {
    auto* const render = app.add_subcommand("render", "Draw a scene to a picture file");
    render->add_option("SCENE", arguments.scene, "The scene file; - for standard input")->required();
    render->add_option("-o,--output", arguments.picture, "The picture file; - for standard output")
        ->required()
        ->type_name("PICTURE");
    add_output(*render, arguments);
    render->footer(render_footer);
}

void add_shapes(CLI::App& app, coldbrick::tool::ShapesArguments& arguments) {
    auto* const shapes = app.add_subcommand("shapes", "Draw a sheet of every shape and kind of stroke");
    shapes->add_option("-o,--output", arguments.picture, "The picture file; - for standard output")
        ->type_name("PICTURE");
    add_output(*shapes, arguments);
    shapes->add_flag("--scene", arguments.as_scene,
                     "Print the sheet's scene instead, to look up how something is said");
    shapes->footer(shapes_footer);
}

int complain(std::string_view message, coldbrick::tool::Exit code) {
    fmt::print(stderr, "{}\n", message);
    return static_cast<int>(code);
}

int run(int argc, char** argv) {
    using coldbrick::tool::Exit;
    CLI::App app{introduction, "coldbrick"};
    app.footer(example);
    app.set_version_flag("--version", "coldbrick " COLDBRICK_VERSION);
    app.require_subcommand(1);
    coldbrick::tool::RenderArguments to_render;
    add_render(app, to_render);
    coldbrick::tool::ShapesArguments to_show;
    add_shapes(app, to_show);
    try {
        app.parse(argc, argv);
        const auto is_render = app.got_subcommand("render");
        return static_cast<int>(is_render ? coldbrick::tool::render(to_render) : coldbrick::tool::shapes(to_show));
    } catch (const CLI::ParseError& error) {
        return app.exit(error) == 0 ? 0 : static_cast<int>(Exit::wrong_call);
    } catch (const coldbrick::tool::WrongCall& error) {
        return complain(fmt::format("coldbrick: {}", error.what()), Exit::wrong_call);
    } catch (const coldbrick::Error& error) {
        return complain(error.what(), Exit::fault);
    } catch (const std::bad_alloc&) {
        return complain("coldbrick: not enough memory for a picture of this size", Exit::fault);
    }
}

}  // namespace

int main(int argc, char** argv) {
    try {
        return run(argc, argv);
    } catch (const std::exception& error) {
        return complain(fmt::format("coldbrick: {}", error.what()), coldbrick::tool::Exit::fault);
    }
}

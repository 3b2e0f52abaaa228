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
    fill   box      at X,Y size W,H                or: from X,Y to X,Y (both corners belong to it)
    fill   circle   center X,Y radius R
    fill   ellipse  center X,Y radii RX,RY         or: at X,Y size W,H
    fill   polygon  through X,Y X,Y X,Y ...        also: rule evenodd|nonzero, edges inclusive|shared;
                                                   'through' again begins another ring
    stroke line     from X,Y to X,Y                or: through X,Y X,Y ... [closed]
    stroke box, circle, ellipse, polygon           as filled ones, without rule and edges

Each drawing statement ends with an ink, as in 'ink seagreen': a CSS colour name, #rgb, #rgba, #rrggbb,
#rrggbbaa, rgb(11,34,57), rgba(11,34,57,128), gray(196). '//' begins a comment; a line that ends with '\'
goes on in the next. Numbers can be expressions: 18+4*25, or (18 + 100) with spaces.

A statement that shows nothing on the sheet is told by its line; that is no error.
)";

void add_render(CLI::App& app, coldbrick::tool::RenderArguments& arguments) {
    auto* const render = app.add_subcommand("render", "Draw a scene to a picture file");
    render->add_option("SCENE", arguments.scene, "The scene file; - for standard input")->required();
    render->add_option("-o,--output", arguments.picture, "The picture file; - for standard output")
        ->required()
        ->type_name("PICTURE");
    render
        ->add_option("--kind", arguments.kind,
                     "png, pgm (gray), ppm, pnm or pam. Without it the suffix of PICTURE says; on standard "
                     "output: png")
        ->type_name("KIND");
    render
        ->add_option("--scale", arguments.scales,
                     "Draw each pixel as a square of N by N. Several, as in 1,4: one picture for each, "
                     "named PICTURE-xN but for N = 1")
        ->delimiter(',')
        ->type_name("N");
    render->footer(render_footer);
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
    coldbrick::tool::RenderArguments arguments;
    add_render(app, arguments);
    try {
        app.parse(argc, argv);
        return static_cast<int>(coldbrick::tool::render(arguments));
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

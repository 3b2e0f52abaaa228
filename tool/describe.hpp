// The commands and options of the command line.
#pragma once

#include "commands.hpp"
#include "picture_commands.hpp"

#include <CLI/CLI.hpp>

namespace coldbrick::tool {

// What each command takes.
struct Arguments {
    RenderArguments render;
    ExplainArguments explain;
    LookArguments look;
    WatchArguments watch;
    WordsArguments words;
    ShapesArguments shapes;
    FacesArguments faces;
    InfoArguments info;
    ResaveArguments resave;
    PickArguments pick;
    DifferArguments differ;
};

// Says to the reader of the command line what there is, and where what it reads goes.
void describe(CLI::App& app, Arguments& arguments);

}  // namespace coldbrick::tool

// Tests that run the tool as its users run it.
#pragma once

#include "folder_test.hpp"
#include "this_build.hpp"

#include <cstdlib>
#include <string>

#include <sys/wait.h>

struct Outcome {
    int code;
    std::string out;
    std::string err;
};

// The tool as a word of a shell's line.
inline std::string tool() { return "'" + std::string{tool_program} + "'"; }

class ToolTest : public FolderTest {
  protected:
    // Runs the tool in the folder, with arguments as a shell takes them.
    [[nodiscard]] Outcome run(const std::string& arguments) const {
        const auto command = "cd '" + folder().string() + "' && " + tool() + " " + arguments + " >.out 2>.err";
        const auto status = std::system(command.c_str());
        return {WEXITSTATUS(status), content(path(".out")), content(path(".err"))};
    }
};

// The tool's commands on picture files.
#pragma once

#include "commands.hpp"

#include <optional>
#include <string>

namespace coldbrick::tool {

struct InfoArguments {
    std::vector<std::string> pictures;
    bool as_json = false;
    std::vector<std::string> limits;  // "NAME=NUMBER" each
};

// Says what picture files are.
Exit info(const InfoArguments& arguments);

struct ResaveArguments : SaveArguments {
    std::string from;           // a path, or "-" for standard input
    std::string part;           // "X,Y,W,H": what of it is taken
    std::string turned;         // 90, 180 or 270, clockwise
    std::string mirrored;       // left_right or top_bottom
    std::string size;           // "W,H"; 0 for a side in proportion
    std::string scaling;        // nearest, box, bilinear or lanczos
    std::string channels;       // gray, rgb, rgba or palette; empty: as they are
    std::optional<int> colors;  // of a palette, at most
    bool diffused = false;      // what a palette lacks is passed on to the pixels around
    int bits = 0;               // 8 or 16; 0: as they are
    std::string ground;         // a colour to lay the picture on; empty: none
    bool plain = false;         // PNM as text
    bool keeps = false;         // density and texts too
    std::vector<std::string> limits;
};

// Reads a picture and writes it in another format.
Exit resave(const ResaveArguments& arguments);

struct PickArguments {
    std::string picture;
    std::vector<std::string> places;  // "X,Y" each
    std::vector<std::string> limits;
};

// Says the colours of pixels. Exit::fault if one lies outside.
Exit pick(const PickArguments& arguments);

struct DifferArguments {
    std::string first;
    std::string second;
    std::string shown;  // where the picture of the differences goes; empty: nowhere
    double tolerance = 0;
    std::vector<std::string> limits;
};

// Compares two pictures: 0 if they are equal, 1 if they differ, 2 for trouble of any kind.
int differ(const DifferArguments& arguments);

}  // namespace coldbrick::tool

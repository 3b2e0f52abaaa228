// How the tool's own sheets look.
#pragma once

#include <coldbrick/coldbrick.hpp>

#include <string>

namespace coldbrick::tool {

inline constexpr auto paper = 0xf4f2ec_rgb;
inline constexpr auto writing = 0x20303c_rgb;
inline constexpr auto margin = 12;
inline constexpr auto title_letters = 14;  // rows of their capitals
inline constexpr auto label_letters = 7;

inline Text label(const std::string& words, Point at, double height = label_letters,
                  TextAnchor anchor = TextAnchor::top_left) {
    return {.words = words, .at = at, .anchor = anchor, .face = faces::pixel(), .height = height};
}

}  // namespace coldbrick::tool

// coldbrick/error.hpp - the one exception of the library.
//
//     try {
//         fill(chart, Circle{.center = {236, 148}, .radius = -3}, gold);
//     } catch (const coldbrick::Error& fault) {
//         std::cerr << fault.what() << '\n';   // circle: radius is -3; allowed is 0 to 1073741823
//     }
//
// A call that throws, Error or std::bad_alloc where memory runs out, has drawn, written and changed nothing. Calls that
// draw one thing after the other (lists, draw_each.hpp; drawings, drawing.hpp; scenes, scene.hpp) have drawn what comes
// before the one that they threw for, and nothing of that.
#pragma once

#include "coldbrick/detail/public.hpp"

#include <stdexcept>
#include <string>
#include <string_view>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// What cannot be meant, or cannot be done. what() says what was given, what is allowed, and where.
class Error : public std::runtime_error {
  public:
    using std::runtime_error::runtime_error;
};

// A text from outside (a file's name, a header, a word of a scene) as it can be shown in a message: bytes that control
// a terminal or the direction of writing, and those that are no UTF-8, become escapes such as \x1b. Of more than
// `longest` bytes, the first are returned, and "...".
[[nodiscard]] std::string printable(std::string_view text, std::size_t longest = 4096);

}  // namespace v0
}  // namespace coldbrick

// coldbrick/error.hpp - the one exception of the library.
//
//     try {
//         fill(chart, Circle{.center = {236, 148}, .radius = -3}, gold);
//     } catch (const coldbrick::Error& fault) {
//         std::cerr << fault.what() << '\n';   // circle: radius is -3; allowed is 0 to 1073741823
//     }
//
// A call that throws has drawn, written and changed nothing.
#pragma once

#include <stdexcept>

namespace coldbrick {

// What cannot be meant, or cannot be done. what() says what was given, what is allowed, and where.
class Error : public std::runtime_error {
  public:
    using std::runtime_error::runtime_error;
};

}  // namespace coldbrick

#include "coldbrick/ink.hpp"

#include "coldbrick/error.hpp"

#include <string>

namespace coldbrick {

Ink::Ink(const Ink& ink, const Laying& how) : of_{ink.of_}, how_{how} {
    if (how.opacity >= 0 && how.opacity <= 1) return;
    throw Error{"ink: opacity is " + std::to_string(how.opacity) + "; allowed is 0 to 1"};
}

}  // namespace coldbrick

#include "coldbrick/ink.hpp"

#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <string>

namespace coldbrick::inline v0 {

Ink::Ink(const Ink& ink, const Compositing& how) : of_{ink.of_}, how_{how}, is_usual_{how == Compositing{}} {
    using detail::check_choice;
    check_choice("ink", "blend", how.blend, detail::blend_names);
    check_choice("ink", "light", how.light, {"encoded", "linear"});
    if (static_cast<int>(how.channels) > static_cast<int>(Channels::all)) {
        throw Error{"ink: channels has the number " + std::to_string(static_cast<int>(how.channels)) +
                    "; allowed are none, red, green, blue, alpha, and several of them joined by |"};
    }
    if (how.opacity >= 0 && how.opacity <= 1) return;
    throw Error{"ink: opacity is " + detail::in_digits(how.opacity) + "; allowed is 0 to 1"};
}

}  // namespace coldbrick::inline v0

// A library that has been built without font files says so.
#include "coldbrick/error.hpp"
#include "coldbrick/face.hpp"

namespace coldbrick::inline v0 {

namespace {

[[noreturn]] void refuse() {
    throw Error{
        "font files: the library has been built without them (COLDBRICK_FONTS); allowed are the built-in faces"};
}

}  // namespace

Face load_face(std::string_view, int, std::string_view) { refuse(); }
Face load_face(std::span<const std::uint8_t>, int) { refuse(); }
int count_faces(std::string_view) { refuse(); }
int count_faces(std::span<const std::uint8_t>) { refuse(); }
bool can_load_faces() noexcept { return false; }

}  // namespace coldbrick::inline v0

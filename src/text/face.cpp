#include "coldbrick/face.hpp"

#include "text/line_face.hpp"
#include "text/pixel_face.hpp"

namespace coldbrick::inline v0 {

Face::Face() noexcept : source_{faces::line().source_} {}

const detail::FaceSource& Face::source() const noexcept { return *source_; }

std::string Face::name() const { return source_->name(); }

bool Face::has(char32_t character) const { return source_->has(character); }

std::vector<char32_t> Face::characters() const { return source_->characters(); }

namespace faces {

const Face& line() noexcept {
    static const Face face{detail::make_shared_value<detail::LineFace>()};
    return face;
}

const Face& pixel() noexcept {
    static const Face face{
        detail::make_shared_value<detail::PixelFace>("pixel", 7, detail::pixel_letters(), detail::pixel_marks())};
    return face;
}

const Face& tiny() noexcept {
    static const Face face{
        detail::make_shared_value<detail::PixelFace>("tiny", 5, detail::tiny_letters(), detail::tiny_marks())};
    return face;
}

}  // namespace faces

}  // namespace coldbrick::inline v0

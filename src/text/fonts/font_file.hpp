// A face of a font file: FreeType says its outlines, HarfBuzz which of them stand for which characters.
#pragma once

#include "text/face_source.hpp"

#include "coldbrick/path.hpp"

#include <cstdint>
#include <memory>
#include <mutex>
#include <span>
#include <string>
#include <unordered_map>
#include <vector>

#include <ft2build.h>
#include FT_FREETYPE_H
#include <hb.h>

namespace coldbrick::inline v0::detail {

// A file's bytes, shared by all readers.
using FontBytes = std::shared_ptr<const std::vector<std::uint8_t>>;

// The lines and curves of a glyph in font units, y up, clockwise around what is inside as it is seen.
struct GlyphOutline {
    std::vector<Path::Step> steps;
};

// Frees what C libraries made.
struct FreeFont {
    void operator()(FT_Library library) const noexcept { FT_Done_FreeType(library); }
    void operator()(FT_Face face) const noexcept { FT_Done_Face(face); }
    void operator()(hb_blob_t* blob) const noexcept { hb_blob_destroy(blob); }
    void operator()(hb_face_t* face) const noexcept { hb_face_destroy(face); }
    void operator()(hb_font_t* font) const noexcept { hb_font_destroy(font); }
    void operator()(hb_set_t* set) const noexcept { hb_set_destroy(set); }
    void operator()(hb_buffer_t* buffer) const noexcept { hb_buffer_destroy(buffer); }
};
template <class T>
using Freed = std::unique_ptr<T, FreeFont>;

// One face of a file, at one place of its axes. Several threads may use it.
class FontFile final : public Counted {
  public:
    // Throws Error for bytes that are no font with outlines, a number that it has no face of, and axes that it does not
    // have. From names the file in messages.
    FontFile(std::string from, FontBytes bytes, int number, std::vector<FaceAxis> axes);

    [[nodiscard]] const std::string& from() const noexcept { return from_; }
    [[nodiscard]] const FontBytes& bytes() const noexcept { return bytes_; }
    [[nodiscard]] int number() const noexcept { return number_; }
    [[nodiscard]] const std::vector<FaceAxis>& axes() const noexcept { return axes_; }

    [[nodiscard]] const std::string& name() const noexcept { return name_; }
    [[nodiscard]] bool has(char32_t letter) const noexcept;
    [[nodiscard]] std::vector<char32_t> characters() const;
    [[nodiscard]] std::vector<std::string> features() const;
    [[nodiscard]] std::vector<FaceAxisRange> axis_ranges() const;

    // In font units.
    [[nodiscard]] double em() const noexcept { return em_; }
    [[nodiscard]] double capitals() const noexcept { return capitals_; }
    [[nodiscard]] double line_height() const noexcept { return line_height_; }

    // Those that were asked for last are kept, in up to 4 MiB. Throws Error for one that is damaged.
    [[nodiscard]] std::shared_ptr<const GlyphOutline> outline(std::uint32_t glyph) const;

    // In font units, and as it is to be used by several threads.
    [[nodiscard]] hb_font_t* shaper() const noexcept { return hb_font_.get(); }

  private:
    void open();
    void set_axes();
    void find_name();
    void find_capitals();
    [[nodiscard]] GlyphOutline read_outline(std::uint32_t glyph) const;

    std::string from_;
    FontBytes bytes_;
    int number_;
    std::vector<FaceAxis> axes_;
    Freed<std::remove_pointer_t<FT_Library>> library_;
    Freed<std::remove_pointer_t<FT_Face>> face_;
    Freed<hb_face_t> hb_face_;
    Freed<hb_font_t> hb_font_;
    std::string name_;
    double em_ = 0;
    double capitals_ = 0;
    double line_height_ = 0;

    mutable std::mutex mutex_;  // of what FreeType does, and of what is kept
    mutable std::unordered_map<std::uint32_t, std::shared_ptr<const GlyphOutline>> outlines_;
    mutable std::size_t kept_bytes_ = 0;
};

// How many faces bytes have. Throws Error for what is no font.
[[nodiscard]] int count_font_faces(const std::string& from, std::span<const std::uint8_t> bytes);

}  // namespace coldbrick::inline v0::detail

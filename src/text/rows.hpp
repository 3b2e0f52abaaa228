// Characters to rows of glyphs.
#pragma once

#include "text/face_source.hpp"
#include "text/text_words.hpp"

#include <memory>
#include <vector>

namespace coldbrick::inline v0::detail {

// A glyph in its row.
struct RowGlyph {
    std::uint8_t face;
    std::uint32_t number;
    std::size_t cluster;  // the first of the row's characters that it stands for
    double advance;       // to the next one, with the space between
    double gap;           // what of that is the space
    Vec offset;
    bool is_leftward;
    double x = 0;  // where its place begins, from the left edge of the row
};

// Some of the characters, from one on.
struct Row {
    std::size_t begin = 0;
    std::size_t end = 0;    // behind the last one that belongs to it
    std::size_t shown = 0;  // behind the last one that is drawn: without spaces at the end
    bool ends_paragraph = false;
    bool is_cut = false;  // whether an ellipsis follows
    double width = 0;
    std::vector<RowGlyph> glyphs = {};
};

// The faces of a text in one size.
using SizedFaces = std::vector<std::shared_ptr<const SizedFace>>;

// Sets the rows of a text.
class RowSetter {
  public:
    RowSetter(const Text& text, const TextWords& words, const SizedFaces& faces);

    [[nodiscard]] std::vector<Row>& rows() noexcept { return rows_; }

    // From one baseline to the next.
    [[nodiscard]] double pitch() const noexcept;
    [[nodiscard]] double width() const noexcept;
    [[nodiscard]] double height() const noexcept;

    // Leaves out what has no room in a box; says how many characters.
    std::size_t cut(const Size& box);

    // Makes the spaces of a row as wide as brings it to a width.
    void widen(Row& row, double width) const;

    // Where a caret stands before each character of a row from begin to shown, and after the last one.
    [[nodiscard]] std::vector<double> carets(const Row& row) const;

  private:
    struct Segment;
    struct Advance;

    void add_paragraph(const TextWords::Paragraph& paragraph);
    void add_row(Row row);
    [[nodiscard]] std::size_t row_end(std::size_t begin, const TextWords::Paragraph& paragraph,
                                      const std::vector<Advance>& advances) const;
    std::size_t shorten(Row& row, double width, bool always) const;
    [[nodiscard]] std::u32string letters_of(const Row& row) const;
    void shape(Row& row) const;
    [[nodiscard]] std::vector<Segment> segments(const Row& row, const std::u32string& letters) const;
    [[nodiscard]] std::uint8_t level_of(const Row& row) const;
    void settle(Row& row) const;
    [[nodiscard]] std::vector<Advance> advances_of(const Row& row) const;
    [[nodiscard]] const SizedFace& face() const noexcept { return *faces_.front(); }

    const Text& text_;
    const TextWords& words_;
    const SizedFaces& faces_;
    std::uint8_t ellipsis_face_ = 0;
    bool has_ellipsis_ = false;
    std::vector<Row> rows_;
};

}  // namespace coldbrick::inline v0::detail

// Letters that are drawn one by one: what each covers is found once, and kept.
#pragma once

#include "coldbrick/fill.hpp"
#include "coldbrick/geometry.hpp"
#include "coldbrick/lettering.hpp"

#include <cstdint>
#include <span>
#include <vector>

namespace coldbrick::inline v0::detail {

// Pixels that follow each other in a row: all covered alike, or each by its own byte.
struct ReadyPart {
    int x;
    int length;
    std::uint32_t each;  // where their coverage begins, if all is 0
    std::uint8_t all;
};

// Rows of parts, moved to the right by x.
struct ReadyRows {
    const ReadyPart* parts;
    const std::uint32_t* begins;  // of each row, and the end of the last one
    int x;
    int top;
    unsigned height;
};

// What some letters cover together, from an origin on.
class ReadyLetters {
  public:
    using Part = ReadyPart;

    // All that an area covers.
    ReadyLetters(const Lettering& letters, const Fill& how);

    [[nodiscard]] const Box& bounds() const noexcept { return bounds_; }
    // Of a row, counted from the uppermost one.
    [[nodiscard]] std::span<const Part> row(int number) const noexcept {
        const auto i = static_cast<std::size_t>(number);
        return std::span{parts_}.subspan(rows_[i], rows_[i + 1] - rows_[i]);
    }
    // All rows, from a place on.
    [[nodiscard]] ReadyRows rows_at(Point at) const noexcept {
        return {.parts = parts_.data(),
                .begins = rows_.data(),
                .x = at.x,
                .top = bounds_.at.y + at.y,
                .height = static_cast<unsigned>(bounds_.size.height)};
    }
    [[nodiscard]] const std::uint8_t* each(const Part& part) const noexcept {
        return part.all == 0 ? coverage_.data() + part.each : nullptr;
    }
    // About how much memory it takes.
    [[nodiscard]] std::size_t bytes() const noexcept;

  private:
    void add(int y, int x, int length, int coverage);

    Box bounds_;
    std::vector<std::uint32_t> rows_;
    std::vector<Part> parts_;
    std::vector<std::uint8_t> coverage_;
};

// A letter and where it comes to lie, from the origin of its group: in 1024ths of a pixel.
struct LetterKey {
    std::uint64_t face;  // its identity
    std::uint32_t glyph;
    int x;
    int y;
    friend bool operator==(const LetterKey&, const LetterKey&) = default;
};

// Some letters in their places, slanted and drawn alike.
struct LettersKey {
    std::span<const LetterKey> letters;
    double slant;
    Edge edge;
};

}  // namespace coldbrick::inline v0::detail

// What a face is: letters of one size, and how they are drawn.
#pragma once

#include "geometry/trigonometry.hpp"
#include "text/unicode.hpp"

#include "coldbrick/face.hpp"
#include "coldbrick/lettering.hpp"

#include <cmath>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

// Where a letter comes to lie: its origin on the baseline, and the direction of that, slanted besides.
struct LetterPlace {
    Vec at;
    Vec along = {1, 0};
    double slant = 0;  // how far to the right for each pixel up

    [[nodiscard]] Position operator()(Vec own) const noexcept {
        const auto [x, y] = at + turned(Vec{own.x - slant * own.y, own.y}, along);
        // On a grid of 1/1024 pixel, so that a text that is moved by whole pixels is the same to the last bit.
        constexpr auto grid = 1024.0;
        const auto rounded = [](double value) { return std::floor(value * grid + 0.5) / grid; };
        return {.x = rounded(x), .y = rounded(y)};
    }
};

// A part of a row that is of one face, one script and one direction.
struct TextRun {
    std::u32string_view row;  // what stands around it counts for how letters join
    std::size_t begin;
    std::size_t end;
    bool is_right_to_left = false;
    std::uint32_t script = 0;  // as a tag; 0: whichever
    std::string_view language;
    bool is_spaced_out = false;  // whether letters are set further apart, so that none of them become one
};

// A drawing in a row, from the left to the right.
struct Glyph {
    std::uint32_t number;  // among the face's; of the built-in ones, the character
    std::size_t cluster;   // the place in the row of the first character that it stands for
    double advance;        // to the origin of the next one
    double gap = 0;        // what of that is space to the next, which there is not at the end of a row
    Vec offset = {};       // from its place in the row
};

// Letters of one size, y down from the baseline, which is the lower edge of the pixels that stand on it. Several
// threads may use one.
class SizedFace {
  public:
    SizedFace() noexcept;
    SizedFace(const SizedFace&) = delete;
    SizedFace(SizedFace&&) = delete;
    SizedFace& operator=(const SizedFace&) = delete;
    SizedFace& operator=(SizedFace&&) = delete;
    virtual ~SizedFace() = default;

    // Adds the glyphs of a run.
    virtual void shape(const TextRun& run, std::vector<Glyph>& to) const = 0;
    // What there is between a letter of its own and one of another face.
    [[nodiscard]] virtual double outer_gap() const = 0;
    // From baseline to baseline.
    [[nodiscard]] virtual double line_height() const noexcept = 0;
    [[nodiscard]] virtual double height() const noexcept = 0;
    [[nodiscard]] virtual double weight() const noexcept = 0;  // 0: it has no pen
    // Whether places are to be whole pixels.
    [[nodiscard]] virtual bool is_fitted() const noexcept = 0;

    // Adds a glyph to what is drawn. Throws Error for one that is damaged.
    virtual void draw(std::uint32_t glyph, const LetterPlace& place, Lettering& to) const = 0;

    // No two that ever were have the same.
    [[nodiscard]] std::uint64_t identity() const noexcept { return identity_; }

  private:
    std::uint64_t identity_;
};

// What all sizes have in common.
class FaceSource : public Counted {
  public:
    [[nodiscard]] virtual std::string name() const = 0;
    [[nodiscard]] virtual bool has(char32_t letter) const = 0;
    [[nodiscard]] virtual std::vector<char32_t> characters() const = 0;
    [[nodiscard]] virtual double height_of_em(double em) const = 0;
    [[nodiscard]] virtual bool has_pen() const noexcept { return false; }
    // Whether letters of different scripts are shaped by themselves.
    [[nodiscard]] virtual bool has_scripts() const noexcept { return false; }
    // Heights are whole multiples of a step, or, of faces that have every height, become smaller by it; from a least
    // one on.
    [[nodiscard]] virtual double step() const noexcept = 0;
    [[nodiscard]] virtual double least_height() const noexcept = 0;

    [[nodiscard]] virtual std::vector<std::string> features() const { return {}; }
    [[nodiscard]] virtual std::vector<FaceAxisRange> axes() const { return {}; }
    [[nodiscard]] virtual Shared<FaceSource> with_features(const std::vector<FaceFeature>& features) const;
    [[nodiscard]] virtual Shared<FaceSource> with_axes(const std::vector<FaceAxis>& axes) const;
    [[nodiscard]] virtual bool equals(const FaceSource& other) const { return this == &other; }

    // Some sizes are kept. Throws Error for a height or a breadth that it does not have.
    [[nodiscard]] std::shared_ptr<const SizedFace> sized(double height, std::optional<double> weight) const;

  protected:
    FaceSource();
    [[nodiscard]] virtual std::shared_ptr<const SizedFace> new_size(double height,
                                                                    std::optional<double> weight) const = 0;

  private:
    struct Sizes;
    std::shared_ptr<Sizes> sizes_;
};

// Faces to fall back on.
class FaceList final : public Counted {
  public:
    // Throws Error for too many, with those that they fall back on.
    explicit FaceList(std::vector<Face> faces);
    [[nodiscard]] const std::vector<Face>& faces() const noexcept { return faces_; }

  private:
    std::vector<Face> faces_;
};

// How many faces there are in all, with those to fall back on.
[[nodiscard]] std::size_t count_all(const Face& face) noexcept;

// Of the built-in faces, capitals are that part of their em square.
inline constexpr double built_in_capitals = 0.75;

// Adds the glyphs of a run whose letters are their own numbers, each by itself, as wide as width(letter), with
// gap(before, after) between them.
template <class Width, class Gap>
void shape_letters(const TextRun& run, const Width& width, const Gap& gap, std::vector<Glyph>& to) {
    for (auto k = run.begin; k < run.end; ++k) {
        const auto i = run.is_right_to_left ? run.end - 1 - (k - run.begin) : k;
        const auto letter = run.is_right_to_left ? mirrored(run.row[i]) : run.row[i];
        const auto is_last = k + 1 == run.end;
        const auto next = is_last ? U' ' : run.row[run.is_right_to_left ? i - 1 : i + 1];
        const auto own = is_invisible(letter) ? 0 : width(letter);
        const auto space = is_last || is_invisible(letter) || is_invisible(next) ? 0 : gap(letter, next);
        to.push_back({.number = letter, .cluster = i, .advance = own + space, .gap = space});
    }
}

// "tnum" as a number; nothing for what is no tag of four characters (OpenType 1.9, "Data types").
[[nodiscard]] std::optional<std::uint32_t> tag_of(std::string_view name) noexcept;

}  // namespace coldbrick::inline v0::detail

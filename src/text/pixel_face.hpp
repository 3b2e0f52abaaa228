// Faces of dots.
#pragma once

#include "text/face_source.hpp"
#include "text/letters.hpp"

#include <map>

namespace coldbrick::inline v0::detail {

class PixelFace final : public FaceSource {
  public:
    // The letters are those of capitals that are so many dots high.
    PixelFace(std::string name, int capitals, std::span<const PixelLetter> letters, std::span<const PixelMark> marks);

    [[nodiscard]] std::string name() const override { return name_; }
    [[nodiscard]] bool has(char32_t letter) const override { return letters_.contains(letter); }
    [[nodiscard]] std::vector<char32_t> characters() const override;
    [[nodiscard]] double height_of_em(double em) const override { return em * built_in_capitals; }
    [[nodiscard]] double step() const noexcept override { return capitals_; }
    [[nodiscard]] double least_height() const noexcept override { return capitals_; }

    // Dots, y from the top of the capitals down, x from the left edge.
    struct Letter {
        int width = 0;
        // The edges around what is set, clockwise, each a list of corners.
        std::vector<std::vector<Vec>> edges;
    };
    [[nodiscard]] const Letter& letter(char32_t of) const noexcept;
    [[nodiscard]] int capitals() const noexcept { return capitals_; }

  protected:
    [[nodiscard]] std::shared_ptr<const SizedFace> new_size(double height, std::optional<double> weight) const override;

  private:
    std::string name_;
    int capitals_;
    std::map<char32_t, Letter> letters_;
    Letter missing_;
};

}  // namespace coldbrick::inline v0::detail

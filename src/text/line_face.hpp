// The faces that are always there.
#pragma once

#include "text/face_source.hpp"
#include "text/letters.hpp"

namespace coldbrick::inline v0::detail {

class LineFace final : public FaceSource {
  public:
    [[nodiscard]] std::string name() const override { return "line"; }
    [[nodiscard]] bool has(char32_t letter) const override;
    [[nodiscard]] std::vector<char32_t> characters() const override;
    [[nodiscard]] double height_of_em(double em) const override { return em * built_in_capitals; }
    [[nodiscard]] double step() const noexcept override { return 1; }
    [[nodiscard]] double least_height() const noexcept override { return 5; }
    [[nodiscard]] bool has_pen() const noexcept override { return true; }

  protected:
    [[nodiscard]] std::shared_ptr<const SizedFace> new_size(double height, std::optional<double> weight) const override;
};

}  // namespace coldbrick::inline v0::detail

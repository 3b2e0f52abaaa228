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
    [[nodiscard]] std::unique_ptr<SizedFace> sized(double height, std::optional<double> weight) const override;
    [[nodiscard]] double step() const noexcept override { return 1; }
    [[nodiscard]] double least_height() const noexcept override { return 5; }
};

}  // namespace coldbrick::inline v0::detail

// Faces out of font files.
#pragma once

#include "text/fonts/font_file.hpp"

namespace coldbrick::inline v0::detail {

class FontFace final : public FaceSource {
  public:
    FontFace(Shared<FontFile> file, std::vector<FaceFeature> features)
        : file_{std::move(file)}, features_{std::move(features)} {}

    [[nodiscard]] std::string name() const override { return file_->name(); }
    [[nodiscard]] bool has(char32_t letter) const override { return file_->has(letter); }
    [[nodiscard]] std::vector<char32_t> characters() const override { return file_->characters(); }
    [[nodiscard]] double height_of_em(double em) const override { return em * file_->capitals() / file_->em(); }
    [[nodiscard]] bool has_scripts() const noexcept override { return true; }
    [[nodiscard]] double step() const noexcept override { return 1; }
    [[nodiscard]] double least_height() const noexcept override { return 1; }
    [[nodiscard]] std::vector<std::string> features() const override { return file_->features(); }
    [[nodiscard]] std::vector<FaceAxisRange> axes() const override { return file_->axis_ranges(); }
    [[nodiscard]] Shared<FaceSource> with_features(const std::vector<FaceFeature>& features) const override;
    [[nodiscard]] Shared<FaceSource> with_axes(const std::vector<FaceAxis>& axes) const override;
    [[nodiscard]] bool equals(const FaceSource& other) const override;

  protected:
    [[nodiscard]] std::shared_ptr<const SizedFace> new_size(double height, std::optional<double> weight) const override;

  private:
    Shared<FontFile> file_;
    std::vector<FaceFeature> features_;
};

}  // namespace coldbrick::inline v0::detail

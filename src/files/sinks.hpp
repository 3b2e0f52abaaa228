// Where the pixels of a picture file go as they are read.
#pragma once

#include "coldbrick/compare.hpp"
#include "coldbrick/detail/row_resizer.hpp"
#include "coldbrick/load.hpp"

#include <map>
#include <optional>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

// What a reader gives its pixels to, some of a row or column at a time and in any order, each once.
class PixelSink {
  public:
    PixelSink() noexcept = default;
    PixelSink(const PixelSink&) = delete;
    PixelSink(PixelSink&&) = delete;
    PixelSink& operator=(const PixelSink&) = delete;
    PixelSink& operator=(PixelSink&&) = delete;
    virtual ~PixelSink() = default;

    // Says what comes, before the first pixel. A decoder keeps so many bytes besides. Throws Error if that and what is
    // kept of the pixels are more than the limits allow.
    void begin(std::string_view kind, const StoredPixels& stored, const LoadLimits& limits, std::uint64_t besides = 0);

    // How many bytes it keeps of the pixels that come.
    [[nodiscard]] std::uint64_t kept() const noexcept { return kept_; }

    // Pixels that lie one after the other in the memory and, from one place of the picture on, each `step` further in
    // the picture.
    void take(const std::uint8_t* pixels, int count, Point at, Point step) {
        constexpr auto pixels_of_step = 16U;
        spend_work(1 + static_cast<unsigned>(count) / pixels_of_step);
        take_pixels(pixels, count, at, step);
    }

    // Whether anything of a row is wanted. A reader that can leave rows out need not give the others.
    [[nodiscard]] virtual bool wants_row(int /*y*/) const { return true; }

    // After the last pixel.
    virtual void finish() {}

    // A whole row.
    void take_row(const std::uint8_t* pixels, int y) {
        take(pixels, stored_.size.width, {.x = 0, .y = y}, {.x = 1, .y = 0});
    }

  protected:
    [[nodiscard]] const StoredPixels& stored() const noexcept { return stored_; }
    // Sets pixels that were taken, with their place and step in it.
    void store(const std::uint8_t* pixels, int count, Point at, Point step, const Surface& surface) const;
    // Pixels one after the other, as a picture of one row or one column.
    [[nodiscard]] Surface surface_of(const std::uint8_t* pixels, Size size) const noexcept;

  private:
    // How many bytes are kept, and the memory for them.
    [[nodiscard]] virtual std::uint64_t kept_bytes() const = 0;
    virtual void prepare() = 0;
    virtual void take_pixels(const std::uint8_t* pixels, int count, Point at, Point step) = 0;

    StoredPixels stored_;
    std::uint64_t kept_ = 0;
};

// Keeps all of them, as a target has its pixels.
class PictureSink : public PixelSink {
  public:
    explicit PictureSink(const LoadTarget& target) noexcept : target_{target} {}

    void take_pixels(const std::uint8_t* pixels, int count, Point at, Point step) override;

  private:
    [[nodiscard]] std::uint64_t kept_bytes() const override;
    void prepare() override { surface_ = target_.make(target_.context, stored()); }

    const LoadTarget& target_;
    Surface surface_{};
};

// Keeps a part of them, or fewer or more pixels in their place. Throws Error if there is no such part.
class ExcerptSink : public PixelSink {
  public:
    ExcerptSink(const LoadTarget& target, const Excerpt& excerpt) noexcept : target_{target}, excerpt_{excerpt} {}

    void take_pixels(const std::uint8_t* pixels, int count, Point at, Point step) override;
    [[nodiscard]] bool wants_row(int y) const override { return y >= part_.at.y && y < part_.at.y + part_.size.height; }
    void finish() override;

  private:
    [[nodiscard]] std::uint64_t kept_bytes() const override;
    void prepare() override;
    [[nodiscard]] StoredPixels result_of(const Box& part) const;
    [[nodiscard]] Box wanted_part() const;

    const LoadTarget& target_;
    const Excerpt& excerpt_;
    Box part_;
    Surface result_{};
    std::optional<RowResizer> resizer_;  // where rows come in order
    std::vector<std::uint8_t> bytes_;    // of the part as it is, where they do not
    Surface kept_{};
};

// Keeps none, but what they make use of.
class SurveySink : public PixelSink {
  public:
    explicit SurveySink(std::size_t most_colors) : survey_{most_colors} {}

    void take_pixels(const std::uint8_t* pixels, int count, Point, Point) override {
        survey_.take(surface_of(pixels, {.width = count, .height = 1}));
    }

    [[nodiscard]] const PixelSurvey& survey() const noexcept { return survey_; }
    [[nodiscard]] std::size_t palette_size() const noexcept {
        return stored().palette ? stored().palette->palette.size() : 0;
    }

  private:
    [[nodiscard]] std::uint64_t kept_bytes() const override { return 0; }
    void prepare() override {}

    PixelSurvey survey_;
};

// Keeps the colours of some places. Throws Error if one is outside of the picture.
class PlacesSink : public PixelSink {
  public:
    explicit PlacesSink(std::span<const Point> places) : places_{places}, colors_(places.size()) {}

    void take_pixels(const std::uint8_t* pixels, int count, Point at, Point step) override;
    [[nodiscard]] bool wants_row(int y) const override { return by_row_.contains(y); }

    [[nodiscard]] std::vector<Color16>& colors() noexcept { return colors_; }

  private:
    [[nodiscard]] std::uint64_t kept_bytes() const override { return 0; }
    void prepare() override;

    std::span<const Point> places_;
    std::vector<Color16> colors_;
    std::multimap<int, std::size_t> by_row_;  // the numbers of the places, by their rows and columns
    std::multimap<int, std::size_t> by_column_;
};

}  // namespace coldbrick::inline v0::detail

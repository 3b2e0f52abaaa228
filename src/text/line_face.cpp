// The face of lines: letters as the path of a round pen.
#include "text/line_face.hpp"

#include "geometry/limits.hpp"
#include "text/line_drawings.hpp"
#include "text/number_cache.hpp"
#include "text/unicode.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace coldbrick::inline v0::detail {

namespace {

using Kind = Path::Step::Kind;

constexpr double capital_units = 12;
constexpr double line_units = 21;    // from baseline to baseline: four above the capitals, five below the line
constexpr double space_units = 2.9;  // between two upright stems, from edge to edge of the pen

// How much nearer two letters come than two upright stems: by what is free between them, on the average.
double nearer_by(const Letter& before, const Letter& after) noexcept {
    constexpr auto most = 3.0;
    auto sum = 0.0;
    auto count = 0;
    auto least = nothing;
    for (std::size_t band = 0; band < bands; ++band) {
        const auto right = before.profile.right[band];
        const auto left = after.profile.left[band];
        // From the top of the capitals to the baseline; beyond, only where both have something.
        const auto is_inside = band >= 2 && band < 14;
        const auto has_both = right < nothing && left < nothing;
        if (!is_inside && !has_both) continue;
        const auto free = std::min(right, most) + std::min(left, most);
        if (has_both) least = std::min(least, right + left);
        sum += std::min(free, most);
        ++count;
    }
    if (count == 0 || least == nothing) return 0;
    constexpr auto share = 0.62;
    return std::min(share * sum / count, least + 1.5);
}

// From units to pixels, in one direction: stems come to lie on whole pixels.
class Fitting {
  public:
    Fitting(double scale, bool is_fitted) noexcept : scale_{scale}, is_fitted_{is_fitted} {}

    void add(double key) { keys_.push_back(key); }

    void settle() {
        std::sort(keys_.begin(), keys_.end());
        keys_.erase(std::unique(keys_.begin(), keys_.end(), [](double a, double b) { return b - a < 0.05; }),
                    keys_.end());
        for (const auto key : keys_) {
            auto pixel = std::floor(key * scale_ + 0.5);
            // Stems that are apart stay apart.
            constexpr auto apart = 1.6;
            if (!pixels_.empty() && key - keys_[pixels_.size() - 1] >= apart)
                pixel = std::max(pixel, pixels_.back() + 1);
            pixels_.push_back(pixel);
        }
    }

    [[nodiscard]] double operator()(double value) const noexcept {
        if (!is_fitted_ || keys_.empty()) return value * scale_;
        const auto above = std::lower_bound(keys_.begin(), keys_.end(), value);
        if (above == keys_.begin()) return pixels_.front() + (value - keys_.front()) * scale_;
        if (above == keys_.end()) return pixels_.back() + (value - keys_.back()) * scale_;
        const auto i = static_cast<std::size_t>(above - keys_.begin());
        const auto part = (value - keys_[i - 1]) / (keys_[i] - keys_[i - 1]);
        return pixels_[i - 1] + part * (pixels_[i] - pixels_[i - 1]);
    }

  private:
    double scale_;
    bool is_fitted_;
    std::vector<double> keys_;
    std::vector<double> pixels_;
};

// Stems, bars, and where curves turn back.
void add_keys(const Strokes& strokes, Fitting& across, Fitting& down) {
    auto from = Position{};
    for (const auto& step : strokes.steps) {
        constexpr auto hardly = 0.01;
        const auto is_same = [](double a, double b) { return std::abs(a - b) < hardly; };
        if (step.kind == Kind::line || step.kind == Kind::close) {
            if (is_same(from.x, step.to.x) && std::abs(from.y - step.to.y) > 1) across.add(from.x);
            if (is_same(from.y, step.to.y) && std::abs(from.x - step.to.x) > 1) down.add(from.y);
        }
        if (step.kind == Kind::cubic) {
            if (is_same(from.x, step.control_1.x)) across.add(from.x);
            if (is_same(from.y, step.control_1.y)) down.add(from.y);
            if (is_same(step.to.x, step.control_2.x)) across.add(step.to.x);
            if (is_same(step.to.y, step.control_2.y)) down.add(step.to.y);
        }
        from = step.to;
    }
}

class SizedLines final : public SizedFace {
  public:
    SizedLines(double height, double weight) noexcept
        : height_{height},
          weight_{weight},
          scale_{(height - weight) / capital_units},
          is_fitted_{height == std::floor(height) && weight == std::floor(weight)} {}

    void shape(const TextRun& run, std::vector<Glyph>& to) const override {
        shape_letters(
            run, [this](char32_t letter) { return width(letter); },
            [this](char32_t before, char32_t after) { return gap(before, after); }, to);
    }
    [[nodiscard]] double outer_gap() const override { return spaced(space_units); }
    [[nodiscard]] double line_height() const noexcept override { return fitted(line_units * height_ / capital_units); }
    [[nodiscard]] double height() const noexcept override { return height_; }
    [[nodiscard]] double weight() const noexcept override { return weight_; }
    [[nodiscard]] bool is_fitted() const noexcept override { return is_fitted_; }

    void draw(std::uint32_t letter, const LetterPlace& place, Lettering& to) const override {
        if (is_invisible(letter)) return;
        const auto& of = line_drawing(letter);
        auto across = Fitting{scale_, is_fitted_};
        auto down = Fitting{scale_, is_fitted_};
        fit(of, across, down);
        const auto half = weight_ / 2;
        const auto base = down(capital_units);
        const auto placed = [&](Position at) { return place({half + across(at.x), down(at.y) - base - half}); };
        add_steps(of.lines, placed, to.lines);
        if (of.is_filled) add_steps(of.lines, placed, to.outlines);
        to.weight = weight_;
    }

  private:
    // How far it reaches from its left edge to its right one.
    [[nodiscard]] double width(char32_t letter) const {
        return widths_(letter, [&] {
            const auto& of = line_drawing(letter);
            if (of.lines.steps.empty()) return fitted(of.width * scale_);
            return fitting_of(of)(of.width) + weight_;
        });
    }
    // The space between two letters.
    [[nodiscard]] double gap(char32_t before, char32_t after) const {
        const auto find = [&] {
            const auto is_number = is_of_number(before) && is_of_number(after);
            return spaced(space_units - (is_number ? 0 : nearer_by(line_drawing(before), line_drawing(after))));
        };
        constexpr char32_t most = 0xffff;
        if (before > most || after > most) return static_cast<float>(find());
        return gaps_(before << 16U | after, find);
    }
    // A heavier pen takes some of the space.
    [[nodiscard]] double spaced(double units) const noexcept {
        const auto space = units * (height_ / capital_units) * (1 - weight_ / height_);
        return fitted(std::max(space, std::min(1.0, height_ / 9)));
    }

    template <class Placed>
    static void add_steps(const Strokes& strokes, const Placed& placed, Path& path) {
        for (const auto& step : strokes.steps) {
            const auto to = placed(step.to);
            if (step.kind == Kind::move) path.move(to);
            if (step.kind == Kind::line) path.line(to);
            if (step.kind == Kind::cubic) {
                path.cubic({.control_1 = placed(step.control_1), .control_2 = placed(step.control_2), .to = to});
            }
            if (step.kind == Kind::close) path.close();
        }
    }

    void fit(const Letter& letter, Fitting& across, Fitting& down) const {
        if (!is_fitted_) return;
        add_keys(letter.lines, across, down);
        across.add(0);
        across.add(letter.width);
        // The lines that all letters have in common.
        for (const auto line : {0.0, 4.0, 12.0}) down.add(line);
        across.settle();
        down.settle();
    }
    [[nodiscard]] Fitting fitting_of(const Letter& letter) const {
        auto across = Fitting{scale_, is_fitted_};
        auto down = Fitting{scale_, is_fitted_};
        fit(letter, across, down);
        return across;
    }
    [[nodiscard]] double fitted(double pixels) const noexcept { return is_fitted_ ? std::floor(pixels + 0.5) : pixels; }

    double height_;
    double weight_;
    double scale_;
    bool is_fitted_;
    NumberCache<1024> widths_;
    NumberCache<4096> gaps_;
};

}  // namespace

bool LineFace::has(char32_t letter) const { return has_line_drawing(letter); }

std::vector<char32_t> LineFace::characters() const { return line_drawing_characters(); }

std::shared_ptr<const SizedFace> LineFace::new_size(double height, std::optional<double> weight) const {
    if (height < least_height()) {
        throw Error{"text: height is " + in_digits(height) + "; allowed in face line is " + in_digits(least_height()) +
                    " or more"};
    }
    constexpr auto parts = 9;  // of the height
    const auto breadth = weight.value_or(std::max(1.0, std::floor(height / parts + 0.5)));
    const auto most = height / 3;
    if (!(breadth >= 1.0 / 256 && breadth <= most)) {
        throw Error{"text: weight is " + in_digits(breadth) + "; allowed for height " + in_digits(height) +
                    " is 1/256 to " + in_digits(most)};
    }
    return std::make_shared<const SizedLines>(height, breadth);
}

}  // namespace coldbrick::inline v0::detail

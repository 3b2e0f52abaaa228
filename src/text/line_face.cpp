// The face of lines: letters as the way of a round pen.
#include "text/line_face.hpp"

#include "geometry/limits.hpp"
#include "text/letters.hpp"

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

// The way of the pen in units of the drawing, and what is filled.
struct Strokes {
    std::vector<Path::Step> steps;

    void add(const Path& path, double factor, Vec by) {
        const auto placed = [=](Position at) { return Position{.x = at.x * factor + by.x, .y = at.y * factor + by.y}; };
        for (const auto& step : path.steps()) {
            steps.push_back({.kind = step.kind,
                             .to = placed(step.to),
                             .control_1 = placed(step.control_1),
                             .control_2 = placed(step.control_2)});
        }
    }
};

// How near to the left and the right edge a letter comes, in bands of its height.
constexpr int bands = 17;  // from two units above the capitals to 15 below their top
struct Profile {
    std::array<double, bands> left;   // from the left edge; `nothing` where there is nothing
    std::array<double, bands> right;  // from the right edge
};
constexpr double nothing = 1e9;

struct Letter {
    Strokes lines;
    bool is_filled = false;
    double width = 0;
    Profile profile{};
};

template <class Use>
void for_each_place(const Strokes& strokes, const Use& use) {
    auto from = Position{};
    constexpr int parts = 12;
    for (const auto& step : strokes.steps) {
        for (int i = step.kind == Kind::move ? parts : 0; i <= parts; ++i) {
            const auto t = static_cast<double>(i) / parts;
            const auto s = 1 - t;
            if (step.kind != Kind::cubic) {
                use(Position{.x = from.x * s + step.to.x * t, .y = from.y * s + step.to.y * t});
                continue;
            }
            const auto at = [&](double a, double b, double c, double d) {
                return a * s * s * s + 3 * b * s * s * t + 3 * c * s * t * t + d * t * t * t;
            };
            use(Position{.x = at(from.x, step.control_1.x, step.control_2.x, step.to.x),
                         .y = at(from.y, step.control_1.y, step.control_2.y, step.to.y)});
        }
        from = step.to;
    }
}

// Moves a letter so that its left edge is at 0, and takes its measures.
void finish(Letter& letter) {
    auto least = nothing;
    auto most = -nothing;
    for_each_place(letter.lines, [&](Position at) {
        least = std::min(least, at.x);
        most = std::max(most, at.x);
    });
    letter.profile.left.fill(nothing);
    letter.profile.right.fill(nothing);
    if (letter.lines.steps.empty()) return;
    for (auto& step : letter.lines.steps) {
        for (auto* const at : {&step.to, &step.control_1, &step.control_2}) at->x -= least;
    }
    letter.width = most - least;
    for_each_place(letter.lines, [&](Position at) {
        // A place has a share in the bands beside it, too, as the pen is round.
        for (const auto reach : {-0.6, 0.6}) {
            const auto band = std::clamp(static_cast<int>(std::floor(at.y + reach + 2)), 0, bands - 1);
            auto& left = letter.profile.left[static_cast<std::size_t>(band)];
            auto& right = letter.profile.right[static_cast<std::size_t>(band)];
            left = std::min(left, at.x);
            right = std::min(right, letter.width - at.x);
        }
    });
}

bool is_figure(char32_t letter) noexcept { return letter >= U'0' && letter <= U'9'; }
bool is_of_number(char32_t letter) noexcept {
    return is_figure(letter) || letter == U'.' || letter == U',' || letter == U':';
}

class Drawings {
  public:
    Drawings() {
        for (const auto& drawing : line_letters()) add(drawing, false);
        for (const auto& drawing : filled_line_letters()) add(drawing, true);
        for (const auto& mark : line_marks()) marks_[mark.mark] = parse_path(mark.path);
        for (const auto& composed : composed_characters()) compose(composed);
        for (const auto& smaller : smaller_characters()) reduce(smaller);
        constexpr std::pair<char32_t, double> spaces[] = {{0x2002, 7},   {0x2003, 16},  {0x2004, 3.6}, {0x2005, 2.4},
                                                          {0x2006, 0.8}, {0x2007, 7},   {0x2008, 0.2}, {0x2009, 0.6},
                                                          {0x200a, 0},   {0x202f, 0.6}, {0x205f, 1.8}, {0x3000, 16}};
        for (const auto& [character, width] : spaces) letters_[character] = space_of(width);
        letters_[U'\t'] = space_of(4 * 4.7 - space_units);
        Letter box;
        box.lines.add(parse_path("M0 0 H6 V12 H0 Z"), 1, {});
        finish(box);
        missing_ = std::move(box);
    }

    [[nodiscard]] const Letter& operator[](char32_t letter) const {
        const auto found = letters_.find(letter);
        return found == letters_.end() ? missing_ : found->second;
    }
    [[nodiscard]] bool has(char32_t letter) const { return letters_.contains(letter); }
    [[nodiscard]] std::vector<char32_t> characters() const {
        std::vector<char32_t> all;
        for (const auto& [character, letter] : letters_) {
            if (character >= U' ') all.push_back(character);
        }
        return all;
    }

  private:
    void add(const LineLetter& drawing, bool is_filled) {
        Letter letter;
        letter.is_filled = is_filled;
        if (!drawing.path.empty()) letter.lines.add(parse_path(drawing.path), 1, {});
        finish(letter);
        if (is_figure(drawing.characters.front())) center(letter, drawing.width);
        if (drawing.path.empty()) letter.width = drawing.width;
        for (const auto character : drawing.characters) letters_[character] = letter;
    }

    // Figures stand in the middle of the breadth that all of them have.
    static void center(Letter& letter, double width) {
        const auto by = (width - letter.width) / 2;
        for (auto& step : letter.lines.steps) {
            for (auto* const at : {&step.to, &step.control_1, &step.control_2}) at->x += by;
        }
        for (auto* const side : {&letter.profile.left, &letter.profile.right}) {
            for (auto& value : *side) value += by;
        }
        letter.width = width;
    }

    static Letter space_of(double width) {
        Letter space;
        finish(space);
        space.width = width;
        return space;
    }

    // How high a letter reaches, and where the middle of what reaches so high is.
    static double top_of(const Letter& letter) {
        auto top = nothing;
        for_each_place(letter.lines, [&](Position at) { top = std::min(top, at.y); });
        return top;
    }

    void compose(const Composed& composed) {
        auto letter = letters_.at(composed.letter);
        const auto& mark = marks_.at(composed.mark);
        const auto is_greek_capital = composed.character >= 0x386 && composed.character <= 0x38f;
        const auto is_tall = top_of(letter) < 2;
        auto at = Vec{letter.width / 2, is_tall ? -4.0 : 0.0};
        switch (composed.mark) {
            case Mark::cedilla:
            case Mark::comma_below:
                at.y = 0;
                break;
            case Mark::ogonek:
                at = {letter.width == 0 ? 0 : letter.width - 0.6, 0};
                break;
            case Mark::apostrophe:
                at = {letter.width + (composed.letter == U'L' ? -1.6 : 1.8), 0};
                break;
            case Mark::acute:
                if (is_greek_capital) at = {-2.6, -0.4};
                break;
            default:
                break;
        }
        letter.lines.add(mark, 1, at);
        finish(letter);
        letters_[composed.character] = std::move(letter);
    }

    void reduce(const Smaller& smaller) {
        constexpr auto factor = 0.56;
        Letter whole;
        auto x = 0.0;
        const auto add_all = [&](std::u32string_view characters, double y) {
            for (const auto character : characters) {
                const auto& letter = letters_.at(character);
                Path path;
                for (const auto& step : letter.lines.steps) {
                    if (step.kind == Kind::move) path.move(step.to);
                    if (step.kind == Kind::line) path.line(step.to);
                    if (step.kind == Kind::cubic) {
                        path.cubic({.control_1 = step.control_1, .control_2 = step.control_2, .to = step.to});
                    }
                    if (step.kind == Kind::close) path.close();
                }
                whole.lines.add(path, factor, {x, y});
                x += factor * letter.width + 1.8;
            }
        };
        const auto is_small_letter = smaller.above == U"a" || smaller.above == U"o";
        add_all(smaller.above, is_small_letter ? -2.2 : 0);
        if (!smaller.below.empty()) {
            x -= 0.6;
            whole.lines.add(parse_path("M5 0 L0 12"), 1, {x, 0});
            x += 4.6;
            add_all(smaller.below, 12 - 12 * factor);
        }
        finish(whole);
        letters_[smaller.character] = std::move(whole);
    }

    std::map<char32_t, Letter> letters_;
    std::map<Mark, Path> marks_;
    Letter missing_;
};

const Drawings& drawings() {
    static const Drawings all;
    return all;
}

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

    [[nodiscard]] double width(char32_t letter) const override {
        const auto& of = drawings()[letter];
        if (of.lines.steps.empty()) return fitted(of.width * scale_);
        return fitting_of(of)(of.width) + weight_;
    }
    [[nodiscard]] double gap(char32_t before, char32_t after) const override {
        if (is_zero_width(before) || is_zero_width(after)) return 0;
        const auto& drawn = drawings();
        const auto is_number = is_of_number(before) && is_of_number(after);
        const auto nearer = is_number ? 0 : nearer_by(drawn[before], drawn[after]);
        // A heavier pen takes some of the space.
        const auto space = (space_units - nearer) * (height_ / capital_units) * (1 - weight_ / height_);
        return fitted(std::max(space, std::min(1.0, height_ / 9)));
    }
    [[nodiscard]] double line_height() const noexcept override { return fitted(line_units * height_ / capital_units); }
    [[nodiscard]] double height() const noexcept override { return height_; }
    [[nodiscard]] double weight() const noexcept override { return weight_; }
    [[nodiscard]] bool is_fitted() const noexcept override { return is_fitted_; }

    void draw(char32_t letter, const LetterPlace& place, Lettering& to) const override {
        const auto& of = drawings()[letter];
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
    static bool is_zero_width(char32_t letter) noexcept {
        return letter == 0x200b || letter == 0x200c || letter == 0x200d || letter == 0xfeff;
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
};

}  // namespace

bool LineFace::has(char32_t letter) const { return drawings().has(letter); }

std::vector<char32_t> LineFace::characters() const { return drawings().characters(); }

std::unique_ptr<SizedFace> LineFace::sized(double height, std::optional<double> weight) const {
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
    return std::make_unique<SizedLines>(height, breadth);
}

}  // namespace coldbrick::inline v0::detail

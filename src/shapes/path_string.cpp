// Path data of SVG 2, 9.3.
#include "coldbrick/budget.hpp"
#include "coldbrick/path.hpp"

#include <charconv>
#include <cmath>
#include <optional>
#include <string>

namespace coldbrick::inline v0 {

namespace {

class PathReader {
  public:
    explicit PathReader(std::string_view text) noexcept : text_{text} {}

    Path read() {
        skip_spaces();
        if (at_ == text_.size()) fault("the path is empty; it begins with M and two numbers");
        while (at_ < text_.size()) {
            const auto command = text_[at_];
            if (commands.find(command) == std::string_view::npos) {
                fault("'" + std::string{printable(command)} +
                      "' is no command; allowed are M L H V C S Q T A Z, also small");
            }
            if (path_.empty() && command != 'M' && command != 'm') fault("a path begins with M");
            ++at_;
            skip_spaces();
            command_ = command;
            arguments();
        }
        return std::move(path_);
    }

  private:
    static constexpr std::string_view commands = "MmZzLlHhVvCcSsQqTtAa";

    [[noreturn]] void fault(const std::string& what) const { fault_at(at_, what); }

    [[noreturn]] static void fault_at(std::size_t at, const std::string& what) {
        throw PathError{"path: at character " + std::to_string(at + 1) + ": " + what, at};
    }

    static char printable(char c) noexcept { return c > ' ' && c < 0x7f ? c : '?'; }
    static bool is_space(char c) noexcept { return c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == '\f'; }
    static bool is_digit(char c) noexcept { return c >= '0' && c <= '9'; }

    void skip_spaces() noexcept {
        while (at_ < text_.size() && is_space(text_[at_])) ++at_;
    }

    [[nodiscard]] char peek() const noexcept { return at_ < text_.size() ? text_[at_] : '\0'; }

    // Whether another set of arguments follows the last one.
    bool more() {
        const auto before = at_;
        skip_spaces();
        const auto comma = peek() == ',';
        if (comma) {
            ++at_;
            skip_spaces();
        }
        const auto starts_number = is_digit(peek()) || peek() == '.' || peek() == '-' || peek() == '+';
        if (comma && !starts_number) {
            at_ = before;
            fault("a number is missing after the comma");
        }
        return starts_number;
    }

    // One set of arguments after the other; a command without arguments has one.
    void arguments() {
        if (command_ == 'Z' || command_ == 'z') {
            path_.close();
            current_ = begin_;
            after(Curve::other, current_);
            return;
        }
        do {
            const auto start = at_;
            try {
                step();
            } catch (const PathError&) {
                throw;
            } catch (const LimitError&) {
                throw;
            } catch (const Error& error) {
                fault_at(start, std::string{error.what()}.substr(std::string_view{"path: "}.size()));
            }
            // Further pairs after a move are lines.
            if (command_ == 'M') command_ = 'L';
            if (command_ == 'm') command_ = 'l';
        } while (more());
        skip_spaces();
    }

    [[nodiscard]] bool is_relative() const noexcept { return command_ >= 'a'; }

    void step() {
        detail::spend_work(8);
        switch (is_relative() ? static_cast<char>(command_ - 'a' + 'A') : command_) {
            case 'M':
                begin_ = pair();
                path_.move(begin_);
                return after(Curve::other, begin_);
            case 'L':
                return line(pair());
            case 'H':
                return line({.x = number() + (is_relative() ? current_.x : 0), .y = current_.y});
            case 'V':
                return line({.x = current_.x, .y = number() + (is_relative() ? current_.y : 0)});
            case 'C': {
                const auto first = pair();
                separate();
                return cubic(first);
            }
            case 'S':
                return cubic(reflected(Curve::cubic));
            case 'Q': {
                const auto control = pair();
                separate();
                return quadratic(control);
            }
            case 'T':
                return quadratic(reflected(Curve::quadratic));
            default:
                return arc();
        }
    }

    void line(Position to) {
        path_.line(to);
        after(Curve::other, to);
    }

    void cubic(Position first) {
        const auto second = pair();
        separate();
        const auto to = pair();
        path_.cubic({.control_1 = first, .control_2 = second, .to = to});
        after(Curve::cubic, to, second);
    }

    void quadratic(Position control) {
        const auto to = pair();
        path_.quadratic({.control = control, .to = to});
        after(Curve::quadratic, to, control);
    }

    void arc() {
        Path::EllipticalArc arc;
        // Negative radii count as positive (SVG 2, 9.5.1).
        arc.radii.x = std::abs(number());
        separate();
        arc.radii.y = std::abs(number());
        separate();
        arc.turned = Angle::degrees(number());
        separate();
        arc.large = flag();
        separate();
        arc.clockwise = flag();
        separate();
        arc.to = pair();
        // An arc to where it begins is left out.
        if (!(arc.to == current_)) path_.arc(arc);
        after(Curve::other, arc.to);
    }

    enum class Curve { other, quadratic, cubic };

    void after(Curve curve, Position to, Position control = {}) noexcept {
        curve_ = curve;
        current_ = to;
        control_ = control;
    }

    // The control point of the last curve, seen from where the path is to the other side.
    [[nodiscard]] Position reflected(Curve curve) const noexcept {
        if (curve_ != curve) return current_;
        return {.x = 2 * current_.x - control_.x, .y = 2 * current_.y - control_.y};
    }

    void separate() noexcept {
        skip_spaces();
        if (peek() == ',') ++at_;
        skip_spaces();
    }

    Position pair() {
        const auto x = number();
        separate();
        const auto y = number();
        return is_relative() ? Position{.x = current_.x + x, .y = current_.y + y} : Position{.x = x, .y = y};
    }

    bool flag() {
        if (peek() != '0' && peek() != '1') fault("a flag is missing; allowed are 0 and 1");
        return text_[at_++] == '1';
    }

    void skip_digits() noexcept {
        while (is_digit(peek())) ++at_;
    }

    double number() {
        const auto start = at_;
        if (peek() == '-' || peek() == '+') ++at_;
        const auto digits = at_;
        skip_digits();
        auto count = at_ - digits;
        if (peek() == '.' && at_ + 1 < text_.size() && is_digit(text_[at_ + 1])) {
            ++at_;
            const auto fraction = at_;
            skip_digits();
            count += at_ - fraction;
        }
        if (count == 0) fault_at(start, std::string{"a number is missing for '"} + command_ + "'");
        skip_exponent();
        auto value = 0.0;
        const auto* const first = text_.data() + start + (text_[start] == '+' ? 1 : 0);
        if (std::from_chars(first, text_.data() + at_, value).ec != std::errc{})
            fault_at(start, "this number is too large");
        return value;
    }

    void skip_exponent() noexcept {
        if (peek() != 'e' && peek() != 'E') return;
        const auto before = at_++;
        if (peek() == '-' || peek() == '+') ++at_;
        if (is_digit(peek())) return skip_digits();
        at_ = before;
    }

    std::string_view text_;
    std::size_t at_ = 0;
    Path path_;
    char command_ = '\0';
    Position begin_;
    Position current_;
    Position control_;
    Curve curve_ = Curve::other;
};

}  // namespace

Path parse_path(std::string_view text) { return PathReader{text}.read(); }

}  // namespace coldbrick::inline v0

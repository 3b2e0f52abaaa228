// The values in a scene: numbers, pairs, colours.
#pragma once

#include "scene/words.hpp"

#include <memory>
#include <optional>

namespace coldbrick::detail {

// Reads values; what is wrong goes to the faults, and the answer is then empty.
class ValueReader {
  public:
    explicit ValueReader(Faults& faults);
    ValueReader(const ValueReader&) = delete;
    ValueReader(ValueReader&&) = delete;
    ValueReader& operator=(const ValueReader&) = delete;
    ValueReader& operator=(ValueReader&&) = delete;
    ~ValueReader();

    // A whole number from least to most, as digits or an expression.
    std::optional<int> whole(const Word& word, int least, int most);

    // Two whole numbers with a comma between.
    std::optional<Point> pair(const Word& word, int least, int most);

    // Any number from least to most.
    std::optional<double> real(const Word& word, double least, double most);

    // Several of them with commas between.
    std::optional<std::vector<double>> reals(const Word& word, double least, double most);

    // Degrees, or with the unit behind: 0.25turn, 1.57rad, 90deg.
    std::optional<Angle> angle(const Word& word);

    // A colour: a name, #digits, rgb(), rgba() or gray().
    std::optional<Color> color(const Word& word);

  private:
    std::optional<double> number(const Word& word);
    std::optional<Color> color_function(const Word& word, std::size_t open);

    struct Expressions;
    Faults& faults_;
    std::unique_ptr<Expressions> expressions_;
};

// The parts of a word between the commas that are in no parentheses.
[[nodiscard]] std::vector<Word> split_at_commas(const Word& word);

}  // namespace coldbrick::detail

// The values in a scene: numbers, pairs, colours.
#pragma once

#include "scene/words.hpp"

#include "coldbrick/face.hpp"

#include <map>
#include <memory>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

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

    // Two numbers with a comma between.
    std::optional<Position> position(const Word& word, double least, double most);

    // A part of the whole: 0.5 or 50%.
    std::optional<double> part(const Word& word);

    // A colour: a name, #digits, rgb(), rgba(), gray(), hsl() or hsv().
    std::optional<Color> color(const Word& word);

    // A colour, an ink of one's own, or entry() of a palette.
    std::optional<Ink> ink(const Word& word);

    // A face that is always there, or one of one's own.
    std::optional<Face> face(const Word& word);

    // From now on the name is a colour, or another ink, or a face.
    void define(const Word& name, const Ink& ink);
    void define(const Word& name, const Face& face);

    // Says so if the name is taken.
    bool check_new(const Word& name);

    // A name that will be defined: until then it may not be used.
    void reserve(const Word& name) { unfinished_.push_back(name.text); }

  private:
    std::optional<double> number(const Word& word);
    std::optional<Color> color_function(const Word& word, std::size_t open);
    std::optional<Color> hue_color(std::string_view form, const std::vector<Word>& parts);
    [[nodiscard]] std::vector<std::string_view> color_words() const;

    struct Expressions;
    Faults& faults_;
    std::unique_ptr<Expressions> expressions_;
    std::map<std::string, Ink, std::less<>> named_;
    std::map<std::string, Face, std::less<>> faces_;
    std::vector<std::string> unfinished_;  // names of patterns that are being drawn
};

// The parts of a word between the commas that are in no parentheses.
[[nodiscard]] std::vector<Word> split_at_commas(const Word& word);

}  // namespace coldbrick::inline v0::detail

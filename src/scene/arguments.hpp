// The arguments of a statement that the grammar has passed, by name, as values.
#pragma once

#include "scene/grammar.hpp"
#include "scene/values.hpp"

#include "coldbrick/shapes.hpp"
#include "coldbrick/stroke.hpp"

#include <algorithm>
#include <bitset>
#include <initializer_list>
#include <optional>
#include <span>
#include <string>

namespace coldbrick::inline v0::detail {

// A word and what it stands for.
template <class Choice>
struct NamedChoice {
    std::string_view word;
    Choice choice;
};

// Where arguments stand in a program, with what their values have become.
struct ArgumentsOf {
    const Program& program;
    std::span<const Argument> given;
    const Value* values;       // of the whole statement
    std::uint32_t first_part;  // of the whole statement
};

// What is wrong goes to the faults, and the answer is then empty.
class Arguments {
  public:
    // Edges are as usual_edge says where a statement does not.
    Arguments(const ArgumentsOf& of, ValueReader& values, Faults& faults, Edge usual_edge = Edge::crisp)
        : of_{of}, values_{values}, faults_{faults}, usual_edge_{usual_edge} {
        for (const auto& argument : of.given) has_.set(argument.keyword);
    }

    [[nodiscard]] bool has(Key key) const noexcept { return has_[key.number()]; }
    [[nodiscard]] bool has_any(std::initializer_list<Key> keys) const noexcept {
        return std::any_of(keys.begin(), keys.end(), [&](Key key) { return has(key); });
    }
    [[nodiscard]] GivenValue value(Key key) const { return given(find(key)->first_value); }
    [[nodiscard]] const Word& word(Key key) const { return value(key).word(); }
    [[nodiscard]] ValueReader& values() noexcept { return values_; }
    [[nodiscard]] Faults& faults() noexcept { return faults_; }

    std::optional<Point> point(Key key) { return values_.pair(value(key), -max_coordinate, max_coordinate); }

    std::optional<Size> size(Key key) {
        const auto read = values_.pair(value(key), 1, max_coordinate);
        return read ? std::optional{Size{.width = read->x, .height = read->y}} : std::nullopt;
    }

    std::optional<int> whole(Key key, int least, int most) { return values_.whole(value(key), least, most); }

    // The same, or what it is if it is not given.
    std::optional<int> whole_or(Key key, int usual, int least, int most) {
        return has(key) ? whole(key, least, most) : usual;
    }

    std::optional<Angle> angle_or(Key key, Angle usual) { return has(key) ? values_.angle(value(key)) : usual; }

    std::optional<Color> color(Key key) { return values_.color(value(key)); }
    std::optional<Color> color_or(Key key, Color usual) { return has(key) ? color(key) : usual; }

    // A place, and a number, that need not be whole.
    std::optional<Position> position(Key key, double least = -max_coordinate) {
        return values_.position(value(key), least, max_coordinate);
    }
    std::optional<Position> position_or(Key key, Position usual) { return has(key) ? position(key) : usual; }
    std::optional<double> real_or(Key key, double usual, double least, double most) {
        return has(key) ? values_.real(value(key), least, most) : usual;
    }

    // smooth, crisp, or as usual.
    std::optional<Edge> edge() {
        if (has("smooth") && has("crisp")) {
            faults_.add({.text = "crisp", .place = find("crisp")->place}, "edges are smooth or crisp, not both");
            return std::nullopt;
        }
        if (has("smooth")) return Edge::smooth;
        return has("crisp") ? Edge::crisp : usual_edge_;
    }

    // How many values a keyword has, and each of them.
    [[nodiscard]] std::size_t count(Key key) const { return find(key)->value_count; }
    [[nodiscard]] GivenValue value(Key key, std::size_t number) const {
        return given(find(key)->first_value + static_cast<std::uint32_t>(number));
    }

    // One list for each time the keyword is given.
    std::optional<std::vector<std::vector<Position>>> lists(Key key);

    // Which of some words is given; the first if the keyword is not.
    template <class Choice, std::size_t count>
    std::optional<Choice> choice(Key key, const NamedChoice<Choice> (&choices)[count]) {
        return choice<Choice>(key, std::span<const NamedChoice<Choice>>{choices});
    }
    template <class Choice>
    std::optional<Choice> choice(Key key, std::span<const NamedChoice<Choice>> choices) {
        if (!has(key)) return choices[0].choice;
        const auto& given = word(key);
        std::vector<std::string_view> words;
        for (const auto& [text, choice] : choices) {
            if (given.text == text) return choice;
        }
        for (const auto& [text, choice] : choices) {
            if (new_spelling(given.text) != text) continue;
            (void)current_spelling(given, faults_);
            return choice;
        }
        for (const auto& [text, choice] : choices) words.push_back(text);
        const auto near = nearest_word(given.text, words);
        faults_.add(given, "unknown " + std::string{key.name()} + " " + in_quotes(given.text),
                    near.empty() ? "allowed are " + in_words(words, "and") : "did you mean " + in_quotes(near) + "?");
        return std::nullopt;
    }

  private:
    [[nodiscard]] const Argument* find(Key key) const noexcept {
        auto i = std::size_t{0};
        while (of_.given[i].keyword != key.number()) ++i;
        return &of_.given[i];
    }

    [[nodiscard]] GivenValue given(std::uint32_t number) const {
        const auto& word = of_.program.values[number];
        return {word, of_.values + (word.first_part - of_.first_part)};
    }

    ArgumentsOf of_;
    ValueReader& values_;
    Faults& faults_;
    Edge usual_edge_;
    std::bitset<128> has_;
};

}  // namespace coldbrick::inline v0::detail

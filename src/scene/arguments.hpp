// The arguments of a statement that the grammar has passed, by name, as values.
#pragma once

#include "scene/parse.hpp"
#include "scene/values.hpp"

#include "coldbrick/shapes.hpp"
#include "coldbrick/stroke.hpp"

#include <algorithm>
#include <array>
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

// What is wrong goes to the faults, and the answer is then empty.
class Arguments {
  public:
    // Edges are as usual_edge says where a statement does not.
    Arguments(const std::vector<Argument>& given, ValueReader& values, Faults& faults, Edge usual_edge = Edge::crisp)
        : given_{given}, values_{values}, faults_{faults}, usual_edge_{usual_edge} {}

    [[nodiscard]] bool has(std::string_view name) const { return find(name) != nullptr; }
    [[nodiscard]] const Word& value(std::string_view name) const { return find(name)->values.front(); }
    [[nodiscard]] ValueReader& values() noexcept { return values_; }
    [[nodiscard]] Faults& faults() noexcept { return faults_; }

    std::optional<Point> point(std::string_view name) { return pair(name, -max_coordinate); }

    std::optional<Size> size(std::string_view name) {
        const auto read = pair(name, 1);
        return read ? std::optional{Size{.width = read->x, .height = read->y}} : std::nullopt;
    }

    std::optional<Radii> radii(std::string_view name) {
        const auto read = pair(name, 0);
        return read ? std::optional{Radii{.x = read->x, .y = read->y}} : std::nullopt;
    }

    std::optional<int> whole(std::string_view name, int least, int most) {
        return values_.whole(value(name), least, most);
    }

    // The same, or what it is if it is not given.
    std::optional<int> whole_or(std::string_view name, int usual, int least, int most) {
        return has(name) ? whole(name, least, most) : usual;
    }

    std::optional<Angle> angle_or(std::string_view name, Angle usual) {
        return has(name) ? values_.angle(value(name)) : usual;
    }

    std::optional<Color> color(std::string_view name) { return values_.color(value(name)); }
    std::optional<Color> color_or(std::string_view name, Color usual) { return has(name) ? color(name) : usual; }

    // A place, and a number, that need not be whole.
    std::optional<Position> position(std::string_view name, double least = -max_coordinate) {
        return values_.position(value(name), least, max_coordinate);
    }
    std::optional<Position> position_or(std::string_view name, Position usual) {
        return has(name) ? position(name) : usual;
    }
    std::optional<double> real_or(std::string_view name, double usual, double least, double most) {
        return has(name) ? values_.real(value(name), least, most) : usual;
    }

    // smooth, crisp, or as usual.
    std::optional<Edge> edge() {
        if (has("smooth") && has("crisp")) {
            faults_.add(find("crisp")->keyword, "edges are smooth or crisp, not both");
            return std::nullopt;
        }
        if (has("smooth")) return Edge::smooth;
        return has("crisp") ? Edge::crisp : usual_edge_;
    }

    // All values of a keyword.
    [[nodiscard]] const std::vector<Word>& all(std::string_view name) const { return find(name)->values; }

    // One list for each time the keyword is given.
    std::optional<std::vector<std::vector<Position>>> lists(std::string_view name);

    // Which of some words is given; the first if the keyword is not.
    template <class Choice, std::size_t count>
    std::optional<Choice> choice(std::string_view name, const NamedChoice<Choice> (&choices)[count]) {
        if (!has(name)) return choices[0].choice;
        const auto& word = value(name);
        std::vector<std::string_view> words;
        for (const auto& [text, choice] : choices) {
            if (word.text == text) return choice;
            words.push_back(text);
        }
        const auto near = nearest_word(word.text, words);
        faults_.add(word, "unknown " + std::string{name} + " " + in_quotes(word.text),
                    near.empty() ? "allowed are " + in_words(words, "and") : "did you mean " + in_quotes(near) + "?");
        return std::nullopt;
    }

  private:
    [[nodiscard]] const Argument* find(std::string_view name) const {
        const auto found =
            std::find_if(given_.begin(), given_.end(), [&](const Argument& a) { return a.keyword.text == name; });
        return found == given_.end() ? nullptr : &*found;
    }

    std::optional<Point> pair(std::string_view name, int least) {
        return values_.pair(value(name), least, max_coordinate);
    }

    const std::vector<Argument>& given_;
    ValueReader& values_;
    Faults& faults_;
    Edge usual_edge_;
};

}  // namespace coldbrick::inline v0::detail

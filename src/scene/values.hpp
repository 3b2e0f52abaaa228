// The values in a scene as what they are needed as: numbers, pairs, colours.
#pragma once

#include "scene/memory.hpp"

#include "coldbrick/angle.hpp"
#include "coldbrick/face.hpp"
#include "coldbrick/ink.hpp"

#include <optional>
#include <string>
#include <vector>

namespace coldbrick::inline v0::detail {

// Reads values; what is wrong goes to the faults, and the answer is then empty.
class ValueReader {
  public:
    ValueReader(Machine& machine, Memory& memory, Faults& faults)
        : machine_{machine}, memory_{memory}, faults_{faults} {}

    // Any number.
    std::optional<double> number(const GivenPart& part);

    // A whole number from least to most.
    std::optional<int> whole(const GivenPart& part, int least, int most);
    std::optional<int> whole(const GivenValue& value, int least, int most);

    // Two whole numbers with a comma between.
    std::optional<Point> pair(const GivenValue& value, int least, int most);

    // Any number from least to most.
    std::optional<double> real(const GivenPart& part, double least, double most);
    std::optional<double> real(const GivenValue& value, double least, double most) {
        if (value.size() == 1 && is_within(value.values[0], least, most)) return value.values[0].x;
        return checked_real(value, least, most);
    }

    // Several of them with commas between.
    std::optional<std::vector<double>> reals(const GivenValue& value, double least, double most);

    // Degrees, or with the unit behind: 0.25turn, 1.57rad, 90deg.
    std::optional<Angle> angle(const GivenPart& part);
    std::optional<Angle> angle(const GivenValue& value);

    // Two numbers with a comma between.
    std::optional<Position> position(const GivenValue& value, double least, double most) {
        if (value.size() == 2 && is_within(value.values[0], least, most) && is_within(value.values[1], least, most)) {
            return Position{.x = value.values[0].x, .y = value.values[1].x};
        }
        return checked_position(value, least, most);
    }

    // A part of the whole: 0.5 or 50%.
    std::optional<double> part(const GivenPart& part);
    std::optional<double> part(const GivenValue& value);

    std::optional<Color> color(const GivenPart& part);
    std::optional<Color> color(const GivenValue& value);

    // A colour, an ink of one's own, or entry() of a palette.
    std::optional<Ink> ink(const GivenValue& value);

    // A face that is always there, or one of one's own.
    std::optional<Face> face(const GivenPart& part);
    std::optional<Face> face(const GivenValue& value);

    // A text, or a number as one.
    std::optional<std::string> text(const GivenPart& part);
    std::optional<std::string> text(const GivenValue& value);

    // Whether a value is true: a number that is not 0.
    std::optional<bool> truth(const GivenValue& value);

    // The one part of a value; where there are several, a fault.
    std::optional<GivenPart> single(const GivenValue& value);

  private:
    // What most values are.
    static bool is_within(const Value& value, double least, double most) noexcept {
        return value.kind == ValueKind::number && value.unit == Unit::none && value.x >= least && value.x <= most;
    }
    std::optional<Position> checked_position(const GivenValue& value, double least, double most);
    std::optional<double> checked_real(const GivenValue& value, double least, double most);
    std::optional<double> plain_number(const GivenPart& part, Unit allowed);
    void refuse(const GivenPart& part, std::string_view needed);

    Machine& machine_;
    Memory& memory_;
    Faults& faults_;
};

}  // namespace coldbrick::inline v0::detail

// What a scene keeps while it is run.
#pragma once

#include "scene/program.hpp"

#include "coldbrick/face.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/table.hpp"

#include <memory>
#include <optional>
#include <random>
#include <string>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

// Values of names and what they refer to. What a block has put there goes with it.
class Memory {
  public:
    explicit Memory(const Program& program) : slots_(program.slots) { calls_.push_back({}); }

    // The value of a name, that stands so many shapes deep.
    [[nodiscard]] Value& slot(std::uint16_t level, std::uint32_t number) noexcept {
        if (level == 0) return slots_[number];
        auto call = calls_.size() - 1;
        while (calls_[call].level != level) call = calls_[call].outer;
        return slots_[calls_[call].first + number];
    }

    // A use of a shape that stands as deep as its level says, less one: values of its own.
    void begin_call(std::uint16_t level, std::uint32_t slots);
    void end_call();
    // Which use is run.
    [[nodiscard]] std::size_t call() const noexcept { return calls_.size() - 1; }

    struct Marks {
        std::uint32_t texts = 0;
        std::uint32_t inks = 0;
        std::uint32_t faces = 0;
        std::uint32_t boxes = 0;
    };
    [[nodiscard]] Marks marks() const noexcept {
        return {static_cast<std::uint32_t>(texts.size()), static_cast<std::uint32_t>(inks.size()),
                static_cast<std::uint32_t>(faces.size()), static_cast<std::uint32_t>(boxes.size())};
    }
    void drop_to(const Marks& marks) {
        if (texts.size() + inks.size() + faces.size() + boxes.size() ==
            std::size_t{marks.texts} + marks.inks + marks.faces + marks.boxes) {
            return;
        }
        while (texts.size() > marks.texts) {
            text_bytes -= texts.back().size() + sizeof(std::string);
            texts.pop_back();
        }
        if (inks.size() > marks.inks) inks.resize(marks.inks, Ink{Color{}});
        if (faces.size() > marks.faces) faces.resize(marks.faces);
        if (boxes.size() > marks.boxes) boxes.resize(marks.boxes);
    }

    void keep_text(std::string text) {
        text_bytes += text.size() + sizeof(std::string);
        texts.push_back(std::move(text));
    }

    std::vector<std::string> texts;
    std::uint64_t text_bytes = 0;  // of all texts together
    std::vector<Ink> inks;
    std::vector<Face> faces;
    std::vector<Box> boxes;
    std::vector<std::shared_ptr<const Table>> tables;
    std::mt19937_64 random;  // seeded where a run begins

  private:
    struct Call {
        std::size_t first = 0;  // of its slots
        std::size_t outer = 0;  // the use that it stands in
        std::uint16_t level = 0;
    };
    std::vector<Value> slots_;
    std::vector<Call> calls_;
};

// Runs steps: expressions to values.
class Machine {
  public:
    Machine(const Program& program, Memory& memory, Faults& faults)
        : program_{program}, memory_{memory}, faults_{faults} {}

    // The value of a part of a word; none where there is a fault, which is reported.
    Value evaluate(const Part& part, const ValueWord& of, std::size_t number) {
        Value value;
        evaluate_to(value, part, of, number);
        return value;
    }
    void evaluate_to(Value& to, const Part& part, const ValueWord& of, std::size_t number) {
        to.unit = Unit::none;
        to.kind = ValueKind::number;
        if (part.kind == Part::Kind::number) {
            to.x = program_.numbers[part.first];
        } else if (part.kind == Part::Kind::color) {
            to.kind = ValueKind::color;
            to.color = part.color;
        } else if (part.kind != Part::Kind::numeric || !run_numbers(part, to.x)) {
            to = part.kind >= Part::Kind::numeric ? run(part, of, number) : Value{};
        }
    }

    // What a text is.
    [[nodiscard]] const std::string& text_of(const Value& value) const noexcept;

  private:
    friend class StepRunner;

    // Of steps that all are of numbers; false where a name stands for something else.
    bool run_numbers(const Part& part, double& result);
    bool has_numbers(const Part& part) noexcept;
    bool call_numbers(const Step& step, double*& top);
    Value run(const Part& part, const ValueWord& of, std::size_t number);

    const Program& program_;
    Memory& memory_;
    Faults& faults_;
    std::vector<Value> stack_;
};

// A value with the word that it stands in.
struct GivenPart {
    const ValueWord& of;
    std::size_t number;  // which of the parts between its commas
    Value value;

    [[nodiscard]] Word word() const;
};

struct GivenValue {
    const ValueWord& of;
    const Value* values;

    [[nodiscard]] std::size_t size() const noexcept { return of.part_count; }
    [[nodiscard]] GivenPart operator[](std::size_t number) const noexcept { return {of, number, values[number]}; }
    [[nodiscard]] const Word& word() const noexcept { return of.word; }
};

// The number that a text is, all of it; nothing if it is none.
[[nodiscard]] std::optional<double> number_of_text(std::string_view text) noexcept;

// Text that a number or a colour may stand in.
[[nodiscard]] bool is_cell(const Value& value) noexcept;

}  // namespace coldbrick::inline v0::detail

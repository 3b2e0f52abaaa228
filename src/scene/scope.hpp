// Names of one's own while a scene is parsed: where each is known, and which value it stands for.
#pragma once

#include "scene/program.hpp"

#include <string_view>
#include <unordered_map>
#include <vector>

namespace coldbrick::inline v0::detail {

struct KnownName {
    Word word;
    std::uint16_t file = 0;
    std::uint16_t level = 0;  // how many shapes it is in
    std::uint32_t slot = no_slot;
    std::uint32_t shape = no_slot;  // which shape of one's own it is, if it is one
    bool is_used = false;
    bool is_reported_if_unused = true;
    bool is_unfinished = false;  // the pattern that is being drawn
};

class Scope {
  public:
    explicit Scope(Faults& faults) : faults_{faults} {}

    // Null if there is none of that name here.
    [[nodiscard]] KnownName* find(std::string_view name) noexcept;

    // A name from here to the end of the block. A fault if the block has it already, a remark if it hides another.
    KnownName& define(const Word& name);
    // The same without a fault: it always exists, or its fault was reported before.
    KnownName& define_quietly(const Word& name);

    void open_block();
    // Remarks on the names in it that were never used.
    void close_block();

    // What stands in a shape has its own values.
    void open_shape();
    std::uint32_t close_shape();  // how many
    [[nodiscard]] std::uint16_t level() const noexcept { return static_cast<std::uint16_t>(slots_.size() - 1); }
    [[nodiscard]] std::uint32_t slots() const noexcept { return slots_.back(); }
    std::uint32_t new_slot() noexcept { return slots_.back()++; }

    void set_file(std::uint16_t file) noexcept { file_ = file; }

    [[nodiscard]] std::vector<std::string_view> names() const;

  private:
    Faults& faults_;
    std::vector<KnownName> known_;
    std::unordered_map<std::string_view, std::vector<std::uint32_t>> by_text_;
    std::vector<std::size_t> blocks_{0};  // how many names there were where each began
    std::vector<std::uint32_t> slots_{0};
    std::uint16_t file_ = 0;
};

}  // namespace coldbrick::inline v0::detail

#include "scene/memory.hpp"

#include <charconv>
#include <cmath>

namespace coldbrick::inline v0::detail {

void Memory::begin_call(std::uint16_t level, std::uint32_t slots) {
    auto outer = calls_.size() - 1;
    while (calls_[outer].level >= level) outer = calls_[outer].outer;
    calls_.push_back({.first = slots_.size(), .outer = outer, .level = level});
    slots_.resize(slots_.size() + slots);
}

void Memory::end_call() {
    slots_.resize(calls_.back().first);
    calls_.pop_back();
}

bool is_cell(const Value& value) noexcept { return value.kind == ValueKind::cell || value.kind == ValueKind::text; }

std::optional<double> number_of_text(std::string_view text) noexcept {
    while (text.ends_with(' ')) text.remove_suffix(1);
    while (text.starts_with(' ')) text.remove_prefix(1);
    auto value = 0.0;
    const auto [read_to, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    const auto is_number = error == std::errc{} && read_to == text.data() + text.size() && std::isfinite(value);
    return is_number ? std::optional{value} : std::nullopt;
}

const std::string& Machine::text_of(const Value& value) const noexcept {
    if (value.kind == ValueKind::cell) {
        const auto& row = memory_.tables[value.index]->rows[static_cast<std::size_t>(value.x)];
        return row.cells[static_cast<std::size_t>(value.y)];
    }
    const auto count = static_cast<std::uint32_t>(program_.texts.size());
    return value.index < count ? program_.texts[value.index] : memory_.texts[value.index - count];
}

}  // namespace coldbrick::inline v0::detail

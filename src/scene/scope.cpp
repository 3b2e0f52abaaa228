#include "scene/scope.hpp"

#include <string>

namespace coldbrick::inline v0::detail {

KnownName* Scope::find(std::string_view name) noexcept {
    const auto found = by_text_.find(name);
    return found == by_text_.end() || found->second.empty() ? nullptr : &known_[found->second.back()];
}

KnownName& Scope::define(const Word& name) {
    if (const auto* const before = find(name.text)) {
        const auto number = static_cast<std::size_t>(before - known_.data());
        if (number >= blocks_.back() && before->is_reported_if_unused) {
            faults_.add(name, in_quotes(name.text) + " is the name of something else already", "choose another name");
        } else if (before->word.place.line > 0) {
            faults_.remark(name, in_quotes(name.text) + " hides the one of line " +
                                     std::to_string(before->word.place.line) + " from here to the end of its block");
        }
    }
    return define_quietly(name);
}

KnownName& Scope::define_quietly(const Word& name) {
    by_text_[name.text].push_back(static_cast<std::uint32_t>(known_.size()));
    known_.push_back({.word = name, .file = file_, .level = level(), .slot = new_slot()});
    return known_.back();
}

void Scope::open_block() { blocks_.push_back(known_.size()); }

void Scope::close_block() {
    const auto first = blocks_.back();
    if (blocks_.size() > 1) blocks_.pop_back();
    for (auto i = first; i < known_.size(); ++i) {
        const auto& name = known_[i];
        // What an included file offers need not be used.
        if (!name.is_used && name.is_reported_if_unused && name.file == 0) {
            faults_.remark(name.word, "the name " + in_quotes(name.word.text) + " is never used");
        }
    }
    while (known_.size() > first) {
        by_text_[known_.back().word.text].pop_back();
        known_.pop_back();
    }
}

void Scope::open_shape() {
    slots_.push_back(0);
    open_block();
}

std::uint32_t Scope::close_shape() {
    close_block();
    const auto count = slots_.back();
    slots_.pop_back();
    return count;
}

std::vector<std::string_view> Scope::names() const {
    std::vector<std::string_view> all;
    for (const auto& name : known_) {
        if (all.size() < 1000 && name.shape == no_slot) all.push_back(name.word.text);
    }
    return all;
}

}  // namespace coldbrick::inline v0::detail

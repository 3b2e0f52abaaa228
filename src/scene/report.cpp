#include "scene/report.hpp"

#include "scene/words.hpp"

namespace coldbrick {

namespace {

std::string place_in_words(std::string_view name, Place place) {
    return std::string{name} + ":" + std::to_string(place.line) + ":" + std::to_string(place.column) + ": ";
}

// Control characters but tabs would upset a terminal.
std::string printable(std::string_view line) {
    auto result = std::string{line};
    for (auto& c : result) {
        if (c != '\t' && (static_cast<unsigned char>(c) < 0x20U || c == 0x7f)) c = '?';
    }
    return result;
}

// Spaces up to the column, tabs where the line has tabs.
std::string indent_to(std::string_view line, int column) {
    std::string indent;
    auto at = 0;
    for (const auto c : line) {
        at += detail::character_count({&c, 1});
        if (at >= column) break;
        if (detail::character_count({&c, 1}) > 0) indent += c == '\t' ? '\t' : ' ';
    }
    return indent;
}

}  // namespace

std::string report(const Fault& fault, std::string_view text, std::string_view name) {
    auto result = place_in_words(name, fault.place) + fault.what + "\n";
    const auto lines = detail::lines_of(text);
    const auto number = static_cast<std::size_t>(fault.place.line);
    if (number >= 1 && number <= lines.size()) {
        const auto line = lines[number - 1];
        result += "    " + printable(line) + "\n";
        result += "    " + indent_to(line, fault.place.column) +
                  std::string(static_cast<std::size_t>(fault.length), '^') + "\n";
    }
    if (!fault.advice.empty()) result += "    " + fault.advice + "\n";
    return result;
}

void detail::throw_scene_error(std::vector<Fault> faults, std::string_view text, std::string_view name) {
    constexpr auto most = static_cast<std::size_t>(max_faults);
    const auto more = faults.size() > most ? faults.size() - most : 0;
    faults.resize(faults.size() - more);
    std::string reports;
    for (const auto& fault : faults) reports += report(fault, text, name);
    if (more > 0) reports += "... and " + std::to_string(more) + " more\n";
    reports.pop_back();
    throw SceneError{reports, std::move(faults)};
}

}  // namespace coldbrick

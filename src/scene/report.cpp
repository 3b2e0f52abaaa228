#include "scene/report.hpp"

#include "scene/words.hpp"

namespace coldbrick {

namespace {

std::string place_in_words(std::string_view name, Place place) {
    return printable(name) + ":" + std::to_string(place.line) + ":" + std::to_string(place.column) + ": ";
}

// The characters of a line, each as it is shown.
std::vector<std::string> shown_characters(std::string_view line) {
    std::vector<std::string> characters;
    for (std::size_t at = 0; at < line.size();) {
        auto end = at + 1;
        while (end < line.size() && detail::character_count(line.substr(end, 1)) == 0) ++end;
        const auto character = line.substr(at, end - at);
        characters.push_back(character == "\t" ? std::string{character} : printable(character));
        at = end;
    }
    return characters;
}

// A long line is cut to what is around the fault.
std::string marked_line(std::string_view line, const Fault& fault) {
    constexpr std::size_t widest = 160;
    constexpr std::size_t before = 60;
    const auto characters = shown_characters(line);
    const auto column = std::min(static_cast<std::size_t>(std::max(fault.place.column, 1)) - 1, characters.size());
    const auto begin = characters.size() <= widest || column <= before ? 0 : column - before;
    const auto end = std::min(characters.size(), begin + widest);
    const auto marked_end = std::min(column + static_cast<std::size_t>(std::max(fault.length, 1)), end);
    std::string shown;
    if (begin > 0) shown.assign(3, '.');
    std::string indent(shown.size(), ' ');
    std::string mark;
    for (auto i = begin; i < end; ++i) {
        shown += characters[i];
        const auto width = static_cast<std::size_t>(detail::character_count(characters[i]));
        if (i < column) indent.append(width, characters[i] == "\t" ? '\t' : ' ');
        if (i >= column && i < marked_end) mark.append(width, '^');
    }
    if (end < characters.size()) shown += "...";
    if (mark.empty()) mark.assign(1, '^');
    std::string result(4, ' ');
    result.append(shown).append("\n    ").append(indent).append(mark).append("\n");
    return result;
}

}  // namespace

std::string report(const Fault& fault, std::string_view text, std::string_view name) {
    auto result = place_in_words(name, fault.place) + fault.what + "\n";
    if (fault.place.line > 0) result += marked_line(detail::line_of(text, fault.place.line), fault);
    if (!fault.advice.empty()) result += "    " + fault.advice + "\n";
    return result;
}

void detail::throw_scene_error(std::vector<Fault> faults, std::size_t count, std::string_view text,
                               std::string_view name) {
    faults.resize(std::min(faults.size(), static_cast<std::size_t>(max_faults)));
    const auto more = count - faults.size();
    std::string reports;
    for (const auto& fault : faults) reports += report(fault, text, name);
    if (more > 0) reports += "... and " + std::to_string(more) + " more\n";
    reports.pop_back();
    throw SceneError{reports, std::move(faults)};
}

}  // namespace coldbrick

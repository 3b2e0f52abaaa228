#include "scene/report.hpp"

#include "scene/tokens.hpp"

#include <algorithm>
#include <string>

namespace coldbrick::inline v0 {

namespace {

std::string place_in_words(std::string_view name, Place place) {
    return printable(name) + ":" + std::to_string(place.line) + ":" + std::to_string(place.column) + ": ";
}

// The next character of a line, as it is shown; the line goes on behind it.
std::string take_character(std::string_view& line) {
    std::size_t bytes = 1;
    while (bytes < line.size() && detail::character_count(line.substr(bytes, 1)) == 0) ++bytes;
    const auto character = line.substr(0, bytes);
    line.remove_prefix(bytes);
    return character == "\t" ? std::string{character} : printable(character);
}

void skip_characters(std::string_view& line, int count) {
    std::size_t at = 0;
    for (; at < line.size(); ++at) {
        if (detail::character_count(line.substr(at, 1)) > 0 && count-- == 0) break;
    }
    line.remove_prefix(at);
}

// A long line is cut to what is around the fault.
std::string marked_line(std::string_view line, const Fault& fault) {
    constexpr int widest = 160;
    constexpr int before = 60;
    const auto column = std::max(fault.place.column, 1) - 1;
    const auto begin = detail::character_count(line) <= widest || column <= before ? 0 : column - before;
    skip_characters(line, begin);
    std::string shown;
    if (begin > 0) shown.assign(3, '.');
    std::string indent(shown.size(), ' ');
    std::string mark;
    for (auto at = begin; at < begin + widest && !line.empty(); ++at) {
        const auto character = take_character(line);
        shown += character;
        const auto width = static_cast<std::size_t>(detail::character_count(character));
        if (at < column) indent.append(width, character == "\t" ? '\t' : ' ');
        if (at >= column && at - column < std::max(fault.length, 1)) mark.append(width, '^');
    }
    if (!line.empty()) shown += "...";
    if (mark.empty()) mark.assign(1, '^');
    std::string result(4, ' ');
    result.append(shown).append("\n    ").append(indent).append(mark).append("\n");
    return result;
}

}  // namespace

std::string report(const Fault& fault, std::string_view text, std::string_view name) {
    auto result = place_in_words(fault.file.empty() ? name : fault.file, fault.place) + fault.what + "\n";
    if (fault.place.line > 0) result += marked_line(detail::line_of(text, fault.place.line), fault);
    if (!fault.way.empty()) result += "    " + fault.way + "\n";
    if (!fault.advice.empty()) result += "    " + fault.advice + "\n";
    return result;
}

void detail::throw_scene_error(Faults&& found, const std::deque<SourceText>& sources, std::string_view name) {
    const auto count = found.count();
    auto faults = std::move(found).sorted();
    faults.resize(std::min(faults.size(), static_cast<std::size_t>(max_faults)));
    const auto more = count - faults.size();
    std::string reports;
    for (const auto& fault : faults) {
        const auto is_in = [&](const SourceText& source) { return source.name == fault.file; };
        const auto source = std::find_if(sources.begin(), sources.end(), is_in);
        reports += report(fault, source == sources.end() ? std::string_view{} : source->text, name);
    }
    if (more > 0) reports += "... and " + std::to_string(more) + " more\n";
    reports.pop_back();
    throw SceneError{reports, std::move(faults)};
}

}  // namespace coldbrick::inline v0

#include "output.hpp"
#include "panels.hpp"
#include "picture_input.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cstdlib>
#include <string>
#include <vector>

#include <fmt/core.h>
#include <sys/ioctl.h>
#include <unistd.h>

namespace coldbrick::tool {

namespace {

// As the terminal says, or the environment; 80 by 24 where neither does.
Size terminal_size(const LookArguments& arguments) {
    const auto from_environment = [](const char* name, int usual) {
        const auto* const words = std::getenv(name);
        const auto number = words != nullptr ? std::atoi(words) : 0;
        return number > 0 ? number : usual;
    };
    winsize window{};
    const auto is_known = ::ioctl(STDOUT_FILENO, TIOCGWINSZ, &window) == 0 && window.ws_col > 0 && window.ws_row > 0;
    const Size size = is_known
                          ? Size{.width = window.ws_col, .height = window.ws_row}
                          : Size{.width = from_environment("COLUMNS", 80), .height = from_environment("LINES", 24)};
    const auto wanted = [](const std::optional<int>& number, int usual, const char* option) {
        constexpr auto least = 8;
        constexpr auto most = 10'000;
        if (!number) return std::clamp(usual, least, most);
        if (*number < least || *number > most) {
            throw WrongCall{fmt::format("{} is {}; allowed is {} to {}", option, *number, least, most)};
        }
        return *number;
    };
    return {.width = wanted(arguments.columns, size.width, "--columns"),
            .height = wanted(arguments.lines, size.height, "--lines")};
}

Panel panel_of(const LookArguments& arguments, const std::string& path) {
    auto picture = read_shown(arguments, path);
    const auto size = picture.size();
    auto title = fmt::format("{}, {} x {} pixels", shown_name(path), size.width, size.height);
    const auto part = wanted_part(arguments.part);
    if (!part) return {.title = std::move(title), .pixels = std::move(picture), .origin = {}};
    check_part(*part, size, shown_name(path));
    title += fmt::format(", {},{} to {},{}", part->at.x, part->at.y, part->last().x, part->last().y);
    return {.title = std::move(title),
            .pixels = turned(crop(std::as_const(picture), *part), Quarters::none),
            .origin = part->at};
}

// Where two panels differ, as far as both reach.
Panel differences_of(const Panel& a, const Panel& b) {
    const auto [w, h] = a.pixels.size();
    const auto size = Size{.width = std::min(w, b.pixels.size().width), .height = std::min(h, b.pixels.size().height)};
    const auto common = Box{.at = {}, .size = size};
    const auto first = crop(a.pixels, common);
    const auto second = crop(b.pixels, common);
    const auto found = compare(first, second);
    const auto all = std::int64_t{size.width} * size.height;
    auto title = found.pixels == 0 ? fmt::format("no pixel of {} differs", all)
                                   : fmt::format("{} of {} pixels differ", found.pixels, all);
    if (a.pixels.size() != b.pixels.size())
        title += fmt::format(", of the {} x {} that both have", size.width, size.height);
    return {.title = std::move(title), .pixels = convert<Rgba8>(differences_shown(first, second)), .origin = a.origin};
}

void check_look(const LookArguments& arguments) {
    constexpr auto most = 256;
    if (arguments.scale && (*arguments.scale < 1 || *arguments.scale > most)) {
        throw WrongCall{fmt::format("--scale is {}; allowed is 1 to {}", *arguments.scale, most)};
    }
    if (arguments.picture.empty() && arguments.scale) throw WrongCall{"--scale is for -o PICTURE"};
    if (!arguments.picture.empty() && (arguments.columns || arguments.lines)) {
        throw WrongCall{"--columns and --lines are for the terminal, and -o writes a file"};
    }
}

}  // namespace

Exit look(const LookArguments& arguments) {
    check_look(arguments);
    std::vector<Panel> panels;
    panels.push_back(panel_of(arguments, arguments.scene));
    if (!arguments.second.empty()) {
        panels.push_back(panel_of(arguments, arguments.second));
        panels.push_back(differences_of(panels[0], panels[1]));
    }
    if (arguments.picture.empty()) {
        fmt::print("{}", in_terminal(panels, terminal_size(arguments)));
        return Exit::done;
    }
    SaveArguments as;
    as.picture = arguments.picture;
    const auto format = format_for(as);
    const auto sheet = on_sheet_with_rulers(panels, arguments.scale.value_or(0));
    put_file(arguments.picture, encode(sheet, format),
             fmt::format("{} x {} pixels", sheet.size().width, sheet.size().height));
    return Exit::done;
}

}  // namespace coldbrick::tool

// One picture for each row of a table.
#include "progress.hpp"
#include "render_scene.hpp"

#include <coldbrick/detail/jobs.hpp>

#include <algorithm>
#include <charconv>
#include <map>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

// The text with what stands in braces filled in: {name}, and {name:03} for a number with three digits at least. Throws
// Error for a name that fill() does not know.
template <class Fill>
std::string filled_in(std::string_view text, const Fill& fill) {
    std::string result;
    while (true) {
        const auto open = text.find('{');
        result += text.substr(0, open);
        if (open == std::string_view::npos) return result;
        const auto close = text.find('}', open);
        if (close == std::string_view::npos) throw WrongCall{"-o: a brace is not closed"};
        result += fill(text.substr(open + 1, close - open - 1));
        text.remove_prefix(close + 1);
    }
}

// What became of a row.
struct RowDone {
    std::string fault = {};
    std::uint64_t bytes = 0;
};

class Rows {
  public:
    Rows(const SceneProgram& program, const Table& table, const std::vector<OutsideValue>& set,
         const RenderArguments& arguments)
        : program_{program}, table_{table}, set_{set}, arguments_{arguments}, format_{format_for(arguments)} {}

    // The files' names, all of them different, before anything is written.
    void name_all() {
        std::map<std::string, int, std::less<>> lines;
        for (std::size_t row = 0; row < table_.rows.size(); ++row) {
            const auto line = table_.rows[row].line;
            names_.push_back(name_of_row(row));
            const auto [known, is_new] = lines.emplace(names_.back(), line);
            if (is_new) continue;
            throw Error{fmt::format("{}:{}: this row's file would be {}, as that of line {}; nothing is written",
                                    printable(table_.name), line, printable(names_.back()), known->second)};
        }
        for (const auto& [name, line] : lines) check_frames(name, line, lines);
    }

    RowDone draw(std::size_t row) const {
        try {
            SceneInput input{.set = set_};
            for (std::size_t i = 0; i < table_.columns.size(); ++i) {
                const auto is_set = [&](const OutsideValue& value) { return value.name == table_.columns[i]; };
                if (std::none_of(set_.begin(), set_.end(), is_set)) {
                    input.set.push_back({.name = table_.columns[i], .value = table_.rows[row].cells[i]});
                }
            }
            return {.bytes = write(input, names_[row])};
        } catch (const Error& error) {
            return {.fault = fmt::format("{}:{}: {}", printable(table_.name), table_.rows[row].line, error.what())};
        }
    }

  private:
    // Frame 11 of "a" and frame 1 of "a1" would be one file.
    void check_frames(std::string_view name, int line, const std::map<std::string, int, std::less<>>& lines) const {
        const auto brace = name.find('{');
        if (brace == std::string_view::npos) return;
        const auto rest = name.substr(brace);
        for (auto digits = brace; digits > 0 && name[digits - 1] >= '0' && name[digits - 1] <= '9'; --digits) {
            const auto shorter = lines.find(fmt::format("{}{}", name.substr(0, digits - 1), rest));
            if (shorter == lines.end()) continue;
            throw Error{
                fmt::format("{}:{}: files of this row's frames, {}, could have the names of those of line {}, {}; "
                            "put something between the row's part and the frame's; nothing is written",
                            printable(table_.name), line, printable(name), shorter->second, printable(shorter->first))};
        }
    }

    [[nodiscard]] std::string name_of_row(std::size_t row) const {
        const auto line = table_.rows[row].line;
        auto name = filled_in(arguments_.picture, [&](std::string_view word) {
            if (word.starts_with("frame")) return fmt::format("{{{}}}", word);  // one file for each of its frames
            const auto colon = std::min(word.find(':'), word.size());
            const auto column = word.substr(0, colon);
            const auto is_number = column == "row" && std::find(table_.columns.begin(), table_.columns.end(), "row") ==
                                                          table_.columns.end();
            auto value = is_number ? std::to_string(row + 1) : cell_of(row, column);
            if (colon < word.size()) value = padded(value, word.substr(colon + 1));
            check_name(value, line, column);
            return value;
        });
        return name;
    }

    std::string cell_of(std::size_t row, std::string_view column) const {
        for (const auto& value : set_) {
            if (value.name == column) return value.value;
        }
        const auto found = std::find(table_.columns.begin(), table_.columns.end(), column);
        if (found == table_.columns.end()) {
            throw WrongCall{fmt::format("-o has {{{}}}, and {} no such column; it has {}", printable(column),
                                        printable(table_.name), columns_in_words())};
        }
        return table_.rows[row].cells[static_cast<std::size_t>(found - table_.columns.begin())];
    }

    [[nodiscard]] std::string columns_in_words() const {
        std::string words;
        constexpr std::size_t most = 1000;
        for (const auto& column : table_.columns) {
            if (words.size() > most) return words + ", ...";
            words += (words.empty() ? "" : ", ") + printable(column, 40);
        }
        return words;
    }

    static std::string padded(std::string value, std::string_view form) {
        auto width = std::size_t{0};
        const auto [end, error] = std::from_chars(form.data(), form.data() + form.size(), width);
        constexpr std::size_t most = 99;
        if (!form.starts_with('0') || error != std::errc{} || end != form.data() + form.size() || width > most) {
            throw WrongCall{fmt::format("-o has :{} in braces; allowed is as in {{row:03}}", printable(form))};
        }
        if (value.size() < width) value.insert(0, width - value.size(), '0');
        return value;
    }

    // A cell cannot lead elsewhere.
    void check_name(const std::string& value, int line, std::string_view column) const {
        using namespace std::string_view_literals;
        // Braces would stand for the numbers of frames.
        const auto is_bad =
            value.empty() || value == "." || value == ".." || value.find_first_of("/{}\0"sv) != std::string::npos;
        if (!is_bad) return;
        throw Error{fmt::format("{}:{}: '{}' (column {}) cannot be part of a file's name; nothing is written",
                                printable(table_.name), line, printable(value), printable(column))};
    }

    [[nodiscard]] std::uint64_t write(const SceneInput& input, const std::string& path) const {
        auto arguments = arguments_;
        arguments.picture = path;
        arguments.threads = 1;
        auto of = input;
        of.frame = arguments.frame.value_or(0);
        const auto scene = program_.evaluate(of);
        const auto options = options_for(arguments);
        std::uint64_t written = 0;
        on_sheet(scene, format_, [&](auto sheet) {
            if (scene.frames.count > 1 && !arguments.frame) {
                auto moving = frame_options(arguments, options);
                moving.loops = scene.frames.loops;
                const FilmWatch watch{arguments.limits};
                FrameWriter writer{path, format_, moving};
                for (of.frame = 0; of.frame < scene.frames.count; ++of.frame) {
                    const auto one = program_.evaluate(of);
                    auto frame = sheet_as(one, sheet);
                    within_limits(one, [&] { render(one, frame); });
                    scaled(frame, arguments.scales.front(),
                           [&](const auto& picture) { writer.add(picture, one.frames.time); });
                    watch.check(path);
                }
                written = writer.finish();
                return;
            }
            within_limits(scene, [&] { render(scene, sheet); });
            scaled(sheet, arguments.scales.front(), [&](const auto& picture) {
                const auto bytes =
                    encoded(picture,
                            {.path = path, .scale = 1, .options = options, .moving = frame_options(arguments, options)},
                            format_);
                write_file(path, bytes);
                written = bytes.size();
            });
        });
        return written;
    }

    const SceneProgram& program_;
    const Table& table_;
    const std::vector<OutsideValue>& set_;
    const RenderArguments& arguments_;
    FileFormat format_;
    std::vector<std::string> names_;
};

}  // namespace

Exit draw_rows(const SceneProgram& program, const Table& table, const std::vector<OutsideValue>& set,
               const RenderArguments& arguments) {
    if (arguments.picture == "-")
        throw WrongCall{"--rows writes several pictures, but standard output takes one; name a file"};
    if (arguments.scales.size() > 1) throw WrongCall{"--scale: with --rows, name one scale"};
    (void)outputs_for(arguments);  // which checks the scale
    if (table.rows.empty())
        throw Error{fmt::format("{}: there is no row below the names of the columns", printable(table.name))};
    Rows rows{program, table, set, arguments};
    rows.name_all();
    Progress progress{"rows", table.rows.size(), arguments.quiet};
    std::size_t faulty = 0;
    std::uint64_t bytes = 0;
    detail::in_order(
        table.rows.size(), detail::allowed_threads("render", static_cast<int>(arguments.threads)),
        [&](std::size_t row) { return rows.draw(row); },
        [&](std::size_t row, const RowDone& done) {
            progress.tell(row + 1);
            bytes += done.bytes;
            if (done.fault.empty()) return;
            ++faulty;
            fmt::print(stderr, "{}\n", done.fault);
        });
    if (!arguments.quiet) {
        fmt::print("{}: {} of {} rows drawn, {} bytes\n", printable(arguments.picture), table.rows.size() - faulty,
                   table.rows.size(), bytes);
    }
    return faulty == 0 ? Exit::done : Exit::fault;
}

}  // namespace coldbrick::tool

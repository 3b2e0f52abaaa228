#include "render_scene.hpp"

#include "jobs.hpp"
#include "progress.hpp"

#include <algorithm>
#include <charconv>
#include <iostream>
#include <map>
#include <set>
#include <sstream>
#include <tuple>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

// GIF has few colours: they are chosen, as for moving pictures.
FrameOptions frame_options(const SaveArguments& arguments, const SaveOptions& stills) {
    FrameOptions options{.stills = stills};
    if (arguments.one_palette) options.palettes = FrameOptions::Palettes::all;
    options.colors = arguments.colors.value_or(256);
    if (arguments.dithering == "none") options.dithering = Dithering::none;
    if (arguments.dithering == "ordered") options.dithering = Dithering::ordered;
    options.quality = arguments.quality;
    return options;
}

}  // namespace

std::vector<Output> outputs_for(const OutputArguments& arguments) {
    constexpr auto largest_scale = 1024;
    const auto several = arguments.scales.size() > 1;
    if (several && arguments.picture == "-") {
        throw WrongCall{"--scale gives several pictures, but standard output takes one; name a file"};
    }
    const auto options = options_for(arguments);
    std::vector<Output> outputs;
    for (const auto scale : arguments.scales) {
        if (scale < 1 || scale > largest_scale) {
            throw WrongCall{fmt::format("--scale is {}; allowed is 1 to {}", scale, largest_scale)};
        }
        auto path = std::filesystem::path{arguments.picture};
        if (several && scale > 1) {
            path.replace_filename(fmt::format("{}-x{}{}", path.stem().string(), scale, path.extension().string()));
        }
        outputs.push_back(
            {.path = path.string(), .scale = scale, .options = options, .moving = frame_options(arguments, options)});
    }
    return outputs;
}

namespace {

using Statement = std::tuple<std::string, int, int>;  // file, line, column

// What of a scene shows: of each statement whether one of its calls does, and how many do not.
class Shown {
  public:
    void note(const Scene& scene, const std::vector<Box>& touched) {
        for (std::size_t i = 0; i < touched.size(); ++i) {
            auto& entry = statements_[statement_of(scene, i)];
            entry.is_shown = entry.is_shown || !touched[i].empty();
            ++entry.calls;
            shown_ += touched[i].empty() ? 0 : 1;
        }
        all_ += touched.size();
    }

    [[nodiscard]] std::string summary() const { return fmt::format("{} of {} drawings show", shown_, all_); }

    // Remarks, and what does not show, as one frame of a scene tells it.
    void warn(const Scene& scene) const {
        constexpr auto most = 20;
        auto told = 0;
        for (const auto& [place, what, file] : scene.remarks) {
            if (++told > most) break;
            fmt::print(stderr, "{}:{}:{}: {}\n", printable(file.empty() ? scene.name : file), place.line, place.column,
                       what);
        }
        if (told > most) fmt::print(stderr, "... and {} more remarks\n", scene.remarks.size() - most);
        auto unseen = 0;
        std::set<Statement> seen;
        for (std::size_t i = 0; i < scene.drawing.size(); ++i) {
            const auto statement = statement_of(scene, i);
            const auto& entry = statements_.at(statement);
            if (entry.is_shown || !seen.insert(statement).second || ++unseen > most) continue;
            const auto often = entry.calls > 1 ? fmt::format(" (the first of {} times)", entry.calls) : "";
            fmt::print(stderr, "{}{}\n", explain_unseen(scene, i), often);
        }
        if (unseen > most) fmt::print(stderr, "... and {} more of which nothing shows\n", unseen - most);
    }

  private:
    struct Entry {
        bool is_shown = false;
        std::size_t calls = 0;
    };

    static Statement statement_of(const Scene& scene, std::size_t number) {
        const auto place = scene.place_of(number);
        return {scene.file_of(number), place.line, place.column};
    }

    std::map<Statement, Entry> statements_;
    std::size_t shown_ = 0;
    std::size_t all_ = 0;
};

// GIF has few colours, which are chosen as for moving pictures; so is WebP with loss.
template <class Picture>
std::vector<std::uint8_t> in_one_frame(const Picture& picture, const FrameOptions& options, FileFormat format) {
    std::ostringstream stream;
    FrameWriter writer{stream, format, options};
    writer.add(picture, 0);
    writer.finish();
    const auto bytes = stream.str();
    return {bytes.begin(), bytes.end()};
}

template <class Picture>
std::vector<std::uint8_t> encoded(const Picture& picture, const Output& output, FileFormat format) {
    try {
        if (format == FileFormat::gif || (format == FileFormat::webp && output.moving.quality)) {
            return in_one_frame(picture, output.moving, format);
        }
        return encode(picture, format, output.options);
    } catch (const Error& error) {
        throw Error{
            fmt::format("{}: {}", output.path == "-" ? "standard output" : printable(output.path), error.what())};
    }
}

// A drawn sheet, as large as it is to be written.
template <class Picture, class Use>
void scaled(const Picture& picture, int scale, const Use& use) {
    if (scale == 1) return use(picture);
    use(enlarge(picture, scale));
}

}  // namespace

void draw_still(const Scene& scene, const std::vector<Output>& outputs, FileFormat format, bool is_quiet) {
    on_sheet(scene, format, [&](auto sheet) {
        std::vector<Box> touched;
        {
            Progress progress{"drawings", scene.drawing.size(), is_quiet};
            render(scene, sheet, [&](std::size_t number, const Box& box) {
                touched.push_back(box);
                progress.tell(number);
            });
        }
        Shown shown;
        shown.note(scene, touched);
        if (outputs.empty() && !is_quiet) {
            fmt::print("{}: {} x {} pixels, {}; nothing is written (-o PICTURE writes it)\n", printable(scene.name),
                       sheet.size().width, sheet.size().height, shown.summary());
        }
        for (const auto& output : outputs) {
            scaled(sheet, output.scale, [&](const auto& picture) {
                const auto bytes = encoded(picture, output, format);
                put_file(
                    output.path, bytes,
                    fmt::format("{} x {} pixels, {}", picture.size().width, picture.size().height, shown.summary()),
                    is_quiet);
            });
        }
        shown.warn(scene);
    });
}

namespace {

// A new sheet of the format that another one has.
template <PixelFormat Format>
Bitmap<Format> sheet_as(const Scene& scene, const Bitmap<Format>& /*like*/) {
    return scene.sheet<Format>();
}

// Frames drawn and not written yet.
template <class Sheet>
struct DrawnFrame {
    Sheet sheet;
    double seconds;
    std::vector<Box> touched;
    Scene scene;
};

template <class Sheet, class MakeSheet>
void write_frames(const SceneProgram& program, const SceneInput& input, const FrameRange& frames,
                  const RenderArguments& arguments, FrameWriter& writer, const MakeSheet& make_sheet) {
    const auto count = static_cast<std::size_t>(frames.last - frames.first) + 1;
    Progress progress{"frames", count, arguments.quiet};
    Shown shown;
    std::optional<Scene> first;
    in_order(
        count, thread_count(arguments.threads),
        [&](std::size_t i) {
            auto of = input;
            of.frame = frames.first + static_cast<int>(i);
            auto scene = program.evaluate(of);
            auto sheet = make_sheet(scene);
            auto touched = render(scene, sheet);
            const auto seconds = scene.frames.rate > 0 ? scene.frames.time : 0;
            return DrawnFrame<Sheet>{std::move(sheet), seconds, std::move(touched), std::move(scene)};
        },
        [&](std::size_t i, DrawnFrame<Sheet> frame) {
            shown.note(frame.scene, frame.touched);
            scaled(frame.sheet, arguments.scales.front(),
                   [&](const auto& picture) { writer.add(picture, frame.seconds); });
            if (!first) first = std::move(frame.scene);
            progress.tell(i + 1);
        });
    shown.warn(*first);
}

}  // namespace

void draw_frames(const SceneProgram& program, const SceneInput& input, const FrameRange& frames,
                 const RenderArguments& arguments, FileFormat format) {
    if (arguments.scales.size() > 1) throw WrongCall{"--scale: of moving pictures one is written; name one scale"};
    (void)outputs_for(arguments);  // which checks the scale
    auto of = input;
    of.frame = frames.first;
    const auto scene = program.evaluate(of);
    auto options = frame_options(arguments, options_for(arguments));
    options.loops = scene.frames.loops;
    options.first_number = frames.first;
    const auto is_stream = arguments.picture == "-";
    auto writer = is_stream ? FrameWriter{std::cout, format, options} : FrameWriter{arguments.picture, format, options};
    on_sheet(scene, format, [&](auto sheet) {
        using Sheet = decltype(sheet);
        const auto make_sheet = [&](const Scene& one) { return sheet_as(one, sheet); };
        write_frames<Sheet>(program, input, frames, arguments, writer, make_sheet);
    });
    const auto bytes = writer.finish();
    if (arguments.quiet) return;
    const auto count = frames.last - frames.first + 1;
    fmt::print(is_stream ? stderr : stdout, "{}: {} x {} pixels, {} frames{}{}\n",
               is_stream ? "standard output" : printable(arguments.picture),
               scene.size.width * arguments.scales.front(), scene.size.height * arguments.scales.front(), count,
               scene.frames.rate > 0 ? fmt::format(", {:g} a second", scene.frames.rate) : "",
               bytes > 0 ? fmt::format(", {} bytes", bytes) : "");
}

namespace {

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
        std::map<std::string, int> lines;
        for (std::size_t row = 0; row < table_.rows.size(); ++row) {
            const auto line = table_.rows[row].line;
            names_.push_back(name_of_row(row));
            const auto [known, is_new] = lines.emplace(names_.back(), line);
            if (is_new) continue;
            throw Error{fmt::format("{}:{}: this row's file would be {}, as that of line {}; nothing is written",
                                    printable(table_.name), line, printable(names_.back()), known->second)};
        }
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
                                        printable(table_.name), fmt::join(table_.columns, ", "))};
        }
        return table_.rows[row].cells[static_cast<std::size_t>(found - table_.columns.begin())];
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
        const auto is_bad = value.empty() || value == "." || value == ".." || value.find('/') != std::string::npos ||
                            value.find('\0') != std::string::npos;
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
                FrameWriter writer{path, format_, moving};
                for (of.frame = 0; of.frame < scene.frames.count; ++of.frame) {
                    const auto one = program_.evaluate(of);
                    auto frame = sheet_as(one, sheet);
                    render(one, frame);
                    scaled(frame, arguments.scales.front(),
                           [&](const auto& picture) { writer.add(picture, one.frames.time); });
                }
                written = writer.finish();
                return;
            }
            render(scene, sheet);
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
    in_order(
        table.rows.size(), thread_count(arguments.threads), [&](std::size_t row) { return rows.draw(row); },
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

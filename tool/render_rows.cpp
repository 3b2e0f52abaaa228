// One picture for each row of a table.
#include "progress.hpp"
#include "render_scene.hpp"
#include "row_names.hpp"

#include <coldbrick/detail/jobs.hpp>

#include <algorithm>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

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
        : program_{program},
          table_{table},
          set_{set},
          arguments_{arguments},
          format_{format_for(arguments)},
          names_{names_of_rows(table, set, arguments.picture)} {}

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
    Progress progress{"rows", table.rows.size(), arguments.quiet};
    std::size_t faulty = 0;
    std::uint64_t bytes = 0;
    detail::in_order(
        table.rows.size(), detail::allowed_threads("render", static_cast<int>(arguments.threads)),
        [&](std::size_t row) { return rows.draw(row); },
        [&](std::size_t row, const RowDone& done) {
            progress.report(row + 1);
            bytes += done.bytes;
            if (done.fault.empty()) return;
            ++faulty;
            fmt::print(stderr, "{}{}\n", done.fault, limit_advice(done.fault, arguments.limits));
        });
    if (!arguments.quiet) {
        fmt::print("{}: {} of {} rows drawn, {} bytes\n", printable(arguments.picture), table.rows.size() - faulty,
                   table.rows.size(), bytes);
    }
    return faulty == 0 ? Exit::done : Exit::fault;
}

}  // namespace coldbrick::tool

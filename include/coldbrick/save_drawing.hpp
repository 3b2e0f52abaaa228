// coldbrick/save_drawing.hpp - writes drawings to files that are larger than memory.
//
//     Drawing plan;
//     fill(plan, Circle{.center = {20'000, 18'000}, .radius = 9'000}, colors::gold);
//     save(plan, Sheet{.size = {40'000, 40'000}, .ground = 0x0b2239_rgb}, "plan.png");
//     save(plan, Sheet{{40'000, 40'000}}, "plan.ppm", {.threads = 0});     // on all processors
//
// Rows are drawn, written and forgotten, some at a time: beside the drawing it takes some ten megabytes for each
// thread, or some ten rows where they are longer than that. The file has the same bytes as if the drawing had been
// rendered to a bitmap and that been saved. Link coldbrick::files.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/drawing.hpp"
#include "coldbrick/files.hpp"

#include <iosfwd>
#include <optional>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// What a drawing is drawn on: pixels of 8 bits a channel, with alpha if the ground is not opaque; numbers of a
// palette's colours if there is one; grays for pgm, and for pbm, whose file holds black and white only.
struct Sheet {
    Size size;       // each side from 1 to max_coordinate
    Color ground{};  // black
    std::optional<Palette> palette = {};
};

namespace detail {

void save_in_bands(const Drawing& drawing, const Sheet& sheet, const FilePath& path, FileFormat format,
                   const SaveOptions& options, const DrawingHooks& hooks);

}  // namespace detail

// Whether files of the format can be written some rows at a time, as save() of a drawing does.
[[nodiscard]] bool saves_by_rows(FileFormat format) noexcept;

// Writes a png, pbm, pgm, ppm, pnm, pam, bmp or qoi file, drawn and compressed on as many threads as the options say.
// Throws Error for another format, for a sheet of no such size or with rows of more than 1 GiB, for
// Storage::fewest_bits in a png file, if the drawing has a flood, which looks at the whole sheet, and as render() and
// save() of a picture do. The old file, if there is one, is then as it was.
void save(const Drawing& drawing, const Sheet& sheet, const FilePath& path, FileFormat format,
          const SaveOptions& options = {});

// The same, in the format that the suffix names. Throws Error if it names none.
void save(const Drawing& drawing, const Sheet& sheet, const FilePath& path, const SaveOptions& options = {});

// To a stream, of which a part may have been written if it throws.
void save(const Drawing& drawing, const Sheet& sheet, std::ostream& stream, FileFormat format,
          const SaveOptions& options = {});

}  // namespace v0
}  // namespace coldbrick

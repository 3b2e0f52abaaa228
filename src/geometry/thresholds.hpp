// Where one loop is faster than another one with the same result. Each was measured with the row of the benchmarks that
// stands beside it; none of them changes a pixel.
#pragma once

#include <cstddef>

namespace coldbrick::inline v0::detail::thresholds {

// Rows that are known at once and written without a painter: columns of boxes, steps of lines.
inline constexpr int small_area = 64;  // small_shapes.cpp: box 9x9, hairline within 13x13
// The diameter of circles whose rows are a table, and whose smooth rows are kept.
inline constexpr int small_circle = 64;  // small_shapes.cpp: circle of radius 4; smooth.cpp: smooth circle
// The sides of round shapes with smooth edges whose spans lie on the stack.
inline constexpr int small_round = 128;  // smooth.cpp: smooth ellipse, smooth rounded box
// The width of larger ones up to which a row is one stretch of bytes.
inline constexpr int narrow_round = 24;  // smooth.cpp: ellipse
// The columns that are whole from which on a row is split there.
inline constexpr int split_round = 5;  // smooth.cpp: smooth circle
// The columns up to which rows of sums need no marks.
inline constexpr std::size_t narrow_sum = 32;  // areas.cpp: smooth path of two cubics
// Edges up to which they are sorted by comparisons, and not by their first row.
inline constexpr std::size_t few_edges = 64;  // fills.cpp: ten-pointed star
// Pixels that are worth finding transfer curves for, of colours and of numbers of a palette.
inline constexpr int few_for_curves = 64;    // inks.cpp: multiply
inline constexpr int few_for_numbers = 512;  // inks.cpp: Index8
// Pixels up to which they are blended one by one.
inline constexpr int few_blended = 4;  // inks.cpp: linear light, multiply
// The run from which on making a loop ready is worth while: of layers laid some pixels at a time, and of others.
inline constexpr int long_run_of_some = 64;  // small_shapes.cpp: translucent circle of radius 4
inline constexpr int long_run_of_one = 8;    // inks.cpp: translucent box 1920x1080, 3 bytes
// Bytes of runs that are stored from a register, and from which on they are copied by the processor's string copy.
inline constexpr std::ptrdiff_t run_from_register = 256;  // small_shapes.cpp: circle of radius 4
inline constexpr std::size_t run_by_copy = 512;           // fills.cpp: box 1800x1000
// Spans in a batch from which on memory that is blended is asked for ahead; steps of a line by which it is.
inline constexpr std::size_t few_spans = 32;  // smooth.cpp: smooth circle of radius 400
inline constexpr int steps_ahead = 12;        // small_shapes.cpp: translucent hairline of about 200 pixels

}  // namespace coldbrick::inline v0::detail::thresholds

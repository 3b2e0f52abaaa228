// The pixels of PNG files: rows filtered and compressed some at a time, by themselves, so that several threads can do
// it and files come out that were never in memory as a whole. A piece depends on its rows and the one above them alone.
#pragma once

#include "files/packed.hpp"

#include "coldbrick/files.hpp"

namespace coldbrick::inline v0::detail {

// How many rows make a piece, where a row has so many bytes.
[[nodiscard]] int png_piece_rows(std::size_t row_bytes) noexcept;

// A part of a stream of zlib (RFC 1950).
struct PngPiece {
    Bytes deflated;
    std::uint32_t adler;  // of the bytes that were compressed
    std::uint64_t bytes;
};

// Rows from first to end - 1 of a picture, of which the one above is looked at; the last piece ends the stream.
[[nodiscard]] PngPiece png_piece(const Packed& picture, int first, int end, Effort effort, bool is_last);

// Puts pieces together, one behind the other.
class PngStream {
  public:
    // What comes before the first piece.
    [[nodiscard]] static Bytes begin(Effort effort);

    // Takes the next piece, and gives its bytes.
    [[nodiscard]] Bytes add(PngPiece&& piece);

    // What comes behind the last one.
    [[nodiscard]] Bytes end() const;

  private:
    std::uint32_t adler_ = 1;
};

// All of a picture's rows as one stream, on several threads.
[[nodiscard]] Bytes png_pixels(const Packed& picture, Effort effort, unsigned threads);

}  // namespace coldbrick::inline v0::detail

// Deflate streams (RFC 1951) that were compressed apart, made parts of one stream.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

namespace coldbrick::inline v0::detail {

// Makes a complete stream, whose last byte is filled up with zeros, one that goes on: its last block is no longer
// marked as the last, and an empty block of stored bytes behind it ends it at a whole byte (section 3.2.4). Throws
// Error for what is no such stream.
void make_deflate_go_on(std::vector<std::uint8_t>& stream);

// The checksum of RFC 1950, section 8, of bytes of which the second part has so many, from those of both parts.
[[nodiscard]] std::uint32_t joined_adler(std::uint32_t first, std::uint32_t second,
                                         std::uint64_t second_bytes) noexcept;

}  // namespace coldbrick::inline v0::detail

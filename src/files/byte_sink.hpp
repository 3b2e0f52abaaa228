// Files that are written some bytes at a time.
#pragma once

#include "coldbrick/file_format.hpp"

#include <cstdint>
#include <functional>
#include <span>

namespace coldbrick::inline v0::detail {

// Takes the next bytes.
using ByteSink = std::function<void(std::span<const std::uint8_t>)>;

// As write_file(), of what produce(sink) gives to the sink; of an error there, nothing is left of the file. Where a
// file without a name cannot get one, it is called a second time. A signal that ends the program may then leave an
// unfinished file beside.
void write_file_in_parts(const FilePath& path, const std::function<void(const ByteSink&)>& produce);

}  // namespace coldbrick::inline v0::detail

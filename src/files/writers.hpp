// One writer for each kind of picture file: each gives the bytes of the file, and throws Error for a picture that it
// cannot hold.
#pragma once

#include "files/packed.hpp"

#include "coldbrick/files.hpp"

#include <algorithm>
#include <initializer_list>
#include <string>

namespace coldbrick::inline v0::detail {

Bytes write_png(const Surface& picture, const SaveOptions& options);
Bytes write_jpeg(const Surface& picture, const SaveOptions& options);
Bytes write_pbm(const Surface& picture, const SaveOptions& options);
Bytes write_pgm(const Surface& picture, const SaveOptions& options);
Bytes write_ppm(const Surface& picture, const SaveOptions& options);
Bytes write_pnm(const Surface& picture, const SaveOptions& options);
Bytes write_pam(const Surface& picture, const SaveOptions& options);
Bytes write_bmp(const Surface& picture, const SaveOptions& options);
Bytes write_qoi(const Surface& picture, const SaveOptions& options);
Bytes write_gif(const Surface& picture, const SaveOptions& options);
Bytes write_webp(const Surface& picture, const SaveOptions& options);

// Puts numbers and texts at the end of a file.
inline void put_big(Bytes& file, std::uint32_t value, int bytes) {
    for (auto i = bytes; i-- > 0;) file.push_back(static_cast<std::uint8_t>(value >> static_cast<unsigned>(8 * i)));
}
inline void put_little(Bytes& file, std::uint32_t value, int bytes) {
    for (int i = 0; i < bytes; ++i) file.push_back(static_cast<std::uint8_t>(value >> static_cast<unsigned>(8 * i)));
}
template <class Characters>
void put_all(Bytes& file, const Characters& characters) {
    const auto at = file.size();
    file.resize(at + characters.size());
    std::copy(characters.begin(), characters.end(), file.begin() + static_cast<std::ptrdiff_t>(at));
}
inline void put_text(Bytes& file, std::string_view text) { put_all(file, text); }
inline void put_bytes(Bytes& file, std::initializer_list<std::uint8_t> bytes) { put_all(file, bytes); }
inline void put_zeros(Bytes& file, std::size_t count) { file.resize(file.size() + count); }

// A density in pixels to the metre, rounded; 0 if it has no unit.
std::uint32_t per_meter(double density, Density::Unit unit) noexcept;

}  // namespace coldbrick::inline v0::detail

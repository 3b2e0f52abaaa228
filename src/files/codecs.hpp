// The kinds of picture files: one entry each says all of them.
#pragma once

#include "files/band_encoder.hpp"
#include "files/readers.hpp"
#include "files/writers.hpp"

#include <array>
#include <span>
#include <string>
#include <string_view>

namespace coldbrick::inline v0::detail {

struct Codec {
    FileFormat format;
    std::string_view name;
    std::array<std::string_view, 2> suffixes;     // with the dot, in small letters, the usual one first; empty: no more
    std::array<std::string_view, 2> first_bytes;  // with any of which a file begins; empty: no more
    PictureInfo (*read)(const ByteSource& file, const LoadLimits& limits,
                        PixelSink& sink);  // null: another kind's reader
    Bytes (*write)(const Surface& picture, const SaveOptions& options);
    MakeBandEncoder bands = nullptr;  // null: the picture has to be seen as a whole
};

// Throws Error for options that are not allowed.
void check(const SaveOptions& options);

// In the order of FileFormat.
std::span<const Codec> codecs() noexcept;

// Null for a number that is none.
const Codec* codec_of(FileFormat format) noexcept;

// Null for what no file begins with.
const Codec* codec_of(FileBytes file) noexcept;

// "png, jpeg, ... and qoi": what word(codec) gives of each, without empty ones.
template <class Word>
std::string codecs_in_words(const Word& word) {
    std::string words;
    std::string last;
    for (const auto& codec : codecs()) {
        for (const std::string_view next : word(codec)) {
            if (next.empty()) continue;
            if (!last.empty()) words += (words.empty() ? "" : ", ") + last;
            last = next;
        }
    }
    return words + " and " + last;
}

}  // namespace coldbrick::inline v0::detail

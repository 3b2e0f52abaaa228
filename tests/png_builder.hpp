// PNG files put together byte by byte, apart from the library: any kind, depth, filter and interlacing.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <string>
#include <vector>

#include <zlib.h>

namespace oracle {

using Bytes = std::vector<std::uint8_t>;

inline void put_big(Bytes& file, std::uint32_t value, int bytes = 4) {
    while (bytes-- > 0) file.push_back(static_cast<std::uint8_t>(value >> (8 * bytes)));
}

inline void put_chunk(Bytes& file, const std::string& kind, const Bytes& content) {
    put_big(file, static_cast<std::uint32_t>(content.size()));
    auto checked = Bytes(kind.begin(), kind.end());
    checked.insert(checked.end(), content.begin(), content.end());
    file.insert(file.end(), checked.begin(), checked.end());
    put_big(file, static_cast<std::uint32_t>(crc32(0, checked.data(), static_cast<uInt>(checked.size()))));
}

inline Bytes deflated(const Bytes& bytes) {
    auto length = compressBound(static_cast<uLong>(bytes.size()));
    Bytes result(length);
    compress(result.data(), &length, bytes.data(), static_cast<uLong>(bytes.size()));
    result.resize(length);
    return result;
}

// What a file is made of. sample(x, y, channel) tells the samples.
struct PngPlan {
    int width;
    int height;
    int bits;
    int kind;  // 0 gray, 2 RGB, 3 palette, 4 gray and alpha, 6 RGBA
    bool interlaced;
    std::function<int(int row)> filter;
    std::function<unsigned(int x, int y, int channel)> sample;
    std::vector<std::pair<std::string, Bytes>> chunks = {};  // before the pixels
};

inline int channels_of(int kind) { return std::array{1, 0, 3, 1, 2, 0, 4}[static_cast<std::size_t>(kind)]; }

inline int paeth_of(int a, int b, int c) {
    const auto p = a + b - c;
    const auto [da, db, dc] = std::array{std::abs(p - a), std::abs(p - b), std::abs(p - c)};
    return da <= db && da <= dc ? a : (db <= dc ? b : c);
}

// A part of a picture whose pixels lie some columns and rows apart, filtered.
inline void put_pass(Bytes& rows, const PngPlan& plan, int x0, int y0, int dx, int dy) {
    const auto columns = (plan.width - x0 + dx - 1) / dx;
    if (columns <= 0) return;
    const auto channels = channels_of(plan.kind);
    const auto step = static_cast<std::size_t>(std::max(1, channels * plan.bits / 8));
    Bytes above((static_cast<std::size_t>(columns * channels * plan.bits) + 7) / 8);
    for (int y = y0, row = 0; y < plan.height; y += dy, ++row) {
        Bytes line(above.size());
        std::size_t bit = 0;
        for (int x = x0; x < plan.width; x += dx) {
            for (int channel = 0; channel < channels; ++channel, bit += static_cast<std::size_t>(plan.bits)) {
                const auto value = plan.sample(x, y, channel);
                if (plan.bits == 16) line[bit / 8] = static_cast<std::uint8_t>(value >> 8U);
                auto& byte = line[(bit + static_cast<std::size_t>(plan.bits) - 1) / 8];
                const auto shift = plan.bits < 8 ? 8 - static_cast<std::size_t>(plan.bits) - bit % 8 : 0;
                byte = static_cast<std::uint8_t>(byte | value << shift);
            }
        }
        const auto filter = plan.filter(row);
        rows.push_back(static_cast<std::uint8_t>(filter));
        for (std::size_t i = 0; i < line.size(); ++i) {
            const int a = i < step ? 0 : line[i - step];
            const int b = above[i];
            const int c = i < step ? 0 : above[i - step];
            rows.push_back(static_cast<std::uint8_t>(
                line[i] - std::array{0, a, b, (a + b) / 2, paeth_of(a, b, c)}[static_cast<std::size_t>(filter)]));
        }
        above = line;
    }
}

inline Bytes png_file(const PngPlan& plan) {
    Bytes file{0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
    Bytes header;
    put_big(header, static_cast<std::uint32_t>(plan.width));
    put_big(header, static_cast<std::uint32_t>(plan.height));
    for (const auto value : {plan.bits, plan.kind, 0, 0, plan.interlaced ? 1 : 0})
        put_big(header, static_cast<std::uint32_t>(value), 1);
    put_chunk(file, "IHDR", header);
    for (const auto& [kind, content] : plan.chunks) put_chunk(file, kind, content);
    Bytes rows;
    if (plan.interlaced) {
        // The seven passes of Adam7.
        for (const auto& [x0, y0, dx, dy] : std::array<std::array<int, 4>, 7>{
                 {{0, 0, 8, 8}, {4, 0, 8, 8}, {0, 4, 4, 8}, {2, 0, 4, 4}, {0, 2, 2, 4}, {1, 0, 2, 2}, {0, 1, 1, 2}}}) {
            put_pass(rows, plan, x0, y0, dx, dy);
        }
    } else {
        put_pass(rows, plan, 0, 0, 1, 1);
    }
    const auto pixels = deflated(rows);
    // In two chunks.
    const auto middle = pixels.begin() + static_cast<std::ptrdiff_t>(pixels.size() / 2);
    put_chunk(file, "IDAT", {pixels.begin(), middle});
    put_chunk(file, "IDAT", {middle, pixels.end()});
    put_chunk(file, "IEND", {});
    return file;
}

}  // namespace oracle

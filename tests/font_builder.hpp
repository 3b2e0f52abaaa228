// The smallest TrueType fonts (OpenType 1.9): an outline, and glyphs that are made of others.
#pragma once

#include <cstdint>
#include <string>
#include <utility>
#include <vector>

namespace font_builder {

using Bytes = std::vector<std::uint8_t>;

inline void put(Bytes& to, std::uint64_t number, int bytes) {
    for (auto shift = 8 * (bytes - 1); shift >= 0; shift -= 8) to.push_back(static_cast<std::uint8_t>(number >> shift));
}

// A square of 600 units.
inline Bytes square() {
    Bytes glyph;
    for (const auto number : {1, 0, 0, 600, 600, 3, 0}) put(glyph, static_cast<unsigned>(number), 2);
    glyph.insert(glyph.end(), {0x01, 0x01, 0x01, 0x01});
    for (const auto step : {0, 600, 0, -600}) put(glyph, static_cast<std::uint16_t>(step), 2);
    for (const auto step : {0, 0, 600, 0}) put(glyph, static_cast<std::uint16_t>(step), 2);
    return glyph;
}

inline Bytes composed(const std::vector<int>& of) {
    Bytes glyph;
    for (const auto number : {0xffff, 0, 0, 600, 600}) put(glyph, static_cast<unsigned>(number), 2);
    for (std::size_t i = 0; i < of.size(); ++i) {
        constexpr auto places = 2U;  // the arguments are a place
        constexpr auto more = 0x20U;
        put(glyph, places | (i + 1 < of.size() ? more : 0U), 2);
        put(glyph, static_cast<unsigned>(of[i]), 2);
        put(glyph, 0, 2);
    }
    return glyph;
}

// A font of glyphs, of which 'A' is the last one, and of a family of that name.
inline Bytes font(const std::vector<Bytes>& glyphs, const std::string& family = "Quay") {
    Bytes glyf;
    Bytes loca;
    for (const auto& glyph : glyphs) {
        put(loca, glyf.size(), 4);
        glyf.insert(glyf.end(), glyph.begin(), glyph.end());
        while (glyf.size() % 4 != 0) glyf.push_back(0);
    }
    put(loca, glyf.size(), 4);
    const auto count = static_cast<unsigned>(glyphs.size());
    Bytes head;
    put(head, 0x00010000, 4);
    put(head, 0x00010000, 4);
    put(head, 0, 4);
    put(head, 0x5f0f3cf5, 4);
    for (const auto number : {0, 1000}) put(head, static_cast<unsigned>(number), 2);
    put(head, 0, 8);
    put(head, 0, 8);
    for (const auto number : {0, 0, 600, 600, 0, 8, 2, 1, 0}) put(head, static_cast<unsigned>(number), 2);
    Bytes hhea;
    put(hhea, 0x00010000, 4);
    for (const auto number : {800, 0xff38, 0, 700, 0, 0, 600, 1, 0, 0, 0, 0, 0, 0, 0})
        put(hhea, static_cast<unsigned>(number), 2);
    put(hhea, count, 2);
    Bytes hmtx;
    for (auto i = 0U; i < count; ++i) put(hmtx, 700U << 16U, 4);
    Bytes maxp;
    put(maxp, 0x00010000, 4);
    put(maxp, count, 2);
    for (const auto number : {100, 10, 1000, 100, 1, 0, 0, 0, 0, 0, 0, 4000, 1000})
        put(maxp, static_cast<unsigned>(number), 2);
    Bytes cmap;
    for (const auto number : {0, 1, 3, 1}) put(cmap, static_cast<unsigned>(number), 2);
    put(cmap, 12, 4);
    for (const auto number : {4, 32, 0, 4, 4, 1, 0, int{'A'}, 0xffff, 0, int{'A'}, 0xffff})
        put(cmap, static_cast<unsigned>(number), 2);
    put(cmap, static_cast<std::uint16_t>(static_cast<int>(count) - 1 - 'A'), 2);
    for (const auto number : {1, 0, 0}) put(cmap, static_cast<unsigned>(number), 2);
    Bytes name;
    Bytes letters;
    for (const auto c : family) put(letters, static_cast<unsigned char>(c), 2);
    for (const auto number : {0, 1, 18, 3, 1, 0x409, 1}) put(name, static_cast<unsigned>(number), 2);
    put(name, letters.size(), 2);
    put(name, 0, 2);
    name.insert(name.end(), letters.begin(), letters.end());
    const std::vector<std::pair<std::string, Bytes>> tables{{"cmap", cmap}, {"glyf", glyf}, {"head", head},
                                                            {"hhea", hhea}, {"hmtx", hmtx}, {"loca", loca},
                                                            {"maxp", maxp}, {"name", name}};
    Bytes file;
    put(file, 0x00010000, 4);
    for (const auto number : {static_cast<int>(tables.size()), 128, 3, 0}) put(file, static_cast<unsigned>(number), 2);
    auto place = 12 + 16 * tables.size();
    for (const auto& [tag, bytes] : tables) {
        file.insert(file.end(), tag.begin(), tag.end());
        put(file, 0, 4);
        put(file, place, 4);
        put(file, bytes.size(), 4);
        place += (bytes.size() + 3) / 4 * 4;
    }
    for (const auto& [tag, bytes] : tables) {
        file.insert(file.end(), bytes.begin(), bytes.end());
        while (file.size() % 4 != 0) file.push_back(0);
    }
    return file;
}

}  // namespace font_builder

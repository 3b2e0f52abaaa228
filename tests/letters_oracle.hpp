// Letters as the tests look at them: their pixels, and what of the plane they cover by their outlines and pens.
#pragma once

#include "coverage_oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <set>
#include <string>
#include <utility>
#include <vector>

#include <gtest/gtest.h>

namespace letters {

using namespace coldbrick;
using namespace oracle;

inline Text one_letter(char32_t c, const Face& face, double height) {
    return {.words = utf8(c), .at = {20, 40}, .anchor = TextAnchor::baseline, .face = face, .height = height};
}

inline constexpr Box around{.at = {0, 0}, .size = {90, 64}};

template <class Area>
std::set<std::pair<int, int>> pixels_of(const Area& area, const Box& window = around) {
    std::set<std::pair<int, int>> pixels;
    for_each_span(area, window, [&](const Span& run) {
        for (int i = 0; i < run.length; ++i) EXPECT_TRUE(pixels.emplace(run.y, run.x + i).second) << "told twice";
    });
    return pixels;
}

// The pen's lines as the library flattens them, and what is inside of outlines, by distances.
inline Plane plane_of(const Lettering& letters, Real out, Real in) {
    const auto lines = letters.lines.empty() ? std::vector<std::vector<Position>>{} : flattened(letters.lines);
    const auto rings = letters.outlines.empty() ? std::vector<std::vector<Position>>{} : flattened(letters.outlines);
    const auto half = Real{letters.weight} / 2;
    return [=](oracle::Place p) {
        auto away = Real{1e9L};
        for (const auto& list : lines) {
            for (std::size_t i = 0; i < list.size(); ++i) {
                const auto a = oracle::Place{list[i].x, list[i].y};
                const auto next = i + 1 < list.size() ? list[i + 1] : list[i];
                const auto way = oracle::Place{next.x, next.y} - a;
                const auto length = along(way, way);
                const auto part = length > 0 ? std::clamp(along(p - a, way) / length, Real{0}, Real{1}) : Real{0};
                away = std::min(away, size_of(p - a - way * part));
            }
        }
        if (away <= half + out && away > half - in) return true;
        auto winding = 0;
        for (const auto& ring : rings) {
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const auto a = oracle::Place{ring[i].x, ring[i].y};
                const auto& to = ring[(i + 1) % ring.size()];
                const auto b = oracle::Place{to.x, to.y};
                if ((a.y <= p.y) == (b.y <= p.y)) continue;
                const auto is_right = across(b - a, p - a) * (b.y > a.y ? 1 : -1) > 0;
                if (is_right) winding += b.y > a.y ? 1 : -1;
            }
        }
        return winding != 0;
    };
}

inline constexpr auto whole_pen = Real{1e6L};

// How far from that the coverage is at worst, in 255ths: looked at at every so many of the pixels at an edge, and at
// few others, from some number on.
inline double worst_coverage(const Text& text, int from) {
    const auto plane = plane_of(lettering(text), 0, whole_pen);
    const auto found = coverage_of(filled(text, {.edge = Edge::smooth}), around);
    auto worst = 0.0;
    auto at_edges = from;
    for (auto i = 0; i < around.size.width * around.size.height; ++i) {
        const auto is_at_edge = found[static_cast<std::size_t>(i)] % 255 != 0;
        const auto is_looked_at = is_at_edge ? at_edges++ % 97 == 0 : (i + from) % 4001 == 0;
        if (!is_looked_at) continue;
        const Point pixel{i % around.size.width, i / around.size.width};
        const auto share = static_cast<double>(plane_share(plane, pixel)) * 255;
        worst = std::max(worst, std::abs(share - found[index_in(around, pixel)]));
    }
    return worst;
}

}  // namespace letters

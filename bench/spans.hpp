// Drawing against memset of the same spans.
#pragma once

#include "pairs.hpp"

#include <coldbrick/draw.hpp>

#include <cmath>
#include <cstring>
#include <memory>
#include <numbers>
#include <string>

namespace bench {

using namespace coldbrick;

inline constexpr auto sheet = Size{.width = 1920, .height = 1080};
inline constexpr auto ink = Color{.red = 0xe8, .green = 0xb2, .blue = 0x3a};

// The star's points are 800 pixels apart from top to bottom.
inline Polygon ten_pointed_star() {
    Polygon::Vertices vertices;
    constexpr auto points = 10;
    for (int i = 0; i < 2 * points; ++i) {
        const auto radius = i % 2 == 0 ? 400.0 : 200.0;
        const auto angle = std::numbers::pi * (i / static_cast<double>(points) - 0.5);
        vertices.push_back({.x = 960 + static_cast<int>(std::lround(radius * std::cos(angle))),
                            .y = 540 + static_cast<int>(std::lround(radius * std::sin(angle)))});
    }
    return Polygon{std::move(vertices)};
}

// A closed line that goes around in waves.
inline Polygon wavy_polygon(int edges) {
    Polygon::Vertices vertices;
    for (int i = 0; i < edges; ++i) {
        const auto angle = 2 * std::numbers::pi * i / edges;
        const auto radius = 430 + 60 * std::sin(24 * angle);
        vertices.push_back({.x = 960 + static_cast<int>(std::lround(radius * std::cos(angle))),
                            .y = 540 + static_cast<int>(std::lround(radius * std::sin(angle)))});
    }
    return Polygon{std::move(vertices)};
}

template <PixelFormat Format>
std::shared_ptr<Bitmap<Format>> shared_bitmap() {
    return std::make_shared<Bitmap<Format>>(sheet, gray(20));
}

template <class Area>
std::vector<Span> spans_of(const Area& area) {
    std::vector<Span> spans;
    for_each_span(area, {.at = {}, .size = sheet}, [&](const Span& run) { spans.push_back(run); });
    return spans;
}

// memset of each span, on the same bytes as the drawing.
template <PixelFormat Format>
std::function<void()> memset_of(std::vector<Span> spans, const std::shared_ptr<Bitmap<Format>>& bitmap) {
    constexpr auto pixel_bytes = static_cast<std::size_t>(bytes_per_pixel<Format>);
    return [spans = std::move(spans), bitmap] {
        auto* const bytes = const_cast<std::uint8_t*>(bitmap->bytes().data());
        for (const auto& run : spans) {
            const auto first = static_cast<std::size_t>(run.y) * sheet.width + static_cast<std::size_t>(run.x);
            std::memset(bytes + first * pixel_bytes, 255, static_cast<std::size_t>(run.length) * pixel_bytes);
        }
        written(bytes);
    };
}

template <PixelFormat Format, class Area>
void add_fill(const std::string& name, const Area& area, double allowed) {
    const auto bitmap = shared_bitmap<Format>();
    add({.name = name,
         .reference = "memset of its spans",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(fill(*bitmap, area, ink)); },
         .other = memset_of(spans_of(area), bitmap)});
}

}  // namespace bench

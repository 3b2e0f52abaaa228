// Polygons with smooth edges and their strokes, by places of the plane: rings that do not meet themselves, which are
// grown and shrunk, and those that touch, retrace and cross themselves, whose parts are united.
#include "oracle.hpp"
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <numbers>

namespace {

using namespace coldbrick;
using oracle::Dice;
using oracle::Place;
using oracle::Plane;

using Ring = Polygon::Vertices;

constexpr auto window = Box{{0, 0}, {30, 26}};

// In and out at steps of an angle, either way round; beside each other they may lie on each other.
Ring star_shaped(Dice& dice) {
    const auto count = dice.number(5, 24);
    const auto turn = dice.number(0, 1) == 0 ? 1 : -1;
    Ring ring;
    for (int i = 0; i < count; ++i) {
        const auto angle = turn * 2 * std::numbers::pi * i / count;
        const auto radius = dice.number(2, 10);
        ring.push_back({15 + static_cast<int>(std::lround(radius * std::cos(angle))),
                        13 + static_cast<int>(std::lround(radius * std::sin(angle)))});
    }
    return ring;
}

// The area below a line.
Ring below_a_line(Dice& dice) {
    Ring ring;
    for (int x = 5; x < 25; x += dice.number(1, 3)) ring.push_back({x, dice.number(4, 18)});
    ring.push_back({25, 22});
    ring.push_back({5, 22});
    return ring;
}

// A box with slits into it and spikes out of it, to its other side and beyond.
Ring slit_box(Dice& dice) {
    Ring ring{{5, 7}, {25, 7}, {25, 20}};
    for (int x = 22; x > 8; x -= dice.number(3, 6)) {
        const auto depth = dice.number(0, 3) == 0 ? -3 : dice.number(4, 15);
        const auto width = dice.number(1, 2);
        ring.insert(ring.end(), {{x, 20}, {x, 20 - depth}, {x - width, 20}});
    }
    ring.push_back({5, 20});
    return ring;
}

Ring crossing_itself(Dice& dice) {
    Ring ring;
    for (int i = dice.number(4, 8); i > 0; --i) ring.push_back({dice.number(5, 25), dice.number(4, 22)});
    return ring;
}

// Without a corner twice in a row.
Ring tidied(const Ring& ring) {
    Ring tidy;
    for (const auto& corner : ring) {
        if (tidy.empty() || corner != tidy.back()) tidy.push_back(corner);
    }
    while (tidy.size() > 1 && tidy.front() == tidy.back()) tidy.pop_back();
    return tidy;
}

Plane is_enclosed(const Ring& ring) {
    return [=](Place p) {
        auto is_inside = false;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const auto a = oracle::place(ring[i]);
            const auto b = oracle::place(ring[(i + 1) % ring.size()]);
            if ((a.y <= p.y) == (b.y <= p.y)) continue;
            if (a.x + (p.y - a.y) / (b.y - a.y) * (b.x - a.x) < p.x) is_inside = !is_inside;
        }
        return is_inside;
    };
}

// A pen of an odd width, which is centred on the ring.
Plane traced(const Ring& ring, int width, const Stroke& how) {
    return oracle::wide_path(ring, true, {.width = width, .join = how.join, .limit = how.miter_limit});
}

Plane is_filled(const Ring& ring) {
    return [inside = is_enclosed(ring), rim = traced(ring, 1, {})](Place p) { return inside(p) || rim(p); };
}

// Rule 4 of docs/pixel-rules.md, "Polygons".
Plane is_stroked(const Ring& ring, const Stroke& how, int width) {
    const auto filled = is_filled(ring);
    if (how.align == Align::inside) {
        return [=, pen = traced(ring, 2 * width - 1, how)](Place p) { return pen(p) && filled(p); };
    }
    if (how.align == Align::outside) {
        return [=, pen = traced(ring, 2 * width + 1, how)](Place p) { return pen(p) && !filled(p); };
    }
    if (width % 2 == 1) return traced(ring, width, how);
    return [=, thin = traced(ring, width - 1, how), wide = traced(ring, width + 1, how)](Place p) {
        return thin(p) || (wide(p) && !filled(p));
    };
}

template <class Area>
std::vector<int> coverage_of(const Area& area) {
    std::vector<int> coverage(static_cast<std::size_t>(window.size.width) *
                              static_cast<std::size_t>(window.size.height));
    for_each_coverage(area, window, [&](int y, int x, int length, int part) {
        const auto begin = coverage.begin() + y * window.size.width + x;
        std::fill(begin, begin + length, part);
    });
    return coverage;
}

// How far coverage is from the share of places in each pixel that belong to the set, at most.
template <class Area>
double most_wrong(const Area& area, const Plane& set) {
    constexpr auto across = 8;
    const auto coverage = coverage_of(area);
    auto most = 0.0;
    for (int y = 0; y < window.size.height; ++y) {
        for (int x = 0; x < window.size.width; ++x) {
            auto in = 0;
            for (int i = 0; i < across * across; ++i) {
                const auto part = [](int step) { return (step + 0.5L) / across - 0.5L; };
                in += set({x + part(i % across), y + part(i / across)}) ? 1 : 0;
            }
            const auto got = coverage[static_cast<std::size_t>(y * window.size.width + x)];
            most = std::max(most, std::fabs(got - 255.0 * in / (across * across)));
        }
    }
    return most;
}

// Three edges across a pixel are known to a sixteenth of it each, at most, by so many places.
constexpr auto tolerance = 3 * 255.0 / 16;

struct Kind {
    const char* name;
    Ring (*ring)(Dice& dice);
    friend std::ostream& operator<<(std::ostream& out, const Kind& kind) { return out << kind.name; }
};

class SmoothRings : public testing::TestWithParam<Kind> {};

TEST_P(SmoothRings, AreFilledWithTheirOutlines) {
    Dice dice{21};
    for (int i = 0; i < (is_sanitized ? 1 : 5); ++i) {
        const auto ring = tidied(GetParam().ring(dice));
        EXPECT_LE(most_wrong(filled(Polygon{ring}, {.edge = Edge::smooth}), is_filled(ring)), tolerance) << i;
    }
}

TEST_P(SmoothRings, AreStrokedAlikeOnAllSides) {
    Dice dice{22};
    for (int i = 0; i < (is_sanitized ? 1 : 3); ++i) {
        const auto ring = tidied(GetParam().ring(dice));
        for (const auto align : {Align::center, Align::inside, Align::outside}) {
            const auto width = dice.number(2, 5);
            const auto join = dice.number(0, 2) > 0 ? Join::miter : Join::round;
            const auto how = Stroke{.width = width, .align = align, .join = join, .edge = Edge::smooth};
            EXPECT_LE(most_wrong(stroked(Polygon{ring}, how), is_stroked(ring, how, width)), tolerance)
                << i << ", width " << width << ", align " << static_cast<int>(align) << ", join "
                << static_cast<int>(join);
        }
    }
}

// Either way round, a ring is the same.
TEST_P(SmoothRings, HaveNoDirection) {
    Dice dice{23};
    for (int i = 0; i < 10; ++i) {
        const auto ring = tidied(GetParam().ring(dice));
        const auto back = Ring{ring.rbegin(), ring.rend()};
        for (const auto align : {Align::center, Align::outside}) {
            const auto how = Stroke{.width = 4, .align = align, .edge = Edge::smooth};
            EXPECT_EQ(coverage_of(stroked(Polygon{ring}, how)), coverage_of(stroked(Polygon{back}, how))) << i;
        }
        const auto fill = Fill{.edge = Edge::smooth};
        EXPECT_EQ(coverage_of(filled(Polygon{ring}, fill)), coverage_of(filled(Polygon{back}, fill))) << i;
    }
}

INSTANTIATE_TEST_SUITE_P(Polygons, SmoothRings,
                         testing::Values(Kind{"star_shaped", star_shaped}, Kind{"below_a_line", below_a_line},
                                         Kind{"slit_box", slit_box}, Kind{"crossing_itself", crossing_itself}));

}  // namespace

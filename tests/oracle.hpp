// The pixel rules by brute force: each asks about one pixel, and knows nothing of rows, spans or clips. Written from
// docs/pixel-rules.md, apart from the library.
#pragma once

#include <coldbrick/color_names.hpp>
#include <coldbrick/draw.hpp>
#include <coldbrick/vertices.hpp>

#include <algorithm>
#include <functional>
#include <ostream>
#include <random>
#include <vector>

#include <gtest/gtest.h>

namespace coldbrick {

inline std::ostream& operator<<(std::ostream& out, const Point& p) { return out << p.x << ',' << p.y; }
inline std::ostream& operator<<(std::ostream& out, const Box& b) {
    return out << "at " << b.at << " size " << b.size.width << ',' << b.size.height;
}
inline std::ostream& operator<<(std::ostream& out, const Color& c) {
    return out << "rgba(" << int{c.red} << ',' << int{c.green} << ',' << int{c.blue} << ',' << int{c.alpha} << ')';
}

}  // namespace coldbrick

namespace oracle {

using namespace coldbrick;
__extension__ using Wide = __int128;

using Membership = std::function<bool(Point)>;

inline Membership in_box(const Box& box) {
    return [=](Point p) {
        const auto dx = std::int64_t{p.x} - box.at.x;
        const auto dy = std::int64_t{p.y} - box.at.y;
        return dx >= 0 && dx < box.size.width && dy >= 0 && dy < box.size.height;
    };
}

// The ellipse in a box given by its first pixel and size.
inline Membership in_ellipse(std::int64_t left, std::int64_t top, std::int64_t w, std::int64_t h) {
    return [=](Point p) {
        const auto x = Wide{2} * (p.x - left) - (w - 1);
        const auto y = Wide{2} * (p.y - top) - (h - 1);
        if (x <= -w || x >= w || y <= -h || y >= h) return false;
        const auto on_axis = (x >= -1 && x <= 1) || (y >= -1 && y <= 1);
        return on_axis || x * x * h * h + y * y * w * w <= Wide{w} * w * h * h;
    };
}

inline Membership in_circle(const Circle& c) {
    return [=](Point p) {
        const auto dx = Wide{p.x} - c.center.x;
        const auto dy = Wide{p.y} - c.center.y;
        return dx * dx + dy * dy <= Wide{c.radius} * c.radius + c.radius;
    };
}

// The pixels inside that have a neighbour outside.
inline Membership outline(const Membership& inside) {
    return [=](Point p) {
        return inside(p) &&
               !(inside({p.x - 1, p.y}) && inside({p.x + 1, p.y}) && inside({p.x, p.y - 1}) && inside({p.x, p.y + 1}));
    };
}

// A pixel of the line has no neighbour across the longer direction that is nearer, or as near with a smaller
// coordinate.
inline bool on_line(Point a, Point b, Point p) {
    Wide ax = a.x;
    Wide ay = a.y;
    Wide bx = b.x;
    Wide by = b.y;
    Wide x = p.x;
    Wide y = p.y;
    const auto size = [](Wide v) { return v < 0 ? -v : v; };
    if (size(bx - ax) < size(by - ay)) {
        std::swap(ax, ay);
        std::swap(bx, by);
        std::swap(x, y);
    }
    if (x < std::min(ax, bx) || x > std::max(ax, bx)) return false;
    const auto length = size(bx - ax);
    if (length == 0) return y == ay;
    // Distances to the true line at this x, times its length.
    const auto distance = [&](Wide v) { return size((v - ay) * (bx - ax) - (x - ax) * (by - ay)); };
    return distance(y) < distance(y - 1) && distance(y) <= distance(y + 1);
}

inline bool is_on_path(const std::vector<Point>& path, bool closed, Point p) {
    for (std::size_t i = 1; i < path.size(); ++i) {
        if (on_line(path[i - 1], path[i], p)) return true;
    }
    return on_line(path.back(), closed ? path.front() : path.back(), p);
}

inline Membership on_path(const std::vector<Point>& path, bool closed) {
    return [=](Point p) { return is_on_path(path, closed, p); };
}

inline bool is_on_outline(const Polygon& polygon, Point p) {
    return std::any_of(polygon.rings().begin(), polygon.rings().end(),
                       [&](const Polygon::Vertices& ring) { return is_on_path(ring, true, p); });
}

inline Membership on_outline(const Polygon& polygon) {
    return [=](Point p) { return is_on_outline(polygon, p); };
}

// How often the outlines go round the pixel's centre, moved right by next to nothing and down by even less: counted
// along a ray straight up, where the library goes along rows.
inline int winding(const Polygon& polygon, Point p) {
    auto count = 0;
    for (const auto& ring : polygon.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const auto a = ring[i];
            const auto b = ring[(i + 1) % ring.size()];
            const auto [left, right] = a.x <= b.x ? std::pair{a, b} : std::pair{b, a};
            if (p.x < left.x || p.x >= right.x) continue;
            const auto dx = Wide{right.x} - left.x;
            const auto dy = Wide{right.y} - left.y;
            const auto below = (Wide{p.y} - left.y) * dx - (Wide{p.x} - left.x) * dy;  // of the edge, times dx
            if (below > 0 || (below == 0 && dy <= 0)) count += a.x <= b.x ? 1 : -1;
        }
    }
    return count;
}

inline Membership in_polygon(const Polygon& polygon, const Fill& how) {
    return [=](Point p) {
        const auto turns = winding(polygon, p);
        const auto inside = how.rule == FillRule::nonzero ? turns != 0 : turns % 2 != 0;
        return inside || (how.edges == Edges::inclusive && is_on_outline(polygon, p));
    };
}

// Sorted by row, then column.
using PixelSet = std::vector<Point>;

inline bool precedes(const Point& a, const Point& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; }
inline bool has(const PixelSet& pixels, Point p) {
    return std::binary_search(pixels.begin(), pixels.end(), p, precedes);
}

inline PixelSet pixels_of(const Membership& inside, const Box& window) {
    PixelSet pixels;
    for (int y = 0; y < window.size.height; ++y) {
        for (int x = 0; x < window.size.width; ++x) {
            const auto p = Point{window.at.x + x, window.at.y + y};
            if (inside(p)) pixels.push_back(p);
        }
    }
    return pixels;
}

inline Box box_of(const PixelSet& pixels) {
    Box box{};
    for (const auto p : pixels) box = enclosing(box, {.at = p, .size = {1, 1}});
    return box;
}

// The library's pixels of an area in a window; tests on the way that spans are sorted, apart and inside, and that the
// box that is returned is the smallest around them.
template <class Area>
PixelSet drawn(const Area& area, const Box& window) {
    PixelSet pixels;
    auto before = Span{.y = INT32_MIN, .x = 0, .length = 0};
    const auto touched = for_each_span(area, window, [&](const Span& run) {
        EXPECT_GT(run.length, 0);
        EXPECT_TRUE(run.y > before.y || (run.y == before.y && run.x > before.x + before.length)) << "row " << run.y;
        before = run;
        for (int i = 0; i < run.length; ++i) pixels.push_back({run.x + i, run.y});
    });
    EXPECT_EQ(touched, box_of(pixels));
    EXPECT_EQ(touched, intersection(touched, window));
    return pixels;
}

// Compares what is drawn with the rule, and contains() at a few pixels.
template <class Area>
void expect_pixels(const Area& area, const Membership& rule, const Box& window, const std::string& what) {
    const auto expected = pixels_of(rule, window);
    const auto found = drawn(area, window);
    EXPECT_EQ(found == expected, true) << what << ": " << found.size() << " pixels drawn, " << expected.size()
                                       << " by the rule, window " << window;
    for (int i = 0; i < 5; ++i) {
        const auto p =
            Point{window.at.x + window.size.width * i / 5, window.at.y + window.size.height * (i * 2 % 5) / 5};
        EXPECT_EQ(contains(area, p), rule(p)) << what << " at " << p;
    }
}

// The same, and bounds(), for an area that lies in the window as a whole.
template <class Area>
void expect_whole(const Area& area, const Membership& rule, const Box& window, const std::string& what) {
    expect_pixels(area, rule, window, what);
    EXPECT_EQ(bounds(area), box_of(pixels_of(rule, window))) << what;
}

// Random numbers that are the same in every run.
class Dice {
  public:
    explicit Dice(unsigned seed) : engine_{seed} {}
    int number(int least, int most) { return std::uniform_int_distribution{least, most}(engine_); }
    Point point(const Box& box) { return {number(box.at.x, box.last().x), number(box.at.y, box.last().y)}; }
    Polygon::Vertices ring(int least, int most, const Box& box) {
        Polygon::Vertices vertices;
        for (int count = number(least, most); count > 0; --count) vertices.push_back(point(box));
        return vertices;
    }
    Color color() {
        const auto channel = [&] { return static_cast<std::uint8_t>(number(0, 255)); };
        return {channel(), channel(), channel(), channel()};
    }

  private:
    std::mt19937 engine_;
};

}  // namespace oracle

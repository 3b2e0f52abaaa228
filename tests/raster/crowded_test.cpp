// Rows that thousands of edges cross: what is drawn at a pixel depends on the call and the pixel alone, whatever
// threads, bands, tiles or files it is drawn in.
#include "folder_test.hpp"
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

namespace {

using namespace coldbrick;
using oracle::Dice;

constexpr auto size = Size{240, 180};

double quarter(Dice& dice, int least, int most) { return dice.number(4 * least, 4 * most) / 4.0; }

// Shapes of so many corners that all of a row's edges are sorted at once where they cross, and of fewer.
template <class Use>
void with_crowds(const Use& use) {
    for (const auto points : is_sanitized ? std::vector{300} : std::vector{60, 400, 1500}) {
        for (const auto rule : {points == 400 ? FillRule::nonzero : FillRule::even_odd}) {
            Drawing spikes;
            fill(spikes, subpixel::star({.center = {120, 90}, .radius = 85, .points = points, .inner_radius = 2}),
                 {.rule = rule, .edge = Edge::smooth}, colors::firebrick);
            use("star of " + std::to_string(points), spikes);
            Drawing tangle;
            Dice dice{9};
            subpixel::Polygon::Vertices ring;
            for (int i = 0; i < points; ++i) ring.push_back({quarter(dice, -40, 280), quarter(dice, -40, 220)});
            fill(tangle, subpixel::Polygon{ring}, {.rule = rule, .edge = Edge::smooth}, colors::navy);
            use("tangle of " + std::to_string(points), tangle);
        }
    }
    Drawing capsules;
    Drawing curves;
    Dice dice{4};
    Path all;
    Path bent;
    bent.move({0, 90});
    const auto place = [&] { return Position{quarter(dice, 0, 240), quarter(dice, 0, 180)}; };
    for (int i = 0; i < (is_sanitized ? 100 : 600); ++i) {
        const auto from = place();
        all.move(from).line({from.x + quarter(dice, -30, 30), from.y + quarter(dice, -30, 30)});
        if (i % 30 == 0) bent.cubic({.control_1 = place(), .control_2 = place(), .to = place()});
    }
    stroke(capsules, all, {.width = 5, .cap = Cap::round, .edge = Edge::smooth}, with_alpha(colors::navy, 90));
    use("capsules", capsules);
    stroke(curves, bent, {.width = 9, .join = Join::round, .edge = Edge::smooth}, colors::teal);
    use("curves", curves);
}

Bitmap<Rgba8> whole(const Drawing& plan) {
    Bitmap<Rgba8> sheet{size, colors::white};
    render(plan, sheet);
    return sheet;
}

TEST(Crowded, ThreadsAndTilesDrawTheSame) {
    with_crowds([](const std::string& what, const Drawing& plan) {
        const auto expected = whole(plan);
        for (const auto threads : {3}) {
            Bitmap<Rgba8> sheet{size, colors::white};
            render(plan, sheet, {.threads = threads});
            EXPECT_EQ(sheet.bytes(), expected.bytes()) << what << " on " << threads << " threads";
        }
        const auto tiles =
            is_sanitized ? std::vector<Size>{{101, 64}} : std::vector<Size>{{240, 7}, {37, 180}, {101, 64}};
        for (const auto tile : tiles) {
            Bitmap<Rgba8> sheet{size, colors::white};
            for (int y = 0; y < size.height; y += tile.height) {
                for (int x = 0; x < size.width; x += tile.width) {
                    render(plan, sheet.within(Box{.at = {x, y}, .size = tile}));
                }
            }
            EXPECT_EQ(sheet.bytes(), expected.bytes()) << what << " in tiles of " << tile.width << "x" << tile.height;
        }
    });
}

class CrowdedFiles : public FolderTest {};

TEST_F(CrowdedFiles, StreamsAreThePicture) {
    with_crowds([&](const std::string& what, const Drawing& plan) {
        save(plan, Sheet{.size = size, .ground = colors::white}, path("crowd.png"), {.threads = 2});
        EXPECT_EQ(load<Rgba8>(path("crowd.png")).bytes(), whole(plan).bytes()) << what;
    });
}

// Nothing is drawn where the shape is not, however its areas are found.
TEST(Crowded, NothingLiesOutside) {
    const auto spikes = subpixel::star({.center = {120, 90}, .radius = 60, .points = 5000, .inner_radius = 2});
    Bitmap<Gray8> sheet{size};
    fill(sheet, spikes, {.edges = Edges::shared, .edge = Edge::smooth}, gray(255));
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            const auto is_far = (x - 120) * (x - 120) + (y - 90) * (y - 90) > 62 * 62;
            ASSERT_TRUE(!is_far || sheet.color_at({x, y}) == gray(0)) << x << "," << y;
        }
    }
}

// Each ring begins between the sides of the one before: the area is that of every second band.
TEST(Crowded, RingsWithinRings) {
    constexpr auto count = 400;
    Path rings;
    auto area = 0.0;
    for (int i = 0; i < count; ++i) {
        const auto reach = 88.0 * (count - i) / count;
        rings.move({120, 90 - reach}).line({120 + reach, 90}).line({120, 90 + reach}).line({120 - reach, 90}).close();
        area += (i % 2 == 0 ? 2 : -2) * reach * reach;
    }
    auto sum = 0.0;
    for_each_coverage(filled(rings, {.edges = Edges::shared, .edge = Edge::smooth}), Box{{0, 0}, size},
                      [&](int, int, int length, int coverage) { sum += length * coverage / 255.0; });
    // Of each pixel, up to half of 1/255 is rounding.
    EXPECT_NEAR(sum, area, area / 255);
}

// Hundreds of edges through each pixel of a few: their crossings are not followed one by one.
subpixel::Polygon thicket(int corners, double scale) {
    Dice dice{static_cast<unsigned>(corners)};
    subpixel::Polygon::Vertices ring;
    // A pixel's corner stays one.
    const auto place = [&] { return (dice.number(0, 2048) / 256.0 + 2.5) * scale - 0.5; };
    for (int i = 0; i < corners; ++i) {
        const auto x = place();
        ring.push_back({x, place()});
    }
    return subpixel::Polygon{ring};
}

constexpr auto thicket_box = Box{{0, 0}, {13, 13}};
const auto corners_of_thickets = is_sanitized ? 300 : 1000;

std::vector<int> coverage_of(const subpixel::Polygon& polygon, FillRule rule, const Box& box) {
    std::vector<int> coverage(static_cast<std::size_t>(box.size.width) * static_cast<std::size_t>(box.size.height));
    const auto filling = Fill{.rule = rule, .edges = Edges::shared, .edge = Edge::smooth};
    for_each_coverage(filled(polygon, filling), box, [&](int y, int x, int length, int part) {
        const auto begin = coverage.begin() + (y - box.at.y) * box.size.width + (x - box.at.x);
        std::fill(begin, begin + length, part);
    });
    return coverage;
}

// Of a larger picture, in which few edges cross each pixel, the mean of as many pixels is the area of one.
TEST(Crowded, PixelsOfManyEdgesHaveTheirAreas) {
    constexpr auto scale = 24;
    const auto larger = Box{{0, 0}, {thicket_box.size.width * scale, thicket_box.size.height * scale}};
    for (const auto rule : {FillRule::even_odd, FillRule::nonzero}) {
        const auto coverage = coverage_of(thicket(corners_of_thickets, 1), rule, thicket_box);
        const auto fine = coverage_of(thicket(corners_of_thickets, scale), rule, larger);
        for (int y = 0; y < thicket_box.size.height; ++y) {
            for (int x = 0; x < thicket_box.size.width; ++x) {
                auto sum = 0.0;
                for (int i = 0; i < scale * scale; ++i) {
                    const auto at = (y * scale + i / scale) * larger.size.width + x * scale + i % scale;
                    sum += fine[static_cast<std::size_t>(at)];
                }
                const auto got = coverage[static_cast<std::size_t>(y * thicket_box.size.width + x)];
                EXPECT_NEAR(got, sum / (scale * scale), 1) << x << "," << y;
            }
        }
    }
}

TEST(Crowded, PixelsOfManyEdgesAreTheSameInEachWindow) {
    const auto polygon = thicket(corners_of_thickets, 1);
    const auto all = coverage_of(polygon, FillRule::even_odd, thicket_box);
    for (const auto size_of_part : {Size{1, 1}, Size{3, 2}, Size{5, 13}}) {
        for (int y = 0; y < thicket_box.size.height; y += size_of_part.height) {
            for (int x = 0; x < thicket_box.size.width; x += size_of_part.width) {
                const auto part = intersection(thicket_box, Box{{x, y}, size_of_part});
                const auto seen = coverage_of(polygon, FillRule::even_odd, part);
                for (std::size_t i = 0; i < seen.size(); ++i) {
                    const auto column = x + static_cast<int>(i) % part.size.width;
                    const auto row = y + static_cast<int>(i) / part.size.width;
                    ASSERT_EQ(seen[i], all[static_cast<std::size_t>(row * thicket_box.size.width + column)])
                        << column << "," << row;
                }
            }
        }
    }
}

}  // namespace

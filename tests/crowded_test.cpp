// Rows that thousands of edges cross: what is drawn at a pixel depends on the call and the pixel alone, whatever
// threads, bands, tiles or files it is drawn in.
#include "folder_test.hpp"
#include "oracle.hpp"
#include "sanitized.hpp"

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

}  // namespace

#include "raster/lowering/simple_ring.hpp"

#include "raster/coverage/chain_order.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

using Nodes = CountedVector<Subpath::Node>;

// Of a ring that goes down once and up once, and whose two sides do not cross: 1 if it goes clockwise, -1 if the other
// way. 0 of other rings, and of some that cross at heights at which they go sideways.
template <class At>
int turn_of_monotone(std::size_t count, const At& at) {
    const auto after = [&](std::size_t i) { return i + 1 < count ? i + 1 : 0; };
    const auto before = [&](std::size_t i) { return i > 0 ? i - 1 : count - 1; };
    const auto down = [&](std::size_t i) { return at(after(i)).y - at(i).y; };
    auto went = 0.0;
    for (auto i = count; i-- > 0 && went == 0;) went = down(i);
    std::size_t top = 0;
    std::size_t bottom = 0;
    auto ends = 0;
    for (std::size_t i = 0; i < count && ends <= 2; ++i) {
        const auto goes = down(i);
        if (goes == 0) continue;
        if ((goes > 0) != (went > 0)) {
            (goes > 0 ? top : bottom) = i;
            ++ends;
        }
        went = goes;
    }
    if (ends != 2) return 0;
    // Down both sides: the upper one of their next corners lies beside an edge of the other.
    auto is_right = false;
    auto is_left = false;
    auto forward = after(top);
    auto backward = before(top);
    auto last = at(top);
    auto last_back = last;
    while (forward != bottom || backward != bottom) {
        const auto next = at(forward);
        const auto next_back = at(backward);
        const auto is_first = backward == bottom || (forward != bottom && next.y < next_back.y);
        const auto turn =
            is_first ? cross(next - last_back, next_back - last_back) : cross(next - last, next_back - last);
        is_right = is_right || turn > 0;
        is_left = is_left || turn < 0;
        if (is_right && is_left) return 0;
        if (is_first) {
            last = next;
            forward = after(forward);
        } else {
            last_back = next_back;
            backward = before(backward);
        }
    }
    if (is_right == is_left) return 0;
    return is_right ? 1 : -1;
}

// Of a ring that goes once around the middle of its corners, without going back: 1 if it goes clockwise, -1 if the
// other way. 0 of other rings.
template <class At>
int turn_of_star(std::size_t count, const At& at) {
    auto middle = Vec{};
    for (std::size_t i = 0; i < count; ++i) middle = middle + at(i) * (1 / static_cast<double>(count));
    auto is_right = false;
    auto is_left = false;
    auto upward = 0;  // how often it goes up beside the middle, on either side
    auto last = at(count - 1) - middle;
    for (std::size_t i = 0; i < count; ++i) {
        const auto next = at(i) - middle;
        const auto turn = cross(last, next);
        is_right = is_right || turn > 0;
        is_left = is_left || turn < 0;
        if ((is_right && is_left) || (turn == 0 && dot(last, next) <= 0)) return 0;
        upward += last.y >= 0 && next.y < 0 ? 1 : 0;
        last = next;
    }
    if (is_right == is_left || upward != 1) return 0;
    return is_right ? 1 : -1;
}

// A ring's area, above 0 if it goes clockwise on the whole, the box around it, and how many of its upper ends turn
// clockwise more than the other way: one, or minus one, if it does not cross itself.
struct RingMeasures {
    double area = 0;
    Vec least;
    Vec most;
    int turns = 0;
    bool turns_back = false;  // at an upper end, so that they are not known
};
RingMeasures measures_of(const Nodes& nodes) {
    const auto first = nodes.front().at;
    const auto is_above = [](Vec a, Vec b) { return a.y != b.y ? a.y < b.y : a.x < b.x; };
    RingMeasures of{.least = first, .most = first};
    auto last = nodes.back().at;
    for (std::size_t i = 0; i < nodes.size(); ++i) {
        const auto at = nodes[i].at;
        const auto next = i + 1 < nodes.size() ? nodes[i + 1].at : first;
        of.least = {std::min(of.least.x, at.x), std::min(of.least.y, at.y)};
        of.most = {std::max(of.most.x, at.x), std::max(of.most.y, at.y)};
        of.area += cross(last - first, at - first) / 2;
        if (is_above(at, last) && is_above(at, next)) {
            const auto turn = cross(at - last, next - at);
            of.turns += turn > 0 ? 1 : -1;
            of.turns_back = of.turns_back || turn == 0;
        }
        last = at;
    }
    return of;
}

// 1 if a ring goes clockwise round what it encloses, -1 if the other way; 0 if it encloses some of it more than once,
// or some of it the other way round. What lies on itself encloses nothing.
int turn_of_ring(const Nodes& nodes, double little) {
    const auto place = [&](std::size_t i) { return nodes[i].at; };
    if (const auto down = turn_of_monotone(nodes.size(), place); down != 0) return down;
    const auto across = turn_of_monotone(nodes.size(), [&](std::size_t i) {
        return Vec{nodes[i].at.y, nodes[i].at.x};
    });
    if (across != 0) return -across;
    if (const auto around = turn_of_star(nodes.size(), place); around != 0) return around;
    const auto ring = measures_of(nodes);
    const auto turn = ring.area > 0 ? 1 : -1;
    constexpr auto far = 1e9;
    const auto is_near = ring.least.x > -far && ring.least.y > -far && ring.most.x < far && ring.most.y < far;
    if (!is_near || (ring.turns != turn && !ring.turns_back)) return 0;
    const auto whole = [](double at) { return static_cast<int>(std::floor(at)); };
    const auto window = Window{.left = whole(ring.least.x),
                               .top = whole(ring.least.y),
                               .right = whole(ring.most.x) + 2,
                               .bottom = whole(ring.most.y) + 2};
    ContourMemory memory;
    Chains chains{window, &memory};
    Contours contours{chains, {}};
    contours.expect(nodes.size());
    const auto draw = [&](const Subpath::Node& node) { contours.to(node.at); };
    turn < 0 ? std::for_each(nodes.begin(), nodes.end(), draw) : std::for_each(nodes.rbegin(), nodes.rend(), draw);
    contours.close();
    chains.finish();
    return std::fabs(area_enclosed_otherwise(chains, &memory)) < little ? turn : 0;
}

// The directions in which a ring comes to a corner and goes on, clockwise, along its curves where there are any.
std::pair<Vec, Vec> directions_at(const Nodes& nodes, std::size_t corner, bool is_clockwise) noexcept {
    const auto count = nodes.size();
    const auto& [at, smooth, in, out, longer, is_hidden] = nodes[corner];
    const auto before = in == Vec{} ? unit(at - nodes[corner > 0 ? corner - 1 : count - 1].at) : in;
    const auto after = out == Vec{} ? unit(nodes[corner + 1 < count ? corner + 1 : 0].at - at) : out;
    return is_clockwise ? std::pair{before, after} : std::pair{-after, -before};
}

double distance_to(Vec at, Vec from, Vec to) noexcept {
    const auto along = to - from;
    const auto part = std::clamp(dot(at - from, along) / std::max(dot(along, along), 1e-300), 0.0, 1.0);
    return length(at - from - along * part);
}

// The concave corners at which the miter on the inner side of a pen may come out beyond other edges. (What is in its
// reach of an edge never does, but for what is grown on its outside as well.) Of larger rings, only edges nearby along
// the ring are looked at; if there are more near the corner, it is one of them.
void find_corners(const Nodes& nodes, const Pen& pen, GrownRing& ring) {
    const auto count = nodes.size();
    const auto at = [&](std::size_t i) { return nodes[i < count ? i : i - count].at; };
    // So much bent, a miter's tip has 1/255 of a pixel beyond a round join: r^2 (tan(b/2) - b/2), about r^2 b^3/24.
    const auto wider = 0.5 / std::max(pen.left, 0.5);
    const auto hardly_bent = 1 - 0.25 * wider * std::sqrt(wider);
    for (std::size_t i = 0; i < count; ++i) {
        if (nodes[i].smooth) continue;
        const auto corner = at(i);
        const auto [before, after] = directions_at(nodes, i, ring.is_clockwise);
        const auto ahead = dot(before, after);
        const auto is_short = (1 + ahead) * pen.miter_limit * pen.miter_limit >= 2;
        if (cross(before, after) >= 0) ring.has_cut_corners = ring.has_cut_corners || !is_short;
        if (pen.join != Join::miter || cross(before, after) >= 0 || ahead > hardly_bent) continue;
        const auto miter = pen.left / std::sqrt((1 + ahead) / 2);
        constexpr std::size_t few = 16;
        auto is_beyond = count > few;
        for (std::size_t k = 1; k + 1 < count && !is_beyond; ++k) {
            is_beyond = distance_to(corner, at(i + k), at(i + k + 1)) <= miter;
        }
        if (is_beyond) ring.beyond.push_back(static_cast<std::uint32_t>(i));
    }
    if (pen.join != Join::miter) ring.has_cut_corners = pen.join == Join::bevel;
}

// Draws the miter on the inner side of a corner: clockwise, as the ring.
void draw_inner_miter(const Nodes& nodes, std::uint32_t corner, bool is_clockwise, const Pen& pen, Contours& contours) {
    const auto at = nodes[corner].at;
    const auto [before, after] = directions_at(nodes, corner, is_clockwise);
    const auto from = left_of(before) * pen.left;
    const auto to = left_of(after) * pen.left;
    const auto ahead = dot(before, after);
    contours.to(at);
    contours.to(at - to);
    if ((1 + ahead) * pen.miter_limit * pen.miter_limit >= 2) contours.to(at - (from + to) * (1 / (1 + ahead)));
    contours.to(at - from);
    contours.close();
}

}  // namespace

int turn_of_convex(const FlatPath& lines) {
    if (lines.subpaths.size() != 1 || lines.subpaths.front().nodes.size() < 3) return 0;
    const auto& nodes = lines.subpaths.front().nodes;
    auto is_right = false;
    auto is_left = false;
    auto last = nodes.back();
    auto before = last.at - nodes[nodes.size() - 2].at;
    const auto go_on = [&](Vec along) {
        const auto turn = cross(before, along);
        is_right = is_right || turn > 0;
        is_left = is_left || turn < 0;
        const auto turns_back = turn == 0 && dot(before, along) < 0;
        before = along;
        return !(is_right && is_left) && !turns_back;
    };
    for (const auto& node : nodes) {
        // Pens follow a curve's own directions where it meets corners.
        if (!last.smooth && last.in != Vec{} && !go_on(last.in)) return 0;
        if (!last.smooth && last.out != Vec{} && !go_on(last.out)) return 0;
        if (!go_on(node.at - last.at)) return 0;
        last = node;
    }
    return turn_of_monotone(nodes.size(), [&](std::size_t i) { return nodes[i].at; });
}

std::optional<GrownRing> grown_ring(const FlatPath& lines, const Pen& pen, double little) {
    if (lines.subpaths.size() != 1 || lines.subpaths.front().nodes.size() < 3) return std::nullopt;
    const auto& nodes = lines.subpaths.front().nodes;
    const auto turn = turn_of_ring(nodes, little);
    if (turn == 0) return std::nullopt;
    GrownRing ring{.is_clockwise = turn > 0, .beyond = {}, .has_cut_corners = false};
    find_corners(nodes, pen, ring);
    return ring;
}

void draw_inner_miters(const FlatPath& lines, const GrownRing& ring, const Pen& pen, Contours& contours) {
    const auto& nodes = lines.subpaths.front().nodes;
    for (const auto corner : ring.beyond) draw_inner_miter(nodes, corner, ring.is_clockwise, pen, contours);
}

void draw_grown(const FlatPath& lines, const GrownRing& ring, const Pen& pen, Contours& contours) {
    draw_grown(lines.subpaths.front(), ring.is_clockwise, pen, contours);
    draw_inner_miters(lines, ring, pen, contours);
}

}  // namespace coldbrick::inline v0::detail

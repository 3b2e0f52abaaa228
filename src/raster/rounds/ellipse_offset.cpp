#include "raster/rounds/ellipse_offset.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

namespace {

void fill_up(double* numbers, int count) noexcept {
    for (auto i = count; i < filled_up(count); ++i) numbers[i] = numbers[count - 1];
}

// Where a curve inside ends beside the longer half-axis, as p along that: it crosses the axis where
// n = -distance * longer / shorter.
double end_beside(double longer, double shorter, double distance) noexcept {
    if (longer <= shorter || distance >= -shorter * shorter / longer) return 1;
    const auto n = -distance * longer / shorter;
    const auto square = (longer * longer - n * n) / (longer * longer - shorter * shorter);
    return std::sqrt(std::clamp(square, 0.0, 1.0));
}

// From `along`, which is filled up, finds the others.
void find_on_ellipse(const CurveAxis& axis, int count, const CurvePlaces& places) noexcept {
    run_in_vectors([=, per_a = 1 / axis.a, b = axis.b, end = filled_up(count)]() COLDBRICK_KERNEL {
        const auto [along, across, ps, qs] = places;
        COLDBRICK_APART
        for (int k = 0; k < end; ++k) {
            const auto p = std::min(along[k] * per_a, 1.0);
            const auto q = std::sqrt((1 - p) * (1 + p));
            ps[k] = p;
            qs[k] = q;
            across[k] = b * q;
        }
    });
}

// One round of Newton's method: the derivative of the place is a * (1 + distance * bend) with the ellipse's bend
// a*b / n^3. Tells in `across` how far each was from where it is to be.
void improve(const CurveAxis& axis, int count, const CurvePlaces& places) noexcept {
    run_in_vectors([=, axis = axis, end = filled_up(count)]() COLDBRICK_KERNEL {
        const auto [along, across, ps, qs] = places;
        constexpr auto least_slope = 1e-9;
        const auto a_square = axis.a * axis.a;
        const auto more = axis.b * axis.b - a_square;
        const auto beside = axis.distance * axis.b;
        const auto bending = axis.distance * a_square * axis.b;
        COLDBRICK_APART
        for (int k = 0; k < end; ++k) {
            const auto p = ps[k];
            const auto per_n = 1 / std::sqrt(a_square + more * p * p);
            const auto off = p * (axis.a + beside * per_n) - along[k];
            const auto slope = std::max(axis.a + bending * per_n * per_n * per_n, least_slope);
            ps[k] = std::min(std::max(p - off / slope, axis.least), axis.most);
            across[k] = std::fabs(off);
        }
    });
}

double farthest_off(int count, const CurvePlaces& places) noexcept {
    return *std::max_element(places.across, places.across + count);
}

// From where a curve would be whose steepness changes evenly with the square of the place.
void find_beside(const CurveAxis& axis, int count, const CurvePlaces& places) noexcept {
    const auto base = axis.place(axis.least);
    const auto reach = axis.place(axis.most);
    const auto per_reach = reach > base ? 1 / (reach - base) : 0;
    const auto first_slope = axis.steepness(axis.least);
    const auto more_slope = axis.steepness(axis.most) - first_slope;
    run_in_vectors([=, axis = axis, end = filled_up(count)]() COLDBRICK_KERNEL {
        const auto [along, across, ps, qs] = places;
        const auto span = axis.most - axis.least;
        const auto is_cut = axis.least > 0;
        COLDBRICK_APART
        for (int k = 0; k < end; ++k) {
            const auto part = (along[k] - base) * per_reach;
            const auto guess = along[k] / (first_slope + more_slope * part * part);
            ps[k] = std::min(std::max(is_cut ? axis.least + span * part : guess, axis.least), axis.most);
        }
    });
    // Each round squares what is left, but where the curve bends most; there, halving is as much as it takes, and a
    // place along that is nearly right says little about the one across.
    constexpr auto much = 0.25;
    const auto least_turn = std::min(axis.turn(axis.least), axis.turn(axis.most));
    const auto near_enough = least_turn > much ? 2e-4 : 1e-6;
    constexpr auto most_rounds = 24;
    for (auto round = 0; round < most_rounds && (round == 0 || farthest_off(count, places) > near_enough); ++round) {
        improve(axis, count, places);
    }
    run_in_vectors([=, axis = axis, end = filled_up(count)]() COLDBRICK_KERNEL {
        const auto [along, across, ps, qs] = places;
        COLDBRICK_APART
        for (int k = 0; k < end; ++k) {
            const auto p = ps[k];
            const auto q = std::sqrt((1 - p) * (1 + p));
            qs[k] = q;
            across[k] = q * (axis.b + axis.distance * axis.a * axis.per_normal(p));
        }
    });
}

}  // namespace

CurveAxes axes_of_curve(double half_width, double half_height, double distance) noexcept {
    const auto most_across = end_beside(half_width, half_height, distance);
    const auto most_up = end_beside(half_height, half_width, distance);
    const auto beside = [](double most) { return std::sqrt((1 - most) * (1 + most)); };
    return {
        .across =
            {.a = half_width, .b = half_height, .distance = distance, .least = beside(most_up), .most = most_across},
        .up = {.a = half_height, .b = half_width, .distance = distance, .least = beside(most_across), .most = most_up}};
}

void find_places(const CurveAxis& axis, int count, const CurvePlaces& places) noexcept {
    if (count == 0) return;
    fill_up(places.along, count);
    axis.distance == 0 ? find_on_ellipse(axis, count, places) : find_beside(axis, count, places);
}

}  // namespace coldbrick::inline v0::detail

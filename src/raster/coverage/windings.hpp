// What is covered, by the winding numbers of a place in several groups of contours.
#pragma once

#include <cstddef>
#include <cstdint>

namespace coldbrick::inline v0::detail {

inline constexpr std::size_t most_groups = 5;

// By the groups in which a place is inside: bit k says whether it is covered if those are the ones whose bits are set
// in k. Where it is inside of none, it is not.
using GroupTruth = std::uint32_t;

// The truth that holds(groups) returns for each set of groups.
template <class Holds>
constexpr GroupTruth group_truth(const Holds& holds) noexcept {
    GroupTruth truth = 0;
    for (auto groups = 1U; groups < 1U << most_groups; ++groups) truth |= holds(groups) ? 1U << groups : 0U;
    return truth;
}

// What is covered.
struct CoverRule {
    GroupTruth truth = group_truth([](unsigned groups) { return (groups & 1U) != 0; });  // the first one alone counts
    // Of each group: the bits of the winding number that count (1 is even-odd, all is nonzero, the sign's is what goes
    // round the other way), and 1 for the number of times that contours go round counter-clockwise, -1 for clockwise.
    int masks[most_groups] = {-1, -1, -1, -1, -1};
    int signs[most_groups] = {1, 1, 1, 1, 1};
};

// The winding numbers of a place in each group, and the groups in which it is inside.
struct Windings {
    int of[most_groups] = {};
    unsigned inside = 0;
    friend bool operator==(const Windings&, const Windings&) = default;
};

// Whether a place is covered, by its winding number in each group.
class CoverTruth {
  public:
    explicit CoverTruth(const CoverRule& rule) noexcept : rule_{rule} {}

    [[nodiscard]] bool operator()(const Windings& at) const noexcept { return ((rule_.truth >> at.inside) & 1U) != 0; }

    void add(Windings& to, int group, int by) const noexcept {
        auto& winding = to.of[group];
        winding += by;
        const auto bit = 1U << static_cast<unsigned>(group);
        to.inside = (winding & rule_.masks[group]) != 0 ? to.inside | bit : to.inside & ~bit;
    }

  private:
    const CoverRule& rule_;
};

}  // namespace coldbrick::inline v0::detail

#include "coldbrick/scene.hpp"

#include <algorithm>
#include <array>
#include <utility>

namespace coldbrick::inline v0 {

namespace {

constexpr std::size_t longest = 64;

// How many letters must be put in, left out, changed or swapped with their neighbour: the optimal string alignment
// distance. Neither word is longer than `longest`.
std::size_t distance(std::string_view a, std::string_view b) noexcept {
    using Row = std::array<std::size_t, longest + 1>;
    std::array<Row, 3> rows{};
    auto* before = &rows[0];
    auto* last = &rows[1];
    auto* row = &rows[2];
    for (std::size_t j = 0; j <= b.size(); ++j) (*last)[j] = j;
    for (std::size_t i = 1; i <= a.size(); ++i) {
        (*row)[0] = i;
        for (std::size_t j = 1; j <= b.size(); ++j) {
            const auto changed = (*last)[j - 1] + (a[i - 1] == b[j - 1] ? 0U : 1U);
            (*row)[j] = std::min({(*last)[j] + 1, (*row)[j - 1] + 1, changed});
            const auto swapped = i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1];
            if (swapped) (*row)[j] = std::min((*row)[j], (*before)[j - 2] + 1);
        }
        std::swap(before, last);
        std::swap(last, row);
    }
    return (*last)[b.size()];
}

}  // namespace

std::string_view nearest_word(std::string_view word, const std::vector<std::string_view>& known) {
    if (word.empty() || word.size() > longest) return {};
    std::string_view nearest;
    auto least = std::max<std::size_t>(1, word.size() / 3) + 1;
    for (const auto candidate : known) {
        const auto lengths = std::minmax({word.size(), candidate.size()});
        if (lengths.second > longest || lengths.second - lengths.first >= least) continue;
        const auto steps = distance(word, candidate);
        if (steps >= least || steps >= candidate.size()) continue;
        least = steps;
        nearest = candidate;
    }
    return nearest;
}

}  // namespace coldbrick::inline v0

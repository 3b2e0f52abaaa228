#include "coldbrick/scene.hpp"

#include <algorithm>

namespace coldbrick {

namespace {

// How many letters must be put in, left out, changed or swapped with their neighbour: the optimal string alignment
// distance.
std::size_t distance(std::string_view a, std::string_view b) {
    std::vector<std::vector<std::size_t>> steps(a.size() + 1, std::vector<std::size_t>(b.size() + 1));
    for (std::size_t i = 0; i <= a.size(); ++i) steps[i][0] = i;
    for (std::size_t j = 0; j <= b.size(); ++j) steps[0][j] = j;
    for (std::size_t i = 1; i <= a.size(); ++i) {
        for (std::size_t j = 1; j <= b.size(); ++j) {
            const auto changed = steps[i - 1][j - 1] + (a[i - 1] == b[j - 1] ? 0U : 1U);
            steps[i][j] = std::min({steps[i - 1][j] + 1, steps[i][j - 1] + 1, changed});
            const auto swapped = i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1];
            if (swapped) steps[i][j] = std::min(steps[i][j], steps[i - 2][j - 2] + 1);
        }
    }
    return steps[a.size()][b.size()];
}

}  // namespace

std::string_view nearest_word(std::string_view word, const std::vector<std::string_view>& known) {
    constexpr std::size_t longest = 64;
    if (word.empty() || word.size() > longest) return {};
    std::string_view nearest;
    auto least = std::max<std::size_t>(1, word.size() / 3) + 1;
    for (const auto candidate : known) {
        const auto steps = distance(word, candidate);
        if (steps >= least || steps >= candidate.size()) continue;
        least = steps;
        nearest = candidate;
    }
    return nearest;
}

}  // namespace coldbrick

// Of what columns and rows a picture's are mixed in another size.
#pragma once

#include "coldbrick/resize.hpp"

#include <algorithm>
#include <cstddef>
#include <vector>

namespace coldbrick::inline v0::detail {

// What a column (or row) of the result is made of: weights of columns from the first on, and their sum.
struct Mix {
    int first;
    std::vector<double> weights;
    double sum;
};

// Of each one of the result. By box, and by bilinear where it is not reduced, the weights are whole numbers and all
// sums are the same.
[[nodiscard]] std::vector<Mix> mixes(int from, int to, Scaling how);

// The sum of the weights by box.
[[nodiscard]] double box_sum(int from, int to) noexcept;

// Columns or rows of the result: of each the first one that it is mixed of, of as many for all, and their weights.
template <class Number>
struct Mixes {
    // Weights of 0 make up for those that one has fewer. Where all sums are the same, the weights stay as they are;
    // else each is divided by its own.
    Mixes(const std::vector<Mix>& all, int from) {
        const auto is_even =
            std::all_of(all.begin(), all.end(), [&](const Mix& of) { return of.sum == all.front().sum; });
        if (is_even) sum = all.front().sum;
        for (const auto& mix : all) count = std::max(count, mix.weights.size());
        weights.resize(all.size() * count);
        for (std::size_t i = 0; i < all.size(); ++i) {
            const auto& mix = all[i];
            const auto begin = std::min(mix.first, from - static_cast<int>(count));
            first.push_back(begin);
            auto* const to = weights.data() + i * count + (mix.first - begin);
            const auto unit = is_even ? 1 : mix.sum;
            std::transform(mix.weights.begin(), mix.weights.end(), to,
                           [=](double weight) { return static_cast<Number>(weight / unit); });
        }
    }

    double sum = 1;
    std::size_t count = 1;
    std::vector<int> first;
    std::vector<Number> weights;
};

}  // namespace coldbrick::inline v0::detail

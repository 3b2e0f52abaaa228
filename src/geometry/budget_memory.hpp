// Memory and sorting inside the budget of the thread.
#pragma once

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cstddef>
#include <memory_resource>

namespace coldbrick::inline v0::detail {

// The resource of what std::pmr containers keep beyond their memory at hand.
[[nodiscard]] std::pmr::memory_resource* counted_memory() noexcept;

// std::sort. Of many elements, the budget is asked between comparisons.
template <class Iterator, class Before>
void sort_in_budget(Iterator first, Iterator last, const Before& before) {
    constexpr std::ptrdiff_t many = 1 << 15;
    if (last - first < many || !has_budget()) return std::sort(first, last, before);
    std::sort(first, last, [&](const auto& a, const auto& b) {
        spend_work(1);
        return before(a, b);
    });
}

}  // namespace coldbrick::inline v0::detail

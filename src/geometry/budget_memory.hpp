// Memory and sorting inside the budget of the thread.
#pragma once

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <array>
#include <cstddef>
#include <memory_resource>

namespace coldbrick::inline v0::detail {

// The resource of what std::pmr containers keep beyond their memory at hand.
[[nodiscard]] std::pmr::memory_resource* counted_memory() noexcept;

// Memory for one call: small blocks come from the first bytes, which are at hand, and are freed together; large ones
// are freed one by one.
template <std::size_t nearby_bytes>
class CallMemory : public std::pmr::memory_resource {
  public:
    CallMemory() noexcept : small_{nearby_.data(), nearby_.size(), counted_memory()} {}

  private:
    static constexpr std::size_t large = std::size_t{1} << 13U;
    void* do_allocate(std::size_t bytes, std::size_t alignment) override {
        return bytes <= large ? small_.allocate(bytes, alignment) : counted_memory()->allocate(bytes, alignment);
    }
    void do_deallocate(void* memory, std::size_t bytes, std::size_t alignment) override {
        if (bytes > large) counted_memory()->deallocate(memory, bytes, alignment);
    }
    [[nodiscard]] bool do_is_equal(const std::pmr::memory_resource& other) const noexcept override {
        return this == &other;
    }

    std::array<std::byte, nearby_bytes> nearby_;
    std::pmr::monotonic_buffer_resource small_;
};

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

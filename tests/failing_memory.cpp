#include "failing_memory.hpp"

#include <algorithm>
#include <cstdlib>

#include <malloc.h>

namespace failing_memory {

thread_local long allocations_left = -1;
thread_local long live_bytes = 0;
thread_local long peak_bytes = 0;

namespace {

void* allocate(std::size_t bytes) {
    if (allocations_left == 0) throw std::bad_alloc{};
    if (allocations_left > 0) --allocations_left;
    auto* const memory = std::malloc(bytes > 0 ? bytes : 1);
    if (memory == nullptr) throw std::bad_alloc{};
    live_bytes += static_cast<long>(malloc_usable_size(memory));
    peak_bytes = std::max(peak_bytes, live_bytes);
    return memory;
}

void release(void* memory) noexcept {
    if (memory == nullptr) return;
    live_bytes -= static_cast<long>(malloc_usable_size(memory));
    std::free(memory);
}

}  // namespace

}  // namespace failing_memory

void* operator new(std::size_t bytes) { return failing_memory::allocate(bytes); }
void* operator new[](std::size_t bytes) { return failing_memory::allocate(bytes); }
void* operator new(std::size_t bytes, const std::nothrow_t&) noexcept {
    try {
        return failing_memory::allocate(bytes);
    } catch (const std::bad_alloc&) {
        return nullptr;
    }
}
void operator delete(void* memory) noexcept { failing_memory::release(memory); }
void operator delete[](void* memory) noexcept { failing_memory::release(memory); }
void operator delete(void* memory, std::size_t) noexcept { failing_memory::release(memory); }
void operator delete[](void* memory, std::size_t) noexcept { failing_memory::release(memory); }

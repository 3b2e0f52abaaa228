// Memory that runs out when a test says so: operator new of the whole program, and what it has given.
#pragma once

#include "this_build.hpp"

#include <cstddef>
#include <new>
#include <utility>

namespace failing_memory {

// How many allocations of this thread go well until one fails, and then all; negative: none fails.
extern thread_local long allocations_left;

// How many bytes this thread has got and not given back, and the most that it had since that was set.
extern thread_local long live_bytes;
extern thread_local long peak_bytes;

// The number of allocations of a call, in which none fails.
template <class Call>
long allocations_in(const Call& call) {
    constexpr long many = 1'000'000'000;
    allocations_left = many;
    call();
    return many - std::exchange(allocations_left, -1);
}

// The most that a call has had at once.
template <class Call>
long peak_in(const Call& call) {
    const auto before = live_bytes;
    peak_bytes = before;
    call();
    return peak_bytes - before;
}

// Fails the first, the second ... allocation of a call, of very many only some. The call must throw std::bad_alloc or
// have been made: check(has_thrown) is called behind each, and behind one in which none fails.
template <class Call, class Check>
void fail_in_turn(const Call& call, const Check& check) {
    const auto count = allocations_in(call);
    check(false);
    const long tried = is_sanitized ? 3 : 6;
    for (long failing = 0; failing <= count; failing += failing < tried ? 1 : 1 + (count - failing) / 3) {
        auto has_thrown = false;
        allocations_left = failing;
        try {
            call();
        } catch (const std::bad_alloc&) {
            has_thrown = true;
        }
        allocations_left = -1;
        check(has_thrown);
    }
}

}  // namespace failing_memory

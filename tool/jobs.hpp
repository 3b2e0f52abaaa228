// Work on all cores, in order.
#pragma once

#include <condition_variable>
#include <cstddef>
#include <exception>
#include <map>
#include <mutex>
#include <thread>
#include <vector>

namespace coldbrick::tool {

// How many threads there are to be, 0 for one for each core.
[[nodiscard]] inline unsigned thread_count(unsigned asked) noexcept {
    return asked > 0 ? asked : std::max(1U, std::thread::hardware_concurrency());
}

// Calls make(number) for each number below count, on several threads, and take(number, made) with what it gives, on
// this one and in order. No more than some are made and not taken yet. What make or take throws ends it, by the least
// number.
template <class Make, class Take>
void in_order(std::size_t count, unsigned threads, const Make& make, const Take& take) {
    using Made = decltype(make(std::size_t{}));
    if (threads <= 1 || count <= 1) {
        for (std::size_t i = 0; i < count; ++i) take(i, make(i));
        return;
    }
    struct Result {
        std::vector<Made> made = {};  // one, or none
        std::exception_ptr thrown = nullptr;
    };
    std::mutex mutex;
    std::condition_variable changed;
    std::map<std::size_t, Result> results;
    std::size_t next = 0;
    std::size_t taken = 0;
    auto is_over = false;
    const std::size_t most_waiting = 2 * std::size_t{threads};
    const auto work = [&] {
        std::unique_lock lock{mutex};
        while (true) {
            changed.wait(lock, [&] { return is_over || next == count || next < taken + most_waiting; });
            if (is_over || next == count) return;
            const auto number = next++;
            lock.unlock();
            Result result;
            try {
                result.made.push_back(make(number));
            } catch (...) {
                result.thrown = std::current_exception();
            }
            lock.lock();
            results.emplace(number, std::move(result));
            changed.notify_all();
        }
    };
    std::vector<std::jthread> workers;
    for (unsigned i = 0; i < threads; ++i) workers.emplace_back(work);
    const auto end = [&] {
        const std::scoped_lock lock{mutex};
        is_over = true;
        changed.notify_all();
    };
    try {
        for (std::size_t i = 0; i < count; ++i) {
            std::unique_lock lock{mutex};
            changed.wait(lock, [&] { return results.contains(i); });
            auto result = std::move(results.extract(i).mapped());
            lock.unlock();
            if (result.thrown) std::rethrow_exception(result.thrown);
            take(i, std::move(result.made.front()));
            lock.lock();
            ++taken;
            changed.notify_all();
        }
    } catch (...) {
        end();
        throw;
    }
    end();
}

}  // namespace coldbrick::tool

// Work on several threads.
#pragma once

#include "coldbrick/budget.hpp"
#include "coldbrick/detail/public.hpp"

#include <algorithm>
#include <atomic>
#include <condition_variable>
#include <cstddef>
#include <exception>
#include <mutex>
#include <new>
#include <system_error>
#include <thread>
#include <utility>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

// Some threads that all do the same, in the budget of the thread that begins them: as many as the system and the memory
// give, which may be none. Work throws nothing.
class Workers {
  public:
    template <class Work>
    Workers(unsigned threads, const Work& work) {
        try {
            threads_.reserve(threads);
            auto* const budget = budget_of_thread.budget;
            const auto work_in_budget = [budget, &work] {
                const BudgetScope scope{budget};
                work();
            };
            for (unsigned i = 0; i < threads; ++i) threads_.emplace_back(work_in_budget);
        } catch (const std::system_error&) {  // no more threads
        } catch (const std::bad_alloc&) {     // no memory for more
        }
    }
    [[nodiscard]] bool empty() const noexcept { return threads_.empty(); }

  private:
    std::vector<std::jthread> threads_;
};

// Calls work(number) for each number below count, on several threads, in no order. What work throws is thrown when all
// have come to an end: of several, what the least number threw.
template <class Work>
void for_each_number(std::size_t count, unsigned threads, const Work& work) {
    std::atomic<std::size_t> next = 0;
    std::mutex mutex;
    std::exception_ptr thrown;
    auto thrower = count;
    const auto work_on = [&] {
        for (auto number = next++; number < count; number = next++) {
            try {
                work(number);
            } catch (...) {
                const std::scoped_lock lock{mutex};
                if (number > thrower) continue;
                thrower = number;
                thrown = std::current_exception();
            }
        }
    };
    {
        const Workers others{static_cast<unsigned>(std::min<std::size_t>(threads, count)) - (count > 0 ? 1U : 0U),
                             work_on};
        work_on();
    }
    if (thrown) std::rethrow_exception(thrown);
}

// Calls make(number) for each number below count, on several threads, and take(number, made) with what it gives, on
// this one and in order. No more than some are made and not taken yet. What make or take throws ends it, by the least
// number.
template <class Make, class Take>
void in_order(std::size_t count, unsigned threads, const Make& make, const Take& take) {  // NOLINT(*-function-size)
    using Made = decltype(make(std::size_t{}));
    if (threads <= 1 || count <= 1) {
        for (std::size_t i = 0; i < count; ++i) take(i, make(i));
        return;
    }
    struct Result {
        std::vector<Made> made = {};  // one, or none
        std::exception_ptr thrown = nullptr;
        [[nodiscard]] bool is_there() const noexcept { return !made.empty() || thrown; }
    };
    std::mutex mutex;
    std::condition_variable changed;
    // Number i waits in place i of as many as may wait, so that no memory is asked for where its lack could not be
    // reported it.
    std::vector<Result> waiting(std::min(count, 2 * std::size_t{threads}));
    const auto place_of = [&](std::size_t number) -> Result& { return waiting[number % waiting.size()]; };
    std::size_t next = 0;
    std::size_t taken = 0;
    auto is_over = false;
    const auto work = [&] {
        std::unique_lock lock{mutex};
        while (true) {
            changed.wait(lock, [&] { return is_over || next == count || next < taken + waiting.size(); });
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
            place_of(number) = std::move(result);
            changed.notify_all();
        }
    };
    const Workers workers{threads, work};
    if (workers.empty()) {
        for (std::size_t i = 0; i < count; ++i) take(i, make(i));
        return;
    }
    const auto end = [&] {
        const std::scoped_lock lock{mutex};
        is_over = true;
        changed.notify_all();
    };
    try {
        for (std::size_t i = 0; i < count; ++i) {
            std::unique_lock lock{mutex};
            changed.wait(lock, [&] { return place_of(i).is_there(); });
            auto result = std::exchange(place_of(i), {});
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

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick

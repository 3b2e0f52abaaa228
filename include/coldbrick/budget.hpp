// coldbrick/budget.hpp - limits on the time, memory and work of library calls, and their cancellation.
//
//     Budget budget{{.seconds = 2, .memory = 200'000'000}};
//     Drawing plan;
//     fill(plan, Circle{.center = {40, 36}, .radius = 30}, gold);
//     try {
//         budget.run([&] { render(plan, chart); });                         // or any other calls of the library
//         const auto wall = load<Rgb8>("wall.png", {.budget = &budget});    // of a reader, the same
//     } catch (const LimitError& error) {
//         std::cerr << error.what() << '\n';  // this takes longer than the 2 seconds that it may (limit seconds)
//     }
//     budget.cancel();  // from any thread: calls that run within it end in some milliseconds
//
// Without a budget nothing is measured. With one, each call of the library made inside run() asks for memory before it
// takes it, and looks at the clock every few milliseconds. A call that ends by a limit has drawn and changed nothing,
// as for any Error; of render(), the calls before it have been drawn.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/error.hpp"

#include <atomic>
#include <cstddef>
#include <cstdint>
#include <limits>
#include <memory>
#include <new>
#include <string_view>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// What calls may take together. Each limit may be 0; a call that needs any of it is refused then.
struct DrawLimits {
    double seconds = std::numeric_limits<double>::infinity();  // from when the budget is made
    // Bytes held at a time by outlines, spans, coverage, text and decoders; not the pixels that are drawn on.
    std::uint64_t memory = std::numeric_limits<std::uint64_t>::max();
    // Steps of some 10 nanoseconds: an edge in a row, a corner of an outline, a letter. The same on every machine.
    std::uint64_t work = std::numeric_limits<std::uint64_t>::max();
    friend bool operator==(const DrawLimits&, const DrawLimits&) = default;
};

inline constexpr DrawLimits nothing_spent = {.seconds = 0, .memory = 0, .work = 0};

enum class Limit { seconds, memory, work, cancelled };

// Thrown by a call that has met a limit of its budget. what() names the limit and its value.
class LimitError : public Error {
  public:
    LimitError(Limit limit, const std::string& what) : Error{what}, limit_{limit} {}
    [[nodiscard]] Limit limit() const noexcept { return limit_; }

  private:
    Limit limit_;
};

// May be shared by several threads. A budget that is made inside another's run() counts for both, and must not outlive
// it.
class Budget {
  public:
    // With what has been spent of the limits before. Throws Error for seconds that are below 0 or no number.
    explicit Budget(const DrawLimits& limits = {}, const DrawLimits& spent = nothing_spent);
    Budget(const Budget&) = delete;
    Budget(Budget&&) = delete;
    Budget& operator=(const Budget&) = delete;
    Budget& operator=(Budget&&) = delete;
    ~Budget() = default;

    // Calls call(), with the calls of the library that it makes on this thread, and those of their threads, inside
    // this budget; returns what it returns.
    template <class Call>
    decltype(auto) run(Call&& call);

    // Ends its calls, and each later one, by a LimitError. From any thread.
    void cancel() noexcept { is_cancelled_.store(true, std::memory_order_relaxed); }

    [[nodiscard]] bool is_cancelled() const noexcept { return is_cancelled_.load(std::memory_order_relaxed); }

    // Whether a call has met a limit.
    [[nodiscard]] bool is_spent() const noexcept {
        return is_spent_.load(std::memory_order_relaxed) || (outer_ != nullptr && outer_->is_spent());
    }

    [[nodiscard]] const DrawLimits& limits() const noexcept { return limits_; }
    // How much of each has been spent, and how much is left.
    [[nodiscard]] DrawLimits spent() const noexcept;
    [[nodiscard]] DrawLimits rest() const noexcept;

    // Throws LimitError if the time is over, or after cancel().
    void check();

    // Adds work, and checks it and the time. Throws LimitError.
    void spend(std::uint64_t work);

    // Adds work that has been done.
    void add(std::uint64_t work) noexcept;

    // Adds memory that is about to be asked for; throws LimitError if it is more than there is left.
    void take(std::uint64_t bytes);
    void give_back(std::uint64_t bytes) noexcept;

    // The name of the limit on memory in messages; kept as it is, not copied.
    void name_memory(std::string_view name) noexcept { memory_name_ = name; }

  private:
    [[nodiscard]] double seconds_spent() const noexcept;
    [[noreturn]] void refuse(Limit limit);

    DrawLimits limits_;
    std::string_view memory_name_ = "memory";
    Budget* outer_;
    std::int64_t begin_;  // in nanoseconds, of a clock that only goes on
    double seconds_before_;
    std::atomic<std::uint64_t> work_;
    std::atomic<std::uint64_t> memory_;
    std::atomic<bool> is_cancelled_ = false;
    std::atomic<bool> is_spent_ = false;
};

namespace detail {

// The budget of the calls on this thread, null for none, and the work that has not been added to it yet.
struct BudgetOfThread {
    Budget* budget = nullptr;
    std::uint64_t pending = 0;
    bool is_asked = true;  // whether work is checked; memory is in any case
};
inline thread_local constinit BudgetOfThread budget_of_thread;

// A budget, or none, for the calls on this thread until the end of the block.
class BudgetScope {
  public:
    explicit BudgetScope(Budget* budget) noexcept : before_{budget_of_thread} { budget_of_thread = {budget}; }
    BudgetScope(const BudgetScope&) = delete;
    BudgetScope(BudgetScope&&) = delete;
    BudgetScope& operator=(const BudgetScope&) = delete;
    BudgetScope& operator=(BudgetScope&&) = delete;
    ~BudgetScope() {
        const auto& [budget, pending, is_asked] = budget_of_thread;
        if (budget != nullptr) budget->add(pending);
        budget_of_thread = before_;
    }

  private:
    BudgetOfThread before_;
};

// Until the end of the block, work is not checked: something is being drawn, and it is all or nothing.
class UnaskedScope {
  public:
    UnaskedScope() noexcept : before_{budget_of_thread.is_asked} { budget_of_thread.is_asked = false; }
    UnaskedScope(const UnaskedScope&) = delete;
    UnaskedScope(UnaskedScope&&) = delete;
    UnaskedScope& operator=(const UnaskedScope&) = delete;
    UnaskedScope& operator=(UnaskedScope&&) = delete;
    ~UnaskedScope() { budget_of_thread.is_asked = before_; }

  private:
    bool before_;
};

[[nodiscard]] inline bool has_budget() noexcept { return budget_of_thread.budget != nullptr; }

void spend_pending();

// Throws LimitError if the budget of the thread is spent, after something that could not ask it.
inline void check_budget() {
    if (auto* const budget = budget_of_thread.budget) budget->check();
}

// Work that is done next. Throws LimitError.
inline void spend_work(std::uint64_t steps) {
    auto& [budget, pending, is_asked] = budget_of_thread;
    if (budget == nullptr) [[likely]]
        return;
    constexpr std::uint64_t between_checks = 1 << 14;
    pending += steps;
    if (pending >= between_checks && is_asked) spend_pending();
}

inline void take_memory(std::uint64_t bytes) {
    if (auto* const budget = budget_of_thread.budget) budget->take(bytes);
}
inline void give_back_memory(std::uint64_t bytes) noexcept {
    if (auto* const budget = budget_of_thread.budget) budget->give_back(bytes);
}

// Memory of containers without such an allocator, counted by the budget of the thread until the end of the block.
class MemoryHold {
  public:
    MemoryHold() noexcept = default;
    MemoryHold(const MemoryHold&) = delete;
    MemoryHold(MemoryHold&&) = delete;
    MemoryHold& operator=(const MemoryHold&) = delete;
    MemoryHold& operator=(MemoryHold&&) = delete;
    ~MemoryHold() { give_back_memory(bytes_); }

    // Throws LimitError.
    void add(std::uint64_t bytes) {
        take_memory(bytes);
        bytes_ += bytes;
    }

  private:
    std::uint64_t bytes_ = 0;
};

// Memory that is counted by the budget of the thread.
template <class T>
struct CountedAllocator {
    using value_type = T;
    CountedAllocator() noexcept = default;
    template <class Other>
    CountedAllocator(const CountedAllocator<Other>&) noexcept {}

    [[nodiscard]] T* allocate(std::size_t count) {
        if (count > std::numeric_limits<std::size_t>::max() / sizeof(T)) throw std::bad_array_new_length{};
        take_memory(count * sizeof(T));
        try {
            return std::allocator<T>{}.allocate(count);
        } catch (...) {
            give_back_memory(count * sizeof(T));
            throw;
        }
    }
    void deallocate(T* memory, std::size_t count) noexcept {
        give_back_memory(count * sizeof(T));
        std::allocator<T>{}.deallocate(memory, count);
    }
    template <class Other>
    friend bool operator==(const CountedAllocator&, const CountedAllocator<Other>&) noexcept {
        return true;
    }
};
template <class T>
using CountedVector = std::vector<T, CountedAllocator<T>>;

}  // namespace detail

template <class Call>
decltype(auto) Budget::run(Call&& call) {
    check();
    const detail::BudgetScope scope{this};
    return call();
}

}  // namespace v0
}  // namespace coldbrick

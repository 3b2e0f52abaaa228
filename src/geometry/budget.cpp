#include "geometry/budget_memory.hpp"
#include "geometry/limits.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <chrono>
#include <cstddef>
#include <new>
#include <string>
#include <utility>

namespace coldbrick::inline v0 {

namespace {

std::int64_t nanoseconds_now() noexcept {
    const auto now = std::chrono::steady_clock::now().time_since_epoch();
    return std::chrono::duration_cast<std::chrono::nanoseconds>(now).count();
}

}  // namespace

Budget::Budget(const DrawLimits& limits, const DrawLimits& spent)
    : limits_{limits},
      outer_{detail::budget_of_thread.budget},
      begin_{nanoseconds_now()},
      seconds_before_{spent.seconds},
      work_{spent.work},
      memory_{spent.memory} {
    if (!(limits.seconds >= 0)) {
        throw Error{"budget: seconds is " + detail::in_digits(limits.seconds) + "; allowed is 0 or more"};
    }
}

double Budget::seconds_spent() const noexcept {
    constexpr auto nanoseconds_of_second = 1e9;
    return seconds_before_ + static_cast<double>(nanoseconds_now() - begin_) / nanoseconds_of_second;
}

DrawLimits Budget::spent() const noexcept {
    return {.seconds = seconds_spent(),
            .memory = memory_.load(std::memory_order_relaxed),
            .work = work_.load(std::memory_order_relaxed)};
}

DrawLimits Budget::rest() const noexcept {
    const auto used = spent();
    return {.seconds = std::max(0.0, limits_.seconds - used.seconds),
            .memory = limits_.memory - std::min(limits_.memory, used.memory),
            .work = limits_.work - std::min(limits_.work, used.work)};
}

void Budget::refuse(Limit limit) {
    is_spent_.store(true, std::memory_order_relaxed);
    switch (limit) {
        case Limit::cancelled:
            throw LimitError{limit, "this has been cancelled"};
        case Limit::seconds:
            throw LimitError{limit, "this takes longer than the " + detail::in_digits(limits_.seconds) +
                                        " seconds that it may (limit seconds)"};
        case Limit::work:
            throw LimitError{limit, "this takes more than the " + std::to_string(limits_.work) +
                                        " steps of work that it may (limit work)"};
        default:
            throw LimitError{limit, "this takes more than the " + std::to_string(limits_.memory) +
                                        " bytes of memory that it may (limit " + std::string{memory_name_} + ")"};
    }
}

void Budget::check() {
    if (is_cancelled_.load(std::memory_order_relaxed)) refuse(Limit::cancelled);
    if (seconds_spent() > limits_.seconds) refuse(Limit::seconds);
    if (outer_ != nullptr) outer_->check();
}

void Budget::spend(std::uint64_t work) {
    for (auto* budget = this; budget != nullptr; budget = budget->outer_) {
        if (budget->work_.fetch_add(work, std::memory_order_relaxed) + work > budget->limits_.work) {
            budget->refuse(Limit::work);
        }
    }
    check();
}

void Budget::add(std::uint64_t work) noexcept {
    for (auto* budget = this; budget != nullptr; budget = budget->outer_) {
        budget->work_.fetch_add(work, std::memory_order_relaxed);
    }
}

void Budget::take(std::uint64_t bytes) {
    auto used = memory_.load(std::memory_order_relaxed);
    do {
        if (bytes > limits_.memory - std::min(used, limits_.memory)) refuse(Limit::memory);
    } while (!memory_.compare_exchange_weak(used, used + bytes, std::memory_order_relaxed));
    if (outer_ == nullptr) return;
    try {
        outer_->take(bytes);
    } catch (...) {
        memory_.fetch_sub(bytes, std::memory_order_relaxed);
        throw;
    }
}

// What was taken before the budget began may be given back to it: no more than it has.
void Budget::give_back(std::uint64_t bytes) noexcept {
    for (auto* budget = this; budget != nullptr; budget = budget->outer_) {
        auto used = budget->memory_.load(std::memory_order_relaxed);
        while (!budget->memory_.compare_exchange_weak(used, used - std::min(used, bytes), std::memory_order_relaxed)) {
        }
    }
}

namespace detail {

void spend_pending() {
    auto& [budget, pending, is_asked] = budget_of_thread;
    budget->spend(std::exchange(pending, 0));
}

namespace {

// Large blocks that a thread has returned, for its next ones of about their size: the system takes longer to hand out
// fresh pages than most calls take for their work.
class KeptBlocks {
  public:
    KeptBlocks() = default;
    KeptBlocks(const KeptBlocks&) = delete;
    KeptBlocks(KeptBlocks&&) = delete;
    KeptBlocks& operator=(const KeptBlocks&) = delete;
    KeptBlocks& operator=(KeptBlocks&&) = delete;
    ~KeptBlocks() {
        for (auto& block : blocks_) release(block);
        room_ = 0;
    }

    // One of that size; null if there is none.
    [[nodiscard]] void* take(std::size_t bytes) noexcept {
        for (auto& block : blocks_) {
            if (block.bytes != bytes) continue;
            room_ += bytes;
            return std::exchange(block, {}).memory;
        }
        return nullptr;
    }

    // Makes room for it in place of older ones. Returns whether it keeps it.
    bool keep(void* memory, std::size_t bytes) noexcept {
        for (std::size_t i = 0; i < blocks_.size() && (room_ < bytes || blocks_[oldest_].memory != nullptr); ++i) {
            release(blocks_[oldest_]);
            if (room_ < bytes) oldest_ = (oldest_ + 1) % blocks_.size();
        }
        if (room_ < bytes) return false;
        room_ -= bytes;
        blocks_[oldest_] = {memory, bytes};
        oldest_ = (oldest_ + 1) % blocks_.size();
        return true;
    }

  private:
    struct Block {
        void* memory = nullptr;
        std::size_t bytes = 0;
    };
    void release(Block& block) noexcept {
        room_ += block.bytes;
        ::operator delete(block.memory);
        block = {};
    }

    std::array<Block, 16> blocks_;
    std::size_t oldest_ = 0;
    std::size_t room_ = std::size_t{1} << 23U;  // 8 MiB for each thread
};

thread_local KeptBlocks kept_blocks;

class CountedMemory : public std::pmr::memory_resource {
    void* do_allocate(std::size_t bytes, std::size_t alignment) override {
        take_memory(bytes);
        try {
            if (!is_kept(bytes, alignment)) return std::pmr::new_delete_resource()->allocate(bytes, alignment);
            auto* const kept = kept_blocks.take(std::bit_ceil(bytes));
            return kept != nullptr ? kept : ::operator new(std::bit_ceil(bytes));
        } catch (...) {
            give_back_memory(bytes);
            throw;
        }
    }
    void do_deallocate(void* memory, std::size_t bytes, std::size_t alignment) override {
        give_back_memory(bytes);
        if (!is_kept(bytes, alignment)) {
            return std::pmr::new_delete_resource()->deallocate(memory, bytes, alignment);
        }
        if (!kept_blocks.keep(memory, std::bit_ceil(bytes))) ::operator delete(memory);
    }
    // Of a size that is rounded up to a power of two.
    static bool is_kept(std::size_t bytes, std::size_t alignment) noexcept {
        constexpr std::size_t least = std::size_t{1} << 14U;
        constexpr std::size_t most = std::size_t{1} << 22U;
        return bytes > least && bytes <= most && alignment <= alignof(std::max_align_t);
    }
    [[nodiscard]] bool do_is_equal(const std::pmr::memory_resource& other) const noexcept override {
        return this == &other;
    }
};

}  // namespace

std::pmr::memory_resource* counted_memory() noexcept {
    static CountedMemory memory;
    return &memory;
}

}  // namespace detail

}  // namespace coldbrick::inline v0

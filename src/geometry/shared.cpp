#include "coldbrick/detail/shared.hpp"

#include <atomic>

namespace coldbrick::inline v0::detail {

Counted::~Counted() = default;

void keep(const Counted* value) noexcept {
    if (value != nullptr) std::atomic_ref{value->owners_}.fetch_add(1, std::memory_order_relaxed);
}

void release(const Counted* value) noexcept {
    if (value == nullptr) return;
    if (std::atomic_ref{value->owners_}.fetch_sub(1, std::memory_order_acq_rel) == 1) delete value;
}

}  // namespace coldbrick::inline v0::detail

// Values that do not change and that several owners share.
#pragma once

#include "coldbrick/detail/public.hpp"

#include <cstddef>
#include <type_traits>
#include <utility>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

// What can be shared: it lives as long as it has an owner. Owners may be on several threads.
class Counted {
  public:
    Counted() noexcept = default;
    // A copy is shared by itself.
    Counted(const Counted&) noexcept {}
    Counted(Counted&&) noexcept {}
    Counted& operator=(const Counted&) noexcept { return *this; }
    Counted& operator=(Counted&&) noexcept { return *this; }
    virtual ~Counted();

  private:
    friend void keep(const Counted* value) noexcept;
    friend void release(const Counted* value) noexcept;

    mutable int owners_ = 0;
};

// Both do nothing for null.
void keep(const Counted* value) noexcept;
void release(const Counted* value) noexcept;

// One of the owners of a value, or of none.
template <class T>
class Shared {
  public:
    constexpr Shared() noexcept = default;
    constexpr Shared(std::nullptr_t) noexcept {}

    // The first owner of a new value.
    explicit Shared(const T* created) noexcept : value_{created} { keep_value(); }

    template <class Derived>
    requires std::is_base_of_v<T, Derived> Shared(const Shared<Derived>& other)
    noexcept : Shared{static_cast<const T*>(other.get())} {}

    Shared(const Shared& other) noexcept : value_{other.value_} { keep_value(); }
    Shared(Shared&& other) noexcept : value_{std::exchange(other.value_, nullptr)} {}
    Shared& operator=(const Shared& other) noexcept {
        if (this != &other) *this = Shared{other};
        return *this;
    }
    Shared& operator=(Shared&& other) noexcept {
        std::swap(value_, other.value_);
        return *this;
    }
    ~Shared() {
        if (value_ != nullptr) release(value_);
    }

    [[nodiscard]] const T* get() const noexcept { return static_cast<const T*>(value_); }
    const T& operator*() const noexcept { return *get(); }
    const T* operator->() const noexcept { return get(); }
    explicit operator bool() const noexcept { return value_ != nullptr; }

    // Whether both own the same.
    friend bool operator==(const Shared&, const Shared&) noexcept = default;

  private:
    void keep_value() const noexcept {
        if (value_ != nullptr) keep(value_);
    }

    const Counted* value_ = nullptr;
};

template <class T, class... Parts>
Shared<T> make_shared_value(Parts&&... parts) {
    return Shared<T>{new T{std::forward<Parts>(parts)...}};
}

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick

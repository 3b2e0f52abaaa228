// A reference to a function object of another owner.
#pragma once

#include "coldbrick/detail/public.hpp"

#include <type_traits>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

template <class Signature>
class FunctionRef;

// Refers to a function object, which must outlive it.
template <class Result, class... Arguments>
class FunctionRef<Result(Arguments...)> {
  public:
    using Call = Result (*)(const void* of, Arguments... arguments);

    template <class Function>
    requires std::is_invocable_r_v<Result, const Function&, Arguments...> FunctionRef(const Function& function)
    noexcept
        : of_{&function}, call_{[](const void* of, Arguments... arguments) -> Result {
              return (*static_cast<const Function*>(of))(arguments...);
          }} {}
    // Calls call(of, arguments...).
    FunctionRef(const void* of, Call call) noexcept : of_{of}, call_{call} {}

    Result operator()(Arguments... arguments) const { return call_(of_, arguments...); }

  private:
    const void* of_;
    Call call_;
};

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick

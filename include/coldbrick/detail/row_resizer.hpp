// A picture in another size, made from its rows as they come.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/resize.hpp"

#include <memory>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

// Gives the pixels that resize() gives, and keeps only the rows that are being mixed.
class RowResizer {
  public:
    // For a picture of that size in the format of `rows`. The result has its own format and size, and outlives this.
    // Throws Error as resize() does.
    RowResizer(Size from, const Surface& rows, const Surface& result, Scaling how);
    RowResizer(const RowResizer&) = delete;
    RowResizer(RowResizer&&) = delete;
    RowResizer& operator=(const RowResizer&) = delete;
    RowResizer& operator=(RowResizer&&) = delete;
    ~RowResizer();

    // Row y, which comes after the one before it: that of a surface that has it at a place. Behind the last one all
    // of the result is there.
    void take(const Surface& rows, Point at, int y);

    class Method;

  private:
    std::unique_ptr<Method> method_;
};

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick

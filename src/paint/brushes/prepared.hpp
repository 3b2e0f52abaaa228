// Inks made ready for pixels of a format, and lists of equal shapes.
#pragma once

#include "paint/blending/transfer_curves.hpp"
#include "paint/brushes/brush.hpp"

#include "coldbrick/palette.hpp"
#include "coldbrick/prepared_ink.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// What can be found out of an ink before it is laid anywhere.
class ReadyInk final : public Counted {
  public:
    // Throws Error for an ink that the target cannot take.
    ReadyInk(const Target& target, const Ink& ink);
    ReadyInk(const ReadyInk&) = delete;
    ReadyInk(ReadyInk&&) = delete;
    ReadyInk& operator=(const ReadyInk&) = delete;
    ReadyInk& operator=(ReadyInk&&) = delete;
    ~ReadyInk() override = default;

    [[nodiscard]] const Ink& ink() const noexcept { return ink_; }
    [[nodiscard]] const Brush& brush() const noexcept { return brush_; }

    // Throws Error for pixels of another format or with another palette.
    void check(const Target& target) const;

  private:
    Ink ink_;
    const FormatKernel* kernel_;
    std::optional<Palette> palette_;
    Brush brush_;
    std::optional<TransferCurves> curves_;
};

}  // namespace coldbrick::inline v0::detail

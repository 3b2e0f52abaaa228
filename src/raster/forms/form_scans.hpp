// Forms to spans and coverage, where their pixels are not told by whole numbers.
#pragma once

#include "raster/forms/forms.hpp"
#include "raster/forms/placement.hpp"

namespace coldbrick::inline v0::detail {

// Hands the spans of a form, filled or stroked and placed, to the receiver.
Box scan_form(const Form& form, const Fill& how, const Placement& placement, const Box& clip,
              const SpanReceiver& receiver);
Box scan_form(const Form& form, const Stroke& how, const Placement& placement, const Box& clip,
              const SpanReceiver& receiver);

// Of a clip that is larger than any picture, only what may have something of a form in it that reaches so far beyond
// its edge: a sweep goes over windows whose width is a number.
[[nodiscard]] Box seen_part(const Form& form, double reach, const Placement& placement, const Box& clip);

}  // namespace coldbrick::inline v0::detail

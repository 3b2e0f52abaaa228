#include "paint/blending/lines_16.hpp"

#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"
#include "paint/blending/blend_arithmetic.hpp"
#include "paint/blending/over_16.hpp"

#include <algorithm>
#include <cstring>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto deep_whole = 65535;

using Whole4 = std::int32_t __attribute__((vector_size(16)));
using Doubles4 = double __attribute__((vector_size(32)));

}  // namespace

// Denominators are at most 65535^2, so that a fraction is farther from a half than what is lost in doubles: no value on
// a line is above 65535, and each is counted from where its line begins.
void Lines16::set(std::size_t place, Blend blend, std::uint16_t ink, double alpha) noexcept {
    const auto last = alpha > 0 ? last_before_bend(blend, ink, alpha, deep_whole) : deep_whole;
    const auto put = [&](Lines& lines, int from, int to) {
        const auto [raised, step] = rise_between(blend, ink, alpha, from, to, deep_whole);
        lines.first[place] = from;
        lines.raised[place] = raised;
        lines.step[place] = step;
    };
    put(before_, 0, last);
    if (last < deep_whole) return put(behind_, last + 1, deep_whole);
    behind_.first[place] = deep_whole + 1;  // which none is
    behind_.raised[place] = behind_.step[place] = 0;
}

Lines16::Lines16(Blend blend, const std::array<std::uint16_t, 4>& ink, const std::array<std::uint32_t, 4>& alphas,
                 bool is_gray) noexcept
    : is_gray_{is_gray} {
    for (std::size_t i = 0; i < ink.size(); ++i) set(i, blend, ink[i], alphas[i]);
}

bool Lines16::lay(const Surface& surface, const Span& run) const noexcept {
    auto* const pixels = pixel_address(surface, run.x, run.y);
    const auto count = static_cast<std::size_t>(run.length);
    if (!is_gray_ && !are_deep_opaque(pixels, count)) return false;
    run_in_vectors([=, before = before_, behind = behind_, all = is_gray_ ? count : 4 * count]() COLDBRICK_KERNEL {
        const auto change_by = [](const Doubles4& number, const Lines& lines, Doubles4& result) COLDBRICK_KERNEL {
            Doubles4 first;
            Doubles4 raised;
            Doubles4 step;
            read(lines.first.data(), first);
            read(lines.raised.data(), raised);
            read(lines.step.data(), step);
            result = (number - first) * step + raised;
        };
        Doubles4 bend;
        read(behind.first.data(), bend);
        // Many at a time, in loops of conversions of which vectors are made.
        constexpr std::size_t at_once = 256;
        std::uint16_t numbers[at_once];
        std::int32_t whole[at_once];
        for (std::size_t done = 0; done < all; done += at_once) {
            const auto length = std::min(at_once, all - done);
            std::memcpy(numbers, pixels + 2 * done, 2 * length);
            for (std::size_t i = 0; i < length; ++i) whole[i] = numbers[i];
            for (std::size_t i = 0; i < length; i += 4) {
                Whole4 some;
                read(whole + i, some);
                const auto number = __builtin_convertvector(some, Doubles4);
                Doubles4 result;
                Doubles4 result_behind;
                change_by(number, before, result);
                change_by(number, behind, result_behind);
                some = __builtin_convertvector(number < bend ? result : result_behind, Whole4);
                write(some, whole + i);
            }
            for (std::size_t i = 0; i < length; ++i) numbers[i] = static_cast<std::uint16_t>(whole[i]);
            std::memcpy(pixels + 2 * done, numbers, 2 * length);
        }
    });
    return true;
}

std::optional<Lines16> lines_16_of(const FormatKernel& kernel, const Ink& ink) noexcept {
    const auto blend = ink.how().blend;
    const auto channels = ink.how().channels;
    const auto is_of_lines = ink.how().light == Light::encoded && goes_by_rows(blend);
    const auto deep = is_of_lines ? deep_ink_of(kernel, ink) : std::nullopt;
    if (!deep) return std::nullopt;
    const auto& color = deep->color;
    const auto alpha = deep->alpha;
    if (kernel.is_gray) {
        const auto gray = luma(color);
        const auto taken = has(channels, Channels::color) ? alpha : 0;
        return Lines16{blend, {gray, gray, gray, gray}, {taken, taken, taken, taken}, true};
    }
    const auto taken = [&](Channels channel) { return has(channels, channel) ? alpha : 0; };
    return Lines16{blend,
                   {color.red, color.green, color.blue, 0},
                   {taken(Channels::red), taken(Channels::green), taken(Channels::blue), 0},
                   false};
}

}  // namespace coldbrick::inline v0::detail

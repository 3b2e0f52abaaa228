#include "paint/blending/transfer_curves.hpp"

#include "formats/kernels.hpp"
#include "formats/source_over.hpp"
#include "geometry/vectors.hpp"
#include "paint/blending/blend_arithmetic.hpp"
#include "paint/blending/blending_rows.hpp"

#include <algorithm>
#include <bit>
#include <cmath>
#include <cstring>
#include <numeric>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto m = 255.0;
constexpr auto line_unit = 16777216.0;  // 2^24

// Which channel each byte of a pixel is: 0 to 3 from red on. Of grays, red.
std::array<unsigned, 4> channels_of(const Target& target) noexcept {
    const auto pixel = encode(target, Color{.red = 0, .green = 1, .blue = 2, .alpha = 3});
    if (target.kernel->is_gray) return {};
    return {pixel[0], pixel[1], pixel[2], pixel[3]};
}

// Where a byte of a word is.
constexpr unsigned shift_of(std::size_t byte) noexcept {
    return 8 * static_cast<unsigned>(std::endian::native == std::endian::little ? byte : 3 - byte);
}

}  // namespace

// Denominators are at most 255 * 255, so rounding the slope to 2^-24 (2^-25 for each of 255 steps) does not move a
// fraction past a half.
TransferCurves::Line TransferCurves::line_through(const Compositing& how, double ink, double alpha, int first,
                                                  int last) noexcept {
    const auto [raised, step] = rise_between(how.blend, ink, alpha, first, last, m);
    const auto slope = static_cast<std::int64_t>(std::nearbyint(step * line_unit));
    const auto start = static_cast<std::int64_t>(std::nearbyint(raised * line_unit)) - slope * first;
    return {.slope = static_cast<std::uint32_t>(slope), .start = static_cast<std::uint32_t>(start)};
}

TransferCurves::Bend TransferCurves::bend_of(const Compositing& how, std::uint8_t ink, std::uint8_t alpha) noexcept {
    const auto last = alpha > 0 ? last_before_bend(how.blend, ink, alpha, 255) : 255;
    const auto first = line_through(how, ink, alpha, 0, last);
    return {.first = first, .behind = last < 255 ? line_through(how, ink, alpha, last + 1, 255) : first, .last = last};
}

TransferCurves::TransferCurves(const Target& target, const Compositing& how, Color color)
    : kind_{Kind::one_line}, pixel_bytes_{static_cast<std::size_t>(target.kernel->pixel_bytes())} {
    if (target.kernel->is_indexed) {
        set_numbers(target, how, color);
    } else if (how.light == Light::linear || how.blend == Blend::soft_light) {
        set_table(target, how, color);
    } else {
        set_curves(target, how, color);
    }
}

void TransferCurves::set_curves(const Target& target, const Compositing& how, Color color) noexcept {
    const auto is_gray = target.kernel->is_gray;
    if (is_gray) color = {luma(color), luma(color), luma(color), color.alpha};
    color = weakened(color, how);
    const std::array<std::uint8_t, 4> inks = {color.red, color.green, color.blue, 0};
    constexpr std::array own = {Channels::red, Channels::green, Channels::blue, Channels::none};
    const auto channels = channels_of(target);
    bits_.fill(0);
    for (std::size_t i = 0; i < pixel_bytes_; ++i) {
        const auto of = channels[i];
        const auto is_taken = has(how.channels, is_gray ? Channels::color : own[of]);
        if (how.blend == Blend::exclusive_or) {
            const auto bits = std::uint32_t{is_taken ? inks[of] : std::uint8_t{0}};
            for (auto byte = i; byte < period_bytes; byte += pixel_bytes_)
                bits_[byte / 4] |= bits << shift_of(byte % 4);
        } else {
            set_bend(i, bend_of(how, inks[of], is_taken ? color.alpha : std::uint8_t{0}));
        }
    }
    if (how.blend == Blend::exclusive_or) kind_ = Kind::turned_bits;
}

void TransferCurves::set_bend(std::size_t byte, const Bend& bend) noexcept {
    if (bend.last < 255) kind_ = Kind::two_lines;
    for (; byte < period_bytes; byte += pixel_bytes_) {
        const auto word = byte / 4;
        bends_.slope[byte % 4][word] = bend.first.slope;
        bends_.start[byte % 4][word] = bend.first.start;
        bends_.more_slope[byte % 4][word] = bend.behind.slope - bend.first.slope;
        bends_.more_start[byte % 4][word] = bend.behind.start - bend.first.start;
        bends_.last[byte % 4][word] = bend.last;
    }
}

void TransferCurves::set_numbers(const Target& target, const Compositing& how, Color color) {
    kind_ = Kind::table;
    std::array<std::uint8_t, 256> numbers;
    std::iota(numbers.begin(), numbers.end(), std::uint8_t{0});
    auto row = target;
    row.top_left = numbers.data();
    row.size = {.width = 256, .height = 1};
    std::array<Color, 256> below;
    std::array<Color, 256> inks;
    inks.fill(color);
    target.kernel->load(row, {}, 256, below.data());
    Blender{.how = how, .has_alpha = true, .is_gray = false}.lay(inks.data(), {.each = nullptr, .all = 255}, 256,
                                                                 below.data());
    target.kernel->store(row, below.data(), 256, {});
    table_[0] = numbers;
}

void TransferCurves::set_table(const Target& target, const Compositing& how, Color color) {
    kind_ = Kind::table;
    const auto& kernel = *target.kernel;
    std::array<Color, 256> grays;
    std::array<Color, 256> inks;
    inks.fill(color);
    for (std::size_t i = 0; i < grays.size(); ++i) grays[i] = gray(static_cast<std::uint8_t>(i));
    const auto blender = Blender{.how = how, .has_alpha = kernel.has_alpha, .is_gray = kernel.is_gray};
    blender.lay(inks.data(), {.each = nullptr, .all = 255}, 256, grays.data());
    const auto of = channels_of(target);
    for (std::size_t i = 0; i < grays.size(); ++i) {
        const auto& [red, green, blue, alpha] = grays[i];
        const std::array<std::uint8_t, 4> values = {red, green, blue, static_cast<std::uint8_t>(i)};
        for (std::size_t byte = 0; byte < pixel_bytes_; ++byte) table_[byte][i] = values[of[byte]];
    }
}

namespace {

// A value from 0 to 255 on a line, in one number or in eight.
COLDBRICK_INLINE void go_along(auto& value, const auto& slope, const auto& start) noexcept {
    value = (value * slope + start) >> 24;
}

}  // namespace

// Bytes are read and written, so memory decides how fast it goes: it is prefetched some bytes ahead.
template <TransferCurves::Kind kind, std::size_t changed_bytes>
void TransferCurves::change_periods(std::uint8_t* first, std::size_t periods) const noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL {
        constexpr auto ahead = 4096;
        auto* const end = first + periods * period_bytes;
        for (auto* bytes = first; bytes < end; bytes += period_bytes) {
            prefetch_at(bytes, ahead);
            prefetch_at(bytes + 64, ahead);
            for (std::size_t i = 0; i < period; i += 8) {
                Words8 words;
                read(bytes + 4 * i, words);
                if constexpr (kind == Kind::turned_bits) {
                    Words8 bits;
                    read(&bits_[i], bits);
                    words ^= bits;
                } else {
                    bend_words<kind, changed_bytes>(i, words);
                }
                write(words, bytes + 4 * i);
            }
        }
    });
}

template <TransferCurves::Kind kind, std::size_t changed_bytes>
COLDBRICK_INLINE void TransferCurves::bend_words(std::size_t word, Words8& words) const noexcept {
    const Words8 kept = changed_bytes < 4 ? words & std::uint32_t{255} << shift_of(3) : words & 0U;
    auto result = kept;
    for (std::size_t byte = 0; byte < changed_bytes; ++byte) {
        Words8 value = words >> shift_of(byte) & 255U;
        Words8 slope;
        Words8 start;
        read(&bends_.slope[byte][word], slope);
        read(&bends_.start[byte][word], start);
        if constexpr (kind == Kind::two_lines) {
            Words8 more_slope;
            Words8 more_start;
            Ints8 last;
            read(&bends_.more_slope[byte][word], more_slope);
            read(&bends_.more_start[byte][word], more_start);
            read(&bends_.last[byte][word], last);
            const auto behind = reinterpret_cast<Words8>(reinterpret_cast<Ints8>(value) > last);
            slope += behind & more_slope;
            start += behind & more_start;
        }
        go_along(value, slope, start);
        result |= value << shift_of(byte);
    }
    words = result;
}

std::uint8_t TransferCurves::changed(std::uint8_t byte, std::size_t place) const noexcept {
    const auto word = place / 4;
    const auto at = place % 4;
    if (kind_ == Kind::turned_bits) return static_cast<std::uint8_t>(byte ^ bits_[word] >> shift_of(at));
    const auto is_behind = byte > bends_.last[at][word];
    auto value = std::uint32_t{byte};
    go_along(value, bends_.slope[at][word] + (is_behind ? bends_.more_slope[at][word] : 0),
             bends_.start[at][word] + (is_behind ? bends_.more_start[at][word] : 0));
    return static_cast<std::uint8_t>(value);
}

void TransferCurves::find_table() noexcept {
    if (kind_ == Kind::table) return;
    for (std::size_t byte = 0; byte < pixel_bytes_; ++byte) {
        for (std::size_t value = 0; value < 256; ++value) {
            table_[byte][value] = changed(static_cast<std::uint8_t>(value), byte);
        }
    }
    has_table_ = true;
}

void TransferCurves::look_up(std::uint8_t* bytes, std::size_t count) const noexcept {
    for (std::size_t i = 0; i < count; i += pixel_bytes_) {
        for (std::size_t byte = 0; byte < pixel_bytes_; ++byte) bytes[i + byte] = table_[byte][bytes[i + byte]];
    }
}

void TransferCurves::operator()(std::uint8_t* bytes, std::size_t count) const noexcept {
    if (kind_ == Kind::table) return look_up(bytes, count);
    const auto periods = count / period_bytes;
    if (kind_ == Kind::turned_bits) {
        change_periods<Kind::turned_bits, 4>(bytes, periods);
    } else if (kind_ == Kind::one_line) {
        pixel_bytes_ == 4 ? change_periods<Kind::one_line, 3>(bytes, periods)
                          : change_periods<Kind::one_line, 4>(bytes, periods);
    } else {
        pixel_bytes_ == 4 ? change_periods<Kind::two_lines, 3>(bytes, periods)
                          : change_periods<Kind::two_lines, 4>(bytes, periods);
    }
    const auto done = periods * period_bytes;
    if (has_table_) return look_up(bytes + done, count - done);
    for (auto i = done; i < count; ++i) bytes[i] = changed(bytes[i], i % period_bytes);
}

}  // namespace coldbrick::inline v0::detail

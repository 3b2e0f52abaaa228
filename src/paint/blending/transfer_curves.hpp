// One colour laid on pixels of whole bytes, however it is laid: on opaque pixels, what a byte becomes follows from that
// byte alone; so does what a palette's number becomes.
#pragma once

#include "geometry/vectors.hpp"
#include "paint/blending/blending.hpp"

#include "coldbrick/pixels.hpp"

#include <array>
#include <cstdint>
#include <optional>

namespace coldbrick::inline v0::detail {

// For each byte of a pixel: what its values become. Either a line up to some value and another one behind it, in
// 2^-24ths, or bits turned over, or a table.
class TransferCurves {
  public:
    // On a target whose kernel has a `blend`, or on numbers of a palette, of a blend mode other than replace.
    TransferCurves(const Target& target, const Compositing& how, Color color);

    // From now on single pixels are looked up in a table, which takes longer to find than some dozens of them.
    void find_table() noexcept;

    // On so many bytes of opaque pixels, from the first of a pixel on.
    void operator()(std::uint8_t* bytes, std::size_t count) const noexcept;

  private:
    // Bytes are changed in words of four; every pixel size and every vector divides so many of them.
    static constexpr std::size_t period = 24;
    static constexpr std::size_t period_bytes = 4 * period;
    enum class Kind : std::uint8_t { one_line, two_lines, turned_bits, table };

    struct Line {
        std::uint32_t slope;
        std::uint32_t start;
    };
    // How a byte changes: by the first line up to `last`, by the other one behind it.
    struct Bend {
        Line first;
        Line behind;
        std::int32_t last;
    };
    // The same for each byte of each word of a period.
    struct Bends {
        std::array<std::array<std::uint32_t, period>, 4> slope;
        std::array<std::array<std::uint32_t, period>, 4> start;
        std::array<std::array<std::uint32_t, period>, 4> more_slope;  // behind
        std::array<std::array<std::uint32_t, period>, 4> more_start;
        std::array<std::array<std::int32_t, period>, 4> last;
    };

    static Line line_through(const Compositing& how, double ink, double alpha, int first, int last) noexcept;
    static Bend bend_of(const Compositing& how, std::uint8_t ink, std::uint8_t alpha) noexcept;
    void set_curves(const Target& target, const Compositing& how, Color color) noexcept;
    void set_bend(std::size_t byte, const Bend& bend) noexcept;
    void set_numbers(const Target& target, const Compositing& how, Color color);
    void set_table(const Target& target, const Compositing& how, Color color);
    void look_up(std::uint8_t* bytes, std::size_t count) const noexcept;
    [[nodiscard]] std::uint8_t changed(std::uint8_t byte, std::size_t place) const noexcept;
    template <Kind kind, std::size_t changed_bytes>
    void bend_words(std::size_t word, Words8& words) const noexcept;
    template <Kind kind, std::size_t changed_bytes>
    void change_periods(std::uint8_t* first, std::size_t periods) const noexcept;

    Kind kind_;
    bool has_table_ = false;  // besides
    std::size_t pixel_bytes_;
    Bends bends_;
    std::array<std::uint32_t, period> bits_;
    std::array<std::array<std::uint8_t, 256>, 4> table_;
};

}  // namespace coldbrick::inline v0::detail

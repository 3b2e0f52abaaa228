// The calls of a drawing, sorted into the bands of rows that they reach into.
#pragma once

#include "coldbrick/drawing.hpp"
#include "coldbrick/threads.hpp"

#include <cstdint>
#include <exception>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

// Of a drawing that outlives it and does not change.
class BandedCalls {
  public:
    // Calls from first to end - 1, none of which is a flood; bands of so many rows of a window, from its top on.
    BandedCalls(const Drawing& drawing, std::size_t first, std::size_t end, const Box& window, int band_rows,
                unsigned threads);

    [[nodiscard]] std::size_t count() const noexcept { return count_; }
    // The pixels of a band.
    [[nodiscard]] Box band(std::size_t number) const noexcept;

    // What has come of a band: the box that was touched, and the call that threw, if one did.
    struct Drawn {
        Box touched{};
        std::size_t failed = 0;
        std::exception_ptr thrown = nullptr;
    };

    // Draws what reaches into a band on pixels of it, in turn, up to a call that throws.
    Drawn draw(std::size_t band, CallRenderer& renderer, const DrawingHooks& hooks) const;

    // Of a drawing, where from a call on the next flood is, or the end.
    [[nodiscard]] static std::size_t next_flood(const Drawing& drawing, std::size_t from) noexcept;

  private:
    // The first of the bands that a box reaches into, and behind the last one.
    [[nodiscard]] std::pair<std::size_t, std::size_t> bands_of(const Box& box) const noexcept;

    using Numbers = std::vector<std::uint32_t>;
    // Of some of the calls, in turn: those that reach through all bands of a node of a binary tree, and not through all
    // of the node above. Node 1 has all bands, nodes 2n and 2n + 1 the halves of node n; the leaves are the bands. A
    // call is in two nodes of each level at most.
    struct Part {
        std::vector<Numbers> nodes;
        void add(std::size_t top, std::size_t bottom, std::uint32_t number);
        // The calls that reach into a band.
        [[nodiscard]] Numbers at(std::size_t band) const;
    };

    Box window_;
    int band_rows_;
    std::size_t count_;
    std::vector<Part> parts_;
    std::size_t first_;
};

// The box around all that was touched. Throws what the first call threw that did.
Box all_touched(const std::vector<BandedCalls::Drawn>& bands);

}  // namespace coldbrick::inline v0::detail

// Which call lies on top of each pixel.
#include "paint/surfaces/observer.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/explain.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <limits>
#include <memory>
#include <string>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

// Long spans are kept by blocks, so that they cost much less than their pixels. Spans are gathered by bands of rows
// first: what is written to a band stays in the nearest caches, which the picture does not.
class OwnerObserver final : public Observer {
  public:
    OwnerObserver(Owners& owners, Size size)
        : owners_{owners}, bands_(static_cast<std::size_t>(size.height / rows + 1)) {
        const auto in_row = static_cast<std::size_t>(size.width + 15) / 16;
        const auto all = in_row * static_cast<std::size_t>(size.height);
        auto each =
            owners.size_ == size ? std::move(owners.each_) : std::make_unique_for_overwrite<std::uint32_t[]>(all * 16);
        owners.size_ = {};
        owners.blocks_.assign(all, 0);
        owners.blocks_in_row_ = in_row;
        owners.each_ = std::move(each);
        owners.size_ = size;
    }

    void next_call() noexcept { ++owner_; }

    // Has to be called in the end.
    void settle() {
        for (auto& band : bands_) {
            settle(band);
            band.clear();
        }
        gathered_ = 0;
    }

    [[nodiscard]] Repeats repeats() const noexcept override { return Repeats::harmless; }
    void begin(const Ink& /*ink*/, const Box& /*shape*/) override {}

    void touched(std::span<const Span> spans) override {
        for (const auto& [y, x, length] : spans) add(y, x, length);
    }

    void touched(std::span<const CoverSpan> spans) override {
        for (const auto& [y, x, length, each, all] : spans) {
            if (each == nullptr) {
                if (all != 0) add(y, x, length);
                continue;
            }
            for (int i = 0; i < length; ++i) {
                const auto begin = i;
                while (i < length && each[i] != 0) ++i;
                if (i > begin) add(y, x + begin, i - begin);
            }
        }
    }

    void touched_down(const Trace& by_row) override {
        auto rest = by_row;
        while (rest.count > 0) {
            const auto in_band = std::min(rest.count, rows - rest.first % rows);
            auto& band = band_of(rest.first);
            band.push_back({.y = -1 - rest.first, .x = 0, .length = in_band, .owner = owner_});
            band.push_back(std::bit_cast<Entry>(std::array{rest.place, rest.step}));
            rest.first += in_band;
            rest.count -= in_band;
            rest.place += in_band * rest.step;
        }
    }

    void touched_across(const Trace& by_column) override {
        auto place = by_column.place;
        for (int i = 0; i < by_column.count;) {
            const auto begin = i;
            const auto y = place >> 32U;
            for (; i < by_column.count && place >> 32U == y; ++i) place += by_column.step;
            add(static_cast<int>(y), by_column.first + begin, i - begin);
        }
    }

  private:
    // A span; or, with a row below 0, that one pixel in each of so many rows is meant, from row -1 - y on; the place
    // and step of the trace follow in the next entry.
    struct Entry {
        int y;
        int x;
        int length;
        std::uint32_t owner;
    };
    using Band = std::vector<Entry>;
    static constexpr int rows = 64;
    static constexpr std::size_t most_gathered = std::size_t{1} << 18U;  // entries, of 16 bytes

    Band& band_of(int y) {
        if (++gathered_ > most_gathered) settle();
        return bands_[static_cast<std::size_t>(y / rows)];
    }

    void add(int y, int x, int length) { band_of(y).push_back({.y = y, .x = x, .length = length, .owner = owner_}); }

    void settle(const Band& band) noexcept {
        for (std::size_t i = 0; i < band.size(); ++i) {
            const auto& [y, x, length, owner] = band[i];
            if (y >= 0) {
                own(y, x, x + length, owner);
                continue;
            }
            auto [place, step] = std::bit_cast<std::array<std::int64_t, 2>>(band[++i]);
            for (int k = 0; k < length; ++k, place += step) {
                const auto column = static_cast<int>(place >> 32U);
                own(-1 - y + k, column, column + 1, owner);
            }
        }
    }

    // The pixels of a row in columns from left to right - 1.
    void own(int y, int left, int right, std::uint32_t owner) noexcept {
        const auto row = static_cast<std::size_t>(y) * owners_.blocks_in_row_;
        const auto first = static_cast<std::size_t>(left) / 16;
        const auto last = static_cast<std::size_t>(right - 1) / 16;
        const auto begin = static_cast<std::size_t>(left) % 16;
        const auto end = right == owners_.size_.width ? 16 : static_cast<std::size_t>(right - 1) % 16 + 1;
        if (first == last) return own_part(row + first, begin, end, owner);
        own_part(row + first, begin, 16, owner);
        auto* const blocks = owners_.blocks_.data() + row;
        std::fill(blocks + first + 1, blocks + last, owner);
        own_part(row + last, 0, end, owner);
    }

    void own_part(std::size_t block, std::size_t begin, std::size_t end, std::uint32_t owner) noexcept {
        auto& of_block = owners_.blocks_[block];
        if (begin == 0 && end == 16) {
            of_block = owner;
            return;
        }
        if (of_block == owner) return;
        auto* const each = owners_.each_.get() + block * 16;
        if (of_block != Owners::mixed) {
            std::fill_n(each, 16, of_block);
            of_block = Owners::mixed;
        }
        for (auto i = begin; i < end; ++i) each[i] = owner;
    }

    Owners& owners_;
    std::vector<Band> bands_;
    std::size_t gathered_ = 0;
    std::uint32_t owner_ = 1;
};

Box render_owned(const Drawing& drawing, const Surface& surface, Owners& owners, const DrawCalls& draw) {
    constexpr auto most = std::numeric_limits<std::uint32_t>::max() - 2;
    if (drawing.size() > most) {
        throw Error{"render: the drawing has " + std::to_string(drawing.size()) + " calls; allowed with owners are " +
                    std::to_string(most)};
    }
    OwnerObserver observer{owners, surface.size};
    auto watched = surface;
    watched.observer = &observer;
    auto all = Box{};
    draw(watched, [&](std::size_t, const Box& touched) {
        all = enclosing(all, touched);
        observer.next_call();
    });
    observer.settle();
    return all;
}

}  // namespace coldbrick::inline v0::detail

#include "files/deflate_blocks.hpp"

#include "coldbrick/error.hpp"

#include <array>
#include <cstring>
#include <span>

namespace coldbrick::inline v0::detail {

namespace {

constexpr unsigned longest_code = 15;
constexpr std::size_t literals = 288;
constexpr std::size_t distances = 32;

// What code the next bits are, by as many as the longest has: the symbol times 16, and the code's length.
class CodeTable {
  public:
    // By the codes' lengths, section 3.2.2.
    explicit CodeTable(std::span<const std::uint8_t> lengths) : entries_(std::size_t{1} << longest_code) {
        std::array<unsigned, longest_code + 1> counts{};
        for (const auto length : lengths) ++counts[length];
        counts[0] = 0;
        std::array<unsigned, longest_code + 2> next{};
        for (unsigned length = 1; length <= longest_code; ++length) {
            next[length + 1] = (next[length] + counts[length]) << 1U;
        }
        for (std::size_t symbol = 0; symbol < lengths.size(); ++symbol) {
            if (lengths[symbol] != 0) put(symbol, lengths[symbol], next[lengths[symbol]]++);
        }
    }

    // 0 for what is no code.
    [[nodiscard]] unsigned at(std::uint64_t bits) const noexcept {
        return entries_[bits & ((std::uint64_t{1} << longest_code) - 1)];
    }

  private:
    // Codes come with their highest bit first.
    void put(std::size_t symbol, unsigned length, unsigned code) noexcept {
        auto reversed = 0U;
        for (unsigned i = 0; i < length; ++i) reversed |= (code >> i & 1U) << (length - 1 - i);
        for (std::size_t at = reversed; at < entries_.size(); at += std::size_t{1} << length) {
            entries_[at] = static_cast<std::uint16_t>(symbol << 4U | length);
        }
    }

    std::vector<std::uint16_t> entries_;
};

// The codes of blocks that bring none, section 3.2.6.
CodeTable fixed_literals() {
    std::array<std::uint8_t, literals> lengths{};
    for (std::size_t i = 0; i < lengths.size(); ++i) lengths[i] = i < 144 ? 8 : i < 256 ? 9 : i < 280 ? 7 : 8;
    return CodeTable{lengths};
}
CodeTable fixed_distances() {
    std::array<std::uint8_t, distances> lengths{};
    lengths.fill(5);
    return CodeTable{lengths};
}

// Goes through a stream without unpacking it.
class StreamWalk {
  public:
    explicit StreamWalk(std::span<const std::uint8_t> stream) noexcept : stream_{stream} {}

    // The bit where the last block begins; afterwards `place` is behind it.
    std::size_t last_block() {
        while (true) {
            const auto begin = place_;
            const auto is_last = take(1) != 0;
            walk_block(take(2));
            if (is_last) return begin;
        }
    }
    [[nodiscard]] std::size_t place() const noexcept { return place_; }

  private:
    [[noreturn]] static void fail() { throw Error{"deflate: the stream is none"}; }

    // At least 56 of the next bits; zeros behind the end.
    [[nodiscard]] std::uint64_t next_bits() const {
        const auto byte = place_ / 8;
        if (byte >= stream_.size()) fail();
        std::uint64_t bits = 0;
        if (byte + 8 <= stream_.size()) {
            for (std::size_t i = 0; i < 8; ++i) bits |= std::uint64_t{stream_[byte + i]} << (8 * i);
        } else {
            for (auto i = byte; i < stream_.size(); ++i) bits |= std::uint64_t{stream_[i]} << (8 * (i - byte));
        }
        return bits >> (place_ % 8);
    }
    unsigned take(unsigned count) {
        const auto bits = static_cast<unsigned>(next_bits() & ((std::uint64_t{1} << count) - 1));
        place_ += count;
        return bits;
    }

    void walk_block(unsigned kind) {
        if (kind == 0) {
            place_ = (place_ + 7) / 8 * 8;
            const auto length = take(16);
            place_ += 16 + std::size_t{8} * length;
        } else if (kind == 1) {
            walk_symbols(fixed_literals(), fixed_distances());
        } else if (kind == 2) {
            walk_dynamic();
        } else {
            fail();
        }
    }

    // Section 3.2.7.
    void walk_dynamic() {
        const auto literal_codes = take(5) + 257;
        const auto distance_codes = take(5) + 1;
        const auto length_codes = take(4) + 4;
        constexpr std::array<std::uint8_t, 19> order{16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15};
        std::array<std::uint8_t, 19> of_lengths{};
        for (std::size_t i = 0; i < length_codes; ++i) of_lengths[order[i]] = static_cast<std::uint8_t>(take(3));
        const CodeTable table{of_lengths};
        std::vector<std::uint8_t> lengths;
        const auto all = literal_codes + distance_codes;
        while (lengths.size() < all) add_lengths(table, lengths);
        if (lengths.size() > all) fail();
        const auto both = std::span<const std::uint8_t>{lengths};
        walk_symbols(CodeTable{both.first(literal_codes)}, CodeTable{both.subspan(literal_codes)});
    }

    void add_lengths(const CodeTable& table, std::vector<std::uint8_t>& lengths) {
        const auto symbol = take_symbol(table);
        if (symbol < 16) {
            lengths.push_back(static_cast<std::uint8_t>(symbol));
        } else if (symbol == 16) {
            if (lengths.empty()) fail();
            lengths.insert(lengths.end(), 3 + take(2), lengths.back());
        } else {
            lengths.insert(lengths.end(), symbol == 17 ? 3 + take(3) : 11 + take(7), 0);
        }
    }

    unsigned take_symbol(const CodeTable& table) {
        const auto entry = table.at(next_bits());
        if (entry == 0) fail();
        place_ += entry & 15U;
        return entry >> 4U;
    }

    void walk_symbols(const CodeTable& of_literals, const CodeTable& of_distances) {
        constexpr auto end_of_block = 256U;
        while (true) {
            auto bits = next_bits();
            const auto entry = of_literals.at(bits);
            const auto symbol = entry >> 4U;
            auto used = entry & 15U;
            if (used == 0) fail();
            if (symbol > end_of_block) {
                // Section 3.2.5: extra bits of lengths, and of distances.
                const auto length = symbol - 257;
                used += length < 8 || length == 28 ? 0 : length / 4 - 1;
                const auto distance = of_distances.at(bits >> used);
                if (distance == 0) fail();
                const auto number = distance >> 4U;
                used += (distance & 15U) + (number < 4 ? 0 : number / 2 - 1);
            }
            place_ += used;
            if (symbol == end_of_block) return;
        }
    }

    std::span<const std::uint8_t> stream_;
    std::size_t place_ = 0;
};

}  // namespace

void make_deflate_go_on(std::vector<std::uint8_t>& stream) {
    StreamWalk walk{stream};
    const auto last = walk.last_block();
    stream[last / 8] = static_cast<std::uint8_t>(stream[last / 8] & ~(1U << last % 8));
    // The header of an empty stored block: three bits of 0, and more up to the next byte.
    stream.resize((walk.place() + 3 + 7) / 8, 0);
    for (const auto byte : {0x00, 0x00, 0xff, 0xff}) stream.push_back(static_cast<std::uint8_t>(byte));
}

std::uint32_t joined_adler(std::uint32_t first, std::uint32_t second, std::uint64_t second_bytes) noexcept {
    constexpr std::uint64_t base = 65521;
    const auto a = (first & 0xffffU) + (second & 0xffffU) + base - 1;
    const auto b = (first >> 16U) + (second >> 16U) + second_bytes % base * ((first & 0xffffU) + base - 1);
    return static_cast<std::uint32_t>(b % base << 16U | a % base);
}

}  // namespace coldbrick::inline v0::detail

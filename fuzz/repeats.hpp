// The mutator of the targets that include this, which repeats: what overflows does so after thousands of times the
// same, which bytes changed one by one never come to.
#pragma once

#include <algorithm>
#include <cstdint>
#include <vector>

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* bytes, std::size_t count, std::size_t most);

// Every eighth time a run of up to 32 bytes is put in behind itself, as often as there is room for, up to 4,096 times.
extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* bytes, std::size_t count, std::size_t most,
                                               unsigned seed) {
    if (seed % 8 != 0 || count < 2) return LLVMFuzzerMutate(bytes, count, most);
    const auto begin = (seed >> 3U) % count;
    const auto length = std::min<std::size_t>(1 + (seed >> 13U) % 32, count - begin);
    const auto times = std::size_t{1} << (seed >> 19U) % 13;
    const std::vector<std::uint8_t> run(bytes + begin, bytes + begin + length);
    const std::vector<std::uint8_t> rest(bytes + begin + length, bytes + count);
    auto end = begin + length;
    for (std::size_t i = 0; i < times && end + length <= most; ++i, end += length) {
        std::copy(run.begin(), run.end(), bytes + end);
    }
    const auto kept = std::min(rest.size(), most - end);
    std::copy_n(rest.begin(), kept, bytes + end);
    return end + kept;
}

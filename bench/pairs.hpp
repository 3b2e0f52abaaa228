// A benchmark is a pair: our drawing, and a reference that is timed in the same run. The table at the end shows their
// ratio.
#pragma once

#include <functional>
#include <string>

#include <benchmark/benchmark.h>

namespace bench {

struct Pair {
    std::string name;
    std::string reference;       // what the reference is, in words
    double allowed;              // the ratio that is asked for; 0: none
    double items;                // how many shapes one call draws; times are told for each
    std::function<void()> ours;  // one call of each is timed
    std::function<void()> other;
};

void add(Pair pair);

// Keeps the compiler from leaving out writes to memory.
inline void written(void* memory) {
    benchmark::DoNotOptimize(memory);
    benchmark::ClobberMemory();
}

void add_areas();
void add_fills();
void add_growth();
void add_inks();
void add_owners();
void add_pictures();
void add_scenes();
void add_small_shapes();
void add_smooth();
void add_strokes();
void add_words();

}  // namespace bench

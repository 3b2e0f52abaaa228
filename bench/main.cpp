// Times all pairs and prints their ratios. Both sides of a pair are called in turn, and the median of the ratios is
// taken, so that a machine that is slower for a while does not favour one side.
#include "pairs.hpp"

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <cstring>
#include <map>
#include <string>
#include <vector>

namespace bench {

namespace {

std::vector<Pair>& pairs() {
    static std::vector<Pair> all;
    return all;
}

double median(std::vector<double>& values) {
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    return *middle;
}

// For each of so many calls.
double seconds(const std::function<void()>& call, int calls) {
    const auto start = std::chrono::steady_clock::now();
    for (int i = 0; i < calls; ++i) call();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count() / calls;
}

constexpr auto other_counter = "reference";
constexpr auto ratio_counter = "ratio";

// The time that is counted is ours; the counters have the medians of the reference's time and of the ratios.
void time_pair(benchmark::State& state, const Pair& pair) {
    std::vector<double> ours;
    std::vector<double> others;
    std::vector<double> ratios;
    // Some milliseconds of the one, then of the other.
    constexpr auto turn = 4e-3;
    const auto calls = std::max(1, static_cast<int>(turn / seconds(pair.ours, 1)));
    for (auto _ : state) {
        ours.push_back(seconds(pair.ours, calls));
        others.push_back(seconds(pair.other, calls));
        ratios.push_back(ours.back() / others.back());
        state.SetIterationTime(ours.back() * calls);
    }
    state.counters["ours"] = median(ours);
    state.counters[other_counter] = median(others);
    state.counters[ratio_counter] = median(ratios);
}

// Keeps the counters of each pair.
class Collector : public benchmark::BenchmarkReporter {
  public:
    bool ReportContext(const Context&) override { return true; }
    void ReportRuns(const std::vector<Run>& runs) override {
        for (const auto& run : runs) results_[run.run_name.function_name] = run.counters;
    }

    // Null if the pair was not run.
    const benchmark::UserCounters* result(const std::string& name) const {
        const auto found = results_.find(name);
        return found == results_.end() ? nullptr : &found->second;
    }

  private:
    std::map<std::string, benchmark::UserCounters> results_;
};

void print_table(const Collector& collector) {
    std::printf("| what is drawn | time | reference | time | ratio | asked |\n|---|--:|---|--:|--:|--:|\n");
    for (const auto& pair : pairs()) {
        const auto* const result = collector.result(pair.name);
        if (result == nullptr) continue;
        const auto ours = result->at("ours") * 1e9 / pair.items;
        const auto other = result->at(other_counter) * 1e9 / pair.items;
        const auto* const unit = ours >= 10000 ? "µs" : "ns";
        const auto scale = ours >= 10000 ? 1000.0 : 1.0;
        std::printf("| %s | %.1f %s | %s | %.1f %s | %.2f | ", pair.name.c_str(), ours / scale, unit,
                    pair.reference.c_str(), other / scale, unit, static_cast<double>(result->at(ratio_counter)));
        if (pair.allowed > 0) {
            std::printf("%.2f |\n", pair.allowed);
        } else {
            std::printf("- |\n");
        }
    }
}

// A row for each pair: times in nanoseconds for each item.
void print_json(const Collector& collector) {
    const auto quoted = [](const std::string& text) {
        std::string words = "\"";
        for (const auto c : text) words += c == '"' || c == '\\' ? std::string{'\\', c} : std::string{c};
        return words + '"';
    };
    const auto* before = "[";
    for (const auto& pair : pairs()) {
        const auto* const result = collector.result(pair.name);
        if (result == nullptr) continue;
        std::printf("%s\n  {\"what\": %s, \"ns\": %.2f, \"reference\": %s, \"reference_ns\": %.2f, \"ratio\": %.3f",
                    before, quoted(pair.name).c_str(), result->at("ours") * 1e9 / pair.items,
                    quoted(pair.reference).c_str(), result->at(other_counter) * 1e9 / pair.items,
                    static_cast<double>(result->at(ratio_counter)));
        pair.allowed > 0 ? std::printf(", \"asked\": %.3f}", pair.allowed) : std::printf("}");
        before = ",";
    }
    std::printf("%s\n]\n", *before == '[' ? "[" : "");
}

}  // namespace

void add(Pair pair) { pairs().push_back(std::move(pair)); }

}  // namespace bench

int main(int argc, char** argv) {
    // Our own option; the others are those of the benchmark library.
    auto* const end =
        std::remove_if(argv + 1, argv + argc, [](const char* word) { return std::strcmp(word, "--json") == 0; });
    const auto is_json = end != argv + argc;
    argc = static_cast<int>(end - argv);
    bench::add_areas();
    bench::add_growth();
    bench::add_inks();
    bench::add_fills();
    bench::add_small_shapes();
    bench::add_smooth();
    bench::add_strokes();
    bench::add_words();
    bench::add_owners();
    bench::add_pictures();
    bench::add_scenes();
    for (const auto& pair : bench::pairs()) {
        benchmark::RegisterBenchmark(pair.name.c_str(), bench::time_pair, pair)->UseManualTime();
    }
    benchmark::Initialize(&argc, argv);
    if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
    bench::Collector collector;
    benchmark::RunSpecifiedBenchmarks(&collector);
    is_json ? bench::print_json(collector) : bench::print_table(collector);
    return 0;
}

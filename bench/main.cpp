// Times all pairs and prints their ratios. Repetitions of all benchmarks are mixed, and medians are compared, so that
// a machine that is busy for a while does not favour one side.
#include "pairs.hpp"

#include <algorithm>
#include <cstdio>
#include <map>
#include <vector>

namespace bench {

namespace {

std::vector<Pair>& pairs() {
    static std::vector<Pair> all;
    return all;
}

constexpr auto reference_suffix = " (reference)";

// Gathers the seconds of each repetition.
class Collector : public benchmark::BenchmarkReporter {
  public:
    bool ReportContext(const Context&) override { return true; }
    void ReportRuns(const std::vector<Run>& runs) override {
        for (const auto& run : runs) {
            if (run.run_type != Run::RT_Iteration) continue;
            times_[run.run_name.function_name].push_back(run.real_accumulated_time /
                                                         static_cast<double>(run.iterations));
        }
    }

    // The median, in nanoseconds; 0 if it was not run.
    double median(const std::string& name) {
        auto& times = times_[name];
        if (times.empty()) return 0;
        std::sort(times.begin(), times.end());
        return times[times.size() / 2] * 1e9;
    }

  private:
    std::map<std::string, std::vector<double>> times_;
};

void time_calls(benchmark::State& state, const std::function<void()>& call) {
    for (auto _ : state) call();
}

void print_table(Collector& collector) {
    std::printf("| what is drawn | time | reference | time | ratio | asked |\n|---|--:|---|--:|--:|--:|\n");
    for (const auto& pair : pairs()) {
        const auto ours = collector.median(pair.name) / pair.items;
        const auto other = collector.median(pair.name + reference_suffix) / pair.items;
        if (ours <= 0 || other <= 0) continue;
        const auto* const unit = ours >= 10000 ? "µs" : "ns";
        const auto scale = ours >= 10000 ? 1000.0 : 1.0;
        std::printf("| %s | %.1f %s | %s | %.1f %s | %.2f | ", pair.name.c_str(), ours / scale, unit,
                    pair.reference.c_str(), other / scale, unit, ours / other);
        if (pair.allowed > 0) {
            std::printf("%.2f |\n", pair.allowed);
        } else {
            std::printf("- |\n");
        }
    }
}

}  // namespace

void add(Pair pair) { pairs().push_back(std::move(pair)); }

}  // namespace bench

int main(int argc, char** argv) {
    bench::add_fills();
    bench::add_small_shapes();
    for (const auto& pair : bench::pairs()) {
        const auto time = [](const std::string& name, const std::function<void()>& call) {
            benchmark::RegisterBenchmark(name.c_str(), bench::time_calls, call)->Repetitions(15)->MinTime(0.03);
        };
        time(pair.name, pair.ours);
        time(pair.name + bench::reference_suffix, pair.other);
    }
    auto arguments = std::vector<char*>(argv, argv + argc);
    char mixed[] = "--benchmark_enable_random_interleaving=true";
    arguments.insert(arguments.begin() + 1, mixed);
    auto count = static_cast<int>(arguments.size());
    benchmark::Initialize(&count, arguments.data());
    if (benchmark::ReportUnrecognizedArguments(count, arguments.data())) return 2;
    bench::Collector collector;
    benchmark::RunSpecifiedBenchmarks(&collector);
    bench::print_table(collector);
    return 0;
}

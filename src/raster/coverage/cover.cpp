#include "raster/coverage/cover.hpp"

#include "raster/coverage/chain_order.hpp"
#include "raster/coverage/cover_batch.hpp"
#include "raster/coverage/cover_sums.hpp"
#include "raster/coverage/crowds.hpp"
#include "raster/spans/record.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace coldbrick::inline v0::detail {

namespace {

// Pixels of the window, with some room.
struct Extent {
    int left;
    int top;
    int right;
    int bottom;
};

Extent extent_of(const Chains& chains) noexcept {
    constexpr auto infinity = std::numeric_limits<double>::infinity();
    auto [left, top, right, bottom] = std::array{infinity, infinity, -infinity, -infinity};
    for (const auto& chain : chains.all()) {
        left = std::min(left, chain.least_x);
        right = std::max(right, chain.most_x);
        top = std::min(top, chains.top_of(chain));
        bottom = std::max(bottom, chains.bottom_of(chain));
    }
    const auto& window = chains.window();
    const auto width = double{1} * window.right - window.left;
    if (chains.left_of_all() != Windings{}) {
        left = top = 0;
        bottom = double{1} * window.bottom - window.top;
    }
    return {.left = static_cast<int>(std::max(left, 0.0)),
            .top = static_cast<int>(top),
            .right = static_cast<int>(chains.reaches_right() ? width : std::min(std::floor(right) + 1, width)),
            .bottom = static_cast<int>(std::ceil(bottom))};
}

// Sums parts of chains up, some rows at a time.
template <class Rows>
class CoverSum {
  public:
    // Takes all memory that it needs.
    CoverSum(const Chains& chains, const Extent& extent, std::pmr::vector<ChainPart>& parts, Rows rows)
        : edges_{chains.edges()}, window_{chains.window()}, extent_{extent}, parts_{parts}, rows_{std::move(rows)} {
        if (extent.bottom - extent.top > rows_.rows()) {
            sort_in_budget(parts.begin(), parts.end(),
                           [](const ChainPart& a, const ChainPart& b) { return a.top < b.top; });
        }
    }

    // What it does, in steps.
    [[nodiscard]] std::uint64_t work() const noexcept {
        auto sum = std::uint64_t{0};
        for (const auto& part : parts_) sum += 2 + static_cast<std::uint64_t>(part.bottom - part.top);
        return sum;
    }

    Box run(const SpanSink& sink) {
        CoverBatch batch{window_, sink};
        std::size_t begun = 0;
        std::size_t kept = 0;  // of those that have begun, in front
        for (auto y = extent_.top; y < extent_.bottom;) {
            // Rows in which there is nothing are passed over.
            if (kept == 0) {
                if (begun == parts_.size()) break;
                if (extent_.bottom - extent_.top > rows_.rows()) y = std::max(y, static_cast<int>(parts_[begun].top));
            }
            const auto end = std::min(y + rows_.rows(), extent_.bottom);
            auto still = std::size_t{0};
            const auto take = [&](ChainPart part) {
                add(part, y, end);
                if (part.top < part.bottom) parts_[still++] = part;
            };
            spend_work(kept + 1);
            for (std::size_t i = 0; i < kept; ++i) take(parts_[i]);
            for (; begun < parts_.size() && parts_[begun].top < end; ++begun) take(parts_[begun]);
            kept = still;
            for (auto row = y; row < end; ++row) take_row(row, row - y, batch);
            y = end;
        }
        return batch.finish();
    }

  private:
    // What of a part lies above a row, after which it is the rest.
    void add(ChainPart& part, int first, int end) {
        const auto bottom = std::min(part.bottom, double{1} * end);
        for (auto y = part.top; y < bottom;) {
            const auto& edge = edges_[part.first];
            const auto to = std::min(edge.bottom, bottom);
            add_edge(edge, y, to, part.side * whole_coverage, first);
            if (edge.bottom <= to) ++part.first;
            y = to;
        }
        part.top = bottom;
    }

    void add_edge(const ChainEdge& edge, double top, double bottom, double side, int first) {
        // Places are rounded.
        const auto x_at = [&, width = double{1} * extent_.right - extent_.left](double y) {
            const auto x = edge.x_at(y) - extent_.left;
            const auto right = x > 0 ? x : 0.0;
            return right < width ? right : width;
        };
        auto x = x_at(top);
        auto row = static_cast<int>(top);
        for (auto y = top; y < bottom; ++row) {
            const auto next_row = double{1} * row + 1;
            const auto to = next_row < bottom ? next_row : bottom;
            const auto next = x_at(to);
            rows_.add(row - first, x, next, side * (to - y));
            x = next;
            y = to;
        }
    }

    void take_row(int row, int number, CoverBatch& batch) {
        const auto y = window_.top + row;
        const auto left = window_.left + extent_.left;
        rows_.take(
            number,
            [&](int begin, int end, const auto& set) {
                for (auto at = begin; at < end;) {
                    const auto to = std::min(at + CoverBatch::most_set, end);
                    batch.add_set(y, left + at, to - at, [&](std::uint8_t* bytes) { set(at, to, bytes); });
                    at = to;
                }
            },
            [&](int begin, int end, std::uint8_t all) { batch.add_alike(y, left + begin, left + end, all); });
    }

    const ChainEdge* edges_;
    Window window_;
    Extent extent_;
    std::pmr::vector<ChainPart>& parts_;
    Rows rows_;
};

Box sum_parts(const Chains& chains, std::pmr::vector<ChainPart> parts, const SpanSink& sink,
              std::pmr::memory_resource* memory) {
    const auto extent = extent_of(chains);
    const auto columns = extent.right - extent.left;
    const auto height = extent.bottom - extent.top;
    if (columns <= 0 || height <= 0) return {};
    const auto scan = [&](auto sum) {
        return scan_in_budget(has_budget() ? sum.work() : 0, sink, [&](const SpanSink& to) { return sum.run(to); });
    };
    // Wider windows are those of searches for bounds.
    constexpr auto widest = 1 << 17;
    if (columns > widest) {
        Record record{sink};
        const auto touched = CoverSum{chains, extent, parts, SparseRow{columns, memory}}.run(record.sink());
        record.replay();
        return touched;
    }
    // As many rows at a time as stay in a core's own memory.
    constexpr auto steps_at_once = 8192;
    const auto rows = std::clamp(steps_at_once / (columns + 2), 1, height);
    return scan(CoverSum{chains, extent, parts, DenseRows{columns, rows, memory}});
}

}  // namespace

void take_cover(const SpanSink& sink, std::span<const CoverSpan> spans) {
    if (sink.take_cover != nullptr) return sink.take_cover(sink.context, spans);
    // A sink of pixels alone gets those that have any coverage.
    const auto report = [&](const Span& run) { sink.take(sink.context, {&run, 1}); };
    for (const auto& span : spans) {
        if (span.each == nullptr) {
            report({.y = span.y, .x = span.x, .length = span.length});
            continue;
        }
        auto begin = 0;
        for (auto i = 0; i <= span.length; ++i) {
            if (i < span.length && span.each[i] != 0) continue;
            if (i > begin) report({.y = span.y, .x = span.x + begin, .length = i - begin});
            begin = i + 1;
        }
    }
}

namespace {

// With crowds: the rows between them as a whole, and theirs piece by piece.
class CrowdedScan {
  public:
    CrowdedScan(const Chains& chains, const CoverRule& rule, const SpanSink& sink) noexcept
        : chains_{chains}, window_{chains.window()}, rule_{rule}, sink_{sink} {}

    Box run(std::span<const Crowd> crowds) {
        auto top = window_.top;
        while (!crowds.empty()) {
            const auto row = crowds.front().row;
            const auto y = window_.top + row;
            scan(chains_, {.left = window_.left, .top = top, .right = window_.right, .bottom = y});
            const auto end = std::find_if(crowds.begin(), crowds.end(), [&](const Crowd& of) { return of.row != row; });
            const auto count = static_cast<std::size_t>(end - crowds.begin());
            scan_row(y, crowds.first(count));
            crowds = crowds.subspan(count);
            top = y + 1;
        }
        scan(chains_, {.left = window_.left, .top = top, .right = window_.right, .bottom = window_.bottom});
        return touched_;
    }

  private:
    // A row, with its crowds from left to right.
    void scan_row(int y, std::span<const Crowd> crowds) {
        ContourMemory memory;
        const Chains row{chains_, {.left = window_.left, .top = y, .right = window_.right, .bottom = y + 1}, &memory};
        auto x = window_.left;
        for (const auto& crowd : crowds) {
            scan(row, {.left = x, .top = y, .right = window_.left + crowd.left, .bottom = y + 1});
            add(row, {.row = 0, .left = crowd.left, .right = crowd.right});
            x = window_.left + crowd.right;
        }
        scan(row, {.left = x, .top = y, .right = window_.right, .bottom = y + 1});
    }

    void scan(const Chains& of, const Window& part) {
        if (part.empty()) return;
        ContourMemory memory;
        const Chains chains{of, part, &memory};
        if (chains.all().empty() && chains.left_of_all() == Windings{}) return;
        touch(sum_parts(chains, sided_parts(chains, rule_, &memory), sink_, &memory));
    }

    void add(const Chains& row, const Crowd& crowd) {
        ContourMemory memory;
        const auto bytes = cover_of(crowd, row, rule_, &memory);
        CoverBatch batch{row.window(), sink_};
        batch.add_kept(row.window().top, window_.left + crowd.left, bytes.data(), crowd.right - crowd.left);
        touch(batch.finish());
    }

    void touch(const Box& box) { touched_ = enclosing(touched_, box); }

    const Chains& chains_;
    Window window_;
    const CoverRule& rule_;
    const SpanSink& sink_;
    Box touched_;
};

}  // namespace

namespace {

Box scan_finished(const Chains& chains, const CoverRule& rule, const SpanSink& sink,
                  std::pmr::memory_resource* memory) {
    if (chains.all().empty() && chains.left_of_all() == Windings{}) return {};
    const auto crowds = crowds_of(chains, memory);
    if (crowds.empty()) return sum_parts(chains, sided_parts(chains, rule, memory), sink, memory);
    Record record{sink};
    const auto touched = CrowdedScan{chains, rule, record.sink()}.run(crowds);
    record.replay();
    return touched;
}

}  // namespace

Box scan_chains(Chains& chains, const CoverRule& rule, const SpanSink& sink, std::pmr::memory_resource* memory) {
    chains.finish();
    return scan_finished(chains, rule, sink, memory);
}

Box scan_part(const Chains& chains, const Window& part, const CoverRule& rule, const SpanSink& sink) {
    ContourMemory memory;
    const Chains within{chains, part, &memory};
    return scan_finished(within, rule, sink, &memory);
}

Box scan_simple_chains(Chains& chains, const SpanSink& sink, std::pmr::memory_resource* memory) {
    chains.finish();
    if (chains.all().empty()) return {};
    std::pmr::vector<ChainPart> parts{memory};
    parts.reserve(chains.all().size());
    for (const auto& chain : chains.all()) {
        parts.push_back({.first = chain.first,
                         .side = -chain.direction,
                         .top = chains.top_of(chain),
                         .bottom = chains.bottom_of(chain)});
    }
    return sum_parts(chains, std::move(parts), sink, memory);
}

}  // namespace coldbrick::inline v0::detail

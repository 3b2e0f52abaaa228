#include "raster/strokes/flat_path_scans.hpp"

#include "raster/spans/span_sets.hpp"
#include "raster/strokes/dashes.hpp"
#include "raster/strokes/hairline.hpp"
#include "raster/strokes/stroker.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

// Calls use(from, to, ends) for each straight piece; ends says which of them are corners or ends of the subpath, and
// how much longer the curve is that it stands for.
struct PieceEnds {
    bool from;
    bool to;
    double longer;
};

template <class Use>
void for_each_piece(const Subpath& subpath, const Use& use) {
    const auto& nodes = subpath.nodes;
    const auto count = nodes.size();
    const auto pieces = subpath.closed && count > 1 ? count : count - 1;
    for (std::size_t i = 0; i < pieces; ++i) {
        const auto& to = nodes[(i + 1) % count];
        use(nodes[i].at, to.at, PieceEnds{.from = !nodes[i].smooth, .to = !to.smooth, .longer = to.longer});
    }
}

// The hairlines of subpaths: of each piece one pixel for each row that it crosses, or each column if it is longer that
// way, and the pixels at corners and ends.
class FixedHairline {
  public:
    FixedHairline(Point origin, const Stroke& how, const Window& window, const SpanSink& sink)
        : origin_{origin}, window_{window}, sink_{sink} {
        if (!how.dash.empty()) pattern_.emplace(how);
    }

    void draw(const Subpath& subpath) {
        begin_ = 0.5;
        spend_work(subpath.nodes.size());
        if (subpath.nodes.size() == 1) mark(subpath.nodes.front().at, begin_);
        for_each_piece(subpath, [&](Vec from, Vec to, PieceEnds ends) {
            if (ends.from) mark(from, begin_);
            piece(from, to);
            begin_ += length(to - from) + ends.longer;
            if (ends.to) mark(to, begin_);
        });
    }

    [[nodiscard]] const Box& touched() const noexcept { return touched_; }

  private:
    [[nodiscard]] bool is_on(double distance) const {
        if (!pattern_) return true;
        auto on = false;
        pattern_->for_each(distance, distance, [&](const DashPattern::Dash& dash) {
            on = on || (dash.begin <= distance && distance < dash.end);
        });
        return on;
    }

    // The nearest pixel to a place; of two the one with the smaller coordinate.
    void mark(Vec at, double distance) {
        const auto nearest = [](double value) { return static_cast<std::int64_t>(std::ceil(value - 0.5)); };
        put(nearest(at.x) + origin_.x, nearest(at.y) + origin_.y, distance);
    }

    void put(std::int64_t x, std::int64_t y, double distance) {
        if (x < window_.left || x >= window_.right || y < window_.top || y >= window_.bottom || !is_on(distance))
            return;
        take({.y = static_cast<int>(y), .x = static_cast<int>(x), .length = 1});
    }

    void take(const Span& run) {
        sink_.take(sink_.context, {&run, 1});
        touched_ = enclosing(touched_, Box{.at = {.x = run.x, .y = run.y}, .size = {run.length, 1}});
    }

    // Between whole pixels, exactly the pixels of the line.
    void line(Point from, Point to, double size) {
        const auto steps = std::max({std::fabs(double{1} * to.x - from.x), std::fabs(double{1} * to.y - from.y), 1.0});
        const auto pixels =
            spans_of([&](const SpanSink& gather) { scan_hairline(from, to, Stroke{}, box_of(window_), gather); });
        for (const auto& run : pixels) {
            if (!pattern_) {
                take(run);
                continue;
            }
            for (auto x = run.x; x < run.x + run.length; ++x) {
                const auto k = std::max(std::fabs(double{1} * x - from.x), std::fabs(double{1} * run.y - from.y));
                put(x, run.y, begin_ + k * (size / steps));
            }
        }
    }

    [[nodiscard]] std::optional<Point> whole(Vec at) const noexcept {
        if (at.x != std::floor(at.x) || at.y != std::floor(at.y)) return std::nullopt;
        return Point{.x = static_cast<int>(at.x + origin_.x), .y = static_cast<int>(at.y + origin_.y)};
    }

    void piece(Vec from, Vec to) {
        const auto along = to - from;
        const auto first_pixel = whole(from);
        const auto last_pixel = whole(to);
        if (first_pixel && last_pixel) return line(*first_pixel, *last_pixel, length(along));
        const auto by_row = std::fabs(along.y) >= std::fabs(along.x);
        const auto size = length(along);
        // Decided by the longer direction: where it begins and ends there, and what goes across.
        const auto first = by_row ? from.y : from.x;
        const auto last = by_row ? to.y : to.x;
        const auto start_across = by_row ? from.x : from.y;
        const auto slope = by_row ? along.x / along.y : along.y / along.x;
        const auto offset = by_row ? origin_.y : origin_.x;
        const auto low = by_row ? window_.top : window_.left;
        const auto high = by_row ? window_.bottom : window_.right;
        const auto begin =
            std::max<std::int64_t>(static_cast<std::int64_t>(std::ceil(std::min(first, last))) + offset, low);
        const auto end =
            std::min<std::int64_t>(static_cast<std::int64_t>(std::floor(std::max(first, last))) + offset, high - 1);
        const auto per_step = size / std::fabs(last - first);
        const auto across_at = [&](std::int64_t at) {
            const auto step = static_cast<double>(at - offset) - first;
            return static_cast<std::int64_t>(std::ceil(start_across + step * slope - 0.5)) +
                   (by_row ? origin_.x : origin_.y);
        };
        if (!by_row && !pattern_) return rows_across(begin, end, across_at);
        for (auto at = begin; at <= end; ++at) {
            const auto distance = begin_ + std::fabs(static_cast<double>(at - offset) - first) * per_step;
            by_row ? put(across_at(at), at, distance) : put(at, across_at(at), distance);
        }
    }

    // The columns from one to another, of which row_at(column), which only grows or only falls, is the row: those of
    // a row in the window at once.
    template <class RowAt>
    void rows_across(std::int64_t begin, std::int64_t end, const RowAt& row_at) {
        if (begin > end) return;
        const auto grows = row_at(begin) <= row_at(end);
        // The first column at which a row is reached, going on from another one.
        const auto reach = [&](std::int64_t from, std::int64_t row) {
            const auto is_there = [&](std::int64_t column) {
                return grows ? row_at(column) >= row : row_at(column) <= row;
            };
            auto step = std::int64_t{1};
            auto before = from - 1;
            auto there = from;
            for (; there <= end && !is_there(there); step *= 2) {
                before = there;
                there = there > end - step ? end + 1 : there + step;
            }
            while (there - before > 1) {
                const auto middle = before + (there - before) / 2;
                (is_there(middle) ? there : before) = middle;
            }
            return there;
        };
        auto row = row_at(begin);
        const auto nearest = grows ? std::int64_t{window_.top} : std::int64_t{window_.bottom} - 1;
        auto column = begin;
        if (grows ? row < nearest : row > nearest) column = reach(begin, nearest);
        for (; column <= end;) {
            row = row_at(column);
            if (grows ? row >= window_.bottom : row < window_.top) return;
            const auto next = reach(column, grows ? row + 1 : row - 1);
            take(
                {.y = static_cast<int>(row), .x = static_cast<int>(column), .length = static_cast<int>(next - column)});
            column = next;
        }
    }

    Point origin_;
    Window window_;
    SpanSink sink_;
    std::optional<DashPattern> pattern_;
    double begin_ = 0.5;
    Box touched_;
};

}  // namespace

Box scan_thin_subpaths(const FlatPath& flat, const Stroke& how, const Box& clip, const SpanSink& sink) {
    return scan_merged(sink, [&](const SpanSink& gather) {
        FixedHairline hairline{flat.origin, how, window_of(clip), gather};
        for (const auto& subpath : flat.subpaths) hairline.draw(subpath);
        return hairline.touched();
    });
}

Box scan_wide_subpaths(const FlatPath& flat, const Pen& pen, const Stroke& how, const Box& clip, const SpanSink& sink) {
    return scan_contours(flat.origin, FillRule::nonzero, clip, sink, [&](Contours& contours) {
        for (const auto& subpath : flat.subpaths) draw_stroke(subpath, pen, how, contours);
    });
}

Box scan_inside_subpaths(const FlatPath& flat, FillRule rule, const Box& clip, const SpanSink& sink) {
    return scan_contours(flat.origin, rule, clip, sink, [&](Contours& contours) {
        for (const auto& subpath : flat.subpaths) {
            for (const auto& node : subpath.nodes) contours.to(node.at);
            contours.close();
        }
    });
}

Box scan_flat(const FlatPath& flat, const Fill& how, const Box& clip, const SpanSink& sink) {
    if (how.edges == Edges::shared) return scan_inside_subpaths(flat, how.rule, clip, sink);
    auto closed = flat;
    for (auto& subpath : closed.subpaths) subpath.close();
    return scan_merged(sink, [&](const SpanSink& gather) {
        const auto interior = scan_inside_subpaths(closed, how.rule, clip, gather);
        return enclosing(interior, scan_thin_subpaths(closed, Stroke{}, clip, gather));
    });
}

}  // namespace coldbrick::inline v0::detail

#include "raster/rounds/round_cover.hpp"

#include "raster/coverage/cover_batch.hpp"
#include "raster/rounds/ellipse_offset.hpp"
#include "raster/rounds/round_rows.hpp"
#include "raster/rounds/small_round.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// From the first to the end of the first half of so many columns or rows, of which either they or their mirror images
// are seen.
struct SeenHalf {
    int first;
    int end;

    SeenHalf(std::int64_t seen_first, std::int64_t seen_end, int count) noexcept {
        const auto within = [half = (count + 1) / 2](std::int64_t at) {
            return static_cast<int>(std::clamp<std::int64_t>(at, 0, half));
        };
        first = within(seen_first);
        end = within(seen_end);
        const auto mirrored_first = within(count - seen_end);
        const auto mirrored_end = within(count - seen_first);
        if (mirrored_first == mirrored_end) return;
        const auto is_mirrored_only = first == end;
        first = is_mirrored_only ? mirrored_first : std::min(first, mirrored_first);
        end = is_mirrored_only ? mirrored_end : std::max(end, mirrored_end);
    }
};

QuarterPart part_seen(const Box& box, const Window& window) noexcept {
    const auto& [at, size] = box;
    const SeenHalf rows{std::int64_t{window.top} - at.y, std::int64_t{window.bottom} - at.y, size.height};
    const SeenHalf columns{std::int64_t{window.left} - at.x, std::int64_t{window.right} - at.x, size.width};
    return {.first_row = rows.first, .end_row = rows.end, .first_column = columns.first, .end_column = columns.end};
}

// The right half of a band is the left one mirrored, the lower half the upper one upside down: as far as it is seen.
class RoundCover {
  public:
    RoundCover(const RoundBand& band, const Window& window, const SpanSink& sink)
        : band_{band},
          half_columns_{(width() + 1) / 2},
          part_{part_seen(band.box, window)},
          rows_{band, part_},
          batch_{window, sink} {}

    Box run() {
        kept_.reserve(static_cast<std::size_t>(part_.end_row - part_.first_row));
        for (auto row = part_.first_row; row < part_.end_row; ++row) keep(row);
        for (const auto& kept : kept_) report_row(kept, kept.row);
        // The middle row of an odd number is its own mirror image.
        for (auto i = kept_.size(); i-- > 0;) {
            const auto mirrored = height() - 1 - kept_[i].row;
            if (mirrored != kept_[i].row) report_row(kept_[i], mirrored);
        }
        return batch_.finish();
    }

  private:
    // Columns of the left half that are covered alike, or by bytes of their own: those lie in bytes_, and then those of
    // their mirror images.
    struct Part {
        int begin;
        int end;
        bool has_bytes;
        std::uint8_t all;
        std::size_t bytes;
    };
    // A row of the upper half.
    struct Kept {
        int row;
        std::size_t first;
        std::size_t count;
    };

    [[nodiscard]] int width() const noexcept { return band_.box.size.width; }
    [[nodiscard]] int height() const noexcept { return band_.box.size.height; }

    void keep(int row) {
        const auto first = parts_.size();
        width() <= thresholds::narrow_round ? keep_bytes(row) : keep_parts(row, first);
        if (parts_.size() > first) kept_.push_back({.row = row, .first = first, .count = parts_.size() - first});
    }

    void keep_bytes(int row) {
        const auto at = bytes_.size();
        bytes_.resize(at + static_cast<std::size_t>(width()));
        auto* const bytes = bytes_.data() + at;
        auto least = half_columns_;
        rows_.take(row, [&](int begin, int end, const std::uint8_t* each, std::uint8_t all) {
            least = std::min(least, begin);
            for (auto i = begin; i < end; ++i) bytes[i] = each == nullptr ? all : each[i - begin];
        });
        while (least < half_columns_ && bytes[least] == 0) ++least;
        if (least == half_columns_) return bytes_.resize(at);
        for (auto i = least; i < half_columns_; ++i) bytes[width() - 1 - i] = bytes[i];
        parts_.push_back({.begin = least,
                          .end = width() - least,
                          .has_bytes = true,
                          .all = 0,
                          .bytes = at + static_cast<std::size_t>(least)});
    }

    void keep_parts(int row, std::size_t first) {
        rows_.take(row, [&](int begin, int end, const std::uint8_t* each, std::uint8_t all) {
            if (each == nullptr) return add_alike(first, begin, end, all);
            for (; begin < end && *each == 0; ++begin) ++each;
            const auto full_end = end;
            while (end > begin && each[end - begin - 1] == 255) --end;
            const auto full = end;
            if (full == full_end) {
                while (end > begin && each[end - begin - 1] == 0) --end;
            }
            if (end > begin) add_bytes(begin, end, each);
            add_alike(first, full, full_end, 255);
        });
    }

    void add_alike(std::size_t first, int begin, int end, std::uint8_t all) {
        if (begin == end) return;
        if (parts_.size() > first) {
            auto& last = parts_.back();
            if (!last.has_bytes && last.all == all && last.end == begin) {
                last.end = end;
                return;
            }
        }
        parts_.push_back({.begin = begin, .end = end, .has_bytes = false, .all = all, .bytes = 0});
    }

    void add_bytes(int begin, int end, const std::uint8_t* each) {
        parts_.push_back({.begin = begin, .end = end, .has_bytes = true, .all = 0, .bytes = bytes_.size()});
        bytes_.insert(bytes_.end(), each, each + (end - begin));
        for (auto i = mirrored_columns(begin, end); i-- > 0;) bytes_.push_back(each[i]);
    }

    // How many columns of the left half there are again in the right one: a middle column belongs to both.
    [[nodiscard]] int mirrored_columns(int begin, int end) const noexcept {
        return std::min(end, width() - half_columns_) - begin;
    }

    // Reports a row like one that is kept.
    void report_row(const Kept& kept, int row) {
        const auto y = band_.box.at.y + row;
        if (y < batch_.window().top || y >= batch_.window().bottom) return;
        const auto left = band_.box.at.x;
        const std::span parts{&parts_[kept.first], kept.count};
        for (const auto& part : parts) {
            if (part.has_bytes) {
                batch_.add_kept(y, left + part.begin, bytes_.data() + part.bytes, part.end - part.begin);
            } else {
                // What reaches the middle goes on on the other side.
                const auto end = part.end == half_columns_ ? width() - part.begin : part.end;
                batch_.add_alike(y, left + part.begin, left + end, part.all);
            }
        }
        for (auto i = parts.size(); i-- > 0;) {
            const auto& part = parts[i];
            // A whole row of bytes is reported.
            if (part.end > half_columns_ || (!part.has_bytes && part.end == half_columns_)) continue;
            const auto count = mirrored_columns(part.begin, part.end);
            const auto begin = left + width() - part.begin - count;
            if (part.has_bytes) {
                batch_.add_kept(y, begin, bytes_.data() + part.bytes + (part.end - part.begin), count);
            } else {
                batch_.add_alike(y, begin, begin + count, part.all);
            }
        }
    }

    RoundBand band_;
    int half_columns_;
    QuarterPart part_;
    RoundRows rows_;
    CoverBatch batch_;
    CountedVector<Kept> kept_;
    CountedVector<Part> parts_;
    CountedVector<std::uint8_t> bytes_;
};

// The first pixel of the box and how many there are, on one axis; nothing if the centre is no multiple of half a pixel.
struct BoxSide {
    int first;
    int count;
};
std::optional<BoxSide> side_around(int origin, double center, double reach) {
    constexpr auto farthest = 1 << 29;
    if (!(reach >= 0 && 2 * reach < largest_followed && std::fabs(center) < largest_followed)) return std::nullopt;
    if (origin < -farthest || origin > farthest) return std::nullopt;
    // From the side of the origin's pixel, in halves.
    const auto halves = static_cast<int>(2 * center) + 1;
    if (halves - 1 != 2 * center) return std::nullopt;
    const auto begin = halves / 2.0 - reach;
    const auto first = static_cast<int>(begin) - (begin < static_cast<int>(begin) ? 1 : 0);
    return BoxSide{.first = origin + first, .count = halves - 2 * first};
}

struct Center {
    Point origin;
    Vec from_origin;
};
std::optional<Box> box_around(const Center& center, const Vec& reach) {
    const auto across = side_around(center.origin.x, center.from_origin.x, reach.x);
    const auto down = side_around(center.origin.y, center.from_origin.y, reach.y);
    if (!across || !down) return std::nullopt;
    return Box{.at = {.x = across->first, .y = down->first}, .size = {.width = across->count, .height = down->count}};
}

Vec middle_of(const Box& box) noexcept { return {box.size.width / 2.0, box.size.height / 2.0}; }

std::optional<RoundBand> round_band(const EllipseGeometry& geometry, double out, std::optional<double> in) {
    const auto is_upright = geometry.direction().x == 1 && geometry.direction().y == 0;
    if (!is_upright) return std::nullopt;
    const auto shorter = std::min(geometry.a(), geometry.b());
    const auto longer = std::max(geometry.a(), geometry.b());
    if (!(shorter > 0)) return std::nullopt;
    const auto is_of_quarters = out == 0 && !in;
    if (!is_of_quarters && longer > thinnest_offset * shorter) return std::nullopt;
    if (out <= -shorter) return std::nullopt;
    if (in && *in <= -shorter) in = std::nullopt;
    const auto box = box_around({geometry.origin(), geometry.center()}, {geometry.a() + out, geometry.b() + out});
    if (!box) return std::nullopt;
    const auto edge_at = [&](double distance) { return offset_edge(*box, {geometry.a(), geometry.b()}, distance); };
    return RoundBand{.box = *box, .outer = edge_at(out), .inner = in ? std::optional{edge_at(*in)} : std::nullopt};
}

std::optional<RoundBand> round_band(const BoxGeometry& geometry, double out, std::optional<double> in, Join join) {
    const auto is_beveled = geometry.corner_radius == 0 && out > 0 && join == Join::bevel;
    const auto half = Vec{(geometry.right - geometry.left) / 2, (geometry.bottom - geometry.top) / 2};
    const auto shorter = std::min(half.x, half.y);
    if (is_beveled || !(shorter > 0) || out <= -shorter) return std::nullopt;
    if (in && *in <= -shorter) in = std::nullopt;
    const auto box =
        box_around({geometry.origin, {(geometry.left + geometry.right) / 2, (geometry.top + geometry.bottom) / 2}},
                   half + Vec{out, out});
    if (!box) return std::nullopt;
    const auto edge_at = [&](double distance) {
        const auto is_sharp = geometry.corner_radius == 0 && join != Join::round;
        const auto radius = is_sharp ? 0 : std::max(geometry.corner_radius + distance, 0.0);
        return edge_around(*box, half, radius, distance);
    };
    return RoundBand{.box = *box, .outer = edge_at(out), .inner = in ? std::optional{edge_at(*in)} : std::nullopt};
}

// Whether it is all of the circle that fits its box.
bool is_circle(const RoundBand& band) noexcept {
    const auto& [center, half_axes, distance] = band.outer;
    const auto radius = band.box.size.width / 2.0;
    return !band.inner && distance == 0 && half_axes.x == radius && half_axes.y == radius && center.x == radius &&
           center.y == radius && band.box.size.width == band.box.size.height;
}

}  // namespace

QuarterEdge offset_edge(const Box& around, const Vec& half_axes, double distance) noexcept {
    const auto middle = middle_of(around);
    if (half_axes.x != half_axes.y) return {.center = middle, .half_axes = half_axes, .distance = distance};
    return {.center = middle, .half_axes = half_axes + Vec{distance, distance}};
}

QuarterEdge edge_around(const Box& around, const Vec& half_size, double radius, double distance) noexcept {
    const auto reach = distance - radius;
    return {.center = middle_of(around) - half_size - Vec{reach, reach}, .half_axes = {radius, radius}};
}

std::optional<RoundBand> round_fill(const EllipseGeometry& geometry) { return round_band(geometry, 0, std::nullopt); }

std::optional<RoundBand> round_stroke(const EllipseGeometry& geometry, const Band& band) {
    return round_band(geometry, band.out, -band.in);
}

std::optional<RoundBand> round_fill(const BoxGeometry& geometry) {
    return round_band(geometry, 0, std::nullopt, Join::miter);
}

std::optional<RoundBand> round_stroke(const BoxGeometry& geometry, const Band& band, Join join) {
    return round_band(geometry, band.out, -band.in, join);
}

std::optional<RoundBand> small_round_fill(const RoundPart& part) noexcept {
    const auto& [width, height] = part.box.size;
    if (width > SmallRound::largest || height > SmallRound::largest) return std::nullopt;
    return RoundBand{.box = part.box, .outer = {.center = part.corner, .half_axes = part.corner}, .inner = {}};
}

std::optional<RoundBand> small_round_stroke(const RoundPart& part, const Band& band) noexcept {
    const auto& [box, corner] = part;
    const auto [shorter, longer] = std::minmax(box.size.width, box.size.height);
    constexpr auto most = SmallRound::largest;
    if (corner.x == 0 || band.out > most || band.out != std::floor(band.out)) return std::nullopt;
    const auto out = static_cast<int>(band.out);
    const auto is_circular = corner.x == corner.y;
    if (longer + 2 * out > most || (!is_circular && longer > thinnest_offset * shorter)) return std::nullopt;
    const auto around = Box{.at = {.x = box.at.x - out, .y = box.at.y - out},
                            .size = {.width = box.size.width + 2 * out, .height = box.size.height + 2 * out}};
    const auto half = middle_of(box);
    const auto edge_at = [&, corner = corner](double distance) {
        return is_circular ? edge_around(around, half, std::max(corner.x + distance, 0.0), distance)
                           : offset_edge(around, corner, distance);
    };
    return RoundBand{.box = around,
                     .outer = edge_at(band.out),
                     .inner = 2 * band.in < shorter ? std::optional{edge_at(-band.in)} : std::nullopt};
}

Box scan_round_cover(const RoundBand& band, const Box& clip, const SpanSink& sink) {
    const auto& size = band.box.size;
    const auto is_small = size.width <= SmallRound::largest && size.height <= SmallRound::largest;
    if (is_small && is_within(band.box, clip)) {
        const auto report = [&](const SmallRound& small) {
            take_cover(sink, SmallRoundSpans{small, band.box.at}.all());
            return small.covered(band.box.at);
        };
        if (is_circle(band) && size.width <= largest_kept_circle) return report(small_circle(size.width));
        return report(small_round(size, band.outer, band.inner ? &*band.inner : nullptr));
    }
    const auto seen = intersection(band.box, clip);
    return seen.empty() ? Box{} : RoundCover{band, window_of(seen), sink}.run();
}

}  // namespace coldbrick::inline v0::detail

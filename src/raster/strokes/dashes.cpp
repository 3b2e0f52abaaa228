#include "raster/strokes/dashes.hpp"

#include "geometry/limits.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

// Distances along a path that are the same but for the rounding of its length.
constexpr auto hardly_apart = 1e-6;

// A part of a straight piece, by the distances from its beginning.
struct Reach {
    double from;
    double to;
};

// Which part of a piece from one point on may be drawn into the box.
std::optional<Reach> reach_into(const Vec& from, const Vec& direction, Reach reach, Vec least, Vec most) {
    const auto narrow = [&](double at, double along, double low, double high) {
        if (along == 0) return at >= low && at <= high;
        const auto [near, far] = std::minmax({(low - at) / along, (high - at) / along});
        reach.from = std::max(reach.from, near);
        reach.to = std::min(reach.to, far);
        return reach.from <= reach.to;
    };
    if (!narrow(from.x, direction.x, least.x, most.x)) return std::nullopt;
    if (!narrow(from.y, direction.y, least.y, most.y)) return std::nullopt;
    return reach;
}

class Dasher {
  public:
    Dasher(const Subpath& subpath, const Pen& pen, const Stroke& how, Contours& contours)
        : subpath_{subpath}, measured_{subpath}, pattern_{how}, contours_{contours}, pen_{pen} {
        // A flush dash of n pixels has n pixels: it does not go on beyond its ends, but the path begins and ends half a
        // pixel beyond those of an open subpath.
        lead_ = subpath.closed ? 0 : 0.5;
        pen_.beyond = how.cap == Cap::square ? (how.width.pixels() - 1) / 2 : 0;
        cap_ = how.cap;
        const auto reach = pen_.reach();
        const auto seen = contours.seen();
        least_ = seen.least - Vec{reach, reach};
        most_ = seen.most + Vec{reach, reach};
        path_begin_ = -lead_;
        path_end_ = measured_.length() + lead_;
    }

    void draw() {
        check_count();
        if (subpath_.closed && draw_seam()) return;
        for (std::size_t piece = 0; piece < measured_.pieces(); ++piece) {
            const auto seen = seen_of(piece);
            if (!seen) continue;
            // A curve is a little longer than its straight piece, as far as it is measured.
            constexpr auto more = 1.0;
            const auto begin = measured_.begin_of(piece) + lead_;
            pattern_.for_each(begin + seen->from - more, begin + seen->to + more,
                              [&](const DashPattern::Dash& dash) { draw_once(dash); });
        }
    }

  private:
    // The part of a piece whose dashes may be seen.
    [[nodiscard]] std::optional<Reach> seen_of(std::size_t piece) const {
        if (measured_.is_hidden(piece)) return std::nullopt;
        const auto from = measured_.from(piece);
        const auto extent = measured_.end_of(piece) - measured_.begin_of(piece);
        const auto whole =
            Reach{.from = piece == 0 ? -lead_ : 0.0, .to = piece + 1 == measured_.pieces() ? extent + lead_ : extent};
        return reach_into(from, unit(measured_.to(piece) - from), whole, least_, most_);
    }

    // Dashes that no picture has room for (of a path far larger than the picture, with a pen as wide or a transform
    // that makes it small) are refused before they take time and memory.
    void check_count() const {
        auto extent = 0.0;
        for (std::size_t piece = 0; piece < measured_.pieces(); ++piece) {
            const auto seen = seen_of(piece);
            if (seen) extent += seen->to - seen->from;
        }
        const auto count = pattern_.dashes_in(extent);
        if (count <= most_dashes) return;
        throw TooManyEdges{"stroke: " + in_digits(std::floor(count)) +
                           " dashes reach into the picture; allowed are up to " + std::to_string(most_dashes) +
                           " in a call: dash can be longer, or the path shorter"};
    }

    // The dash that goes over the seam of a closed subpath, if there is one. Says whether it is the whole subpath.
    bool draw_seam() {
        std::optional<DashPattern::Dash> first;
        std::optional<DashPattern::Dash> last;
        pattern_.for_each(-hardly_apart, hardly_apart, [&](const DashPattern::Dash& dash) {
            if (dash.end > hardly_apart) first = dash;
        });
        pattern_.for_each(path_end_ - hardly_apart, path_end_ + hardly_apart, [&](const DashPattern::Dash& dash) {
            if (!last && dash.begin < path_end_ - hardly_apart) last = dash;
        });
        if (!first || !last) return false;
        if (last->begin <= 0) {
            draw_subpath(subpath_, pen_, contours_);
            return true;
        }
        draw_part(last->begin, path_end_ + first->end);
        at_seam_ = {first->number, last->number};
        return false;
    }

    void draw_once(const DashPattern::Dash& dash) {
        if (dash.number <= drawn_until_ || is_outside(dash)) return;
        drawn_until_ = dash.number;
        if (dash.number == at_seam_.first || dash.number == at_seam_.last) return;
        const auto begin = std::max(dash.begin - lead_, path_begin_);
        const auto end = std::min(dash.end - lead_, path_end_);
        if (begin <= end) draw_part(begin, end);
    }

    // Whether it ends where the path begins, or begins where it ends: at the joint of a closed one, what begins there
    // has been drawn where the path does.
    [[nodiscard]] bool is_outside(const DashPattern::Dash& dash) const noexcept {
        const auto length = dash.end - dash.begin;
        const auto least = length > 0 ? hardly_apart : -hardly_apart;
        if (subpath_.closed && dash.begin > path_end_ - hardly_apart) return true;
        return dash.end - lead_ < path_begin_ + least || dash.begin - lead_ > path_end_ - least;
    }

    void draw_part(double begin, double end) {
        pen_.disc_inset = std::min(0.5, (end - begin) / 2);
        auto part = measured_.part(begin, end, {.left = pen_.left, .right = pen_.right});
        if (part.nodes.size() == 1) {
            if (cap_ == Cap::flush) return;
            // Of no length, but in the direction of the subpath.
            const auto [at, direction] = measured_.spot(begin);
            constexpr auto hardly = 1e-6;
            part.nodes = {Subpath::Node{.at = at - direction * hardly}, Subpath::Node{.at = at + direction * hardly}};
        }
        draw_subpath(part, pen_, contours_);
    }

    const Subpath& subpath_;
    MeasuredSubpath measured_;
    DashPattern pattern_;
    Contours& contours_;
    Pen pen_;
    Cap cap_ = Cap::flush;
    double lead_ = 0;
    Vec least_;
    Vec most_;
    double path_begin_ = 0;
    double path_end_ = 0;
    // The numbers of the dash that was drawn last, and of the two that are one at the seam.
    static constexpr auto none = std::numeric_limits<std::int64_t>::min();
    std::int64_t drawn_until_ = none;
    struct {
        std::int64_t first = none;
        std::int64_t last = none;
    } at_seam_;
};

[[noreturn]] void refuse_number(const std::string& field, double value, const std::string& is_allowed) {
    throw Error{"stroke: " + field + " is " + in_digits(value) + "; " + is_allowed};
}

}  // namespace

void draw_dashes(const Subpath& subpath, const Pen& pen, const Stroke& how, Contours& contours) {
    if (subpath.nodes.size() == 1) {
        draw_subpath(subpath, pen, contours);
    } else {
        Dasher{subpath, pen, how, contours}.draw();
    }
}

void check_whole_width(const Stroke& how) {
    if (how.width.is_whole()) return;
    refuse_number("width", how.width.pixels(),
                  "allowed are whole numbers where edges are crisp and coordinates whole; with smooth edges it may be "
                  "any from 1/256 on");
}

void check_each_of(const Stroke& how) {
    check_choice("stroke", "align", how.align, {"center", "inside", "outside"});
    check_choice("stroke", "cap", how.cap, {"flush", "square", "round"});
    check_choice("stroke", "join", how.join, {"miter", "bevel", "round"});
    check_edge("stroke", how.edge);
    const auto width = how.width.pixels();
    if (!(width > 0 && width <= max_coordinate)) {
        refuse_number("width", width, "allowed is 1/256 to " + std::to_string(max_coordinate));
    }
    if (!(how.miter_limit >= 1)) refuse_number("miter_limit", how.miter_limit, "allowed is 1 or more");
    if (!std::isfinite(how.dash_offset)) refuse_number("dash_offset", how.dash_offset, "allowed are finite numbers");
    auto sum = 0.0;
    for (std::size_t i = 0; i < how.dash.size(); ++i) {
        const auto length = how.dash[i];
        if (!(length >= 0 && length <= max_coordinate)) {
            refuse_number("dash[" + std::to_string(i) + "]", length,
                          "allowed is 0 to " + std::to_string(max_coordinate));
        }
        sum += length;
    }
    constexpr auto least = 1.0 / 64;
    if (!how.dash.empty() && sum < least) {
        refuse_number("the sum of dash", sum, "allowed is 1/64 or more: dashes of no length need gaps");
    }
}

}  // namespace coldbrick::inline v0::detail

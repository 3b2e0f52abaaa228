#include "raster/strokes/stroker.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

// One straight piece of a subpath; of no length, the direction of a curve where it begins or ends.
struct Piece {
    Vec direction;
    double length;
};

constexpr Piece reversed(const Piece& piece) noexcept {
    return {.direction = -piece.direction, .length = piece.length};
}

// Draws the contour along one side of a subpath: the left side going forward, the right side going back.
class SideDrawer {
  public:
    SideDrawer(const Pen& pen, double reach, Contours& contours) noexcept
        : pen_{pen}, reach_{reach}, contours_{contours} {}

    // Around a joint, seen in the direction in which the contour goes: the side lies to the left.
    void joint(Vec at, const Piece& before, const Piece& after, bool smooth) {
        if (reach_ <= 0) return contours_.to(at);
        const auto bend = cross(before.direction, after.direction);
        const auto ahead = dot(before.direction, after.direction);
        // Most joints of curves: hardly bent, between pieces that are long enough.
        const auto shorter = before.length < after.length ? before.length : after.length;
        if (reach_ * (1 - ahead) < contours_.flatness() && ahead > 0 &&
            (bend >= 0 || 4 * reach_ * reach_ * (1 - ahead) <= shorter * shorter * (1 + ahead))) {
            contours_.to(at + (left_of(before.direction) + left_of(after.direction)) * (reach_ / (1 + ahead)));
        } else if (bend < 0) {
            inner(at, before, after, ahead);
        } else if (bend == 0 && ahead > 0) {
            contours_.to(at + left_of(before.direction) * reach_);
        } else {
            outer(at, before.direction, after.direction, ahead, smooth);
        }
    }

    // Around a node that lies there, between two pieces. Where curves meet corners, their own directions count and not
    // those of their chords.
    void bend(const Subpath::Node& node, Vec at, const Piece& before, const Piece& after) {
        if (node.smooth) return joint(at, before, after, true);
        curves_bend(at, {before, after, node.in, node.out}, node.in != Vec{}, node.out != Vec{});
    }
    // The same on the way back.
    void bend_back(const Subpath::Node& node, Vec at, const Piece& before, const Piece& after) {
        if (node.smooth) return joint(at, reversed(after), reversed(before), true);
        curves_bend(at, {reversed(after), reversed(before), -node.out, -node.in}, node.out != Vec{}, node.in != Vec{});
    }

    // From a piece to the direction that its curve has at its end, or the other way round.
    void straighten(Vec at, const Piece& before, const Piece& after) {
        if (!(before.direction == after.direction)) joint(at, before, after, true);
    }

    // Around an end: from the left side to the right side, and around a disc that is as wide as the pen.
    void cap(Vec at, Vec outward, double left, double right, double beyond) {
        const auto across = left_of(outward);
        contours_.to(at + across * left + outward * beyond);
        if (pen_.has_round_ends() && std::fabs(beyond) < left) {
            const auto along = outward * (beyond / left);
            const auto aside = across * std::sqrt(1 - dot(along, along));
            contours_.to(at + (along + aside) * left);
            contours_.arc(at, left, along + aside, outward);
            contours_.arc(at, left, outward, along - aside);
        }
        contours_.to(at - across * right + outward * beyond);
    }

  private:
    struct Bend {
        Piece before;
        Piece after;
        Vec in;
        Vec out;
    };
    void curves_bend(Vec at, const Bend& of, bool comes_curved, bool goes_curved) {
        const auto before = comes_curved ? Piece{.direction = of.in, .length = 0} : of.before;
        const auto after = goes_curved ? Piece{.direction = of.out, .length = 0} : of.after;
        if (comes_curved) joint(at, of.before, before, true);
        joint(at, before, after, false);
        if (goes_curved) joint(at, after, of.after, true);
    }

    // Where both edges meet, if both pieces are long enough; else through the joint itself. The edges meet at the
    // tangent of half the bend times the reach along each piece; its square is (1 - ahead) / (1 + ahead).
    void inner(Vec at, const Piece& before, const Piece& after, double ahead) {
        const auto from = left_of(before.direction);
        const auto to = left_of(after.direction);
        const auto shorter = std::min(before.length, after.length);
        if (4 * reach_ * reach_ * (1 - ahead) <= shorter * shorter * (1 + ahead)) {
            contours_.to(at + (from + to) * (reach_ / (1 + ahead)));
            return;
        }
        contours_.to(at + from * reach_);
        contours_.to(at);
        contours_.to(at + to * reach_);
    }

    // With the bend b, 1 + ahead is 2 cos(b/2)^2, and the miter's length in widths is 1 / cos(b/2).
    void outer(Vec at, Vec before, Vec after, double ahead, bool smooth) {
        const auto from = left_of(before);
        const auto to = left_of(after);
        const auto join = smooth ? Join::round : pen_.join;
        const auto turns_back = 1 + ahead < 1e-15;
        const auto is_short = (1 + ahead) * pen_.miter_limit * pen_.miter_limit >= 2;
        if (join == Join::miter && !turns_back && is_short) {
            miter(at, before, after, ahead);
            return;
        }
        contours_.to(at + from * reach_);
        if (join == Join::round) {
            const auto middle = turns_back ? before : unit(from + to);
            contours_.arc(at, reach_, from, middle);
            contours_.arc(at, reach_, middle, to);
            return;
        }
        if (turns_back) {
            contours_.to(at + from * reach_ + before * pen_.beyond);
            contours_.to(at + to * reach_ + before * pen_.beyond);
        }
        contours_.to(at + to * reach_);
    }

    void miter(Vec at, Vec before, Vec after, double ahead) {
        const auto from = left_of(before);
        const auto to = left_of(after);
        if (reach_ * reach_ * 2 <= (1 + ahead) * beyond_everything * beyond_everything) {
            contours_.to(at + (from + to) * (reach_ / (1 + ahead)));
            return;
        }
        contours_.to(at + from * reach_ + before * beyond_everything);
        contours_.to(at + to * reach_ - after * beyond_everything);
    }

    const Pen& pen_;
    double reach_;
    Contours& contours_;
};

// From each node of a subpath to the next, and from the last one to the first.
class Pieces {
  public:
    explicit Pieces(const Subpath& subpath) {
        const auto& nodes = subpath.nodes;
        spend_work(nodes.size());
        all_.reserve(nodes.size());
        for (std::size_t i = 0; i < nodes.size(); ++i) {
            const auto along = nodes[i + 1 < nodes.size() ? i + 1 : 0].at - nodes[i].at;
            const auto size = length(along);
            all_.push_back({.direction = size > 0 ? along * (1 / size) : Vec{1, 0}, .length = size});
        }
    }

    [[nodiscard]] const Piece& operator[](std::size_t i) const noexcept { return all_[i]; }
    [[nodiscard]] const Piece& before(std::size_t i) const noexcept { return i > 0 ? all_[i - 1] : all_.back(); }

  private:
    CallMemory<512> memory_;
    std::pmr::vector<Piece> all_{&memory_};
};

// The contour on the left of a closed subpath.
void draw_left_side(const Subpath& subpath, const Pen& pen, const Pieces& pieces, Contours& contours) {
    SideDrawer left{pen, pen.left, contours};
    for (std::size_t i = 0; i < subpath.nodes.size(); ++i) {
        left.bend(subpath.nodes[i], subpath.nodes[i].at + pen.moved, pieces.before(i), pieces[i]);
    }
    contours.close();
}

void draw_right_side(const Subpath& subpath, const Pen& pen, const Pieces& pieces, Contours& contours) {
    SideDrawer right{pen, pen.right, contours};
    for (auto i = subpath.nodes.size(); i-- > 0;) {
        right.bend_back(subpath.nodes[i], subpath.nodes[i].at + pen.moved, pieces.before(i), pieces[i]);
    }
    contours.close();
}

// One of them alone, with that reach.
void draw_side(const Subpath& subpath, bool is_left, double reach, Pen pen, Contours& contours) {
    pen.left = pen.right = reach;
    const Pieces pieces{subpath};
    contours.expect(subpath.nodes.size() + subpath.nodes.size() / 4);
    is_left ? draw_left_side(subpath, pen, pieces, contours) : draw_right_side(subpath, pen, pieces, contours);
}

void draw_closed(const Subpath& subpath, const Pen& pen, Contours& contours) {
    const auto count = subpath.nodes.size();
    const Pieces pieces{subpath};
    contours.expect(2 * count + count / 4);
    draw_left_side(subpath, pen, pieces, contours);
    draw_right_side(subpath, pen, pieces, contours);
}

// Where a subpath ends, seen in the direction in which it does, and how far the pen goes on from there.
struct End {
    Vec at;
    Vec along;
    double beyond;
};

End last_end(const Subpath& subpath, const Pen& pen) {
    const auto& last = subpath.nodes.back();
    const auto along = last.in != Vec{} ? last.in : unit(last.at - subpath.nodes[subpath.nodes.size() - 2].at);
    return {.at = last.at, .along = along, .beyond = pen.beyond - dot(pen.moved, along)};
}
End first_end(const Subpath& subpath, const Pen& pen) {
    const auto& first = subpath.nodes.front();
    const auto along = first.out != Vec{} ? -first.out : unit(first.at - subpath.nodes[1].at);
    return {.at = first.at, .along = along, .beyond = pen.beyond - dot(pen.moved, along)};
}

// A subpath that is moved ends where it did before, which may be before the last joints of a curve: leaves these out.
// Gives where it ends then.
End trim(Subpath& subpath, End end) {
    auto& nodes = subpath.nodes;
    while (nodes.size() > 2) {
        const auto& before = nodes[nodes.size() - 2];
        const auto back = dot(before.at - end.at, end.along);
        if (!before.smooth || back <= end.beyond) break;
        end.at = before.at;
        end.beyond -= back;
        nodes.pop_back();
        nodes.back().smooth = false;
        nodes.back().in = end.along;
    }
    return end;
}

// Round caps that are no ends of the body's contour.
void draw_discs(const End& begin, const End& end, const Pen& pen, Contours& contours) {
    if (pen.cap != Cap::round || pen.has_round_ends()) return;
    const auto disc = [&](const End& of, Vec left) {
        contours.circle(of.at + pen.moved + left * pen.disc_left - of.along * pen.disc_inset, pen.disc_radius);
    };
    disc(end, left_of(end.along));
    disc(begin, -left_of(begin.along));
}

void draw_body(const Subpath& subpath, const Pen& pen, const End& first, const End& last, Contours& contours) {
    const auto& nodes = subpath.nodes;
    const Pieces pieces{subpath};
    const auto end = nodes.back().at + pen.moved;
    const auto begin = nodes.front().at + pen.moved;
    const auto& last_piece = pieces[nodes.size() - 2];
    const auto& first_piece = pieces[0];
    const auto at_end = Piece{.direction = last.along, .length = 0};
    const auto at_begin = Piece{.direction = -first.along, .length = 0};
    // Behind a corner, a piece that ends before it begins covers nothing.
    const auto least = [&](const Piece& piece) { return nodes.size() > 2 ? -piece.length : -beyond_everything; };
    SideDrawer left{pen, pen.left, contours};
    for (std::size_t i = 1; i + 1 < nodes.size(); ++i) {
        left.bend(nodes[i], nodes[i].at + pen.moved, pieces[i - 1], pieces[i]);
    }
    left.straighten(end, last_piece, at_end);
    left.cap(end, last.along, pen.left, pen.right, std::max(last.beyond, least(last_piece)));
    SideDrawer right{pen, pen.right, contours};
    right.straighten(end, reversed(at_end), reversed(last_piece));
    for (auto i = nodes.size() - 1; i-- > 1;) {
        right.bend_back(nodes[i], nodes[i].at + pen.moved, pieces[i - 1], pieces[i]);
    }
    right.straighten(begin, reversed(first_piece), reversed(at_begin));
    right.cap(begin, first.along, pen.right, pen.left, std::max(first.beyond, least(first_piece)));
    left.straighten(begin, at_begin, first_piece);
    contours.close();
}

void draw_open(const Subpath& subpath, const Pen& pen, Contours& contours) {
    const auto begin = first_end(subpath, pen);
    const auto end = last_end(subpath, pen);
    draw_discs(begin, end, pen, contours);
    if (begin.beyond >= 0 && end.beyond >= 0) return draw_body(subpath, pen, begin, end, contours);
    auto moved = subpath;
    const auto last = trim(moved, end);
    moved.reverse();
    const auto first = trim(moved, begin);
    moved.reverse();
    const auto is_gone = moved.nodes.size() == 2 && length(last.at - first.at) + last.beyond + first.beyond <= 0;
    if (!is_gone) draw_body(moved, pen, first, last, contours);
}

// A subpath of one point: as long as the pen is wide.
void draw_dot(Vec at, const Pen& pen, Contours& contours) {
    const auto center = at + pen.moved + left_of(Vec{1, 0}) * pen.disc_left;
    if (pen.cap == Cap::round) {
        contours.circle(center, pen.disc_radius);
        return;
    }
    for (const auto corner : {Vec{-1, -1}, Vec{1, -1}, Vec{1, 1}, Vec{-1, 1}}) {
        contours.to(center + corner * pen.disc_radius);
    }
    contours.close();
}

}  // namespace

void draw_grown(const Subpath& subpath, bool is_clockwise, const Pen& pen, Contours& contours) {
    draw_side(subpath, is_clockwise, pen.left, pen, contours);
}

void draw_shrunk(const Subpath& subpath, bool is_clockwise, const Pen& pen, Contours& contours) {
    draw_side(subpath, !is_clockwise, pen.right, pen, contours);
}

void draw_subpath(const Subpath& subpath, const Pen& pen, Contours& contours) {
    if (subpath.nodes.size() == 1) {
        draw_dot(subpath.nodes.front().at, pen, contours);
    } else if (subpath.closed) {
        draw_closed(subpath, pen, contours);
    } else {
        draw_open(subpath, pen, contours);
    }
}

}  // namespace coldbrick::inline v0::detail

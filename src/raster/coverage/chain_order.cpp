// A sweep from top to bottom over chains (J. Bentley, T. Ottmann, "Algorithms for reporting and counting geometric
// intersections", IEEE Transactions on Computers C-28, 1979), with chains in place of edges: a corner within a chain is
// no event. The winding numbers left of a chain are kept with it. They change only where it crosses another one.
//
// Places are rounded. Chains that come to be in the wrong order have crossed, and change places, whichever of them was
// where before: what is wrong is what lies between them until then.
#include "raster/coverage/chain_order.hpp"

#include "raster/coverage/meetings.hpp"
#include "raster/coverage/strand_order.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <limits>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

class ChainOrder {
  public:
    ChainOrder(const Chains& chains, const CoverRule& rule, std::pmr::memory_resource* memory)
        : edges_{chains.edges()},
          bottom_{double{1} * chains.window().bottom - chains.window().top},
          covers_{rule},
          left_side_{chains.left_side()},
          strands_{memory},
          ends_{memory},
          meetings_{memory},
          changed_{memory},
          order_{memory},
          parts_{memory} {
        for (auto group = 0; group < static_cast<int>(most_groups); ++group) {
            const auto windings = chains.left_of_all().of[group] * rule.signs[group];
            if (windings != 0) covers_.add(left_of_all_, group, windings);
        }
        add_strands(chains, rule, memory);
        sort_in_budget(ends_.begin(), ends_.end(), [](const End& a, const End& b) { return a.y < b.y; });
    }

    std::pmr::vector<ChainPart> run() {
        sweep();
        for (auto* s = order_.first(); s != nullptr; s = s->right) end_part(*s, s->last->bottom);
        if (covers_(left_of_all_)) {
            parts_.push_back({.first = left_side_, .side = 1, .top = 0, .bottom = bottom_});
        }
        return std::move(parts_);
    }

  private:
    struct Strand;

    // A chain in the order from left to right.
    struct Strand {
        const ChainEdge* edge;  // at the height at hand
        const ChainEdge* last;
        Strand* left;
        Strand* right;
        double least_x;
        double most_x;
        Windings windings;  // to its left
        double since;       // the height from which on it has that side
        const ChainEdge* since_edge;
        StrandOrder<Strand>::Chunk* chunk;
        std::uint32_t waits_at = waits_nowhere;
        std::int16_t direction;
        std::uint16_t group;
        int side = 0;
        bool is_changed = false;
        bool is_ended = false;
    };

    // Where a chain ends.
    struct End {
        double y;
        Strand* strand;
    };

    // In the order in which they begin, so that those that are met together lie together in memory.
    void add_strands(const Chains& chains, const CoverRule& rule, std::pmr::memory_resource* memory) {
        struct Begin {
            double y;
            double x;
            const Chain* chain;
        };
        const auto count = chains.all().size();
        std::pmr::vector<Begin> begins{memory};
        begins.reserve(count);
        for (const auto& chain : chains.all()) {
            const auto& edge = edges_[chain.first];
            begins.push_back({edge.top, edge.x_at(edge.top), &chain});
        }
        sort_in_budget(begins.begin(), begins.end(), [&](const Begin& a, const Begin& b) {
            if (a.y != b.y) return a.y < b.y;
            return a.x != b.x ? a.x < b.x : edges_[a.chain->first].slope < edges_[b.chain->first].slope;
        });
        strands_.reserve(count);
        ends_.reserve(count);
        parts_.reserve(count);
        for (const auto& begin : begins) {
            const auto& chain = *begin.chain;
            auto& strand = strands_.emplace_back();
            strand.edge = edges_ + chain.first;
            strand.last = edges_ + chain.end - 1;
            strand.least_x = chain.least_x;
            strand.most_x = chain.most_x;
            strand.direction = static_cast<std::int16_t>(chain.direction * rule.signs[chain.group]);
            strand.group = chain.group;
            ends_.push_back({strand.last->bottom, &strand});
        }
    }

    // Where a strand meets the one to its right, or has not yet been looked at further down.
    using Event = Meetings<Strand>::Event;

    // Down to the bottom of the window.
    void sweep() {
        while (true) {
            spend_work(4);
            const auto begin = next_begin_ < strands_.size() ? strands_[next_begin_].edge->top : bottom_;
            const auto end = next_end_ < ends_.size() ? ends_[next_end_].y : bottom_;
            const auto next = std::min(begin, end);
            if (!meetings_.empty() && meetings_.first().y <= next) {
                meet(meetings_.first());
                continue;
            }
            if (next >= bottom_) return;
            y_ = next;
            begin_and_end();
        }
    }

    // The edge at a height, of the one that begins where two meet.
    [[nodiscard]] const ChainEdge* edge_at(const Strand& s, double y) const noexcept {
        const auto* edge = s.edge;
        while (edge->bottom <= y && edge != s.last) ++edge;
        return edge;
    }

    // Whether a strand lies left of one that begins.
    [[nodiscard]] bool is_before(const Strand& s, const Strand& begun) const noexcept {
        const auto& own = *edge_at(s, y_);
        const auto& other = *begun.edge;
        const auto room = other.x_at(y_) - own.x_at(y_);
        if (room != 0) return room > 0;
        const auto below = std::min(own.bottom, other.bottom);
        return own.x_at(below) < other.x_at(below);
    }

    // All chains that begin or end at the height at hand.
    void begin_and_end() {
        changed_.clear();
        for (; next_end_ < ends_.size() && ends_[next_end_].y == y_; ++next_end_) {
            auto* const s = ends_[next_end_].strand;
            s->is_ended = s->is_changed = true;
            changed_.push_back(s);
        }
        const auto ended = changed_.size();
        for (; next_begin_ < strands_.size() && strands_[next_begin_].edge->top == y_; ++next_begin_) {
            insert(strands_[next_begin_]);
        }
        sort_changed();
        for (auto* const s : changed_) {
            if (s->is_changed) change_from(*s);
        }
        if (ended > 0) {
            for (auto* const s : changed_) {
                if (s->is_ended) remove(*s);
            }
        }
        // Who has a new neighbour to its right: each of those that begin, and what lies left of those that change.
        const Strand* before = nullptr;
        for (auto* const s : changed_) {
            if (s->left != nullptr && s->left != before) look(*s->left);
            if (!s->is_ended) look(*s);
            before = s->is_ended ? s->left : s;
        }
    }

    // From left to right.
    void sort_changed() {
        constexpr std::size_t few = 8;
        if (changed_.size() * few < order_.size()) {
            std::sort(changed_.begin(), changed_.end(),
                      [&](const Strand* a, const Strand* b) { return order_.is_before(*a, *b); });
            return;
        }
        changed_.clear();
        for (auto* s = order_.first(); s != nullptr; s = s->right) {
            if (s->is_changed) changed_.push_back(s);
        }
    }

    // Before which one a strand begins. Most begin in pairs, side by side.
    [[nodiscard]] Strand* place_of(const Strand& s) const {
        const auto begins_before = [&](const Strand& other) { return !is_before(other, s); };
        if (!changed_.empty() && !begins_before(*changed_.back())) {
            auto* const next = changed_.back()->right;
            if (next == nullptr || begins_before(*next)) return next;
        }
        return order_.first_not([&](const Strand& other) { return is_before(other, s); });
    }

    void insert(Strand& s) {
        order_.insert(s, place_of(s));
        s.since = y_;
        s.since_edge = s.edge;
        s.is_changed = true;
        changed_.push_back(&s);
    }

    // Beginning with the first one of those that have changed, along the order up to where nothing has.
    void change_from(Strand& first) {
        auto windings = first.left == nullptr ? left_of_all_ : right_of(*first.left);
        for (auto* s = &first; s != nullptr; s = s->right) {
            if (!s->is_changed && s->windings == windings) return;
            s->is_changed = false;
            if (s->is_ended) {
                end_part(*s, y_);
                // For those that are to its right, it is gone.
                s->windings = windings;
                continue;
            }
            set_windings(*s, windings);
            windings = right_of(*s);
        }
    }

    [[nodiscard]] Windings right_of(const Strand& s) const noexcept {
        auto windings = s.windings;
        if (!s.is_ended) covers_.add(windings, s.group, s.direction);
        return windings;
    }

    void set_windings(Strand& s, const Windings& windings) {
        s.windings = windings;
        const auto right = right_of(s);
        const auto side = (covers_(right) ? 1 : 0) - (covers_(windings) ? 1 : 0);
        if (side == s.side) return;
        end_part(s, y_);
        s.side = side;
        s.since = y_;
        s.since_edge = edge_at(s, y_);
    }

    void end_part(const Strand& s, double bottom) {
        if (s.side == 0 || s.since >= bottom) return;
        parts_.push_back({.first = static_cast<std::uint32_t>(s.since_edge - edges_),
                          .side = s.side,
                          .top = s.since,
                          .bottom = bottom});
    }

    void remove(Strand& s) {
        order_.remove(s);
        meetings_.forget(s);
    }

    // Two neighbours meet, or have not yet been looked at further down.
    void meet(Event event) {
        auto& s = *event.strand;
        at_height_ = event.y > y_ ? 0 : at_height_ + 1;
        y_ = std::max(y_, event.y);
        if (event.is_look) return look_down(s);
        auto& other = *s.right;
        swap(s, other);
        if (other.left != nullptr) look(*other.left);
        look_down(other);
        look(s);
    }

    void swap(Strand& a, Strand& b) {
        order_.swap(a, b);
        const auto windings = a.windings;
        set_windings(b, windings);
        set_windings(a, right_of(b));
    }

    // Finds where one crosses its neighbour to the right next, from the height at hand on: there, where an edge has
    // ended beside the next one. All that meet at one height do so once, but for rounding; if it seems to have no end,
    // they are left for further down.
    void look(Strand& s) {
        if (s.right == nullptr || s.most_x <= s.right->least_x) return meetings_.forget(s);
        const auto is_wrong = edge_at(*s.right, y_)->x_at(y_) < edge_at(s, y_)->x_at(y_);
        if (is_wrong && at_height_ <= order_.size() * order_.size()) return expect(s, y_, false);
        look_down(s);
    }

    // What is decided further down depends on their places where one of their edges ends, and on nothing else: so two
    // change places once between these heights at most, however places are rounded.
    void look_down(Strand& s) {
        if (s.right == nullptr) return meetings_.forget(s);
        const auto& right = *s.right;
        s.edge = edge_at(s, y_);
        s.right->edge = edge_at(right, y_);
        const auto* own = s.edge;
        const auto* other = right.edge;
        auto y = y_;
        constexpr auto many = 6;
        for (auto steps = 0; steps < many; ++steps) {
            const auto next = std::min(own->bottom, other->bottom);
            const auto below = other->x_at(next) - own->x_at(next);
            if (below < 0) {
                const auto above = std::max(other->x_at(y) - own->x_at(y), 0.0);
                return expect(s, y + (next - y) * (above / (above - below)), false);
            }
            y = next;
            if (own->bottom <= y && own++ == s.last) return meetings_.forget(s);
            if (other->bottom <= y && other++ == right.last) return meetings_.forget(s);
            // Beside where one ended, at the same height.
            if (other->x_at(y) - own->x_at(y) < 0) return expect(s, y, false);
        }
        expect(s, y, true);
    }

    void expect(Strand& s, double y, bool is_look) { meetings_.set({std::max(y, y_), &s, is_look}); }

    const ChainEdge* edges_;
    double bottom_;
    CoverTruth covers_;
    Windings left_of_all_;
    std::uint32_t left_side_;
    std::pmr::vector<Strand> strands_;  // of the chains
    std::size_t next_begin_ = 0;
    std::pmr::vector<End> ends_;
    std::size_t next_end_ = 0;
    Meetings<Strand> meetings_;
    std::pmr::vector<Strand*> changed_;
    StrandOrder<Strand> order_;
    std::pmr::vector<ChainPart> parts_;
    double y_ = 0;
    std::size_t at_height_ = 0;  // how many have met there
};

}  // namespace

std::pmr::vector<ChainPart> sided_parts(const Chains& chains, const CoverRule& rule,
                                        std::pmr::memory_resource* memory) {
    return ChainOrder{chains, rule, memory}.run();
}

double area_enclosed_otherwise(const Chains& chains, std::pmr::memory_resource* memory) {
    CoverRule rule;
    rule.masks[0] = ~1;
    auto area = 0.0;
    for (const auto& part : sided_parts(chains, rule, memory)) {
        const auto* edge = chains.edges() + part.first;
        for (auto y = part.top; y < part.bottom; ++edge) {
            const auto end = std::min(edge->bottom, part.bottom);
            area -= part.side * (end - y) * (edge->x_at(y) + edge->x_at(end)) / 2;
            y = end;
        }
    }
    return area;
}

}  // namespace coldbrick::inline v0::detail

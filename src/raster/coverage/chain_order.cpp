// A sweep from top to bottom over chains (J. Bentley, T. Ottmann, "Algorithms for reporting and counting geometric
// intersections", IEEE Transactions on Computers C-28, 1979), with chains in place of edges: a corner within a chain is
// no event. The winding numbers left of a chain are kept with it. They change only where it crosses another one.
//
// Places are rounded. Chains that are less than `hardly` apart count as touching, in whatever order they are: then what
// lies between them is wrong by less than that. Chains that come to be in the wrong order by more have crossed, and
// change places, whichever of them was where before.
#include "raster/coverage/chain_order.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <limits>
#include <set>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto none = std::numeric_limits<std::uint32_t>::max();
constexpr auto hardly = 0x1p-30;

class ChainOrder {
  public:
    ChainOrder(const Chains& chains, const CoverRule& rule, std::pmr::memory_resource* memory)
        : chains_{chains},
          edges_{chains.edges()},
          covers_{rule},
          strands_(chains.all().size(), memory),
          begins_{memory},
          ends_{memory},
          events_{memory},
          changed_{memory},
          order_{Before{*this}, memory},
          parts_{memory} {
        parts_.reserve(strands_.size());
    }

    std::pmr::vector<ChainPart> run() {
        sweep([] { return true; });
        for (auto s = first_; s != none; s = strands_[s].right) end_part(s, bottom_of(s));
        return std::move(parts_);
    }

    // The winding number that all places have which are enclosed: 1 or -1, or 0 if there are others.
    int only_winding() {
        const auto is_only = [&] { return least_ >= -1 && most_ <= 1 && least_ * most_ == 0; };
        sweep(is_only);
        return is_only() ? least_ + most_ : 0;
    }

  private:
    // Down to the bottom of the window, as long as goes_on() holds.
    template <class GoesOn>
    void sweep(const GoesOn& goes_on) {
        sort_chains();
        const auto bottom = double{1} * chains_.window().bottom - chains_.window().top;
        while (goes_on()) {
            spend_work(4);
            const auto begin = next_begin_ < begins_.size() ? top_of(begins_[next_begin_]) : bottom;
            const auto end = next_end_ < ends_.size() ? bottom_of(ends_[next_end_]) : bottom;
            const auto next = std::min(begin, end);
            if (!events_.empty() && strands_[events_.front()].next_y <= next) {
                meet(events_.front());
                continue;
            }
            if (next >= bottom) return;
            y_ = next;
            begin_and_end();
        }
    }

    // A chain in the order from left to right.
    struct Strand {
        std::uint32_t edge = 0;  // at the height at hand
        std::uint32_t left = none;
        std::uint32_t right = none;
        Windings windings;  // to its left
        int side = 0;
        // Where it meets the one to its right, or has not yet been looked at further down; of no use where it is not
        // waiting among the events.
        double next_y = 0;
        std::uint32_t waits_at = none;
        bool is_look = false;
        std::uint32_t since_edge = 0;
        double since = 0;  // the height from which on it has that side
        bool is_changed = false;
        bool is_ended = false;
    };
    // The place of a strand in the order.
    struct Place {
        std::uint64_t label;
        mutable std::uint32_t strand;
    };
    struct Before {
        using is_transparent = void;
        const ChainOrder& of;
        bool operator()(const Place& a, const Place& b) const noexcept { return a.label < b.label; }
        bool operator()(const Place& a, std::uint32_t begun) const noexcept { return of.is_before(a.strand, begun); }
    };
    using Order = std::pmr::set<Place, Before>;

    [[nodiscard]] const Chain& chain(std::uint32_t s) const noexcept { return chains_.all()[s]; }
    [[nodiscard]] double top_of(std::uint32_t s) const noexcept { return chains_.top_of(chain(s)); }
    [[nodiscard]] double bottom_of(std::uint32_t s) const noexcept { return chains_.bottom_of(chain(s)); }

    // The edge at a height, of the one that begins where two meet.
    [[nodiscard]] std::uint32_t edge_at(std::uint32_t s, double y) const noexcept {
        auto edge = strands_[s].edge;
        while (edges_[edge].bottom <= y && edge + 1 < chain(s).end) ++edge;
        return edge;
    }
    [[nodiscard]] const ChainEdge& come_to(std::uint32_t s, double y) noexcept {
        strands_[s].edge = edge_at(s, y);
        return edges_[strands_[s].edge];
    }

    void sort_chains() {
        begins_.resize(strands_.size());
        for (std::uint32_t s = 0; s < begins_.size(); ++s) {
            begins_[s] = s;
            strands_[s].edge = chain(s).first;
        }
        ends_ = begins_;
        sort_in_budget(ends_.begin(), ends_.end(),
                       [&](std::uint32_t a, std::uint32_t b) { return bottom_of(a) < bottom_of(b); });
        const auto is_before = [&](std::uint32_t a, std::uint32_t b) {
            const auto& first = edges_[chain(a).first];
            const auto& second = edges_[chain(b).first];
            if (first.top != second.top) return first.top < second.top;
            const auto [x, other] = std::pair{first.x_at(first.top), second.x_at(second.top)};
            return x != other ? x < other : first.slope < second.slope;
        };
        sort_in_budget(begins_.begin(), begins_.end(), is_before);
    }

    // Whether a strand lies left of one that begins.
    [[nodiscard]] bool is_before(std::uint32_t s, std::uint32_t begun) const noexcept {
        const auto& own = edges_[edge_at(s, y_)];
        const auto& other = edges_[chain(begun).first];
        const auto room = other.x_at(y_) - own.x_at(y_);
        if (room > hardly || room < -hardly) return room > 0;
        const auto below = std::min(own.bottom, other.bottom);
        return own.x_at(below) < other.x_at(below);
    }

    // All chains that begin or end at the height at hand.
    void begin_and_end() {
        changed_.clear();
        for (; next_end_ < ends_.size() && bottom_of(ends_[next_end_]) == y_; ++next_end_) {
            const auto s = ends_[next_end_];
            strands_[s].is_ended = strands_[s].is_changed = true;
            changed_.push_back(s);
        }
        for (; next_begin_ < begins_.size() && top_of(begins_[next_begin_]) == y_; ++next_begin_) {
            insert(begins_[next_begin_]);
        }
        std::sort(changed_.begin(), changed_.end(),
                  [&](std::uint32_t a, std::uint32_t b) { return places_[a]->label < places_[b]->label; });
        for (const auto s : changed_) {
            if (strands_[s].is_changed) change_from(s);
        }
        for (const auto s : changed_) {
            if (strands_[s].is_ended) remove(s);
        }
        for (const auto s : changed_) {
            const auto& strand = strands_[s];
            if (strand.left != none && !strand.is_ended) look(strand.left, s);
            if (strand.is_ended) {
                // Its neighbours were told apart when it was removed.
                const auto [left, right] = std::pair{strand.left, strand.right};
                if (left != none && right != none && !strands_[left].is_ended && strands_[left].right == right) {
                    look(left, right);
                }
            } else if (strand.right != none) {
                look(s, strand.right);
            }
        }
    }

    void insert(std::uint32_t s) {
        const auto after = order_.lower_bound(s);
        const auto right = after == order_.end() ? none : after->strand;
        const auto left = after == order_.begin() ? none : std::prev(after)->strand;
        auto low = left == none ? 0 : places_[left]->label;
        auto high = right == none ? std::numeric_limits<std::uint64_t>::max() : places_[right]->label;
        if (high - low < 2) {
            renumber();
            low = left == none ? 0 : places_[left]->label;
            high = right == none ? std::numeric_limits<std::uint64_t>::max() : places_[right]->label;
        }
        // At the ends of the order, room is left for more there.
        constexpr auto room = std::uint64_t{1} << 40U;
        const auto step = (high - low) / 2;
        const auto label = right == none  ? low + std::min(step, room)
                           : left == none ? high - std::min(step, room)
                                          : low + step;
        places_[s] = order_.emplace_hint(after, Place{.label = label, .strand = s});
        auto& strand = strands_[s];
        strand.left = left;
        strand.right = right;
        strand.since = y_;
        strand.since_edge = strand.edge;
        strand.is_changed = true;
        (left == none ? first_ : strands_[left].right) = s;
        if (right != none) strands_[right].left = s;
        changed_.push_back(s);
    }

    // Beginning with the first one of those that have changed, along the order up to where nothing has.
    void change_from(std::uint32_t first) {
        const auto left = strands_[first].left;
        auto windings = left == none ? Windings{} : right_of(left);
        for (auto s = first; s != none; s = strands_[s].right) {
            auto& strand = strands_[s];
            if (!strand.is_changed && strand.windings == windings) return;
            strand.is_changed = false;
            if (strand.is_ended) {
                end_part(s, y_);
                // For those that are to its right, it is gone.
                strand.windings = windings;
                continue;
            }
            set_windings(s, windings);
            windings = right_of(s);
        }
    }

    [[nodiscard]] Windings right_of(std::uint32_t s) const noexcept {
        auto windings = strands_[s].windings;
        if (!strands_[s].is_ended) covers_.add(windings, chain(s).group, chain(s).direction);
        return windings;
    }

    void set_windings(std::uint32_t s, const Windings& windings) {
        auto& strand = strands_[s];
        strand.windings = windings;
        const auto right = right_of(s);
        least_ = std::min(least_, right.of[0]);
        most_ = std::max(most_, right.of[0]);
        const auto side = (covers_(right) ? 1 : 0) - (covers_(windings) ? 1 : 0);
        if (side == strand.side) return;
        end_part(s, y_);
        strand.side = side;
        strand.since = y_;
        strand.since_edge = edge_at(s, y_);
    }

    void end_part(std::uint32_t s, double bottom) {
        const auto& strand = strands_[s];
        if (strand.side == 0 || strand.since >= bottom) return;
        parts_.push_back({.first = strand.since_edge, .side = strand.side, .top = strand.since, .bottom = bottom});
    }

    void remove(std::uint32_t s) {
        const auto& strand = strands_[s];
        (strand.left == none ? first_ : strands_[strand.left].right) = strand.right;
        if (strand.right != none) strands_[strand.right].left = strand.left;
        order_.erase(places_[s]);
        forget(s);
        if (strand.left != none) forget(strand.left);
    }

    // Two neighbours meet, or have not yet been looked at further down.
    void meet(std::uint32_t a) {
        const auto is_look = strands_[a].is_look;
        y_ = std::max(y_, strands_[a].next_y);
        const auto b = strands_[a].right;
        if (is_look) return look(a, b);
        swap(a, b);
        if (strands_[b].left != none) look(strands_[b].left, b);
        look(b, a);
        strands_[a].right != none ? look(a, strands_[a].right) : forget(a);
    }

    void swap(std::uint32_t a, std::uint32_t b) {
        const auto left = strands_[a].left;
        const auto right = strands_[b].right;
        (left == none ? first_ : strands_[left].right) = b;
        if (right != none) strands_[right].left = a;
        strands_[b].left = left;
        strands_[b].right = a;
        strands_[a].left = b;
        strands_[a].right = right;
        std::swap(places_[a]->strand, places_[b]->strand);
        std::swap(places_[a], places_[b]);
        const auto windings = strands_[a].windings;
        set_windings(b, windings);
        set_windings(a, right_of(b));
    }

    // Finds where two neighbours cross next, from the height at hand on.
    void look(std::uint32_t a, std::uint32_t b) {
        const auto& left = chain(a);
        const auto& right = chain(b);
        if (left.most_x <= right.least_x) return forget(a);
        const auto* own = &come_to(a, y_);
        const auto* other = &come_to(b, y_);
        const auto* const own_end = &edges_[left.end - 1];
        const auto* const other_end = &edges_[right.end - 1];
        auto y = y_;
        auto room = other->x_at(y) - own->x_at(y);
        for (auto steps = 0; room >= -hardly; ++steps) {
            constexpr auto many = 24;
            if (steps == many) return expect(a, y, true);
            const auto next = std::min(own->bottom, other->bottom);
            const auto below = other->x_at(next) - own->x_at(next);
            if (below < -hardly) {
                const auto above = std::max(room, 0.0);
                return expect(a, y + (next - y) * (above / (above - below)), false);
            }
            y = next;
            const auto own_goes_on = own->bottom > y || own != own_end;
            const auto other_goes_on = other->bottom > y || other != other_end;
            if (!own_goes_on || !other_goes_on) return forget(a);
            if (own->bottom <= y) ++own;
            if (other->bottom <= y) ++other;
            room = other->x_at(y) - own->x_at(y);
        }
        expect(a, y, false);
    }

    void renumber() {
        auto label = std::uint64_t{1} << 62U;
        constexpr auto room = std::uint64_t{1} << 36U;
        std::pmr::vector<Place> all{order_.begin(), order_.end(), order_.get_allocator().resource()};
        order_.clear();
        for (auto& place : all) {
            place.label = label += room;
            places_[place.strand] = order_.insert(order_.end(), place);
        }
    }

    // The events are a heap: a strand's comes before those at twice its place and one behind.
    void expect(std::uint32_t s, double y, bool is_look) {
        auto& strand = strands_[s];
        strand.next_y = std::max(y, y_);
        strand.is_look = is_look;
        if (strand.waits_at == none) {
            strand.waits_at = static_cast<std::uint32_t>(events_.size());
            events_.push_back(s);
        }
        find_place(s, strand.waits_at);
    }

    void forget(std::uint32_t s) {
        const auto at = std::exchange(strands_[s].waits_at, none);
        if (at == none) return;
        const auto last = events_.back();
        events_.pop_back();
        if (last != s) find_place(last, at);
    }

    // Puts one whose place is free up or down to where it belongs.
    void find_place(std::uint32_t s, std::uint32_t at) {
        const auto y = strands_[s].next_y;
        const auto put = [&](std::uint32_t which, std::uint32_t where) {
            events_[where] = which;
            strands_[which].waits_at = where;
        };
        for (; at > 0 && strands_[events_[(at - 1) / 2]].next_y > y; at = (at - 1) / 2) put(events_[(at - 1) / 2], at);
        const auto count = static_cast<std::uint32_t>(events_.size());
        for (auto below = 2 * at + 1; below < count; below = 2 * at + 1) {
            if (below + 1 < count && strands_[events_[below + 1]].next_y < strands_[events_[below]].next_y) ++below;
            if (strands_[events_[below]].next_y >= y) break;
            put(events_[below], at);
            at = below;
        }
        put(s, at);
    }

    const Chains& chains_;
    const std::pmr::vector<ChainEdge>& edges_;
    CoverTruth covers_;
    std::pmr::vector<Strand> strands_;  // of the chains
    std::pmr::vector<std::uint32_t> begins_;
    std::size_t next_begin_ = 0;
    std::pmr::vector<std::uint32_t> ends_;
    std::size_t next_end_ = 0;
    std::pmr::vector<std::uint32_t> events_;
    std::pmr::vector<std::uint32_t> changed_;
    Order order_;
    std::uint32_t first_ = none;
    std::pmr::vector<Order::iterator> places_{strands_.size(), strands_.get_allocator()};
    std::pmr::vector<ChainPart> parts_;
    double y_ = 0;
    // Of the winding numbers of the first group.
    int least_ = 0;
    int most_ = 0;
};

}  // namespace

std::pmr::vector<ChainPart> sided_parts(const Chains& chains, const CoverRule& rule,
                                        std::pmr::memory_resource* memory) {
    return ChainOrder{chains, rule, memory}.run();
}

int turn_of(const Chains& chains, std::pmr::memory_resource* memory) {
    const CoverRule rule;
    return -ChainOrder{chains, rule, memory}.only_winding();
}

}  // namespace coldbrick::inline v0::detail

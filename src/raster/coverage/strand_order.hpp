// Strands from left to right.
#pragma once

#include <algorithm>
#include <array>
#include <cstddef>
#include <cstdint>
#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// A list in chunks of some dozens each. One is found by a binary search over the chunks and in one, and put in or taken
// out by moving others in its chunk. A strand keeps its chunk (chunk) and its neighbours (left, right).
template <class Strand>
class StrandOrder {
  public:
    struct Chunk {
        double number;  // grows from left to right
        std::size_t count;
        std::array<Strand*, 32> at;
    };

    explicit StrandOrder(std::pmr::memory_resource* memory) : memory_{memory}, chunks_{memory}, unused_{memory} {}

    [[nodiscard]] std::size_t size() const noexcept { return size_; }
    [[nodiscard]] Strand* first() const noexcept { return chunks_.empty() ? nullptr : chunks_.front()->at[0]; }

    // The first strand of which is_before(strand) does not hold, if it holds of those before and of no other; null if
    // it holds of all.
    template <class IsBefore>
    [[nodiscard]] Strand* first_not(const IsBefore& is_before) const {
        const auto chunk = std::partition_point(chunks_.begin(), chunks_.end(),
                                                [&](const Chunk* of) { return is_before(*of->at[of->count - 1]); });
        if (chunk == chunks_.end()) return nullptr;
        const auto* const begin = (*chunk)->at.data();
        return *std::partition_point(begin, begin + (*chunk)->count, [&](const Strand* s) { return is_before(*s); });
    }

    // In front of another one, or behind all.
    void insert(Strand& s, Strand* before) {
        if (chunks_.empty()) insert_chunk(chunks_.begin());
        auto* chunk = before == nullptr ? chunks_.back() : before->chunk;
        auto at = before == nullptr ? chunk->count : index_of(*before);
        if (chunk->count == chunk->at.size()) {
            auto* const second = split(*chunk);
            if (at > chunk->count) {
                at -= chunk->count;
                chunk = second;
            }
        }
        std::copy_backward(chunk->at.begin() + at, chunk->at.begin() + chunk->count,
                           chunk->at.begin() + chunk->count + 1);
        chunk->at[at] = &s;
        ++chunk->count;
        ++size_;
        s.chunk = chunk;
        auto* const after = before == nullptr ? last_ : before->left;
        join(after, &s);
        join(&s, before);
    }

    void remove(Strand& s) {
        auto& chunk = *s.chunk;
        const auto at = index_of(s);
        std::copy(chunk.at.begin() + at + 1, chunk.at.begin() + chunk.count, chunk.at.begin() + at);
        --size_;
        if (--chunk.count == 0) remove_chunk(chunk);
        join(s.left, s.right);
    }

    // Of one and the next.
    void swap(Strand& a, Strand& b) {
        a.chunk->at[index_of(a)] = &b;
        // Of b, which now is there twice in one chunk, or else is the first one.
        auto* const at =
            a.chunk == b.chunk ? std::find(a.chunk->at.begin(), a.chunk->at.end(), &b) + 1 : b.chunk->at.begin();
        *at = &a;
        std::swap(a.chunk, b.chunk);
        auto* const before = a.left;
        auto* const behind = b.right;
        join(before, &b);
        join(&b, &a);
        join(&a, behind);
    }

    [[nodiscard]] bool is_before(const Strand& a, const Strand& b) const noexcept {
        return a.chunk != b.chunk ? a.chunk->number < b.chunk->number : index_of(a) < index_of(b);
    }

  private:
    void join(Strand* left, Strand* right) noexcept {
        if (left != nullptr) left->right = right;
        if (right != nullptr) right->left = left;
        if (right == nullptr) last_ = left;
    }

    [[nodiscard]] static std::size_t index_of(const Strand& s) noexcept {
        const auto& at = s.chunk->at;
        return static_cast<std::size_t>(std::find(at.begin(), at.end(), &s) - at.begin());
    }

    using Place = typename std::pmr::vector<Chunk*>::iterator;
    [[nodiscard]] Place place_of(const Chunk& chunk) noexcept {
        return std::partition_point(chunks_.begin(), chunks_.end(),
                                    [&](const Chunk* other) { return other->number < chunk.number; });
    }

    Chunk* insert_chunk(Place place) {
        auto* chunk = unused_.empty() ? new (memory_->allocate(sizeof(Chunk), alignof(Chunk))) Chunk : unused_.back();
        const auto before = place == chunks_.begin() ? 0 : (*std::prev(place))->number;
        const auto behind = place == chunks_.end() ? before + 2 : (*place)->number;
        chunk->number = before + (behind - before) / 2;
        chunk->count = 0;
        const auto has_room = before < chunk->number && chunk->number < behind;
        chunks_.insert(place, chunk);
        if (!unused_.empty()) unused_.pop_back();
        if (!has_room) renumber();
        return chunk;
    }

    void renumber() noexcept {
        auto number = 0.0;
        for (auto* const chunk : chunks_) chunk->number = number += 1;
    }

    void remove_chunk(Chunk& chunk) {
        unused_.push_back(&chunk);
        chunks_.erase(place_of(chunk));
    }

    // Moves the second half of a chunk to another one.
    Chunk* split(Chunk& chunk) {
        auto* const second = insert_chunk(std::next(place_of(chunk)));
        const auto half = chunk.count / 2;
        for (auto i = half; i < chunk.count; ++i) {
            second->at[second->count++] = chunk.at[i];
            chunk.at[i]->chunk = second;
        }
        chunk.count = half;
        return second;
    }

    std::pmr::memory_resource* memory_;
    std::pmr::vector<Chunk*> chunks_;  // none of them is empty
    std::pmr::vector<Chunk*> unused_;
    std::size_t size_ = 0;
    Strand* last_ = nullptr;
};

}  // namespace coldbrick::inline v0::detail

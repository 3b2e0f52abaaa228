// Letters that have been drawn, for all texts and threads.
#pragma once

#include "text/ready_letters.hpp"

#include <memory>
#include <mutex>
#include <unordered_map>
#include <vector>

namespace coldbrick::inline v0::detail {

// Keeps what letters cover, those that are used most lately, within some megabytes.
class GlyphCache {
  public:
    using Ready = std::shared_ptr<const ReadyLetters>;

    // 16 MiB in all: those that came since, and as many that came before and are asked for again.
    static constexpr std::size_t most_bytes = std::size_t{8} << 20U;

    static GlyphCache& of_all();

    // Null for those that are not there.
    [[nodiscard]] Ready find(const LettersKey& key);
    void keep(const LettersKey& key, const Ready& letters);

    // Several at once, under one lock: fills in those that are there.
    struct Wanted {
        LettersKey key;
        Ready found = nullptr;
    };
    void find_all(std::span<Wanted> wanted);

  private:
    struct Kept {
        std::vector<LetterKey> letters;
        double slant;
        Edge edge;
        [[nodiscard]] LettersKey key() const noexcept { return {.letters = letters, .slant = slant, .edge = edge}; }
    };
    struct Hash {
        using is_transparent = void;
        std::size_t operator()(const LettersKey& key) const noexcept;
        std::size_t operator()(const Kept& kept) const noexcept { return (*this)(kept.key()); }
    };
    struct Equal {
        using is_transparent = void;
        static bool are_same(const LettersKey& a, const LettersKey& b) noexcept;
        bool operator()(const Kept& a, const Kept& b) const noexcept { return are_same(a.key(), b.key()); }
        bool operator()(const Kept& a, const LettersKey& b) const noexcept { return are_same(a.key(), b); }
        bool operator()(const LettersKey& a, const Kept& b) const noexcept { return are_same(a, b.key()); }
    };
    using Map = std::unordered_map<Kept, Ready, Hash, Equal>;

    [[nodiscard]] Ready find_locked(const LettersKey& key);
    void keep_locked(Kept kept, const Ready& letters);

    std::mutex mutex_;
    Map young_;
    Map old_;
    std::size_t young_bytes_ = 0;
};

}  // namespace coldbrick::inline v0::detail

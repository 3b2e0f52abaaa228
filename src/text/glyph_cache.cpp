#include "text/glyph_cache.hpp"

#include <algorithm>
#include <bit>
#include <utility>

namespace coldbrick::inline v0::detail {

GlyphCache& GlyphCache::of_all() {
    static GlyphCache store;
    return store;
}

std::size_t GlyphCache::Hash::operator()(const LettersKey& key) const noexcept {
    // Multiplied by 2^64 over the golden ratio: Knuth, TAOCP 3, section 6.4.
    constexpr std::uint64_t spread = 0x9e3779b97f4a7c15U;
    auto hash = std::bit_cast<std::uint64_t>(key.slant) + static_cast<std::uint64_t>(key.edge);
    const auto take = [&](std::uint64_t number) { hash = (std::rotl(hash, 23) ^ number) * spread; };
    for (const auto& [face, glyph, x, y] : key.letters) {
        take(face << 32U ^ glyph);
        take(static_cast<std::uint64_t>(static_cast<std::uint32_t>(x)) << 32U | static_cast<std::uint32_t>(y));
    }
    return static_cast<std::size_t>(hash ^ hash >> 32U);
}

bool GlyphCache::Equal::are_same(const LettersKey& a, const LettersKey& b) noexcept {
    return a.slant == b.slant && a.edge == b.edge && std::ranges::equal(a.letters, b.letters);
}

GlyphCache::Ready GlyphCache::find(const LettersKey& key) {
    const std::lock_guard lock{mutex_};
    return find_locked(key);
}

void GlyphCache::find_all(std::span<Wanted> wanted) {
    const std::lock_guard lock{mutex_};
    for (auto& [key, found] : wanted) found = find_locked(key);
}

GlyphCache::Ready GlyphCache::find_locked(const LettersKey& key) {
    if (const auto young = young_.find(key); young != young_.end()) return young->second;
    const auto old = old_.find(key);
    if (old == old_.end()) return nullptr;
    auto node = old_.extract(old);
    auto found = node.mapped();
    keep_locked(std::move(node.key()), found);
    return found;
}

void GlyphCache::keep(const LettersKey& key, const Ready& letters) {
    const std::lock_guard lock{mutex_};
    keep_locked({.letters = {key.letters.begin(), key.letters.end()}, .slant = key.slant, .edge = key.edge}, letters);
}

void GlyphCache::keep_locked(Kept kept, const Ready& letters) {
    constexpr std::size_t of_entry = 128;
    const auto bytes = letters->bytes() + kept.letters.size() * sizeof(LetterKey) + of_entry;
    if (bytes > most_bytes / 8) return;
    if (young_bytes_ + bytes > most_bytes) {
        old_ = std::exchange(young_, {});
        young_bytes_ = 0;
    }
    if (young_.emplace(std::move(kept), letters).second) young_bytes_ += bytes;
}

}  // namespace coldbrick::inline v0::detail

#include "text/fonts/glyph_parts.hpp"

#include "text/fonts/font_file.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <cstdint>
#include <span>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

using TableBytes = std::span<const std::uint8_t>;

class FontTable {
  public:
    FontTable(hb_face_t* face, hb_tag_t tag) : blob_{hb_face_reference_table(face, tag)} {}

    [[nodiscard]] TableBytes bytes() const noexcept {
        auto length = 0U;
        const auto* const first = hb_blob_get_data(blob_.get(), &length);
        return {reinterpret_cast<const std::uint8_t*>(first), length};
    }

  private:
    Freed<hb_blob_t> blob_;
};

// A number of two bytes, the greater one first; 0 beyond the end.
unsigned number_at(TableBytes bytes, std::size_t at) noexcept {
    return at + 2 <= bytes.size() ? static_cast<unsigned>(bytes[at] << 8U | bytes[at + 1]) : 0;
}

// Counts the components of glyphs, each glyph once.
class PartCounter {
  public:
    PartCounter(hb_face_t* face, const std::string& from)
        : from_{from},
          head_{face, HB_TAG('h', 'e', 'a', 'd')},
          places_{face, HB_TAG('l', 'o', 'c', 'a')},
          glyphs_{face, HB_TAG('g', 'l', 'y', 'f')} {
        constexpr std::size_t format_at = 50;
        has_long_places_ = number_at(head_.bytes(), format_at) != 0;
        const auto entries = places_.bytes().size() / (has_long_places_ ? 4 : 2);
        parts_.assign(entries > 0 ? entries - 1 : 0, unknown);
    }

    void check_all() {
        for (std::size_t glyph = 0; glyph < parts_.size(); ++glyph) count(glyph);
    }

  private:
    static constexpr auto unknown = 0U;
    static constexpr auto being_counted = ~0U;

    struct Open {
        std::size_t glyph;
        std::vector<std::size_t> components;
        std::size_t next = 0;
        unsigned parts = 1;
    };

    // Goes down without the machine's stack, as deep as the font does.
    void count(std::size_t first) {
        if (parts_[first] != unknown) return;
        std::vector<Open> open;
        begin(first, open);
        while (!open.empty()) {
            auto& of = open.back();
            if (of.next == of.components.size()) {
                parts_[of.glyph] = of.parts;
                open.pop_back();
                continue;
            }
            const auto component = of.components[of.next];
            if (component >= parts_.size()) {
                ++of.next;  // FreeType says so where it is drawn
            } else if (parts_[component] == being_counted) {
                throw Error{from_ + ": glyph " + std::to_string(component) + " of the font is a component of itself"};
            } else if (parts_[component] == unknown) {
                begin(component, open);
            } else {
                ++of.next;
                of.parts += parts_[component];
                if (of.parts <= most_glyph_parts) continue;
                throw Error{from_ + ": glyph " + std::to_string(of.glyph) + " of the font has more than " +
                            std::to_string(most_glyph_parts) + " components; that many are allowed"};
            }
        }
    }

    void begin(std::size_t glyph, std::vector<Open>& open) {
        auto components = components_of(glyph);
        spend_work(1 + components.size());
        if (components.empty()) {
            parts_[glyph] = 1;
            return;
        }
        parts_[glyph] = being_counted;
        open.push_back({.glyph = glyph, .components = std::move(components)});
    }

    [[nodiscard]] std::size_t place_of(std::size_t glyph) const noexcept {
        const auto bytes = places_.bytes();
        if (!has_long_places_) return std::size_t{2} * number_at(bytes, 2 * glyph);
        return (std::size_t{number_at(bytes, 4 * glyph)} << 16U) + number_at(bytes, 4 * glyph + 2);
    }

    // Of a glyph of outlines, none.
    [[nodiscard]] std::vector<std::size_t> components_of(std::size_t glyph) const {
        const auto all = glyphs_.bytes();
        const auto begin = std::min(place_of(glyph), all.size());
        const auto end = std::clamp(place_of(glyph + 1), begin, all.size());
        const auto bytes = all.subspan(begin, end - begin);
        constexpr auto negative = 0x8000U;  // the sign of the number of outlines
        std::vector<std::size_t> components;
        if ((number_at(bytes, 0) & negative) == 0) return components;
        constexpr std::size_t header = 10;
        constexpr auto has_words = 0x1U;
        constexpr auto has_scale = 0x8U;
        constexpr auto goes_on = 0x20U;
        constexpr auto has_two_scales = 0x40U;
        constexpr auto has_matrix = 0x80U;
        for (auto at = header; at + 4 <= bytes.size();) {
            const auto flags = number_at(bytes, at);
            components.push_back(number_at(bytes, at + 2));
            at += (flags & has_words) != 0 ? 8 : 6;
            at += (flags & has_scale) != 0 ? 2 : (flags & has_two_scales) != 0 ? 4 : (flags & has_matrix) != 0 ? 8 : 0;
            if ((flags & goes_on) == 0 || components.size() > most_glyph_parts) break;
        }
        return components;
    }

    const std::string& from_;
    FontTable head_;
    FontTable places_;
    FontTable glyphs_;
    bool has_long_places_ = false;
    std::vector<unsigned> parts_;  // of each glyph, it counted too
};

}  // namespace

void check_glyph_parts(hb_face_t* face, const std::string& from) { PartCounter{face, from}.check_all(); }

}  // namespace coldbrick::inline v0::detail

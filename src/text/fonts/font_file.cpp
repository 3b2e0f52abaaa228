#include "text/fonts/font_file.hpp"

#include "geometry/limits.hpp"
#include "text/fonts/glyph_parts.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <new>
#include <set>
#include <utility>

#include FT_MULTIPLE_MASTERS_H
#include FT_OUTLINE_H
#include FT_TRUETYPE_TABLES_H
#include <hb-ot.h>

namespace coldbrick::inline v0::detail {

namespace {

std::string tag_name(hb_tag_t tag) {
    std::string name;
    for (auto shift = 24; shift >= 0; shift -= 8) {
        const auto c = static_cast<char>(tag >> static_cast<unsigned>(shift) & 0xffU);
        name += c >= ' ' && c <= '~' ? c : '?';
    }
    return name;
}

// A text of the font's "name" table, as it can be shown.
std::string name_of(hb_face_t* face, hb_ot_name_id_t id) {
    std::array<char, 256> text{};
    auto size = static_cast<unsigned>(text.size());
    hb_ot_name_get_utf8(face, id, HB_LANGUAGE_INVALID, &size, text.data());
    return printable({text.data(), std::min<std::size_t>(size, text.size() - 1)});
}

// FreeType does not always have texts of its own.
std::string why(FT_Error error) {
    const auto* const text = FT_Error_String(error);
    if (text != nullptr) return text;
    return error == FT_Err_Unknown_File_Format ? "no format that is known"
                                               : "FreeType's error " + std::to_string(error);
}

Freed<std::remove_pointer_t<FT_Library>> new_library() {
    FT_Library library = nullptr;
    if (FT_Init_FreeType(&library) != 0) throw std::bad_alloc{};
    return Freed<std::remove_pointer_t<FT_Library>>{library};
}

Freed<std::remove_pointer_t<FT_Face>> open_face(FT_Library library, const std::string& from,
                                                std::span<const std::uint8_t> bytes, int number) {
    constexpr std::size_t most = 1U << 28U;
    if (bytes.size() > most) {
        throw Error{from + ": the font has " + std::to_string(bytes.size()) + " bytes; allowed are " +
                    std::to_string(most)};
    }
    FT_Face face = nullptr;
    const auto error = FT_New_Memory_Face(library, bytes.data(), static_cast<FT_Long>(bytes.size()), number, &face);
    if (error == FT_Err_Out_Of_Memory) throw std::bad_alloc{};
    if (error != 0) throw Error{from + ": it is no font file, or a damaged one (" + why(error) + ")"};
    return Freed<std::remove_pointer_t<FT_Face>>{face};
}

Position place_of(const FT_Vector* at) noexcept {
    return {.x = static_cast<double>(at->x), .y = static_cast<double>(at->y)};
}

// 0: FreeType may go on.
int add_step(void* steps, const Path::Step& step) noexcept {
    auto& to = *static_cast<std::vector<Path::Step>*>(steps);
    if (to.size() == to.capacity()) return 1;
    to.push_back(step);
    return 0;
}

// Whether all points of a ring lie on one line, so that it encloses nothing: fonts have such as marks for hinting.
bool is_flat(std::span<const Path::Step> ring) noexcept {
    const auto first = Vec{ring.front().to.x, ring.front().to.y};
    auto along = Vec{};
    const auto leaves_line = [&](Position at) {
        const auto offset = Vec{at.x, at.y} - first;
        if (along == Vec{}) along = offset;
        return cross(along, offset) != 0;
    };
    return std::none_of(ring.begin() + 1, ring.end(), [&](const Path::Step& step) {
        const auto is_curve = step.kind == Path::Step::Kind::cubic;
        return leaves_line(step.to) || (is_curve && (leaves_line(step.control_1) || leaves_line(step.control_2)));
    });
}

// Adds a ring the other way round.
void add_reversed(std::span<const Path::Step> ring, std::vector<Path::Step>& to) {
    to.push_back({.kind = Path::Step::Kind::move, .to = ring.back().to});
    for (auto i = ring.size() - 1; i > 0; --i) {
        auto step = ring[i];
        std::swap(step.control_1, step.control_2);
        step.to = ring[i - 1].to;
        to.push_back(step);
    }
}

// The rings that enclose something.
std::vector<Path::Step> rings_of(const std::vector<Path::Step>& steps, bool is_reversed) {
    std::vector<Path::Step> kept;
    kept.reserve(steps.size());
    const auto begins = [](const Path::Step& step) { return step.kind == Path::Step::Kind::move; };
    for (auto begin = steps.begin(); begin != steps.end();) {
        const auto end = std::find_if(begin + 1, steps.end(), begins);
        const std::span<const Path::Step> ring{begin, end};
        begin = end;
        if (is_flat(ring)) continue;
        is_reversed ? add_reversed(ring, kept) : void(kept.insert(kept.end(), ring.begin(), ring.end()));
    }
    return kept;
}

}  // namespace

FontFile::FontFile(std::string from, FontBytes bytes, int number, std::vector<FaceAxis> axes)
    : from_{std::move(from)},
      bytes_{std::move(bytes)},
      number_{number},
      axes_{std::move(axes)},
      library_{new_library()} {
    const auto count = count_font_faces(from_, *bytes_);
    if (number_ < 0 || number_ >= count) {
        throw Error{from_ + ": face number " + std::to_string(number_) + "; allowed is 0" +
                    (count > 1 ? " to " + std::to_string(count - 1) : ", the only one")};
    }
    open();
    set_axes();
    find_name();
    find_capitals();
    hb_font_make_immutable(hb_font_.get());
}

void FontFile::open() {
    face_ = open_face(library_.get(), from_, *bytes_, number_);
    if (!FT_IS_SCALABLE(face_)) {
        throw Error{from_ + ": the font has pictures of letters only (bitmaps); allowed are such with outlines"};
    }
    const auto& first = *bytes_;
    const auto is_packed = first.size() > 3 && first[0] == 'w' && first[1] == 'O' && first[2] == 'F';
    if (!FT_IS_SFNT(face_) || is_packed) {
        throw Error{from_ + ": the font is of another kind (" + (is_packed ? "WOFF" : "not OpenType") +
                    "); allowed are TrueType, OpenType and collections of them"};
    }
    const Freed<hb_blob_t> blob{hb_blob_create(reinterpret_cast<const char*>(first.data()),
                                               static_cast<unsigned>(first.size()), HB_MEMORY_MODE_READONLY, nullptr,
                                               nullptr)};
    hb_face_.reset(hb_face_create(blob.get(), static_cast<unsigned>(number_)));
    em_ = face_->units_per_EM;
    constexpr auto least_em = 16;  // OpenType 1.9, "head"
    if (em_ < least_em || hb_face_get_upem(hb_face_.get()) != static_cast<unsigned>(face_->units_per_EM)) {
        throw Error{from_ + ": the font is damaged: its em square has " + in_digits(em_) + " units"};
    }
    check_glyph_parts(hb_face_.get(), from_);
    hb_font_.reset(hb_font_create(hb_face_.get()));
    hb_font_set_scale(hb_font_.get(), static_cast<int>(em_), static_cast<int>(em_));
    const auto height = double{1} * face_->height;
    constexpr auto usual_lines = 1.2;  // of the em square
    line_height_ = height > 0 ? height : usual_lines * em_;
}

void FontFile::set_axes() {
    if (axes_.empty()) return;
    const auto ranges = axis_ranges();
    std::vector<double> places;
    places.reserve(ranges.size());
    for (const auto& range : ranges) places.push_back(range.usual);
    for (const auto& axis : axes_) {
        const auto& tag = axis.tag;
        const auto value = axis.value;
        const auto found =
            std::find_if(ranges.begin(), ranges.end(), [&](const FaceAxisRange& range) { return range.tag == tag; });
        if (found == ranges.end()) {
            std::string all;
            for (const auto& range : ranges) all += (all.empty() ? "" : ", ") + range.tag;
            throw Error{"face " + name_of(hb_face_.get(), HB_OT_NAME_ID_FONT_FAMILY) + " has no axis \"" +
                        printable(tag) + "\"; " + (all.empty() ? "it has none" : "allowed are " + all)};
        }
        if (!(value >= found->least && value <= found->most)) {
            throw Error{"face " + name_of(hb_face_.get(), HB_OT_NAME_ID_FONT_FAMILY) + ": axis " + tag + " is " +
                        in_digits(value) + "; allowed is " + in_digits(found->least) + " to " + in_digits(found->most)};
        }
        places[static_cast<std::size_t>(found - ranges.begin())] = value;
    }
    std::vector<FT_Fixed> coordinates;
    std::vector<hb_variation_t> variations;
    for (std::size_t i = 0; i < places.size(); ++i) {
        constexpr auto fixed = 65536.0;
        coordinates.push_back(static_cast<FT_Fixed>(std::floor(places[i] * fixed + 0.5)));
        variations.push_back({.tag = *tag_of(ranges[i].tag), .value = static_cast<float>(places[i])});
    }
    const auto error =
        FT_Set_Var_Design_Coordinates(face_.get(), static_cast<FT_UInt>(coordinates.size()), coordinates.data());
    if (error == FT_Err_Out_Of_Memory) throw std::bad_alloc{};
    if (error != 0) throw Error{from_ + ": its axes are damaged (" + why(error) + ")"};
    hb_font_set_variations(hb_font_.get(), variations.data(), static_cast<unsigned>(variations.size()));
}

void FontFile::find_name() {
    name_ = name_of(hb_face_.get(), HB_OT_NAME_ID_FONT_FAMILY);
    const auto style = name_of(hb_face_.get(), HB_OT_NAME_ID_FONT_SUBFAMILY);
    if (name_.empty()) name_ = "without a name";
    if (!style.empty() && style != "Regular") name_ += " " + style;
}

// How high an H is; of faces without one, what they say of capitals.
void FontFile::find_capitals() {
    constexpr auto usual = 0.7;  // of the em square
    const auto is_likely = [this](double height) {
        constexpr auto least = 0.05;
        constexpr auto most = 4;
        return height >= least * em_ && height <= most * em_;
    };
    hb_codepoint_t glyph = 0;
    if (hb_font_get_nominal_glyph(hb_font_.get(), U'H', &glyph) != 0) {
        for (const auto& step : read_outline(glyph).steps) capitals_ = std::max(capitals_, step.to.y);
    }
    if (is_likely(capitals_)) return;
    const auto* const os2 = static_cast<const TT_OS2*>(FT_Get_Sfnt_Table(face_.get(), FT_SFNT_OS2));
    constexpr auto with_capitals = 2;  // the version of the table
    capitals_ = os2 != nullptr && os2->version >= with_capitals ? os2->sCapHeight : 0;
    if (!is_likely(capitals_)) capitals_ = usual * em_;
}

bool FontFile::has(char32_t letter) const noexcept {
    hb_codepoint_t glyph = 0;
    const auto is_drawn = [&](hb_codepoint_t c) {
        return hb_font_get_nominal_glyph(hb_font_.get(), c, &glyph) != 0 && glyph != 0;
    };
    if (is_drawn(letter)) return true;
    // What is made of others is drawn by these.
    hb_codepoint_t first = 0;
    hb_codepoint_t second = 0;
    if (hb_unicode_decompose(hb_unicode_funcs_get_default(), letter, &first, &second) == 0) return false;
    return has(first) && (second == 0 || is_drawn(second));
}

std::vector<char32_t> FontFile::characters() const {
    const Freed<hb_set_t> set{hb_set_create()};
    hb_face_collect_unicodes(hb_face_.get(), set.get());
    if (hb_set_allocation_successful(set.get()) == 0) throw std::bad_alloc{};
    std::vector<char32_t> all;
    for (auto c = HB_SET_VALUE_INVALID; hb_set_next(set.get(), &c) != 0;) all.push_back(c);
    return all;
}

std::vector<std::string> FontFile::features() const {
    std::set<std::string> all;
    for (const auto table : {HB_OT_TAG_GSUB, HB_OT_TAG_GPOS}) {
        std::array<hb_tag_t, 64> tags{};
        auto begin = 0U;
        while (true) {
            auto count = static_cast<unsigned>(tags.size());
            const auto total = hb_ot_layout_table_get_feature_tags(hb_face_.get(), table, begin, &count, tags.data());
            for (auto i = 0U; i < count; ++i) all.insert(tag_name(tags[i]));
            begin += count;
            if (count == 0 || begin >= total) break;
        }
    }
    const Freed<hb_blob_t> kern{hb_face_reference_table(hb_face_.get(), HB_TAG('k', 'e', 'r', 'n'))};
    if (hb_blob_get_length(kern.get()) > 0) all.insert("kern");
    return {all.begin(), all.end()};
}

std::vector<FaceAxisRange> FontFile::axis_ranges() const {
    std::vector<hb_ot_var_axis_info_t> axes(hb_ot_var_get_axis_count(hb_face_.get()));
    auto count = static_cast<unsigned>(axes.size());
    hb_ot_var_get_axis_infos(hb_face_.get(), 0, &count, axes.data());
    std::vector<FaceAxisRange> ranges;
    ranges.reserve(axes.size());
    for (const auto& axis : axes) {
        ranges.push_back({.tag = tag_name(axis.tag),
                          .name = name_of(hb_face_.get(), axis.name_id),
                          .least = axis.min_value,
                          .usual = axis.default_value,
                          .most = axis.max_value});
    }
    return ranges;
}

std::shared_ptr<const GlyphOutline> FontFile::outline(std::uint32_t glyph) const {
    const std::lock_guard lock{mutex_};
    const auto known = outlines_.find(glyph);
    if (known != outlines_.end()) return known->second;
    auto read = std::make_shared<const GlyphOutline>(read_outline(glyph));
    constexpr std::size_t most_bytes = 4U << 20U;
    constexpr std::size_t entry = 64;
    const auto bytes = read->steps.size() * sizeof(Path::Step) + entry;
    if (kept_bytes_ + bytes > most_bytes) {
        outlines_.clear();
        kept_bytes_ = 0;
    }
    outlines_.emplace(glyph, read);
    kept_bytes_ += bytes;
    return read;
}

GlyphOutline FontFile::read_outline(std::uint32_t glyph) const {
    // PostScript outlines end after 20,000,000 steps (FreeType's limit), and after 32,767 points.
    const auto error = FT_Load_Glyph(face_.get(), glyph, FT_LOAD_NO_SCALE | FT_LOAD_IGNORE_TRANSFORM);
    check_budget();
    if (error == FT_Err_Out_Of_Memory) throw std::bad_alloc{};
    if (error != 0 || face_->glyph->format != FT_GLYPH_FORMAT_OUTLINE) {
        throw Error{from_ + ": glyph " + std::to_string(glyph) + " of the font is damaged" +
                    (error != 0 ? " (" + why(error) + ")" : "")};
    }
    auto& outline = face_->glyph->outline;
    // As many as there may be, so that nothing is thrown through FreeType.
    std::vector<Path::Step> steps;
    steps.reserve(2 * static_cast<std::size_t>(outline.n_points) + 2 * static_cast<std::size_t>(outline.n_contours));
    FT_Outline_Funcs calls{};
    calls.move_to = [](const FT_Vector* to, void* user) {
        return add_step(user, {.kind = Path::Step::Kind::move, .to = place_of(to)});
    };
    calls.line_to = [](const FT_Vector* to, void* user) {
        return add_step(user, {.kind = Path::Step::Kind::line, .to = place_of(to)});
    };
    calls.conic_to = [](const FT_Vector* control, const FT_Vector* to, void* user) {
        const auto& before = *static_cast<std::vector<Path::Step>*>(user);
        if (before.empty()) return 1;
        const auto nearer = [&](Position end) {
            const auto by = place_of(control);
            return Position{.x = end.x + (by.x - end.x) * 2 / 3, .y = end.y + (by.y - end.y) * 2 / 3};
        };
        return add_step(user, {.kind = Path::Step::Kind::cubic,
                               .to = place_of(to),
                               .control_1 = nearer(before.back().to),
                               .control_2 = nearer(place_of(to))});
    };
    calls.cubic_to = [](const FT_Vector* first, const FT_Vector* second, const FT_Vector* to, void* user) {
        return add_step(user, {.kind = Path::Step::Kind::cubic,
                               .to = place_of(to),
                               .control_1 = place_of(first),
                               .control_2 = place_of(second)});
    };
    if (FT_Outline_Decompose(&outline, &calls, &steps) != 0) {
        throw Error{from_ + ": glyph " + std::to_string(glyph) + " of the font is damaged"};
    }
    // Those of TrueType go clockwise around what is inside, those of PostScript the other way.
    const auto is_reversed = FT_Outline_Get_Orientation(&outline) == FT_ORIENTATION_POSTSCRIPT;
    return {.steps = rings_of(steps, is_reversed)};
}

int count_font_faces(const std::string& from, std::span<const std::uint8_t> bytes) {
    const auto library = new_library();
    const auto probe = open_face(library.get(), from, bytes, -1);
    return static_cast<int>(std::max<FT_Long>(probe->num_faces, 1));
}

}  // namespace coldbrick::inline v0::detail

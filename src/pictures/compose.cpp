#include "coldbrick/compose.hpp"

#include "formats/color_rows.hpp"
#include "formats/kernels.hpp"
#include "formats/source_over.hpp"
#include "geometry/limits.hpp"
#include "paint/surfaces/observer.hpp"
#include "pictures/packed_copy.hpp"
#include "pictures/picture_sources.hpp"
#include "pictures/sampled_source.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/region.hpp"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

std::string in_words(const Box& box) {
    return std::to_string(box.at.x) + "," + std::to_string(box.at.y) + " size " + std::to_string(box.size.width) + "," +
           std::to_string(box.size.height);
}

// Throws Error unless the box has pixels, all of the surface's clip.
void check_part(std::string_view call, const Surface& surface, const Box& box) {
    if (!box.empty() && intersection(box, surface.window) == box) return;
    throw Error{std::string{call} + ": the part is " + in_words(box) + "; allowed are parts of the picture's " +
                in_words(surface.window)};
}

void check_turn(std::string_view what, Mirror mirrored, Quarters turned) {
    check_choice(what, "mirrored", mirrored, {"none", "left_right", "top_bottom"});
    check_choice(what, "turned", turned, {"none", "one", "two", "three"});
}

// The memory of the clip's rows, from the lowest to behind the highest address.
std::pair<std::uintptr_t, std::uintptr_t> reach_of(const Surface& surface) noexcept {
    const auto [at, size] = surface.window;
    const auto clip = moved_to(surface, at);
    const auto first = reinterpret_cast<std::uintptr_t>(clip.top_left);
    const auto last = reinterpret_cast<std::uintptr_t>(clip.top_left + (size.height - 1) * clip.stride);
    const auto row = static_cast<std::uintptr_t>(clip.kernel->row_bytes(clip.first_bit + size.width));
    return {std::min(first, last), std::max(first, last) + row};
}

bool do_overlap(const Surface& a, const Surface& b) noexcept {
    const auto [a_begin, a_end] = reach_of(a);
    const auto [b_begin, b_end] = reach_of(b);
    return a_begin < b_end && b_begin < a_end;
}

// A surface, or what has become of it.
class Prepared {
  public:
    explicit Prepared(const Surface& from) : surface_{from} {}

    void turn_by(const Paste& how) {
        if (how.mirrored == Mirror::none && how.turned == Quarters::none) return;
        auto size = surface_.window.size;
        if (is_sideways(how.turned)) std::swap(size.width, size.height);
        PackedCopy copy{surface_, size, packed_kernel(*surface_.kernel)};
        turn(surface_, copy.surface, how.mirrored, how.turned);
        take(std::move(copy));
    }

    void resize_by(const Paste& how) {
        const auto& size = surface_.window.size;
        if (how.size == Size{}) return;
        const auto wanted = proportional(size, how.size);
        if (wanted == size) return;
        const auto scaling = how.scaling.value_or(usual_scaling(size, wanted));
        const auto needs_colors = surface_.kernel->is_indexed && scaling != Scaling::nearest;
        PackedCopy copy{surface_, wanted, needs_colors ? rgba8_kernel : packed_kernel(*surface_.kernel)};
        resize(surface_, copy.surface, scaling);
        take(std::move(copy));
    }

    void copy() { take(PackedCopy{surface_}); }

    [[nodiscard]] const Surface& surface() const noexcept { return surface_; }

  private:
    void take(PackedCopy copy) {
        surface_ = copy.surface;
        bytes_ = std::move(copy.bytes);
    }

    Surface surface_;
    PixelBytes bytes_;
};

bool is_usual(const Compositing& compositing) noexcept {
    return compositing.opacity == 1 && compositing.channels == Channels::all &&
           (compositing.blend == Blend::over || compositing.blend == Blend::replace);
}

// Where pixels have another colour than this, as they lie on the target.
Region pixels_unlike(const Surface& from, Color color, Point at) {
    std::vector<Span> spans;
    const auto [first, size] = from.window;
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            if (decode(from, {.x = first.x + x, .y = first.y + y}) == color) continue;
            const auto goes_on =
                !spans.empty() && spans.back().y == at.y + y && spans.back().x + spans.back().length == at.x + x;
            if (goes_on) {
                ++spans.back().length;
            } else {
                spans.push_back({.y = at.y + y, .x = at.x + x, .length = 1});
            }
        }
    }
    return Region::of_spans(spans);
}

// Rows that need no arithmetic, or only that of source-over in the same format. Says whether it could.
bool paste_rows(const Surface& to, const Surface& from, Point at, const Paste& how) {
    const auto is_simple = to.kernel == from.kernel && !to.kernel->is_sparse && !to.clips && !how.without &&
                           is_usual(how.compositing) && !to.kernel->is_indexed;
    if (!is_simple) return false;
    const auto replaces = how.compositing.blend == Blend::replace || !to.kernel->has_alpha;
    if (!replaces && !to.kernel->is_by_byte) return false;
    const auto box = intersection(Box{.at = at, .size = from.window.size}, to.window);
    const auto row_bytes = static_cast<std::size_t>(to.kernel->row_bytes(box.size.width));
    for (int y = box.at.y; y < box.at.y + box.size.height; ++y) {
        auto* const pixels = pixel_address(to, box.at.x, y);
        const auto* const source = pixel_address(from, from.window.at.x + box.at.x - at.x, from.window.at.y + y - at.y);
        if (replaces) {
            std::memcpy(pixels, source, row_bytes);
        } else {
            blend_row(source, pixels, static_cast<std::size_t>(box.size.width));
        }
    }
    return true;
}

}  // namespace

namespace {

Prepared prepared_from(const Surface& from, const Paste& how) {
    auto part = from;
    part.window = how.part.value_or(from.window);
    check_part("paste", from, part.window);
    (void)Ink{Color{}, how.compositing};  // throws Error for what is not allowed
    check_turn("paste", how.mirrored, how.turned);
    if (how.scaling) check_scaling("paste", *how.scaling);
    Prepared prepared{part};
    prepared.turn_by(how);
    prepared.resize_by(how);
    return prepared;
}

}  // namespace

namespace {

struct CopiedPicture final : KeptPicture {
    explicit CopiedPicture(const Surface& of) : copy{of} { surface = copy.surface; }
    PackedCopy copy;
};

}  // namespace

Shared<KeptPicture> prepared_picture(const Surface& from, const Paste& how) {
    auto prepared = prepared_from(from, how);
    return make_shared_value<CopiedPicture>(prepared.surface());
}

Box pasted_box(const Surface& from, const Paste& how, const Transform& by) {
    const auto box = Box{.at = how.at, .size = from.window.size};
    check_box("paste", box);
    (void)Ink{Color{}, how.compositing};
    if (by.is_identity()) return box;
    return bounds(transformed(filled(box, {.edge = Edge::smooth}), by));
}

Box paste(const Surface& to, const Surface& from, const Paste& how, const Transform& by) {
    auto prepared = prepared_from(from, how);
    const auto box = Box{.at = how.at, .size = prepared.surface().window.size};
    check_box("paste", box);
    const auto seen = intersection(box, to.window);
    if (by.is_identity() && seen.empty()) return {};
    if (!to.window.empty() && do_overlap(to, prepared.surface())) prepared.copy();
    const auto& surface = prepared.surface();
    if (!by.is_identity()) {
        auto source = make_shared_value<SampledSource>(surface, how.at, how.without, by.inverse());
        const auto area = transformed(filled(box, {.edge = Edge::smooth}), by);
        return paint(to, Ink{Ink{Ink::Source{source}}, how.compositing}, area_ref(area));
    }
    const auto is_pasted = paste_rows(to, surface, how.at, how);
    if (is_pasted && to.observer == nullptr) return seen;
    auto source = make_shared_value<SurfaceSource>(surface, how.at);
    const auto ink = Ink{Ink{Ink::Source{source}}, how.compositing};
    if (is_pasted) {
        to.observer->begin(ink, Box{});
        report_box(to, seen);
        return seen;
    }
    if (!how.without) return paint(to, ink, area_ref(box));
    const auto region = pixels_unlike(surface, *how.without, how.at);
    return paint(to, ink, area_ref(region));
}

void turn(const Surface& from, const Surface& to, Mirror mirrored, Quarters turned) {
    check_turn("turned", mirrored, turned);
    if (mirrored == Mirror::none && turned == Quarters::none) return convert(from, to);
    if (from.kernel != to.kernel) return turn(PackedCopy{from}.surface, to, mirrored, turned);
    const auto [at, size] = from.window;
    const PixelCopier copier{from, to};
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            const auto column = mirrored == Mirror::left_right ? size.width - 1 - x : x;
            const auto row = mirrored == Mirror::top_bottom ? size.height - 1 - y : y;
            auto place = Point{.x = column, .y = row};
            if (turned == Quarters::one) place = {.x = size.height - 1 - row, .y = column};
            if (turned == Quarters::two) place = {.x = size.width - 1 - column, .y = size.height - 1 - row};
            if (turned == Quarters::three) place = {.x = row, .y = size.width - 1 - column};
            copier.copy({.x = at.x + x, .y = at.y + y}, place);
        }
    }
}

void check_margins(const Margins& margins) {
    for (const auto margin : {margins.left, margins.top, margins.right, margins.bottom}) {
        if (margin < 0 || margin > max_coordinate / 4) refuse("border", "a margin", margin, 0, max_coordinate / 4);
    }
}

Surface crop(const Surface& surface, const Box& box) {
    check_part("crop", surface, box);
    if (surface.clips) throw Error{"crop: the view is clipped by a region; crop before that"};
    auto cropped = surface;
    static_cast<Target&>(cropped) = moved_to(surface, box.at);
    cropped.size = box.size;
    cropped.window = {.at = {}, .size = box.size};
    return cropped;
}

namespace {

void make_gray(std::vector<Color>& colors) { make_gray_row(colors.data(), colors.size()); }
void make_gray(std::vector<Color16>& colors) {
    for (auto& color : colors) color.red = color.green = color.blue = luma(color);
}

// Whole rows where no clip cuts them.
template <class Texel>
void gray_out_rows(const Surface& surface) {
    const auto [at, size] = surface.window;
    std::vector<Texel> colors(static_cast<std::size_t>(size.width));
    for (int y = at.y; y < at.y + size.height; ++y) {
        read_colors(surface, {.x = at.x, .y = y}, size.width, colors.data());
        make_gray(colors);
        if (!surface.clips) {
            write_colors(surface, colors.data(), size.width, {.x = at.x, .y = y});
            continue;
        }
        for (int x = at.x; x < at.x + size.width; ++x) {
            if (!contains(surface, {.x = x, .y = y})) continue;
            write_colors(surface, &colors[static_cast<std::size_t>(x - at.x)], 1, {.x = x, .y = y});
        }
    }
}

}  // namespace

void gray_out(const Surface& surface) {
    if (surface.kernel->is_color && !surface.clips) {
        const auto [at, size] = surface.window;
        for (int y = at.y; y < at.y + size.height; ++y) {
            auto* const colors = reinterpret_cast<Color*>(pixel_address(surface, at.x, y));
            make_gray_row(colors, static_cast<std::size_t>(size.width));
        }
        return;
    }
    surface.kernel->load_deep != nullptr ? gray_out_rows<Color16>(surface) : gray_out_rows<Color>(surface);
}

Box replace_color(const Surface& surface, Color from, Color to, int tolerance) {
    constexpr auto most = 255;
    if (tolerance < 0 || tolerance > most) refuse("replace_color", "tolerance", tolerance, 0, most);
    const auto is_near = [=](std::uint8_t a, std::uint8_t b) { return std::abs(a - b) <= tolerance; };
    const auto [at, size] = surface.window;
    std::vector<Color> colors(static_cast<std::size_t>(size.width));
    Box touched;
    for (int y = at.y; y < at.y + size.height; ++y) {
        read_colors(surface, {.x = at.x, .y = y}, size.width, colors.data());
        for (int x = at.x; x < at.x + size.width; ++x) {
            const auto& color = colors[static_cast<std::size_t>(x - at.x)];
            const auto is_meant = is_near(color.red, from.red) && is_near(color.green, from.green) &&
                                  is_near(color.blue, from.blue) && is_near(color.alpha, from.alpha);
            if (!is_meant || !contains(surface, {.x = x, .y = y})) continue;
            write_colors(surface, &to, 1, {.x = x, .y = y});
            touched = enclosing(touched, Box{.at = {.x = x, .y = y}, .size = {.width = 1, .height = 1}});
        }
    }
    return touched;
}

}  // namespace coldbrick::inline v0::detail

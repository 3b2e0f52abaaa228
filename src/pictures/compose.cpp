#include "coldbrick/compose.hpp"

#include "formats/kernels.hpp"
#include "formats/source_over.hpp"
#include "geometry/limits.hpp"
#include "geometry/vectors.hpp"
#include "paint/witness.hpp"
#include "pictures/packed_copy.hpp"

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

bool is_opaque(const Surface& picture) noexcept {
    if (picture.kernel != &index8_kernel) return !picture.kernel->has_alpha;
    const auto colors = palette_of(picture).colors();
    return std::all_of(colors.begin(), colors.end(), [](Color color) { return color.alpha == 255; });
}

// The colours of a surface, which lies somewhere on the target.
class SurfaceSource final : public InkSource {
  public:
    SurfaceSource(const Surface& from, Point at) : from_{from}, at_{at} {}

    void fetch(Point from, int count, const Box&, Color* colors) const override {
        read_colors(from_, place_of(from), count, colors);
    }
    void fetch(Point from, int count, const Box&, Color16* colors) const override {
        read_colors(from_, place_of(from), count, colors);
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return detail::is_opaque(from_); }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    [[nodiscard]] Point place_of(Point on_target) const noexcept { return from_.window.at + (on_target - at_); }

    Surface from_;
    Point at_;
};

// The same under a transform: each pixel from where its centre comes from, by the one that takes it back.
class SampledSource final : public InkSource {
  public:
    SampledSource(const Surface& from, Point at, const std::optional<Color>& without, const Transform& back)
        : from_{from}, at_{at}, without_{without}, back_{back} {}

    void fetch(Point from, int count, const Box&, Color* colors) const override {
        if (from_.kernel->is_color && !without_) return fetch_colors(from, count, colors);
        for (int i = 0; i < count; ++i) colors[i] = narrowed(sample({.x = from.x + i, .y = from.y}));
    }
    void fetch(Point from, int count, const Box&, Color16* colors) const override {
        for (int i = 0; i < count; ++i) colors[i] = sample({.x = from.x + i, .y = from.y});
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return !without_ && detail::is_opaque(from_); }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    [[nodiscard]] Color16 sample(Point pixel) const {
        const auto& size = from_.window.size;
        const auto place = back_(pixel);
        const auto x = std::clamp(place.x - at_.x, 0.0, size.width - 1.0);
        const auto y = std::clamp(place.y - at_.y, 0.0, size.height - 1.0);
        const auto column = static_cast<int>(x);
        const auto row = static_cast<int>(y);
        std::array<double, 4> sums{};
        const auto add = [&](int right, int down, double weight) {
            if (weight <= 0) return;
            const auto color =
                color_at({.x = std::min(column + right, size.width - 1), .y = std::min(row + down, size.height - 1)});
            const auto alpha = weight * color.alpha;
            sums[0] += alpha * color.red;
            sums[1] += alpha * color.green;
            sums[2] += alpha * color.blue;
            sums[3] += alpha;
        };
        add(0, 0, (column + 1 - x) * (row + 1 - y));
        add(1, 0, (x - column) * (row + 1 - y));
        add(0, 1, (column + 1 - x) * (y - row));
        add(1, 1, (x - column) * (y - row));
        return sums[3] > 0 ? color_of(sums) : Color16{.alpha = 0};
    }

    // The same as narrowed(sample(...)), of pixels that are as colours are: four channels at a time.
    void fetch_colors(Point from, int count, Color* colors) const {
        using Four = double __attribute__((vector_size(32)));
        using Bytes4 = std::uint8_t __attribute__((vector_size(4)));
        const auto* const first = pixel_address<4>(from_, from_.window.at);
        run_in_vectors([=, width = from_.window.size.width, height = from_.window.size.height, stride = from_.stride,
                        back = back_, at = at_]() COLDBRICK_KERNEL {
            for (int i = 0; i < count; ++i) {
                const auto place = back(Point{.x = from.x + i, .y = from.y});
                const auto x = std::clamp(place.x - at.x, 0.0, width - 1.0);
                const auto y = std::clamp(place.y - at.y, 0.0, height - 1.0);
                const auto column = static_cast<int>(x);
                const auto row = static_cast<int>(y);
                const auto* const upper = first + row * stride + std::ptrdiff_t{4} * column;
                const auto right = column + 1 < width ? std::ptrdiff_t{4} : 0;
                const auto down = row + 1 < height ? stride : 0;
                Four sums{};
                const auto add = [&](const std::uint8_t* pixel, double weight) COLDBRICK_KERNEL {
                    Bytes4 bytes;
                    read(pixel, bytes);
                    auto channels = __builtin_convertvector(bytes, Four) * 257.0;
                    const auto alpha = weight * channels[3];
                    channels[3] = 1;
                    sums += channels * alpha;
                };
                const auto [part_x, part_y] = std::pair{x - column, y - row};
                add(upper, (column + 1 - x) * (row + 1 - y));
                add(upper + right, part_x * (row + 1 - y));
                add(upper + down, (column + 1 - x) * part_y);
                add(upper + down + right, part_x * part_y);
                colors[i] = sums[3] > 0 ? narrowed(color_of({sums[0], sums[1], sums[2], sums[3]})) : Color{.alpha = 0};
            }
        });
    }

    // Of sums of channels times alpha, and of alpha. Halves up; none is below 0.
    static Color16 color_of(const std::array<double, 4>& sums) noexcept {
        const auto rounded = [](double value) {
            return static_cast<std::uint16_t>(static_cast<std::int32_t>(std::min(value, 65535.0) + 0.5));
        };
        return {.red = rounded(sums[0] / sums[3]),
                .green = rounded(sums[1] / sums[3]),
                .blue = rounded(sums[2] / sums[3]),
                .alpha = rounded(sums[3])};
    }

    [[nodiscard]] Color16 color_at(Point at) const {
        auto color = stored_at(from_.window.at + at);
        if (without_ && narrowed(color) == *without_) color.alpha = 0;
        return color;
    }

    [[nodiscard]] Color16 stored_at(Point at) const {
        const auto& kernel = *from_.kernel;
        if (kernel.load == nullptr) return decode_deep(from_, at);
        Color color;
        if (kernel.is_color) {
            std::memcpy(static_cast<void*>(&color), pixel_address<4>(from_, at), sizeof color);
        } else {
            kernel.load(from_, at, 1, &color);
        }
        return widened(color);
    }

    Surface from_;
    Point at_;
    std::optional<Color> without_;
    Transform back_;
};

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
        const auto needs_colors = surface_.kernel == &index8_kernel && scaling != Scaling::nearest;
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
    std::vector<std::uint8_t> bytes_;
};

bool is_usual(const Laying& laying) noexcept {
    return laying.opacity == 1 && laying.channels == Channels::all &&
           (laying.blend == Blend::over || laying.blend == Blend::replace);
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
    return Region::of_spans(std::move(spans));
}

// Rows that need no arithmetic, or only that of source-over in the same format. Says whether it could.
bool paste_rows(const Surface& to, const Surface& from, Point at, const Paste& how) {
    const auto is_simple = to.kernel == from.kernel && !to.kernel->is_sparse && !to.clips && !how.without &&
                           is_usual(how.laying) && to.kernel != &index8_kernel;
    if (!is_simple) return false;
    const auto replaces = how.laying.blend == Blend::replace || !to.kernel->has_alpha;
    if (!replaces && (to.kernel->load_deep != nullptr || to.kernel->blend == nullptr)) return false;
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
    (void)Ink{Color{}, how.laying};  // throws Error for what is not allowed
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
    (void)Ink{Color{}, how.laying};
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
        return paint(to, Ink{Ink{Ink::Source{std::move(source)}}, how.laying}, area_ref(area));
    }
    const auto is_pasted = paste_rows(to, surface, how.at, how);
    if (is_pasted && to.witness == nullptr) return seen;
    auto source = make_shared_value<SurfaceSource>(surface, how.at);
    const auto ink = Ink{Ink{Ink::Source{std::move(source)}}, how.laying};
    if (is_pasted) {
        to.witness->begin(ink, Box{});
        tell_box(to, seen);
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

Color gray_of(Color color) noexcept { return with_alpha(gray(luma(color)), color.alpha); }
Color16 gray_of(Color16 color) noexcept {
    const auto value = luma(color);
    return {.red = value, .green = value, .blue = value, .alpha = color.alpha};
}

// Whole rows where no clip cuts them.
template <class Texel>
void gray_out_rows(const Surface& surface) {
    const auto [at, size] = surface.window;
    const auto is_whole = surface.mask() == nullptr && surface.cover() == nullptr;
    std::vector<Texel> colors(static_cast<std::size_t>(size.width));
    for (int y = at.y; y < at.y + size.height; ++y) {
        read_colors(surface, {.x = at.x, .y = y}, size.width, colors.data());
        run_in_vectors([to = colors.data(), count = colors.size()]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; ++i) to[i] = gray_of(to[i]);
        });
        if (is_whole) {
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
    surface.kernel->load_deep != nullptr ? gray_out_rows<Color16>(surface) : gray_out_rows<Color>(surface);
}

}  // namespace coldbrick::inline v0::detail

#include "coldbrick/compose.hpp"

#include "geometry/limits.hpp"
#include "pixels/kernels.hpp"
#include "pixels/source_over.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/region.hpp"

#include <cmath>
#include <functional>
#include <string>

namespace coldbrick::detail {

namespace {

std::string in_words(const Box& box) {
    return std::to_string(box.at.x) + "," + std::to_string(box.at.y) + " size " + std::to_string(box.size.width) + "," +
           std::to_string(box.size.height);
}

// Throws Error unless the box has pixels, all of the surface's clip.
void check_part(std::string_view call, const Surface& surface, const Box& box) {
    if (!box.empty() && intersection(box, surface.clip) == box) return;
    throw Error{std::string{call} + ": the part is " + in_words(box) + "; allowed are parts of the picture's " +
                in_words(surface.clip)};
}

// Pixels of its own, in the format of another surface.
struct Copy {
    std::vector<std::uint8_t> bytes;
    Surface surface;

    Copy(const Surface& like, Size size, const FormatKernel& kernel)
        : bytes(bitmap_bytes(size, kernel.pixel_bytes)), surface{like} {
        surface.top_left = bytes.data();
        surface.stride = std::ptrdiff_t{size.width} * kernel.pixel_bytes;
        surface.size = size;
        surface.clip = {.at = {}, .size = size};
        surface.kernel = &kernel;
        surface.mask = nullptr;
        surface.cover = nullptr;
    }
};

// The colours of a surface, which lies somewhere on the target.
class SurfaceSource final : public InkSource {
  public:
    SurfaceSource(const Surface& from, Point at, const std::optional<Color>& without)
        : from_{from}, at_{at}, without_{without} {
        is_opaque_ = !without && !from.kernel->has_alpha;
        if (from.kernel == &index8_kernel) {
            for (const auto& color : palette_of(from).colors()) is_opaque_ = is_opaque_ && color.alpha == 255;
        }
    }

    void fetch(Point from, int count, const Box&, Color* colors) const override {
        const auto* const pixels = pixel_at(from);
        if (from_.kernel->load != nullptr) {
            from_.kernel->load(from_, pixels, count, colors);
        } else {
            for (int i = 0; i < count; ++i)
                colors[i] = decode(from_, pixels + std::ptrdiff_t{i} * from_.kernel->pixel_bytes);
        }
        for (int i = 0; without_ && i < count; ++i) {
            if (colors[i] == *without_) colors[i].alpha = 0;
        }
    }
    void fetch(Point from, int count, const Box&, Color16* colors) const override {
        const auto* const pixels = pixel_at(from);
        for (int i = 0; i < count; ++i) {
            colors[i] = decode_deep(from_, pixels + std::ptrdiff_t{i} * from_.kernel->pixel_bytes);
            if (without_ && narrowed(colors[i]) == *without_) colors[i].alpha = 0;
        }
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return is_opaque_; }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    [[nodiscard]] const std::uint8_t* pixel_at(Point on_target) const noexcept {
        return pixel_address(from_, from_.clip.at.x + on_target.x - at_.x, from_.clip.at.y + on_target.y - at_.y);
    }

    Surface from_;
    Point at_;
    std::optional<Color> without_;
    bool is_opaque_;
};

// The same under a transform: each pixel from where its centre comes from.
class SampledSource final : public InkSource {
  public:
    SampledSource(const Surface& from, Point at, const std::optional<Color>& without, const Transform::Rows& back)
        : source_{from, {}, without}, size_{from.clip.size}, at_{at}, back_{back} {}

    void fetch(Point from, int count, const Box& shape, Color* colors) const override {
        for (int i = 0; i < count; ++i) colors[i] = narrowed(sample({.x = from.x + i, .y = from.y}, shape));
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        for (int i = 0; i < count; ++i) colors[i] = sample({.x = from.x + i, .y = from.y}, shape);
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return source_.is_opaque(); }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    [[nodiscard]] Color16 sample(Point pixel, const Box& shape) const {
        const auto place = Transform{back_}(pixel);
        const auto x = std::clamp(place.x - at_.x, 0.0, size_.width - 1.0);
        const auto y = std::clamp(place.y - at_.y, 0.0, size_.height - 1.0);
        const auto column = static_cast<int>(x);
        const auto row = static_cast<int>(y);
        std::array<double, 4> sums{};
        for (int k = 0; k < 4; ++k) {
            const auto next =
                Point{.x = std::min(column + k % 2, size_.width - 1), .y = std::min(row + k / 2, size_.height - 1)};
            const auto weight = (k % 2 == 0 ? column + 1 - x : x - column) * (k / 2 == 0 ? row + 1 - y : y - row);
            if (weight <= 0) continue;
            Color16 color;
            source_.fetch(next, 1, shape, &color);
            const auto alpha = weight * color.alpha;
            sums[0] += alpha * color.red;
            sums[1] += alpha * color.green;
            sums[2] += alpha * color.blue;
            sums[3] += alpha;
        }
        if (sums[3] <= 0) return {.alpha = 0};
        const auto rounded = [](double value) {
            return static_cast<std::uint16_t>(std::lround(std::min(value, 65535.0)));
        };
        return {.red = rounded(sums[0] / sums[3]),
                .green = rounded(sums[1] / sums[3]),
                .blue = rounded(sums[2] / sums[3]),
                .alpha = rounded(sums[3])};
    }

    SurfaceSource source_;
    Size size_;
    Point at_;
    Transform::Rows back_;
};

// What takes a transform back. Where it flattens everything, drawing throws Error before it is asked for.
Transform::Rows inverse(const Transform& by) noexcept {
    const auto& [xx, xy, dx, yx, yy, dy] = by.rows();
    const auto d = xx * yy - xy * yx;
    return {.xx = yy / d,
            .xy = -xy / d,
            .dx = (xy * dy - yy * dx) / d,
            .yx = -yx / d,
            .yy = xx / d,
            .dy = (yx * dx - xx * dy) / d};
}

// The memory of the clip's rows, from the lowest to behind the highest address.
std::pair<std::uintptr_t, std::uintptr_t> reach_of(const Surface& surface) noexcept {
    const auto first = reinterpret_cast<std::uintptr_t>(pixel_address(surface, surface.clip.at.x, surface.clip.at.y));
    const auto last =
        reinterpret_cast<std::uintptr_t>(pixel_address(surface, surface.clip.at.x, surface.clip.last().y));
    const auto row =
        static_cast<std::uintptr_t>(surface.clip.size.width) * static_cast<std::uintptr_t>(surface.kernel->pixel_bytes);
    return {std::min(first, last), std::max(first, last) + row};
}

bool do_overlap(const Surface& a, const Surface& b) noexcept {
    const auto [a_begin, a_end] = reach_of(a);
    const auto [b_begin, b_end] = reach_of(b);
    return a_begin < b_end && b_begin < a_end;
}

Copy copied(const Surface& from) {
    Copy copy{from, from.clip.size, *from.kernel};
    turn(from, copy.surface, Mirror::none, Quarters::none);
    return copy;
}

// A surface, or what has become of it.
class Prepared {
  public:
    explicit Prepared(const Surface& from) : surface_{from} {}

    void turn_by(const Paste& how) {
        if (how.mirrored == Mirror::none && how.turned == Quarters::none) return;
        auto size = surface_.clip.size;
        if (is_sideways(how.turned)) std::swap(size.width, size.height);
        Copy copy{surface_, size, *surface_.kernel};
        turn(surface_, copy.surface, how.mirrored, how.turned);
        take(std::move(copy));
    }

    void resize_by(const Paste& how) {
        const auto& size = surface_.clip.size;
        if (how.size == Size{}) return;
        const auto wanted = proportional(size, how.size);
        if (wanted == size) return;
        const auto is_reduced = wanted.width <= size.width && wanted.height <= size.height;
        const auto scaling = how.scaling.value_or(is_reduced ? Scaling::box : Scaling::bilinear);
        const auto needs_colors = surface_.kernel == &index8_kernel && scaling != Scaling::nearest;
        const auto& kernel = needs_colors ? rgba8_kernel : *surface_.kernel;
        Copy copy{surface_, wanted, kernel};
        resize(surface_, copy.surface, scaling);
        take(std::move(copy));
    }

    void copy() { take(copied(surface_)); }

    [[nodiscard]] const Surface& surface() const noexcept { return surface_; }

  private:
    void take(Copy copy) {
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
    const auto [first, size] = from.clip;
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            if (decode(from, pixel_address(from, first.x + x, first.y + y)) == color) continue;
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
    const auto is_simple = to.kernel == from.kernel && !to.kernel->is_sparse && !to.mask && !to.cover && !how.without &&
                           is_usual(how.laying) && to.kernel != &index8_kernel;
    if (!is_simple) return false;
    const auto replaces = how.laying.blend == Blend::replace || !to.kernel->has_alpha;
    if (!replaces && (to.kernel->load_deep != nullptr || to.kernel->blend == nullptr)) return false;
    const auto box = intersection(Box{.at = at, .size = from.clip.size}, to.clip);
    const auto row_bytes = static_cast<std::size_t>(box.size.width) * static_cast<std::size_t>(to.kernel->pixel_bytes);
    for (int y = box.at.y; y < box.at.y + box.size.height; ++y) {
        auto* const pixels = pixel_address(to, box.at.x, y);
        const auto* const source = pixel_address(from, from.clip.at.x + box.at.x - at.x, from.clip.at.y + y - at.y);
        if (replaces) {
            std::memcpy(pixels, source, row_bytes);
        } else {
            blend_row(source, pixels, static_cast<std::size_t>(box.size.width));
        }
    }
    return true;
}

}  // namespace

Box paste(const Surface& to, const Surface& from, const Paste& how, const Transform& by) {
    auto part = from;
    part.clip = how.part.value_or(from.clip);
    check_part("paste", from, part.clip);
    const Ink checked{Color{}, how.laying};
    Prepared prepared{part};
    prepared.turn_by(how);
    prepared.resize_by(how);
    const auto box = Box{.at = how.at, .size = prepared.surface().clip.size};
    check_box("paste", box);
    const auto seen = intersection(box, to.clip);
    if (by.is_identity() && seen.empty()) return {};
    if (!to.clip.empty() && do_overlap(to, prepared.surface())) prepared.copy();
    const auto& surface = prepared.surface();
    if (!by.is_identity()) {
        auto source = std::make_shared<SampledSource>(surface, how.at, how.without, inverse(by));
        const auto area = transformed(filled(box, {.edge = Edge::smooth}), by);
        return paint(to, Ink{Ink{Ink::Source{std::move(source)}}, how.laying}, area_ref(area));
    }
    if (paste_rows(to, surface, how.at, how)) return seen;
    auto source = std::make_shared<SurfaceSource>(surface, how.at, std::nullopt);
    const auto ink = Ink{Ink{Ink::Source{std::move(source)}}, how.laying};
    if (!how.without) return paint(to, ink, area_ref(box));
    const auto region = pixels_unlike(surface, *how.without, how.at);
    return paint(to, ink, area_ref(region));
}

void turn(const Surface& from, const Surface& to, Mirror mirrored, Quarters turned) {
    const auto [at, size] = from.clip;
    const auto pixel_bytes = static_cast<std::size_t>(from.kernel->pixel_bytes);
    if (mirrored == Mirror::none && turned == Quarters::none) {
        for (int y = 0; y < size.height; ++y) {
            std::memcpy(pixel_address(to, 0, y), pixel_address(from, at.x, at.y + y),
                        static_cast<std::size_t>(size.width) * pixel_bytes);
        }
        return;
    }
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            const auto column = mirrored == Mirror::left_right ? size.width - 1 - x : x;
            const auto row = mirrored == Mirror::top_bottom ? size.height - 1 - y : y;
            auto place = Point{.x = column, .y = row};
            if (turned == Quarters::one) place = {.x = size.height - 1 - row, .y = column};
            if (turned == Quarters::two) place = {.x = size.width - 1 - column, .y = size.height - 1 - row};
            if (turned == Quarters::three) place = {.x = row, .y = size.width - 1 - column};
            std::memcpy(pixel_address(to, place.x, place.y), pixel_address(from, at.x + x, at.y + y), pixel_bytes);
        }
    }
}

Surface crop(const Surface& surface, const Box& box) {
    check_part("crop", surface, box);
    if (surface.mask || surface.cover) throw Error{"crop: the view is clipped by a region; crop before that"};
    auto cropped = surface;
    cropped.top_left = pixel_address(surface, box.at.x, box.at.y);
    cropped.size = box.size;
    cropped.clip = {.at = {}, .size = box.size};
    return cropped;
}

void gray_out(const Surface& surface) {
    const auto [at, size] = surface.clip;
    for (int y = at.y; y < at.y + size.height; ++y) {
        for (int x = at.x; x < at.x + size.width; ++x) {
            if (!contains(surface, {.x = x, .y = y})) continue;
            auto* const pixel = pixel_address(surface, x, y);
            const auto is_deep = surface.kernel->load_deep != nullptr;
            const auto color = decode_deep(surface, pixel);
            const auto value = luma(color);
            const auto narrow = decode(surface, pixel);
            const auto bytes = is_deep ? encode(surface, Color16{value, value, value, color.alpha})
                                       : encode(surface, with_alpha(gray(luma(narrow)), narrow.alpha));
            std::memcpy(pixel, bytes.data(), static_cast<std::size_t>(surface.kernel->pixel_bytes));
        }
    }
}

}  // namespace coldbrick::detail

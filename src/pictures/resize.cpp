#include "coldbrick/resize.hpp"

#include "formats/kernels.hpp"
#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "pictures/box_means.hpp"
#include "pictures/nearest.hpp"
#include "pictures/resizer.hpp"

#include "coldbrick/detail/jobs.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <string>
#include <type_traits>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

template <class Number, class Texel>
void resize_as(const Surface& from, const Surface& to, Scaling how, unsigned threads) {
    const auto width = from.window.size.width;
    const auto height_before = from.window.size.height;
    const Mixes<Number> columns{mixes(width, to.size.width, how), width};
    const Mixes<Number> rows{mixes(height_before, to.size.height, how), height_before};
    constexpr auto parts_of_thread = 4;
    const auto height = to.size.height;
    const auto parts = threads <= 1 ? 1 : std::min(height, static_cast<int>(threads) * parts_of_thread);
    for_each_number(static_cast<std::size_t>(parts), threads, [&](std::size_t part) {
        const auto begin_of = [&](std::size_t of) {
            return static_cast<int>(static_cast<std::int64_t>(of) * height / parts);
        };
        Resizer<Number, Texel> resizer{width, from.kernel->has_alpha, to, columns, rows};
        auto means =
            std::is_same_v<Texel, Color> && how == Scaling::box ? box_means(from.window.size, to.size) : std::nullopt;
        std::vector<Color> result(means ? static_cast<std::size_t>(to.size.width) : 0);
        for (auto y = begin_of(part); y < begin_of(part + 1); ++y) {
            if (means && means->find(from, y, result.data())) {
                write_colors(to, result.data(), to.size.width, {.x = 0, .y = y});
            } else {
                resizer.find(from, y);
            }
        }
    });
}

}  // namespace

Size proportional(Size of, Size wanted) {
    if (wanted.width < 0 || wanted.height < 0 || (wanted.width == 0 && wanted.height == 0)) {
        throw Error{"resize: size is " + std::to_string(wanted.width) + "," + std::to_string(wanted.height) +
                    "; allowed is 1 or more, and 0 for one side that is to be in proportion"};
    }
    const auto side = [](int known, int of_known, int of_other) {
        const auto exact = (std::int64_t{2} * known * of_other + of_known) / (std::int64_t{2} * of_known);
        return static_cast<int>(std::clamp<std::int64_t>(exact, 1, max_coordinate));
    };
    if (wanted.width == 0) wanted.width = side(wanted.height, of.height, of.width);
    if (wanted.height == 0) wanted.height = side(wanted.width, of.width, of.height);
    return wanted;
}

void check_scaling(std::string_view what, Scaling how) {
    check_choice(what, "scaling", how, {"nearest", "box", "bilinear", "lanczos"});
}

void check_mixed(const Surface& to) {
    if (!to.kernel->is_indexed) return;
    throw Error{
        "resize: a picture with a palette can only be resized by nearest (give it colours instead of numbers first)"};
}

void resize(const Surface& from, const Surface& to, Scaling how, int threads) {
    check_scaling("resize", how);
    const auto allowed = allowed_threads("resize", threads);
    if (how == Scaling::nearest) return resize_nearest(from, to);
    check_mixed(to);
    if (from.kernel->load_deep != nullptr || to.kernel->load_deep != nullptr) {
        return resize_as<double, Color16>(from, to, how, allowed);
    }
    const auto is_short = how != Scaling::box || is_exact_in_short(from.kernel->has_alpha, from.window.size, to.size);
    is_short ? resize_as<float, Color>(from, to, how, allowed) : resize_as<double, Color>(from, to, how, allowed);
}

}  // namespace coldbrick::inline v0::detail

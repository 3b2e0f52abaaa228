// Pictures to the bytes of files.
#include "files/codecs.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/threads.hpp"

#include <cmath>
#include <string>

namespace coldbrick::inline v0::detail {

void check(const SaveOptions& options) {
    if (options.quality < 1 || options.quality > 100) {
        throw Error{"quality is " + std::to_string(options.quality) + "; allowed is 1 to 100"};
    }
    (void)allowed_threads("save", options.threads);
    check_choice("save", "effort", options.effort, {"usual", "most"});
    check_choice("save", "storage", options.storage, {"as_it_is", "fewest_bits", "without_alpha"});
    check_choice("save", "notation", options.notation, {"binary", "plain"});
    if (options.density) {
        check_choice("save", "density.unit", options.density->unit, {"meter", "inch", "none"});
        const auto is_allowed = [](double density) { return density > 0 && density <= 1e6; };
        if (!is_allowed(options.density->across) || !is_allowed(options.density->down)) {
            throw Error{"density is " + in_digits(options.density->across) + "," + in_digits(options.density->down) +
                        "; allowed is more than 0, up to 1000000"};
        }
    }
}

std::uint32_t per_meter(double density, Density::Unit unit) noexcept {
    constexpr auto meters_to_an_inch = 0.0254;
    if (unit == Density::Unit::none) return 0;
    return static_cast<std::uint32_t>(std::lround(unit == Density::Unit::inch ? density / meters_to_an_inch : density));
}

std::vector<std::uint8_t> encode(const Surface& picture, FileFormat format, const SaveOptions& options) {
    if (picture.window.empty()) throw Error{"picture: the view's clip is empty; it must have at least one pixel"};
    check(options);
    if (const auto* const codec = codec_of(format)) return codec->write(picture, options);
    throw Error{"file format: it is none of " +
                codecs_in_words([](const Codec& codec) { return std::array{codec.name}; })};
}

}  // namespace coldbrick::inline v0::detail

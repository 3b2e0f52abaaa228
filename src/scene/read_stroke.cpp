// How a shape is stroked.
#include "scene/figures.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/spans.hpp"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

std::optional<Stroke> read_stroke(Arguments& given) {
    const auto width = given.real_or("width", 1, 1.0 / 256, max_coordinate);
    const auto align = given.choice<Align>(
        "align", {{"center", Align::center}, {"inside", Align::inside}, {"outside", Align::outside}});
    const auto cap = given.choice<Cap>("cap", {{"flush", Cap::flush}, {"square", Cap::square}, {"round", Cap::round}});
    const auto join =
        given.choice<Join>("join", {{"miter", Join::miter}, {"bevel", Join::bevel}, {"round", Join::round}});
    constexpr auto most_limit = 1e6;
    const auto limit = given.has("miter_limit") ? given.values().real(given.value("miter_limit"), 1, most_limit) : 4;
    auto dash = std::optional{std::vector<double>{}};
    if (given.has("dash")) dash = given.values().reals(given.value("dash"), 0, max_coordinate);
    const auto offset =
        given.has("dash_offset") ? given.values().real(given.value("dash_offset"), -max_coordinate, max_coordinate) : 0;
    const auto edge = given.edge();
    if (!width || !align || !cap || !join || !limit || !dash || !offset || !edge) return std::nullopt;
    Stroke how{.width = *width,
               .align = *align,
               .cap = *cap,
               .join = *join,
               .miter_limit = *limit,
               .dash = std::move(*dash),
               .dash_offset = *offset,
               .edge = *edge};
    try {
        // What the numbers are together; it draws nothing.
        for_each_span(stroked(subpixel::Line{}, how), Box{}, [](const Span&) {});
    } catch (const Error& error) {
        given.faults().add(given.word("dash"), std::string{error.what()});
        return std::nullopt;
    }
    return how;
}

}  // namespace coldbrick::inline v0::detail

#include "scene/inks.hpp"

#include "coldbrick/gradient.hpp"
#include "coldbrick/pattern.hpp"

#include <algorithm>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

std::optional<std::vector<Stop>> read_stops(Arguments& given) {
    std::vector<Stop> stops;
    auto complete = true;
    for (std::size_t i = 0; i < given.count("stops"); ++i) {
        const auto stop = given.value("stops", i);
        if (stop.size() != 2) {
            given.faults().add(stop.word(), in_quotes(stop.word().text) + " is no stop",
                               "a stop is a part of the way and a colour: 0.5,coral or 50%,coral");
            complete = false;
            continue;
        }
        const auto at = given.values().part(stop[0]);
        const auto color = given.values().color(stop[1]);
        complete = complete && at && color;
        if (at && color) stops.push_back({.at = *at, .color = *color});
    }
    return complete ? std::optional{std::move(stops)} : std::nullopt;
}

std::optional<Spread> read_spread(Arguments& given) {
    return given.choice<Spread>("spread",
                                {{"pad", Spread::pad}, {"repeat", Spread::repeat}, {"reflect", Spread::reflect}});
}

// The gradient as an ink; what it refuses is reported at its kind.
template <class Gradient>
std::optional<Ink> finished(const Gradient& gradient, Arguments& given) {
    try {
        return Ink{gradient};
    } catch (const Error& error) {
        given.faults().add(given.word("stops"), error.what());
        return std::nullopt;
    }
}

std::optional<Channels> read_channels(Arguments& given) {
    if (!given.has("channels")) return Channels::all;
    static constexpr auto known = std::to_array<NamedChoice<Channels>>({{"red", Channels::red},
                                                                        {"green", Channels::green},
                                                                        {"blue", Channels::blue},
                                                                        {"alpha", Channels::alpha},
                                                                        {"color", Channels::color},
                                                                        {"all", Channels::all}});
    auto channels = Channels::none;
    for (const auto& word : split_at_commas(given.word("channels"))) {
        const auto* const found =
            std::find_if(known.begin(), known.end(), [&](const auto& choice) { return choice.word == word.text; });
        if (found == known.end()) {
            given.faults().add(word, "unknown channel " + in_quotes(word.text),
                               "allowed are red, green, blue, alpha, color and all, with commas between");
            return std::nullopt;
        }
        channels = channels | found->choice;
    }
    return channels;
}

constexpr auto blend_choices = [] {
    std::array<NamedChoice<Blend>, blend_names.size()> choices{};
    for (std::size_t i = 0; i < choices.size(); ++i) choices[i] = {blend_names[i], static_cast<Blend>(i)};
    return choices;
}();

}  // namespace

std::optional<Placing> read_placing(Arguments& given) {
    return given.choice<Placing>("placing", {{"target", Placing::target}, {"shape", Placing::shape}});
}

std::optional<Ink> read_gradient(Arguments& given) {
    auto stops = read_stops(given);
    const auto spread = read_spread(given);
    const auto placing = read_placing(given);
    const auto dither = given.choice<Dither>("dither", {{"none", Dither::none}, {"ordered", Dither::ordered}});
    if (given.has("to")) {
        const auto from = given.position("from");
        const auto to = given.position("to");
        if (!from || !to || !stops || !spread || !placing || !dither) return std::nullopt;
        return finished(LinearGradient{*from, *to, std::move(*stops), *spread, *placing, *dither}, given);
    }
    const auto center = given.position("center");
    if (given.has("radius")) {
        const auto radius = given.real_or("radius", 0, 0, max_coordinate);
        if (!center || !radius || !stops || !spread || !placing || !dither) return std::nullopt;
        return finished(RadialGradient{*center, *radius, std::move(*stops), *spread, *placing, *dither}, given);
    }
    const auto from = given.angle_or("from", {});
    if (!center || !from || !stops || !placing || !dither) return std::nullopt;
    return finished(ConicGradient{*center, *from, std::move(*stops), *placing, *dither}, given);
}

std::optional<Ink> read_hatch(Arguments& given) {
    constexpr auto least_width = 1.0 / 256;
    const auto spacing = given.real_or("spacing", 1, 1, max_coordinate);
    const auto angle = given.angle_or("angle", {});
    const auto width = given.real_or("width", 1, least_width, max_coordinate);
    const auto color = given.color("ink");
    const auto ground = given.color_or("ground", {.alpha = 0});
    const auto offset = given.position_or("offset", {});
    const auto placing = read_placing(given);
    if (!spacing || !angle || !width || !color || !ground || !offset || !placing) return std::nullopt;
    return Ink{Hatch{.spacing = *spacing,
                     .angle = *angle,
                     .width = *width,
                     .color = *color,
                     .ground = *ground,
                     .offset = *offset,
                     .placing = *placing}};
}

std::optional<Compositing> read_compositing(Arguments& given) {
    if (!given.has_any({"opacity", "blend", "channels", "light"})) return Compositing{};
    const auto opacity = given.has("opacity") ? given.values().part(given.value("opacity")) : 1;
    const auto blend = given.choice<Blend>("blend", blend_choices);
    const auto channels = read_channels(given);
    const auto light = given.choice<Light>("light", {{"encoded", Light::encoded}, {"linear", Light::linear}});
    if (!opacity || !blend || !channels || !light) return std::nullopt;
    return Compositing{.opacity = *opacity, .blend = *blend, .channels = *channels, .light = *light};
}

std::optional<Ink> read_ink(Arguments& given) {
    auto ink = given.values().ink(given.value("ink"));
    const auto compositing = read_compositing(given);
    if (!ink || !compositing) return std::nullopt;
    return *compositing == Compositing{} ? *ink : Ink{*ink, *compositing};
}

}  // namespace coldbrick::inline v0::detail

#include "scene/pictures.hpp"

#include "coldbrick/compose.hpp"
#include "coldbrick/load.hpp"

#include <cmath>

namespace coldbrick::detail {

std::shared_ptr<const Bitmap<Rgba8>> PictureReader::read(const Word& name) {
    const auto& text = name.text;
    if (text.size() < 3 || !text.starts_with('"')) {
        faults_.add(name, "the name of a picture stands between quotes", "for example: \"quay.png\"");
        return nullptr;
    }
    const auto file = text.substr(1, text.size() - 2);
    if (const auto known = read_.find(file); known != read_.end()) return known->second;
    auto picture = std::shared_ptr<const Bitmap<Rgba8>>{};
    try {
        picture = std::make_shared<const Bitmap<Rgba8>>(load<Rgba8>(std::filesystem::path{folder_} / file));
    } catch (const Error& error) {
        faults_.add(name, error.what());
    }
    read_[file] = picture;
    return picture;
}

namespace {

// part X,Y,W,H
std::optional<Box> read_part(Arguments& given, Size of) {
    const auto& word = given.value("part");
    const auto numbers = given.values().reals(word, -max_coordinate, max_coordinate);
    if (!numbers) return std::nullopt;
    const auto is_whole = std::all_of(numbers->begin(), numbers->end(), [](double n) { return n == std::floor(n); });
    const auto part = [&] {
        const auto at = [&](std::size_t i) { return static_cast<int>((*numbers)[i]); };
        return Box{.at = {at(0), at(1)}, .size = {at(2), at(3)}};
    };
    if (numbers->size() == 4 && is_whole && !part().empty() &&
        intersection(part(), Box{.at = {}, .size = of}) == part()) {
        return part();
    }
    given.faults().add(word,
                       "the part is " + in_quotes(word.text) + "; it is a place and a size in the picture, which has " +
                           std::to_string(of.width) + " x " + std::to_string(of.height) + " pixels",
                       "for example: part 10,5,32,32");
    return std::nullopt;
}

// size W,H, of which one may be 0.
std::optional<Size> read_size(Arguments& given) {
    if (!given.has("size")) return Size{};
    const auto pair = given.values().pair(given.value("size"), 0, max_coordinate);
    if (!pair) return std::nullopt;
    if (*pair == Point{}) given.faults().add(given.value("size"), "one side of the size may be 0, not both");
    return *pair == Point{} ? std::nullopt : std::optional{Size{.width = pair->x, .height = pair->y}};
}

std::optional<std::optional<Scaling>> read_scaling(Arguments& given) {
    if (!given.has("scaling")) return std::optional<Scaling>{};
    return given.choice<std::optional<Scaling>>("scaling", {{"nearest", Scaling::nearest},
                                                            {"box", Scaling::box},
                                                            {"bilinear", Scaling::bilinear},
                                                            {"lanczos", Scaling::lanczos}});
}

// How many quarters of a turn an angle is; nothing if it is none.
std::optional<Quarters> quarters_of(Angle angle) {
    const auto quarters = angle.in_degrees() / 90;
    if (quarters != std::floor(quarters)) return std::nullopt;
    const auto rest = static_cast<int>(std::fmod(std::fmod(quarters, 4) + 4, 4));
    return static_cast<Quarters>(rest);
}

}  // namespace

std::optional<Pasted> read_paste(const Word& name, PictureReader& pictures, Arguments& given) {
    const auto picture = pictures.read(name);
    const auto at = given.point("at");
    const auto size = read_size(given);
    const auto turned = given.angle_or("turned", {});
    const auto mirrored = given.choice<Mirror>(
        "mirrored", {{"none", Mirror::none}, {"left_right", Mirror::left_right}, {"top_bottom", Mirror::top_bottom}});
    const auto scaling = read_scaling(given);
    const auto without = given.has("without") ? given.color("without") : std::optional<Color>{};
    if (!picture || !at || !size || !turned || !mirrored || !scaling) return std::nullopt;
    if (given.has("without") && !without) return std::nullopt;
    auto part = Box{.at = {}, .size = picture->size()};
    if (given.has("part")) {
        const auto read = read_part(given, picture->size());
        if (!read) return std::nullopt;
        part = *read;
    }
    const auto quarters = quarters_of(*turned);
    auto upright = part.size;
    if (quarters && is_sideways(*quarters)) std::swap(upright.width, upright.height);
    const auto whole = *size == Size{} ? upright : proportional(upright, *size);
    Bitmap<Rgba8> result{whole};
    paste(result, *picture,
          {.part = part,
           .mirrored = *mirrored,
           .turned = quarters.value_or(Quarters::none),
           .size = whole,
           .scaling = *scaling,
           .without = without,
           .laying = {.blend = Blend::replace}});
    auto by = Transform{};
    if (!quarters) {
        // About the middle of where it lies.
        const auto middle = Position{at->x + (whole.width - 1) / 2.0, at->y + (whole.height - 1) / 2.0};
        by = Transform{}.move({-middle.x, -middle.y}).turn(*turned).move(middle);
    }
    return Pasted{.picture = std::make_shared<const Bitmap<Rgba8>>(std::move(result)), .at = *at, .by = by};
}

}  // namespace coldbrick::detail

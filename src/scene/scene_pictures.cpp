#include "scene/scene_pictures.hpp"

#include "files/readers.hpp"

#include "coldbrick/compose.hpp"
#include "coldbrick/load.hpp"

#include <algorithm>
#include <cmath>
#include <memory>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

std::shared_ptr<const Bitmap<Rgba8>> PictureReader::read(const Word& name, const std::string& file) {
    if (const auto known = read_.find(file); known != read_.end()) return known->second;
    if (file.empty()) {
        faults_.add(name, "the name of the picture is empty");
        return nullptr;
    }
    const auto path = files_.place_of(name, file, "picture");
    if (!path) return nullptr;
    // What another run has loaded is taken, and paid for here too.
    const auto lock = std::scoped_lock{loaded_.mutex};
    auto& shared = loaded_.pictures[path->string()];
    if (!shared) shared = load(name, *path, file);
    if (!shared) return nullptr;
    if (paid_.insert(path->string()).second && !budget_.spend(shared->bytes().size(), name)) return nullptr;
    return read_[file] = shared;
}

std::shared_ptr<const Bitmap<Rgba8>> PictureReader::load(const Word& name, const std::filesystem::path& path,
                                                         const std::string& file) {
    try {
        auto limits = budget_.limits().pictures;
        limits.memory = std::min(limits.memory, budget_.rest());
        auto picture =
            bitmap_from<Rgba8>([&](const LoadTarget& target) { return load_regular_file(path, limits, target); });
        return std::make_shared<const Bitmap<Rgba8>>(std::move(picture));
    } catch (const Error& error) {
        faults_.add(name, SceneFiles::by_name(error.what(), path, file));
        return nullptr;
    }
}

namespace {

// part X,Y,W,H
std::optional<Box> read_part(Arguments& given, Size of) {
    const auto& word = given.word("part");
    const auto numbers = given.values().reals(given.value("part"), -max_coordinate, max_coordinate);
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
    if (*pair == Point{}) given.faults().add(given.word("size"), "one side of the size may be 0, not both");
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

namespace {

// All that decides what a part of a picture becomes.
std::array<int, 10> numbers_of(const Paste& how) {
    const auto part = how.part.value_or(Box{});
    const auto without = how.without.value_or(Color{});
    const auto color = (without.red << 16) + (without.green << 8) + without.blue;
    return {part.at.x,
            part.at.y,
            part.size.width,
            part.size.height,
            static_cast<int>(how.mirrored) + 4 * static_cast<int>(how.turned),
            how.size.width,
            how.size.height,
            how.scaling ? static_cast<int>(*how.scaling) : -1,
            how.without ? color : -1,
            without.alpha};
}

}  // namespace

std::shared_ptr<const Bitmap<Rgba8>> PictureReader::shaped(const Word& name,
                                                           const std::shared_ptr<const Bitmap<Rgba8>>& picture,
                                                           const Paste& how) {
    const auto size = how.size;
    const auto is_as_it_is = how.part == Box{.at = {}, .size = picture->size()} && size == picture->size() &&
                             how.mirrored == Mirror::none && how.turned == Quarters::none && !how.without;
    if (is_as_it_is) return picture;
    const auto key = Shaped{picture.get(), numbers_of(how)};
    if (const auto known = shaped_.find(key); known != shaped_.end()) return known->second;
    if (!budget_.spend(pixel_count(size) * bytes_per_pixel<Rgba8>, name)) return nullptr;
    Bitmap<Rgba8> result{size};
    paste(result, *picture, how);
    return shaped_[key] = std::make_shared<const Bitmap<Rgba8>>(std::move(result));
}

namespace {

// Has a picture that a scene has read.
struct ReadPicture final : KeptPicture {
    explicit ReadPicture(const std::shared_ptr<const Bitmap<Rgba8>>& of) : picture{of} {
        surface = SurfaceAccess::of(*picture);
    }
    std::shared_ptr<const Bitmap<Rgba8>> picture;
};

}  // namespace

Shared<KeptPicture> kept(const std::shared_ptr<const Bitmap<Rgba8>>& picture) {
    return make_shared_value<ReadPicture>(picture);
}

std::optional<Pasted> read_paste(const Word& name, const std::string& file, PictureReader& pictures, Arguments& given) {
    const auto picture = pictures.read(name, file);
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
    const auto shaped = pictures.shaped(name, picture,
                                        {.part = part,
                                         .mirrored = *mirrored,
                                         .turned = quarters.value_or(Quarters::none),
                                         .size = whole,
                                         .scaling = *scaling,
                                         .without = without,
                                         .compositing = {.blend = Blend::replace}});
    if (!shaped) return std::nullopt;
    auto by = Transform{};
    if (!quarters) {
        // About the middle of where it lies.
        const auto middle = Position{at->x + (whole.width - 1) / 2.0, at->y + (whole.height - 1) / 2.0};
        by = Transform{}.move({-middle.x, -middle.y}).turn(*turned).move(middle);
    }
    return Pasted{.picture = kept(shaped), .at = *at, .by = by};
}

}  // namespace coldbrick::inline v0::detail

#include "panels.hpp"

#include "picture_input.hpp"
#include "scene_input.hpp"

#include <array>
#include <fstream>
#include <sstream>

namespace coldbrick::tool {

namespace {

Bitmap<Rgba8> drawn(const SceneArguments& arguments, const std::string& path) {
    auto of = arguments;
    of.scene = path;
    const auto file = read_scene(of);
    return picture_of(file.program.evaluate(file.input));
}

}  // namespace

Bitmap<Rgba8> picture_of(const Scene& scene) {
    if (scene.palette) {
        auto numbers = scene.sheet<Index8>();
        render(scene, numbers);
        return convert<Rgba8>(numbers);
    }
    auto sheet = scene.sheet<Rgba8>();
    render(scene, sheet);
    return sheet;
}

Bitmap<Rgba8> read_shown(const SceneArguments& arguments, const std::string& path) {
    if (path != "-" && !is_picture_file(path)) return drawn(arguments, path);
    return read_by(path, arguments.limits,
                   [](auto&& source, const LoadLimits& allowed) { return load<Rgba8>(source, allowed); });
}

Color behind(Point pixel) noexcept {
    constexpr auto square = 8;
    return gray((pixel.x / square + pixel.y / square) % 2 == 0 ? 102 : 153);
}

int ruler_step(double least) noexcept {
    auto step = 1;
    for (int i = 0; step < least && step < 500'000'000; ++i) step = i % 3 == 1 ? step / 2 * 5 : step * 2;
    return step;
}

}  // namespace coldbrick::tool

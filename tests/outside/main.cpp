// A project outside: draws with the installed library, all layers of it, and reads back what it drew.
#include <coldbrick/coldbrick.hpp>

int main(int, char** argv) {
    using namespace coldbrick;
    const auto scene = parse_scene("sheet size 36,24 ink navy\nfill box at 2,2 size 4,4 ink gold\n");
    auto chart = scene.sheet<Rgb8>();
    render(scene, chart);
    fill(chart, Circle{.center = {24, 12}, .radius = 6}, 0xe8b23a_rgb);
    save(chart, argv[1]);
    const auto drawn = chart.color_at({3, 3}) == colors::gold && chart.color_at({24, 12}) == 0xe8b23a_rgb &&
                       chart.color_at({35, 0}) == colors::navy;
    return drawn ? 0 : 1;
}

// coldbrick/coldbrick.hpp - all of the library in one header.
//
//     #include <coldbrick/coldbrick.hpp>
//     using namespace coldbrick;
//
//     int main() {
//         Bitmap<Rgb8> chart{{720, 450}, 0x0b2239_rgb};
//         fill  (chart, Circle{.center = {236, 148}, .radius = 34}, 0xe8b23a_rgb);
//         stroke(chart, Line{.from = {18, 431}, .to = {702, 377}}, colors::white);
//         save  (chart, "chart.png");
//     }
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/color.hpp"
#include "coldbrick/color_models.hpp"
#include "coldbrick/color_names.hpp"
#include "coldbrick/compare.hpp"
#include "coldbrick/compose.hpp"
#include "coldbrick/convert.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/draw_each.hpp"
#include "coldbrick/drawing.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/explain.hpp"
#include "coldbrick/face.hpp"
#include "coldbrick/figure.hpp"
#include "coldbrick/file_format.hpp"
#include "coldbrick/files.hpp"
#include "coldbrick/fill.hpp"
#include "coldbrick/flood.hpp"
#include "coldbrick/formats.hpp"
#include "coldbrick/frames.hpp"
#include "coldbrick/fwd.hpp"
#include "coldbrick/geometry.hpp"
#include "coldbrick/gradient.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/lettering.hpp"
#include "coldbrick/load.hpp"
#include "coldbrick/mask.hpp"
#include "coldbrick/palette.hpp"
#include "coldbrick/path.hpp"
#include "coldbrick/pattern.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/prepared_ink.hpp"
#include "coldbrick/quantize.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/resize.hpp"
#include "coldbrick/save_drawing.hpp"
#include "coldbrick/scene.hpp"
#include "coldbrick/scene_words.hpp"
#include "coldbrick/shapes.hpp"
#include "coldbrick/smooth_region.hpp"
#include "coldbrick/source_place.hpp"
#include "coldbrick/spans.hpp"
#include "coldbrick/stroke.hpp"
#include "coldbrick/table.hpp"
#include "coldbrick/text.hpp"
#include "coldbrick/threads.hpp"
#include "coldbrick/transform.hpp"
#include "coldbrick/vertices.hpp"

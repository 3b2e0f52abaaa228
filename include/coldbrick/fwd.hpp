// coldbrick/fwd.hpp - the names of the library's types, for headers that only refer to them.
//
//     #include <coldbrick/fwd.hpp>
//
//     void draw_buoy(coldbrick::Bitmap<coldbrick::Rgb8>& chart, const coldbrick::Ink& ink);
//
// Aliases of shapes, such as Circle and subpixel::Circle, stand in shapes.hpp and geometry.hpp.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/formats.hpp"

#include <type_traits>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

class Angle;
class Drawing;
class DrawingView;
class Error;
class Figure;
class FilePath;
class Ink;
class Palette;
class PreparedInk;
class Path;
class Pattern;
class PictureInk;
class RecordedCall;
class Region;
class SmoothRegion;
class Transform;
class Vertices;
class Width;

struct Color16;
struct ConicGradient;
struct Fault;
struct Fill;
struct FloodFrom;
struct Hatch;
struct Compositing;
struct LinearGradient;
struct LoadedPicture;
struct LoadLimits;
struct Lettering;
struct Paste;
struct PictureInfo;
struct Point;
struct Position;
struct RadialGradient;
struct SaveOptions;
struct Scene;
struct SceneLimits;
struct Size;
struct SourcePlace;
struct Span;
struct Stroke;
struct Text;
struct TextLayout;
struct Sweep;
struct VertexList;

template <class Number>
struct BasicBox;
template <class Number>
class BasicEllipse;
template <class Number>
class BasicPolygon;
template <class Number>
struct BasicArc;
template <class Number>
struct BasicChord;
template <class Number>
struct BasicCircle;
template <class Number>
struct BasicLine;
template <class Number>
struct BasicPolyline;
template <class Number>
struct BasicRing;
template <class Number>
struct BasicRoundedBox;
template <class Number>
struct BasicSector;

template <PixelFormat Format>
class Bitmap;
template <class Format>
requires PixelFormat<std::remove_const_t<Format>>
class Pixels;

}  // namespace v0
}  // namespace coldbrick

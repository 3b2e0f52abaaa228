// What a drawing call becomes on a drawing, and how it is drawn from there.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/figure.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/source_place.hpp"

#include <cstddef>
#include <cstdint>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

class Drawing;
struct FloodFrom;
struct Paste;

namespace detail {

// The calls that a drawing keeps.
struct Calls;
struct KeptCall;
struct KeptPicture;
class BandedCalls;

// What a call takes, and a paste besides.
extern const std::size_t bytes_of_call;
extern const std::size_t bytes_of_paste;

// Adds calls to a drawing, under clips and a transform.
class CallRecorder {
  public:
    CallRecorder(Drawing& drawing, std::uint32_t clips, const Transform& by, std::uint64_t tag) noexcept
        : drawing_{drawing}, clips_{clips}, by_{by}, tag_{tag} {}

    template <class Area>
    Box area(const Area& area, const Ink& ink, SourcePlace where) const {
        return bounded(Figure{area}.then(by_), ink, where);
    }
    // The same, without what finding its box costs.
    void figure(Figure&& figure, const Ink& ink, SourcePlace where) const;
    // Calls made through it have this number.
    [[nodiscard]] CallRecorder tagged(std::uint64_t tag) const noexcept { return {drawing_, clips_, by_, tag}; }
    Box clear(Color color, SourcePlace where) const;
    Box flood(const FloodFrom& from, const Ink& ink, SourcePlace where) const;
    Box paste(const Surface& picture, const Paste& how, const Transform& by, SourcePlace where) const;
    Box paste(Shared<KeptPicture> picture, const Paste& how, const Transform& by, SourcePlace where) const;

  private:
    Box bounded(Figure figure, const Ink& ink, SourcePlace where) const;
    void keep(Figure&& figure, const Ink& ink, SourcePlace where) const;
    void add(KeptCall&& call, SourcePlace where) const;
    [[nodiscard]] Box seen(const Box& box) const;
    [[nodiscard]] Calls& calls() const noexcept;

    Drawing& drawing_;
    std::uint32_t clips_;
    Transform by_;
    std::uint64_t tag_;
};

// paint/brush.hpp
struct Brushes;

// Draws the calls of a drawing, which it keeps by reference, on a surface.
class CallRenderer {
  public:
    // Throws Error for an ink that the surface cannot take.
    CallRenderer(const Drawing& drawing, const Surface& surface);
    CallRenderer(const CallRenderer&) = delete;
    CallRenderer(CallRenderer&&) = delete;
    CallRenderer& operator=(const CallRenderer&) = delete;
    CallRenderer& operator=(CallRenderer&&) = delete;
    ~CallRenderer();

    // From now on draws on this surface, whose format and palette are those of the first one.
    void look_at(const Surface& surface);

    // Draws one call, and gives the box that was touched.
    Box draw(std::size_t number);

  private:
    const Calls& calls_;
    Surface surface_;
    Surface clipped_;
    std::uint32_t clipped_by_ = 0;
    Brushes* brushes_;  // for the inks of the calls
    Box touched_;       // by the last call
};

// How the calls of a drawing are drawn, where more is to be done than that. May be called from several threads.
struct DrawingHooks {
    const void* context = nullptr;
    Box (*draw)(const void* context, CallRenderer& renderer, std::size_t number) =
        [](const void* /*context*/, CallRenderer& renderer, std::size_t number) { return renderer.draw(number); };
    // Null, or draws what lies below all calls on the rows of a surface.
    void (*ground)(const void* context, const Surface& rows) = nullptr;
};

// Draws all calls on several threads, and gives the box around all that was touched.
Box render_in_bands(const Drawing& drawing, const Surface& surface, int threads, const DrawingHooks& hooks = {});

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick

// The calls that a drawing keeps.
#pragma once

#include "coldbrick/compose.hpp"
#include "coldbrick/detail/clips.hpp"
#include "coldbrick/drawing.hpp"
#include "coldbrick/flood.hpp"

#include <deque>
#include <optional>
#include <variant>
#include <vector>

namespace coldbrick::inline v0::detail {

// What clips a call.
struct CallClips {
    std::optional<Box> box = std::nullopt;
    Shared<Clips> shapes = nullptr;

    // A box around all pixels that they let through.
    [[nodiscard]] Box bounds() const noexcept;
    [[nodiscard]] bool contains(Point pixel) const noexcept;
};

struct KeptPaste : Counted {
    KeptPaste(Shared<KeptPicture> of, const Paste& as) : picture{std::move(of)}, how{as} {}
    Shared<KeptPicture> picture;
    Paste how;
};

// Colours are kept as they are, other inks by number.
struct InkNumber {
    std::uint32_t number;
};

struct KeptCall {
    std::variant<ShapeValue, FloodFrom, Shared<KeptPaste>, Color> what;  // a colour: all pixels
    std::variant<Color, InkNumber> ink;
    std::uint32_t how = 0;
    std::uint32_t by = 0;
    std::uint32_t clips = 0;
    SourcePlace place;
    std::uint64_t tag = 0;
};

struct Calls {
    std::deque<KeptCall> list;
    // What calls refer to by number; what several calls in turn have in common is kept once.
    std::vector<std::variant<Fill, Stroke>> hows{Fill{}, Stroke{}};
    std::vector<Ink> inks;
    std::vector<Transform> transforms{Transform{}};
    std::vector<CallClips> clips{CallClips{}};
    std::size_t bytes_besides = 0;

    // What a call that fills or strokes a shape draws, while the calls stay as they are.
    [[nodiscard]] AreaRef area_of(const KeptCall& call) const noexcept;
    [[nodiscard]] Ink ink_of(const KeptCall& call) const;

    // The box around what a call would touch without its clip.
    [[nodiscard]] Box bounds_of(const KeptCall& call) const;

    // A box that contains all that a call touches, found quickly; of a flood the pixel where it begins.
    [[nodiscard]] Box outer_bounds_of(const KeptCall& call) const;
};

// Of all coordinates.
inline constexpr Box everything = Box::between(
    {.from = {.x = -max_coordinate, .y = -max_coordinate}, .to = {.x = max_coordinate, .y = max_coordinate}});

}  // namespace coldbrick::inline v0::detail

// coldbrick/color_names.hpp - the colour names of CSS Color 4, section 6.1, as constants, and a table of them.
//
//     fill(chart, shoal, colors::seagreen);
//     for (const auto& [name, color] : named_colors) std::cout << name << '\n';
#pragma once

#include "coldbrick/color.hpp"
#include "coldbrick/detail/public.hpp"

#include <array>
#include <string_view>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace colors {

inline constexpr Color aliceblue = 0xf0f8ff_rgb;
inline constexpr Color antiquewhite = 0xfaebd7_rgb;
inline constexpr Color aqua = 0x00ffff_rgb;
inline constexpr Color aquamarine = 0x7fffd4_rgb;
inline constexpr Color azure = 0xf0ffff_rgb;
inline constexpr Color beige = 0xf5f5dc_rgb;
inline constexpr Color bisque = 0xffe4c4_rgb;
inline constexpr Color black = 0x000000_rgb;
inline constexpr Color blanchedalmond = 0xffebcd_rgb;
inline constexpr Color blue = 0x0000ff_rgb;
inline constexpr Color blueviolet = 0x8a2be2_rgb;
inline constexpr Color brown = 0xa52a2a_rgb;
inline constexpr Color burlywood = 0xdeb887_rgb;
inline constexpr Color cadetblue = 0x5f9ea0_rgb;
inline constexpr Color chartreuse = 0x7fff00_rgb;
inline constexpr Color chocolate = 0xd2691e_rgb;
inline constexpr Color coral = 0xff7f50_rgb;
inline constexpr Color cornflowerblue = 0x6495ed_rgb;
inline constexpr Color cornsilk = 0xfff8dc_rgb;
inline constexpr Color crimson = 0xdc143c_rgb;
inline constexpr Color cyan = 0x00ffff_rgb;
inline constexpr Color darkblue = 0x00008b_rgb;
inline constexpr Color darkcyan = 0x008b8b_rgb;
inline constexpr Color darkgoldenrod = 0xb8860b_rgb;
inline constexpr Color darkgray = 0xa9a9a9_rgb;
inline constexpr Color darkgreen = 0x006400_rgb;
inline constexpr Color darkgrey = 0xa9a9a9_rgb;
inline constexpr Color darkkhaki = 0xbdb76b_rgb;
inline constexpr Color darkmagenta = 0x8b008b_rgb;
inline constexpr Color darkolivegreen = 0x556b2f_rgb;
inline constexpr Color darkorange = 0xff8c00_rgb;
inline constexpr Color darkorchid = 0x9932cc_rgb;
inline constexpr Color darkred = 0x8b0000_rgb;
inline constexpr Color darksalmon = 0xe9967a_rgb;
inline constexpr Color darkseagreen = 0x8fbc8f_rgb;
inline constexpr Color darkslateblue = 0x483d8b_rgb;
inline constexpr Color darkslategray = 0x2f4f4f_rgb;
inline constexpr Color darkslategrey = 0x2f4f4f_rgb;
inline constexpr Color darkturquoise = 0x00ced1_rgb;
inline constexpr Color darkviolet = 0x9400d3_rgb;
inline constexpr Color deeppink = 0xff1493_rgb;
inline constexpr Color deepskyblue = 0x00bfff_rgb;
inline constexpr Color dimgray = 0x696969_rgb;
inline constexpr Color dimgrey = 0x696969_rgb;
inline constexpr Color dodgerblue = 0x1e90ff_rgb;
inline constexpr Color firebrick = 0xb22222_rgb;
inline constexpr Color floralwhite = 0xfffaf0_rgb;
inline constexpr Color forestgreen = 0x228b22_rgb;
inline constexpr Color fuchsia = 0xff00ff_rgb;
inline constexpr Color gainsboro = 0xdcdcdc_rgb;
inline constexpr Color ghostwhite = 0xf8f8ff_rgb;
inline constexpr Color gold = 0xffd700_rgb;
inline constexpr Color goldenrod = 0xdaa520_rgb;
inline constexpr Color gray = 0x808080_rgb;
inline constexpr Color green = 0x008000_rgb;
inline constexpr Color greenyellow = 0xadff2f_rgb;
inline constexpr Color grey = 0x808080_rgb;
inline constexpr Color honeydew = 0xf0fff0_rgb;
inline constexpr Color hotpink = 0xff69b4_rgb;
inline constexpr Color indianred = 0xcd5c5c_rgb;
inline constexpr Color indigo = 0x4b0082_rgb;
inline constexpr Color ivory = 0xfffff0_rgb;
inline constexpr Color khaki = 0xf0e68c_rgb;
inline constexpr Color lavender = 0xe6e6fa_rgb;
inline constexpr Color lavenderblush = 0xfff0f5_rgb;
inline constexpr Color lawngreen = 0x7cfc00_rgb;
inline constexpr Color lemonchiffon = 0xfffacd_rgb;
inline constexpr Color lightblue = 0xadd8e6_rgb;
inline constexpr Color lightcoral = 0xf08080_rgb;
inline constexpr Color lightcyan = 0xe0ffff_rgb;
inline constexpr Color lightgoldenrodyellow = 0xfafad2_rgb;
inline constexpr Color lightgray = 0xd3d3d3_rgb;
inline constexpr Color lightgreen = 0x90ee90_rgb;
inline constexpr Color lightgrey = 0xd3d3d3_rgb;
inline constexpr Color lightpink = 0xffb6c1_rgb;
inline constexpr Color lightsalmon = 0xffa07a_rgb;
inline constexpr Color lightseagreen = 0x20b2aa_rgb;
inline constexpr Color lightskyblue = 0x87cefa_rgb;
inline constexpr Color lightslategray = 0x778899_rgb;
inline constexpr Color lightslategrey = 0x778899_rgb;
inline constexpr Color lightsteelblue = 0xb0c4de_rgb;
inline constexpr Color lightyellow = 0xffffe0_rgb;
inline constexpr Color lime = 0x00ff00_rgb;
inline constexpr Color limegreen = 0x32cd32_rgb;
inline constexpr Color linen = 0xfaf0e6_rgb;
inline constexpr Color magenta = 0xff00ff_rgb;
inline constexpr Color maroon = 0x800000_rgb;
inline constexpr Color mediumaquamarine = 0x66cdaa_rgb;
inline constexpr Color mediumblue = 0x0000cd_rgb;
inline constexpr Color mediumorchid = 0xba55d3_rgb;
inline constexpr Color mediumpurple = 0x9370db_rgb;
inline constexpr Color mediumseagreen = 0x3cb371_rgb;
inline constexpr Color mediumslateblue = 0x7b68ee_rgb;
inline constexpr Color mediumspringgreen = 0x00fa9a_rgb;
inline constexpr Color mediumturquoise = 0x48d1cc_rgb;
inline constexpr Color mediumvioletred = 0xc71585_rgb;
inline constexpr Color midnightblue = 0x191970_rgb;
inline constexpr Color mintcream = 0xf5fffa_rgb;
inline constexpr Color mistyrose = 0xffe4e1_rgb;
inline constexpr Color moccasin = 0xffe4b5_rgb;
inline constexpr Color navajowhite = 0xffdead_rgb;
inline constexpr Color navy = 0x000080_rgb;
inline constexpr Color oldlace = 0xfdf5e6_rgb;
inline constexpr Color olive = 0x808000_rgb;
inline constexpr Color olivedrab = 0x6b8e23_rgb;
inline constexpr Color orange = 0xffa500_rgb;
inline constexpr Color orangered = 0xff4500_rgb;
inline constexpr Color orchid = 0xda70d6_rgb;
inline constexpr Color palegoldenrod = 0xeee8aa_rgb;
inline constexpr Color palegreen = 0x98fb98_rgb;
inline constexpr Color paleturquoise = 0xafeeee_rgb;
inline constexpr Color palevioletred = 0xdb7093_rgb;
inline constexpr Color papayawhip = 0xffefd5_rgb;
inline constexpr Color peachpuff = 0xffdab9_rgb;
inline constexpr Color peru = 0xcd853f_rgb;
inline constexpr Color pink = 0xffc0cb_rgb;
inline constexpr Color plum = 0xdda0dd_rgb;
inline constexpr Color powderblue = 0xb0e0e6_rgb;
inline constexpr Color purple = 0x800080_rgb;
inline constexpr Color rebeccapurple = 0x663399_rgb;
inline constexpr Color red = 0xff0000_rgb;
inline constexpr Color rosybrown = 0xbc8f8f_rgb;
inline constexpr Color royalblue = 0x4169e1_rgb;
inline constexpr Color saddlebrown = 0x8b4513_rgb;
inline constexpr Color salmon = 0xfa8072_rgb;
inline constexpr Color sandybrown = 0xf4a460_rgb;
inline constexpr Color seagreen = 0x2e8b57_rgb;
inline constexpr Color seashell = 0xfff5ee_rgb;
inline constexpr Color sienna = 0xa0522d_rgb;
inline constexpr Color silver = 0xc0c0c0_rgb;
inline constexpr Color skyblue = 0x87ceeb_rgb;
inline constexpr Color slateblue = 0x6a5acd_rgb;
inline constexpr Color slategray = 0x708090_rgb;
inline constexpr Color slategrey = 0x708090_rgb;
inline constexpr Color snow = 0xfffafa_rgb;
inline constexpr Color springgreen = 0x00ff7f_rgb;
inline constexpr Color steelblue = 0x4682b4_rgb;
inline constexpr Color tan = 0xd2b48c_rgb;
inline constexpr Color teal = 0x008080_rgb;
inline constexpr Color thistle = 0xd8bfd8_rgb;
inline constexpr Color tomato = 0xff6347_rgb;
inline constexpr Color turquoise = 0x40e0d0_rgb;
inline constexpr Color violet = 0xee82ee_rgb;
inline constexpr Color wheat = 0xf5deb3_rgb;
inline constexpr Color white = 0xffffff_rgb;
inline constexpr Color whitesmoke = 0xf5f5f5_rgb;
inline constexpr Color yellow = 0xffff00_rgb;
inline constexpr Color yellowgreen = 0x9acd32_rgb;

// CSS Color 4, section 6.3: black with alpha 0.
inline constexpr Color transparent = 0x00000000_rgba;

}  // namespace colors

struct NamedColor {
    std::string_view name;
    Color color;
};

// All names, sorted.
inline constexpr auto named_colors = std::to_array<NamedColor>({
    {"aliceblue", colors::aliceblue},
    {"antiquewhite", colors::antiquewhite},
    {"aqua", colors::aqua},
    {"aquamarine", colors::aquamarine},
    {"azure", colors::azure},
    {"beige", colors::beige},
    {"bisque", colors::bisque},
    {"black", colors::black},
    {"blanchedalmond", colors::blanchedalmond},
    {"blue", colors::blue},
    {"blueviolet", colors::blueviolet},
    {"brown", colors::brown},
    {"burlywood", colors::burlywood},
    {"cadetblue", colors::cadetblue},
    {"chartreuse", colors::chartreuse},
    {"chocolate", colors::chocolate},
    {"coral", colors::coral},
    {"cornflowerblue", colors::cornflowerblue},
    {"cornsilk", colors::cornsilk},
    {"crimson", colors::crimson},
    {"cyan", colors::cyan},
    {"darkblue", colors::darkblue},
    {"darkcyan", colors::darkcyan},
    {"darkgoldenrod", colors::darkgoldenrod},
    {"darkgray", colors::darkgray},
    {"darkgreen", colors::darkgreen},
    {"darkgrey", colors::darkgrey},
    {"darkkhaki", colors::darkkhaki},
    {"darkmagenta", colors::darkmagenta},
    {"darkolivegreen", colors::darkolivegreen},
    {"darkorange", colors::darkorange},
    {"darkorchid", colors::darkorchid},
    {"darkred", colors::darkred},
    {"darksalmon", colors::darksalmon},
    {"darkseagreen", colors::darkseagreen},
    {"darkslateblue", colors::darkslateblue},
    {"darkslategray", colors::darkslategray},
    {"darkslategrey", colors::darkslategrey},
    {"darkturquoise", colors::darkturquoise},
    {"darkviolet", colors::darkviolet},
    {"deeppink", colors::deeppink},
    {"deepskyblue", colors::deepskyblue},
    {"dimgray", colors::dimgray},
    {"dimgrey", colors::dimgrey},
    {"dodgerblue", colors::dodgerblue},
    {"firebrick", colors::firebrick},
    {"floralwhite", colors::floralwhite},
    {"forestgreen", colors::forestgreen},
    {"fuchsia", colors::fuchsia},
    {"gainsboro", colors::gainsboro},
    {"ghostwhite", colors::ghostwhite},
    {"gold", colors::gold},
    {"goldenrod", colors::goldenrod},
    {"gray", colors::gray},
    {"green", colors::green},
    {"greenyellow", colors::greenyellow},
    {"grey", colors::grey},
    {"honeydew", colors::honeydew},
    {"hotpink", colors::hotpink},
    {"indianred", colors::indianred},
    {"indigo", colors::indigo},
    {"ivory", colors::ivory},
    {"khaki", colors::khaki},
    {"lavender", colors::lavender},
    {"lavenderblush", colors::lavenderblush},
    {"lawngreen", colors::lawngreen},
    {"lemonchiffon", colors::lemonchiffon},
    {"lightblue", colors::lightblue},
    {"lightcoral", colors::lightcoral},
    {"lightcyan", colors::lightcyan},
    {"lightgoldenrodyellow", colors::lightgoldenrodyellow},
    {"lightgray", colors::lightgray},
    {"lightgreen", colors::lightgreen},
    {"lightgrey", colors::lightgrey},
    {"lightpink", colors::lightpink},
    {"lightsalmon", colors::lightsalmon},
    {"lightseagreen", colors::lightseagreen},
    {"lightskyblue", colors::lightskyblue},
    {"lightslategray", colors::lightslategray},
    {"lightslategrey", colors::lightslategrey},
    {"lightsteelblue", colors::lightsteelblue},
    {"lightyellow", colors::lightyellow},
    {"lime", colors::lime},
    {"limegreen", colors::limegreen},
    {"linen", colors::linen},
    {"magenta", colors::magenta},
    {"maroon", colors::maroon},
    {"mediumaquamarine", colors::mediumaquamarine},
    {"mediumblue", colors::mediumblue},
    {"mediumorchid", colors::mediumorchid},
    {"mediumpurple", colors::mediumpurple},
    {"mediumseagreen", colors::mediumseagreen},
    {"mediumslateblue", colors::mediumslateblue},
    {"mediumspringgreen", colors::mediumspringgreen},
    {"mediumturquoise", colors::mediumturquoise},
    {"mediumvioletred", colors::mediumvioletred},
    {"midnightblue", colors::midnightblue},
    {"mintcream", colors::mintcream},
    {"mistyrose", colors::mistyrose},
    {"moccasin", colors::moccasin},
    {"navajowhite", colors::navajowhite},
    {"navy", colors::navy},
    {"oldlace", colors::oldlace},
    {"olive", colors::olive},
    {"olivedrab", colors::olivedrab},
    {"orange", colors::orange},
    {"orangered", colors::orangered},
    {"orchid", colors::orchid},
    {"palegoldenrod", colors::palegoldenrod},
    {"palegreen", colors::palegreen},
    {"paleturquoise", colors::paleturquoise},
    {"palevioletred", colors::palevioletred},
    {"papayawhip", colors::papayawhip},
    {"peachpuff", colors::peachpuff},
    {"peru", colors::peru},
    {"pink", colors::pink},
    {"plum", colors::plum},
    {"powderblue", colors::powderblue},
    {"purple", colors::purple},
    {"rebeccapurple", colors::rebeccapurple},
    {"red", colors::red},
    {"rosybrown", colors::rosybrown},
    {"royalblue", colors::royalblue},
    {"saddlebrown", colors::saddlebrown},
    {"salmon", colors::salmon},
    {"sandybrown", colors::sandybrown},
    {"seagreen", colors::seagreen},
    {"seashell", colors::seashell},
    {"sienna", colors::sienna},
    {"silver", colors::silver},
    {"skyblue", colors::skyblue},
    {"slateblue", colors::slateblue},
    {"slategray", colors::slategray},
    {"slategrey", colors::slategrey},
    {"snow", colors::snow},
    {"springgreen", colors::springgreen},
    {"steelblue", colors::steelblue},
    {"tan", colors::tan},
    {"teal", colors::teal},
    {"thistle", colors::thistle},
    {"tomato", colors::tomato},
    {"transparent", colors::transparent},
    {"turquoise", colors::turquoise},
    {"violet", colors::violet},
    {"wheat", colors::wheat},
    {"white", colors::white},
    {"whitesmoke", colors::whitesmoke},
    {"yellow", colors::yellow},
    {"yellowgreen", colors::yellowgreen},
});

// The name whose colour is nearest: of which the sum of the squares of the differences of red, green and blue is least;
// the first of those that are equally near. Alpha is left aside.
[[nodiscard]] constexpr std::string_view nearest_name(Color color) noexcept {
    const auto distance = [=](Color named) {
        const auto red = color.red - named.red;
        const auto green = color.green - named.green;
        const auto blue = color.blue - named.blue;
        return red * red + green * green + blue * blue;
    };
    auto nearest = named_colors.front();
    for (const auto& named : named_colors) {
        if (named.color.alpha == 255 && distance(named.color) < distance(nearest.color)) nearest = named;
    }
    return nearest.name;
}

}  // namespace v0
}  // namespace coldbrick

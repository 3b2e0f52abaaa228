// Colours: literals, names, digits, luma.
#include "oracle.hpp"

#include <coldbrick/color_names.hpp>
#include <coldbrick/error.hpp>

#include <algorithm>

namespace {

using namespace coldbrick;

TEST(Colors, LiteralsAndGray) {
    EXPECT_EQ(0xe8b23a_rgb, (Color{.red = 0xe8, .green = 0xb2, .blue = 0x3a, .alpha = 255}));
    EXPECT_EQ(0x0b223980_rgba, (Color{.red = 0x0b, .green = 0x22, .blue = 0x39, .alpha = 0x80}));
    EXPECT_EQ(gray(196), (Color{.red = 196, .green = 196, .blue = 196}));
    EXPECT_EQ(with_alpha(colors::gold, 7), (Color{.red = 255, .green = 215, .blue = 0, .alpha = 7}));
}

TEST(Colors, LiteralsHaveExactlyTheirDigits) {
    EXPECT_TRUE((detail::has_hex_digits<6, '0', 'x', 'e', '8', 'B', '2', '3', 'a'>()));
    EXPECT_FALSE((detail::has_hex_digits<6, '0', 'x', 'e', '8', 'b', '2', '3'>()));
    EXPECT_FALSE((detail::has_hex_digits<6, '0', 'x', 'e', '8', 'b', '\'', '2', '3'>()));
    EXPECT_FALSE((detail::has_hex_digits<6, '1', '2', '3', '4', '5', '6', '7', '8'>()));
    EXPECT_EQ(0xE8B23A_rgb, 0xe8b23a_rgb);
}

TEST(Colors, Digits) {
    EXPECT_EQ(parse_color("#fb0"), 0xffbb00_rgb);
    EXPECT_EQ(parse_color("#fb08"), 0xffbb0088_rgba);
    EXPECT_EQ(parse_color("#0B2239"), 0x0b2239_rgb);
    EXPECT_EQ(parse_color("#0b2239c0"), 0x0b2239c0_rgba);
}

TEST(Colors, NamesInEitherCase) {
    EXPECT_EQ(parse_color("rebeccapurple"), 0x663399_rgb);
    EXPECT_EQ(parse_color("SlateGrey"), 0x708090_rgb);
    EXPECT_EQ(parse_color("transparent"), 0x00000000_rgba);
}

TEST(Colors, TableIsSortedCompleteAndReadable) {
    EXPECT_EQ(named_colors.size(), 149U);  // the 148 of CSS Color 4, and transparent
    EXPECT_TRUE(std::is_sorted(named_colors.begin(), named_colors.end(),
                               [](const auto& a, const auto& b) { return a.name < b.name; }));
    for (const auto& [name, color] : named_colors) EXPECT_EQ(find_color(name), color) << name;
}

TEST(Colors, WhatIsNoColor) {
    for (const auto* text : {"", "#", "#12", "#12345", "#1234567", "#ggg", "golden", "gol", "#fb 0"}) {
        EXPECT_EQ(find_color(text), std::nullopt) << text;
        EXPECT_THROW(parse_color(text), Error) << text;
    }
    try {
        parse_color("golden");
        FAIL();
    } catch (const Error& error) {
        EXPECT_NE(std::string{error.what()}.find("'golden' is no colour; allowed are #rgb"), std::string::npos);
    }
}

TEST(Colors, LumaIsTheRoundedWeightedMean) {
    for (int value = 0; value < 256; ++value) {
        const auto v = static_cast<std::uint8_t>(value);
        EXPECT_EQ(luma(gray(v)), v);
        const auto green = Color{.red = 0, .green = v, .blue = 0};
        EXPECT_EQ(luma(green), (7152 * value * 2 + 10000) / 20000);
    }
    EXPECT_EQ(luma(colors::red), 54);
    EXPECT_EQ(luma(colors::blue), 18);
}

}  // namespace

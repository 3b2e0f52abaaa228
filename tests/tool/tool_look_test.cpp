// The tool's look command: what a terminal shows, and sheets with rulers, against the pixels.
#include "oracle.hpp"
#include "tool_runner.hpp"

#include <coldbrick/coldbrick.hpp>

#include <optional>
#include <sstream>
#include <string>
#include <vector>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;
using oracle::Dice;

// A cell of a terminal: its character, and colours as they were said last.
struct Cell {
    std::string character;
    std::optional<Color> front;
    std::optional<Color> back;
};

// Reads characters with colours of ISO 8613-6 (38;2;r;g;b and 48;2;r;g;b).
class Terminal {
  public:
    explicit Terminal(const std::string& text) {
        std::istringstream in{text};
        for (std::string line; std::getline(in, line);) read(line);
    }
    std::vector<std::vector<Cell>> lines;

  private:
    void read(const std::string& line) {
        auto& cells = lines.emplace_back();
        for (std::size_t i = 0; i < line.size();) {
            if (line[i] == '\x1b') {
                const auto end = line.find('m', i);
                color(line.substr(i + 2, end - i - 2));
                i = end + 1;
                continue;
            }
            const auto lead = static_cast<unsigned char>(line[i]);
            const std::size_t length = lead < 0x80 ? 1 : lead < 0xe0 ? 2 : lead < 0xf0 ? 3 : 4;
            cells.push_back({line.substr(i, length), front_, back_});
            i += length;
        }
    }

    void color(const std::string& codes) {
        std::istringstream in{codes};
        std::vector<int> numbers;
        for (std::string word; std::getline(in, word, ';');) numbers.push_back(word.empty() ? 0 : std::stoi(word));
        if (numbers.empty()) numbers.push_back(0);
        for (std::size_t i = 0; i < numbers.size(); ++i) {
            if (numbers[i] == 0) front_ = back_ = std::nullopt;
            if (numbers[i] == 39) front_ = std::nullopt;
            if (numbers[i] == 49) back_ = std::nullopt;
            if ((numbers[i] == 38 || numbers[i] == 48) && i + 4 < numbers.size()) {
                const auto byte = [&](std::size_t k) { return static_cast<std::uint8_t>(numbers[i + k]); };
                (numbers[i] == 38 ? front_ : back_) = Color{byte(2), byte(3), byte(4)};
                i += 4;
            }
        }
    }

    std::optional<Color> front_;
    std::optional<Color> back_;
};

class ToolLook : public ToolTest {
  protected:
    // A picture of random opaque pixels.
    Bitmap<Rgb8> random_picture(const std::string& name, Size size) {
        Dice dice{static_cast<unsigned>(size.width * 100 + size.height)};
        Bitmap<Rgb8> picture{size};
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x) mark(picture, Point{x, y}, with_alpha(dice.color(), 255));
        }
        save(picture, path(name));
        return picture;
    }

    static std::string words_in(const std::vector<Cell>& line) {
        std::string words;
        for (const auto& cell : line) words += cell.character;
        return words;
    }
};

// Pixels in half lines, from a column of the terminal on.
void expect_half_blocks(const Terminal& shown, const Bitmap<Rgb8>& picture, std::size_t left) {
    const auto [width, height] = picture.size();
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x) {
            const auto& cell =
                shown.lines.at(2 + static_cast<std::size_t>(y) / 2).at(left + static_cast<std::size_t>(x));
            EXPECT_EQ(cell.character, "\u2580");
            EXPECT_EQ(y % 2 == 0 ? cell.front : cell.back, std::optional{picture.color_at({x, y})}) << x << ',' << y;
        }
    }
}

TEST_F(ToolLook, PixelsAreHalfLines) {
    const auto picture = random_picture("quay.png", {60, 31});
    const auto told = run("look quay.png --columns 80 --lines 24");
    EXPECT_EQ(told.code, 0) << told.err;
    const Terminal shown{told.out};
    ASSERT_EQ(shown.lines.size(), 18U);
    EXPECT_EQ(words_in(shown.lines[0]).substr(3, 23), "quay.png, 60 x 31 pixel");
    EXPECT_EQ(words_in(shown.lines[1]).substr(0, 25), "   |0        |10       |2");
    EXPECT_EQ(words_in(shown.lines[2]).substr(0, 3), " 0-");
    expect_half_blocks(shown, picture, 3);
}

TEST_F(ToolLook, SmallPicturesHavePixelsOfTwoColumnsAndALine) {
    const auto picture = random_picture("quay.png", {20, 9});
    const Terminal shown{run("look quay.png --columns 60 --lines 30").out};
    ASSERT_EQ(shown.lines.size(), 11U);
    for (int y = 0; y < 9; ++y) {
        for (int x = 0; x < 40; ++x) {
            const auto& cell = shown.lines[static_cast<std::size_t>(2 + y)].at(static_cast<std::size_t>(2 + x));
            EXPECT_EQ(cell.character, " ");
            EXPECT_EQ(cell.back, std::optional{picture.color_at({x / 2, y})});
        }
    }
}

TEST_F(ToolLook, LargePicturesBecomeSmaller) {
    Bitmap<Rgb8> halves{{400, 300}, colors::navy};
    fill(halves, Box{.at = {200, 0}, .size = {200, 300}}, colors::gold);
    save(halves, path("halves.png"));
    const Terminal shown{run("look halves.png --columns 84 --lines 33").out};
    ASSERT_LE(shown.lines.size(), 32U);
    const auto& line = shown.lines.at(10);
    EXPECT_LE(line.size(), 84U);
    EXPECT_GE(line.size(), 70U);
    EXPECT_EQ(line[4].front, std::optional{colors::navy});
    EXPECT_EQ(line.back().back, std::optional{colors::gold});
    const Terminal tiny{run("look halves.png --columns 8 --lines 8").out};
    EXPECT_LE(tiny.lines.size(), 8U);
}

TEST_F(ToolLook, APartOfAScene) {
    write("quay.brick", "sheet size 90,60 ink navy\nfill box at 40,30 size 3,2 ink gold\n");
    const auto told = run("look quay.brick --part 39,29,6,4 --columns 40 --lines 20");
    const Terminal shown{told.out};
    EXPECT_NE(words_in(shown.lines[0]).find("quay.brick, 90 x 60 pixels"), std::string::npos);
    EXPECT_EQ(words_in(shown.lines[3]).substr(0, 3), "30-");
    EXPECT_EQ(shown.lines[3].at(3).back, std::optional{colors::navy});
    EXPECT_EQ(shown.lines[3].at(5).back, std::optional{colors::gold});
    EXPECT_EQ(run("look quay.brick --part 80,50,20,4").code, 1);
    EXPECT_EQ(run("look quay.brick --part 80,50").code, 2);
    EXPECT_EQ(run("look quay.brick --columns 3").code, 2);
    EXPECT_EQ(run("look quay.brick --scale 3").code, 2);
    EXPECT_EQ(run("look none.brick").code, 1);
}

TEST_F(ToolLook, TwoPicturesAndWhereTheyDiffer) {
    write("a.brick", "sheet size 12,8 ink navy\n");
    write("b.brick", "sheet size 12,8 ink navy\nmark at 5,3 ink gold\n");
    const Terminal shown{run("look a.brick b.brick --columns 120 --lines 20").out};
    EXPECT_NE(words_in(shown.lines[0]).find("1 of 96 pixels differ"), std::string::npos);
    auto found = 0;
    for (const auto& cell : shown.lines.at(5)) found += cell.back && cell.back->red > 2 * cell.back->green ? 1 : 0;
    EXPECT_EQ(found, 2);  // columns, where they differ; gold is not as red
    write("c.brick", "sheet size 9,20 ink navy\n");
    EXPECT_NE(run("look a.brick c.brick --columns 200").out.find("no pixel of 72 differs, of the 9 x 8 that both have"),
              std::string::npos);
}

// What a terminal that reads it shows.
TEST_F(ToolLook, InATerminalThatReadsIt) {
    if (std::system("command -v tmux >/dev/null") != 0) GTEST_SKIP() << "tmux is not installed";
    const auto picture = random_picture("quay.png", {70, 30});
    const auto socket = "'" + path("tmux").string() + "'";
    const auto command = "cd '" + folder().string() + "' && TERM=xterm-256color tmux -S " + socket +
                         " -f /dev/null new-session -d -x 80 -y 24 \"" + tool() +
                         " look quay.png; touch done; sleep 60\" && "
                         "for i in $(seq 100); do [ -e done ] && break; sleep 0.1; done; tmux -S " +
                         socket + " capture-pane -e -p >.captured; tmux -S " + socket + " kill-server";
    ASSERT_EQ(std::system(command.c_str()), 0);
    const Terminal shown{content(path(".captured"))};
    expect_half_blocks(shown, picture, 3);
}

TEST_F(ToolLook, ASheetHasEachPixelAsASquareWithRulers) {
    const auto picture = random_picture("quay.png", {30, 20});
    EXPECT_EQ(run("look quay.png -o sheet.png --scale 5").code, 0);
    const auto sheet = load<Rgb8>(path("sheet.png"));
    // Where the squares are: found by the first pixel's, and then all of them.
    std::optional<Point> at;
    for (int y = 0; y < sheet.size().height && !at; ++y) {
        for (int x = 0; x < sheet.size().width && !at; ++x) {
            if (sheet.color_at({x, y}) == picture.color_at({0, 0})) at = Point{x, y};
        }
    }
    ASSERT_TRUE(at);
    for (int y = 0; y < 100; ++y) {
        for (int x = 0; x < 150; ++x) {
            ASSERT_EQ(sheet.color_at({at->x + x, at->y + y}), picture.color_at({x / 5, y / 5}));
        }
    }
    // Rulers have marks at the middle of pixels with round numbers.
    const auto is_marked = [&](int x) {
        return sheet.color_at({at->x + x * 5 + 2, at->y - 3}) == sheet.color_at({at->x - 1, at->y});
    };
    EXPECT_TRUE(is_marked(0));
    EXPECT_TRUE(is_marked(10));
    EXPECT_FALSE(is_marked(3));
    // As large as usual, with a grid; nothing of a pixel is lost.
    EXPECT_EQ(run("look quay.png -o grid.png").code, 0);
    const auto grid = load<Rgb8>(path("grid.png"));
    EXPECT_LE(grid.size().width, 1280);
    EXPECT_LE(grid.size().height, 800);
    EXPECT_GE(grid.size().height, 700);
    EXPECT_EQ(run("look quay.png -o no.png --scale 0").code, 2);
    EXPECT_EQ(run("look quay.png -o no.png --columns 80").code, 2);
    EXPECT_FALSE(std::filesystem::exists(path("no.png")));
}

TEST_F(ToolLook, TransparentPixelsShowSquaresBehind) {
    save(Bitmap<Rgba8>{{40, 20}}, path("clear.png"));
    const Terminal shown{run("look clear.png --columns 100 --lines 30").out};
    EXPECT_NE(shown.lines[2].at(3).back, shown.lines[2].at(3 + 16).back);
    EXPECT_EQ(run("look clear.png -o clear-sheet.png").code, 0);
}

}  // namespace

// A berth board on which something is missing, and who painted what. Draws into a Drawing instead of a bitmap, which
// remembers its calls; then asks it. Writes the board, and beside it how often each pixel was painted.
//
//     explained_board board.png
#include <coldbrick/coldbrick.hpp>

#include <filesystem>
#include <iostream>
#include <string>

using namespace coldbrick;
using namespace coldbrick::literals;

namespace {

// With four mistakes, as they happen.
void draw_board(Drawing& board) {
    fill(board, Box{.at = {0, 0}, .size = {320, 180}}, 0x14324a_rgb);
    fill(board, Text{.words = "BERTH 4", .at = {24, 22}, .height = 18}, colors::white);
    fill(board, RoundedBox{.box = {.at = {16, 14}, .size = {288, 40}}, .corner_radius = 6},
         0x2b5876_rgb);  // over the words
    for (int i = 0; i < 3; ++i) {
        fill(board, Circle{.center = {40 + i * 60, 110}, .radius = 20}, i == 2 ? 0x14324a_rgb : 0xd9a441_rgb);
        stroke(board, Circle{.center = {40 + i * 60, 110}, .radius = 20}, {.width = 3}, colors::white);
    }
    fill(board, Polygon{{330, 80}, {330, 140}, {380, 110}}, colors::crimson);                // beside the board
    stroke(board, Line{.from = {16, 166}, .to = {304, 166}}, with_alpha(colors::white, 0));  // transparent
}

std::string place_of(const RecordedCall& call) {
    return std::filesystem::path{call.place().file}.filename().string() + ":" + std::to_string(call.place().line);
}

std::string in_words(Color color) { return std::string{nearest_name(color)}; }

const char* why(Showing showing) {
    switch (showing) {
        case Showing::outside:
            return "it lies beside the board";
        case Showing::transparent:
            return "its ink is transparent";
        case Showing::unchanged:
            return "its pixels have that colour already";
        case Showing::covered:
            return "it is covered by ";
        default:
            return "it has no pixels";
    }
}

}  // namespace

int main(int argc, char** argv) {
    const std::filesystem::path path = argc > 1 ? argv[1] : "board.png";
    Drawing board;
    draw_board(board);

    Bitmap<Rgb8> picture{{320, 180}};
    const auto all = render_explained(board, picture);  // draws, and tells of every call
    for (std::size_t i = 0; i < all.calls.size(); ++i) {
        const auto& story = all.calls[i];
        if (story.showing == Showing::seen) continue;
        std::cout << place_of(board[i]) << ": nothing of this shows, " << why(story.showing);
        if (story.showing == Showing::covered) std::cout << place_of(board[story.covered_by.front().call]);
        std::cout << '\n';
    }

    // One pixel: each call that touched it, and its colour after that.
    const Bitmap<Rgb8> blank{picture.size()};
    const auto story = explain(board, blank, {40, 129});
    std::cout << "40,129 was " << in_words(story.ground) << '\n';
    for (const auto& step : story.steps) {
        std::cout << "    " << place_of(board[step.call]) << " made it " << in_words(step.after) << '\n';
    }

    save(picture, path);
    auto overdraw = path;
    overdraw.replace_filename(path.stem().string() + "-overdraw" + path.extension().string());
    save(overdraw_shown(all), overdraw);
    std::cout << path.string() << '\n' << overdraw.string() << '\n';
}

#include "faces_sheet.hpp"

#include "commands.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/face.hpp>
#include <coldbrick/text.hpp>

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

constexpr int width = 1280;
constexpr int margin = 20;
constexpr auto pangram = "Tarn Quay, berth 4: the Otter's boxes jam, quiz fog & view wreck 0123456789 (3.2 m)";

// Words, or a file's name, as they stand in a scene's quotes: braces would be values.
std::string in_scene_quotes(std::string_view words) {
    std::string text;
    for (const auto c : words) {
        if (c == '"' || c == '\\') text += '\\';
        if (c == '{' || c == '}') text += c;
        text += c;
    }
    return text;
}

bool is_blank(char32_t c) {
    return (c >= 0x2000 && c <= 0x200f) || c <= U' ' || (c >= 0x7f && c <= 0xa0) || c == 0xad || c == 0x202f ||
           (c >= 0x2028 && c <= 0x202e) || (c >= 0x205f && c <= 0x206f) || c == 0x3000 ||
           (c >= 0xfe00 && c <= 0xfe0f) || c == 0xfeff || c >= 0xe0000;
}

struct Specimen {
    Face face;
    std::string word;            // that says the face in a scene
    std::string statement = {};  // that gives it that word
    std::vector<int> crisp;      // heights of the words
    std::vector<int> smooth;
    int height;  // of the characters, each in a cell
    int cell;
};

class Sheet {
  public:
    void add(const Specimen& specimen) {
        const auto& face = specimen.face;
        text_ += specimen.statement;
        words("line", 16, "#c8202c", "crisp", fmt::format("{}, {} characters", face.name(), face.characters().size()));
        std::string axes;
        for (const auto& axis : face.axes()) {
            axes += fmt::format("{}{} {} {:g} to {:g}", axes.empty() ? "axes: " : ", ", axis.tag, axis.name, axis.least,
                                axis.most);
        }
        if (!axes.empty()) note(axes);
        if (const auto features = face.features(); !features.empty()) {
            note(fmt::format("features: {}", fmt::join(features, ", ")));
        }
        y_ += 10;
        const auto sample_words = words_for(face);
        for (const auto height : specimen.crisp) sample(specimen, height, "crisp", sample_words);
        for (const auto height : specimen.smooth) sample(specimen, height, "smooth", sample_words);
        characters(specimen);
        y_ += 30;
    }

    [[nodiscard]] std::string scene() const {
        return fmt::format("sheet size {},{} ink #f7f3e6\n{}", width, y_, text_);
    }

  private:
    // A line of words, whose capitals begin at the height that has been reached.
    void words(std::string_view face, int height, std::string_view ink, std::string_view edge, std::string_view text) {
        text_ += fmt::format("fill text \"{}\" at {},{} face {} height {} {} ink {}\n", in_scene_quotes(text),
                             margin + 40, y_, face, height, edge, ink);
        y_ += height * 8 / 5 + 2;
    }

    void note(const std::string& text) { words("line", 9, "#8a8473", "smooth", shortened(text, faces::line(), 9)); }

    void sample(const Specimen& of, int height, std::string_view edge, const std::string& text) {
        text_ += fmt::format("fill text \"{}\" at {},{} anchor baseline_right face tiny height 5 ink #8a8473\n", height,
                             margin + 30, y_ + height - 1);
        words(of.word, height, "#14364f", edge, shortened(text, of.face, height));
    }

    // The usual words; of a face that has no letters for them, some of those that it has.
    static std::string words_for(const Face& face) {
        if (face.has(U'a') && face.has(U'T')) return pangram;
        std::string words;
        auto count = 0;
        for (const auto character : face.characters()) {
            constexpr auto most = 60;
            constexpr char32_t first_beyond_latin = 0x370;
            if (is_blank(character) || character < first_beyond_latin || ++count > most) continue;
            words += utf8(character);
            if (count % 6 == 0) words += ' ';
        }
        return words;
    }

    // As many of the words as have room.
    static std::string shortened(std::string text, const Face& face, int height) {
        const auto is_wide = [&] {
            const auto layout = lay_out({.words = text, .face = face, .height = 1.0 * height});
            return layout.box.size.width > width - 2 * margin - 40;
        };
        while (is_wide()) {
            const auto end = text.find_last_of(' ');
            if (end == std::string::npos) return "";
            text.resize(end);
        }
        return text;
    }

    void characters(const Specimen& specimen) {
        const auto columns = (width - 2 * margin) / specimen.cell;
        const auto row = specimen.height * 9 / 4;
        auto column = 0;
        y_ += row;
        for (const auto character : specimen.face.characters()) {
            if (is_blank(character)) continue;
            text_ += fmt::format("fill text \"{}\" at {},{} anchor baseline_center face {} height {} {} ink black\n",
                                 in_scene_quotes(utf8(character)), margin + column * specimen.cell + specimen.cell / 2,
                                 y_, specimen.word, specimen.height, specimen.smooth.empty() ? "crisp" : "smooth");
            if (++column == columns) {
                column = 0;
                y_ += row;
            }
        }
        y_ += row / 2;
    }

    std::string text_;
    int y_ = margin;
};

}  // namespace

std::string faces_sheet(const std::vector<std::string>& fonts) {
    Sheet sheet;
    auto number_of_all = 0;
    for (const auto& font : fonts) {
        if (font.find('\n') != std::string::npos) {
            throw WrongCall{fmt::format("{}: a name with a line feed cannot stand in a scene", printable(font))};
        }
        const auto count = count_faces(font);
        for (int number = 0; number < count; ++number) {
            const auto word = fmt::format("face_{}", ++number_of_all);
            sheet.add({.face = load_face(font, number),
                       .word = word,
                       .statement = fmt::format("face {} = \"{}\" number {}\n", word,
                                                in_scene_quotes(std::filesystem::absolute(font).string()), number),
                       .crisp = {10, 14},
                       .smooth = {8, 10, 14, 18, 24, 36},
                       .height = 18,
                       .cell = 31});
        }
    }
    if (!fonts.empty()) return sheet.scene();
    sheet.add({.face = faces::line(),
               .word = "line",
               .crisp = {7, 8, 9, 10, 12, 14, 18},
               .smooth = {10, 14, 18, 24, 36},
               .height = 18,
               .cell = 31});
    sheet.add({.face = faces::pixel(), .word = "pixel", .crisp = {7, 14, 21}, .smooth = {}, .height = 14, .cell = 27});
    sheet.add({.face = faces::tiny(), .word = "tiny", .crisp = {5, 10, 15}, .smooth = {}, .height = 10, .cell = 20});
    return sheet.scene();
}

}  // namespace coldbrick::tool

#include "faces_sheet.hpp"

#include <coldbrick/face.hpp>
#include <coldbrick/text.hpp>

#include <algorithm>
#include <string>
#include <vector>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

constexpr int width = 1280;
constexpr int margin = 20;
constexpr auto pangram = "Tarn Quay, berth 4: the Otter's boxes jam, quiz fog & view wreck 0123456789 (3.2 m)";

// A character as it stands in a scene's quotes.
std::string quoted(char32_t c) {
    std::string bytes;
    const auto add = [&](unsigned value) { bytes += static_cast<char>(value); };
    if (c == U'"' || c == U'\\') bytes += '\\';
    if (c < 0x80) {
        add(c);
    } else if (c < 0x800) {
        add(0xc0U | c >> 6U);
        add(0x80U | (c & 63U));
    } else {
        add(0xe0U | c >> 12U);
        add(0x80U | (c >> 6U & 63U));
        add(0x80U | (c & 63U));
    }
    return bytes;
}

struct Specimen {
    Face face;
    std::vector<int> crisp;  // heights of the words
    std::vector<int> smooth;
    int height;  // of the characters, each in a cell
    int cell;
};

class Sheet {
  public:
    void add(const Specimen& specimen) {
        const auto name = specimen.face.name();
        words("line", 16, "#c8202c", "crisp",
              fmt::format("{}, {} characters", name, specimen.face.characters().size()));
        y_ += 10;
        for (const auto height : specimen.crisp) sample(name, height, "crisp");
        for (const auto height : specimen.smooth) sample(name, height, "smooth");
        characters(specimen);
        y_ += 30;
    }

    [[nodiscard]] std::string scene() const {
        return fmt::format("sheet size {},{} ink #f7f3e6\n{}", width, y_, text_);
    }

  private:
    // A line of words, whose capitals begin at the height that has been reached.
    void words(std::string_view face, int height, std::string_view ink, std::string_view edge, std::string_view text) {
        text_ += fmt::format("fill text \"{}\" at {},{} face {} height {} {} ink {}\n", text, margin + 40, y_, face,
                             height, edge, ink);
        y_ += height * 8 / 5 + 2;
    }

    void sample(std::string_view face, int height, std::string_view edge) {
        text_ += fmt::format("fill text \"{}\" at {},{} anchor baseline_right face tiny height 5 ink #8a8473\n", height,
                             margin + 30, y_ + height - 1);
        words(face, height, "#14364f", edge, shortened(face, height));
    }

    // As much of the words as has room.
    static std::string shortened(std::string_view face, int height) {
        const auto& of = face == "line" ? faces::line() : face == "pixel" ? faces::pixel() : faces::tiny();
        std::string text = pangram;
        while (lay_out({.words = text, .face = of, .height = 1.0 * height}).box.size.width > width - 2 * margin - 40) {
            text.resize(text.find_last_of(' '));
        }
        return text;
    }

    void characters(const Specimen& specimen) {
        const auto columns = (width - 2 * margin) / specimen.cell;
        const auto row = specimen.height * 9 / 4;
        auto column = 0;
        y_ += row;
        for (const auto character : specimen.face.characters()) {
            const auto is_blank = (character >= 0x2000 && character <= 0x200a) || character == U' ' ||
                                  character == 0xa0 || character == 0x202f || character == 0x205f ||
                                  character == 0x3000;
            if (is_blank) continue;
            text_ +=
                fmt::format("fill text \"{}\" at {},{} anchor baseline_center face {} height {} {} ink black\n",
                            quoted(character), margin + column * specimen.cell + specimen.cell / 2, y_,
                            specimen.face.name(), specimen.height, specimen.face == faces::line() ? "smooth" : "crisp");
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

std::string faces_sheet() {
    Sheet sheet;
    sheet.add({.face = faces::line(),
               .crisp = {7, 8, 9, 10, 12, 14, 18},
               .smooth = {10, 14, 18, 24, 36},
               .height = 18,
               .cell = 31});
    sheet.add({.face = faces::pixel(), .crisp = {7, 14, 21}, .smooth = {}, .height = 14, .cell = 27});
    sheet.add({.face = faces::tiny(), .crisp = {5, 10, 15}, .smooth = {}, .height = 10, .cell = 20});
    return sheet.scene();
}

}  // namespace coldbrick::tool

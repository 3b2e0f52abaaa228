#include "words/page_picture.hpp"

#include "paper.hpp"
#include "words/embedded_pages.hpp"

#include <algorithm>
#include <filesystem>
#include <optional>
#include <string>
#include <system_error>
#include <vector>

#include <unistd.h>

namespace coldbrick::tool {

namespace {

constexpr auto large = 4;
constexpr auto small = 2;

// A folder with the files that examples read, as long as it lives.
class ExampleFolder {
  public:
    ExampleFolder()
        : path_{std::filesystem::temp_directory_path() / ("coldbrick-words-" + std::to_string(::getpid()))} {
        std::filesystem::create_directories(path_);
        for (const auto& [name, content] : example_files()) {
            const auto* const bytes = reinterpret_cast<const std::uint8_t*>(content.data());
            write_file(path_ / name, {bytes, bytes + content.size()});
        }
    }
    ExampleFolder(const ExampleFolder&) = delete;
    ExampleFolder(ExampleFolder&&) = delete;
    ExampleFolder& operator=(const ExampleFolder&) = delete;
    ExampleFolder& operator=(ExampleFolder&&) = delete;
    ~ExampleFolder() {
        std::error_code ignored;
        std::filesystem::remove_all(path_, ignored);
    }

    [[nodiscard]] std::string path() const { return path_.string(); }

  private:
    std::filesystem::path path_;
};

Bitmap<Rgb8> drawn(const std::string& text) {
    static const ExampleFolder folder;
    const auto scene = parse_scene(text, "reference", folder.path());
    auto sheet = scene.sheet<Rgb8>();
    render(scene, sheet);
    return sheet;
}

// The first of the scenes that has no fault; nothing if there is none.
std::optional<Bitmap<Rgb8>> first_drawn(const std::vector<std::string>& scenes) {
    for (const auto& scene : scenes) {
        try {
            return drawn(scene);
        } catch (const SceneError&) {
            continue;  // a statement that takes the word only together with others
        }
    }
    return std::nullopt;
}

// Pictures one below the other, on paper.
Bitmap<Rgb8> stacked(const std::vector<Bitmap<Rgb8>>& pictures, int top) {
    Size size{.width = 0, .height = top};
    for (const auto& picture : pictures) {
        size.width = std::max(size.width, picture.size().width);
        size.height += picture.size().height;
    }
    Bitmap<Rgb8> all{size, paper};
    auto y = top;
    for (const auto& picture : pictures) {
        paste(all, picture, {.at = {0, y}});
        y += picture.size().height;
    }
    return all;
}

}  // namespace

Bitmap<Rgb8> page_scene(const ReferencePage& page) {
    const auto call = call_picture(page.name);
    return enlarge(call ? *call : drawn(page.scene), large);
}

Bitmap<Rgb8> word_picture(const ReferencePage& page, const PageWord& word) {
    constexpr auto label_height = 18;
    std::vector<Bitmap<Rgb8>> pictures;
    std::vector<int> widths;
    std::vector<std::string> titles;
    auto width = margin;
    auto height = 0;
    for (const auto& value : word.tries) {
        auto picture = first_drawn(with_value(page.scene, word.word, value));
        if (!picture) throw Error{"the page '" + page.name + "' cannot be drawn with " + word.word + " " + value};
        pictures.push_back(enlarge(*picture, small));
        // "without smooth", "smooth", "radius 9".
        titles.push_back(value == "without" ? value + " " + word.word
                         : value == "with"  ? word.word
                                            : word.word + " " + value);
        const auto words = bounds(label(titles.back(), {})).size.width;
        widths.push_back(std::max(pictures.back().size().width, words) + margin);
        width += widths.back();
        height = std::max(height, pictures.back().size().height);
    }
    Bitmap<Rgb8> row{{width, label_height + height + margin}, paper};
    auto x = margin;
    for (std::size_t i = 0; i < pictures.size(); ++i) {
        fill(row, label(titles[i], {x, 6}), writing);
        paste(row, pictures[i], {.at = {x, label_height}});
        x += widths[i];
    }
    return row;
}

Bitmap<Rgb8> page_picture(const ReferencePage& page) {
    constexpr auto top = 2 * margin + title_letters;
    std::vector<Bitmap<Rgb8>> rows{
        bordered(page_scene(page), {.left = margin, .right = margin, .bottom = margin}, paper)};
    for (const auto& word : page.words) {
        if (!word.tries.empty()) rows.push_back(word_picture(page, word));
    }
    auto all = stacked(rows, top);
    fill(all, label(page.name, {margin, margin}, title_letters), writing);
    return all;
}

}  // namespace coldbrick::tool

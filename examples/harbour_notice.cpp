// Font files: a notice of the harbour office in the languages of its visitors, each in letters that its script needs,
// with figures in columns and a heading out of a variable font. Faces that are not on this machine are left out, and
// what stands in for them is told.
//
//     harbour_notice notice.png
#include <coldbrick/coldbrick.hpp>

#include <filesystem>
#include <iostream>
#include <optional>

using namespace coldbrick;

namespace {

constexpr auto paper = 0xf7f3e6_rgb;
constexpr auto navy = 0x14364f_rgb;
constexpr auto red = 0xc8202c_rgb;

// A face, if its file is there and the library reads such.
std::optional<Face> face_of(const std::string& file) {
    const auto path = "/usr/share/fonts/truetype/" + file;
    if (!can_load_faces() || !std::filesystem::exists(path)) return std::nullopt;
    return load_face(path);
}

// A face for all scripts of the notice: those that are there, and at last the one that is always there.
Face notice_face() {
    std::vector<Face> others;
    for (const auto* const file : {"noto/NotoSansHebrew-Regular.ttf", "noto/NotoNaskhArabic-Regular.ttf",
                                   "noto/NotoSansDevanagari-Regular.ttf", "noto/NotoSansThai-Regular.ttf"}) {
        if (const auto face = face_of(file)) others.push_back(*face);
    }
    others.push_back(faces::line());
    return face_of("dejavu/DejaVuSans.ttf").value_or(faces::line()).with_fallback(others);
}

void draw_heading(Bitmap<Rgb8>& board) {
    const auto variable = face_of("inter-vf/Inter-roman.var.ttf");
    auto x = 32.0;
    // Ever heavier, letter by letter.
    for (const auto* const letter : {"N", "O", "T", "I", "C", "E"}) {
        auto face = variable.value_or(faces::line());
        if (variable) face = face.with_axes({{.tag = "wght", .value = 100 + (x - 32) * 3}});
        const Text text{.words = letter, .at = {x, 30}, .face = face, .height = 44};
        fill(board, text, Edge::smooth, red);
        x += lay_out(text).box.size.width + 8;
    }
}

void draw_languages(Bitmap<Rgb8>& board, const Face& face) {
    const Text line{.at = {32, 112}, .face = face, .height = 15, .wrap = 430};
    auto y = line.at.y;
    for (const auto* const words : {"Berth 4 is closed from Friday until Monday: the quay wall is surveyed.",
                                    "Anlegeplatz 4 ist von Freitag bis Montag gesperrt: die Kaimauer wird vermessen.",
                                    "Причал 4 закрыт с пятницы по понедельник: идёт обмер стенки.",
                                    "المرسى 4 مغلق من الجمعة إلى الاثنين: يجري مسح جدار الرصيف.",
                                    "רציף 4 סגור מיום שישי עד יום שני: נערכת מדידה של קיר הרציף.",
                                    "घाट 4 शुक्रवार से सोमवार तक बंद है: घाट की दीवार का सर्वेक्षण हो रहा है।",
                                    "ท่าเรือ 4 ปิดตั้งแต่วันศุกร์ถึงวันจันทร์ เพราะมีการสำรวจกำแพงท่าเรือ"}) {
        auto text = line;
        text.words = words;
        text.at.y = y;
        // Lines that go to the left begin on the right.
        const auto is_leftward = face.has(U'\u05d0') && (words[0] == '\xd7' || words[0] == '\xd8');
        if (is_leftward) {
            text.lines = TextLines::right;
            text.anchor = TextAnchor::top_right;
            text.at.x = 32 + 430;
        }
        fill(board, text, Edge::smooth, navy);
        for (const auto c : missing(text)) std::cout << "no drawing of " << utf8(c) << '\n';
        y += lay_out(text).box.size.height + 21;
    }
}

// Figures below each other, and a wide one of a box.
void draw_depths(Bitmap<Rgb8>& board, const Face& face) {
    const auto variable = face_of("inter-vf/Inter-roman.var.ttf");
    const auto figures = variable ? variable->with_features({{.tag = "tnum"}}) : face;
    const Text table{.words = "Berth  Depth\n1   11.1 m\n2    8.4 m\n4   10.7 m",
                     .at = {722, 112},
                     .anchor = TextAnchor::top_right,
                     .face = figures,
                     .height = 15,
                     .line_spacing = 1.2,
                     .lines = TextLines::right};
    fill(board, RoundedBox{.box = measure(table).pixels.inset(-14), .corner_radius = 8}, Edge::smooth, 0xe3e7dc_rgb);
    fill(board, table, Edge::smooth, navy);
    const Text hollow{
        .words = "Tarn Quay", .at = {732, 320}, .anchor = TextAnchor::baseline_right, .face = face, .height = 34};
    stroke(board, hollow, {.width = 2, .edge = Edge::smooth}, red);
}

}  // namespace

int main(int argc, char** argv) {
    Bitmap<Rgb8> board{{760, 540}, paper};
    const auto face = notice_face();
    draw_heading(board);
    draw_languages(board, face);
    draw_depths(board, face);
    const auto* const path = argc > 1 ? argv[1] : "notice.png";
    save(board, path);
    std::cout << path << '\n';
}

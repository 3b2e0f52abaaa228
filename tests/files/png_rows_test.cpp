// PNG files whose rows are unpacked at once, and those that are not as they should be: what is read, and what is said,
// is the same as row by row.
#include "picture_files.hpp"

#include <coldbrick/coldbrick.hpp>

#include <functional>
#include <map>
#include <optional>

namespace {

using namespace coldbrick;
using namespace oracle;

// A picture of noise in bytes, and a file that is made of it part by part.
struct Pieces {
    Size size{.width = 23, .height = 17};
    int kind = 2;  // as PngPlan has it
    std::function<int(int)> filter = [](int row) { return row % 5; };

    [[nodiscard]] int channels() const { return channels_of(kind); }
    [[nodiscard]] unsigned sample(int x, int y, int channel) const {
        const auto all = static_cast<unsigned>(x * 7919 + y * 104729 + channel * 1299709);
        return all % 251 * (kind == 3 ? 0U : 1U) + (kind == 3 ? all % 4 : 0U);
    }

    // The filtered rows, packed.
    [[nodiscard]] Bytes packed(int rows) const {
        const auto plan = PngPlan{.width = size.width,
                                  .height = rows,
                                  .bits = 8,
                                  .kind = kind,
                                  .interlaced = false,
                                  .filter = filter,
                                  .sample = [this](int x, int y, int channel) { return sample(x, y, channel); }};
        Bytes bytes;
        put_pass(bytes, plan, 0, 0, 1, 1);
        return deflated(bytes);
    }

    // What stands before the pixels.
    [[nodiscard]] Bytes head() const {
        Bytes file{0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
        Bytes header;
        put_big(header, static_cast<std::uint32_t>(size.width));
        put_big(header, static_cast<std::uint32_t>(size.height));
        for (const auto value : {8, kind, 0, 0, 0}) put_big(header, static_cast<std::uint32_t>(value), 1);
        put_chunk(file, "IHDR", header);
        if (kind == 3) put_chunk(file, "PLTE", {10, 20, 30, 90, 80, 70, 1, 2, 3, 255, 254, 253});
        return file;
    }

    // Packed rows in chunks of so many bytes each.
    static void put_pixels(Bytes& file, const Bytes& packed, std::size_t each) {
        for (std::size_t at = 0; at < packed.size(); at += each) {
            const auto end = std::min(packed.size(), at + each);
            put_chunk(
                file, "IDAT",
                {packed.begin() + static_cast<std::ptrdiff_t>(at), packed.begin() + static_cast<std::ptrdiff_t>(end)});
        }
    }
};

// What a file holds, or what is said of it.
struct Outcome {
    std::string fault;
    std::vector<Color16> colors;
    std::vector<std::string> oddities;
    friend bool operator==(const Outcome&, const Outcome&) = default;
};

template <class Read>
Outcome outcome_of(const Read& read) {
    try {
        return read();
    } catch (const Error& error) {
        return {.fault = error.what(), .colors = {}, .oddities = {}};
    }
}

// Kept as a whole.
Outcome read_at_once(const Bytes& file) {
    return outcome_of([&] {
        const auto loaded = load_any(std::span<const std::uint8_t>{file});
        return Outcome{.fault = {}, .colors = deep_pixels_of(loaded), .oddities = loaded.info.oddities};
    });
}

// Row by row, as nothing is kept but colours.
Outcome read_by_rows(const Bytes& file, Size size) {
    std::vector<Point> places;
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) places.push_back({x, y});
    }
    return outcome_of([&] {
        auto found = load_colors(std::span<const std::uint8_t>{file}, places);
        return Outcome{.fault = {}, .colors = std::move(found.colors), .oddities = found.info.oddities};
    });
}

void expect_alike(const Bytes& file, Size size, const std::string& what) {
    const auto at_once = read_at_once(file);
    const auto by_rows = read_by_rows(file, size);
    EXPECT_EQ(at_once.fault, by_rows.fault) << what;
    EXPECT_TRUE(at_once == by_rows) << what;
}

TEST(PngRows, SoundFilesAreReadInAllWaysAlike) {
    for (const auto kind : {0, 2, 3, 6}) {
        for (int filter = 0; filter < 6; ++filter) {
            for (const auto width : {1, 2, 5, 23, 64}) {
                Pieces pieces{.size = {.width = width, .height = 9}, .kind = kind};
                pieces.filter = [=](int row) { return filter < 5 ? filter : row % 5; };
                const auto packed = pieces.packed(9);
                for (const auto each : {std::size_t{1}, std::size_t{7}, packed.size()}) {
                    auto file = pieces.head();
                    Pieces::put_pixels(file, packed, each);
                    put_chunk(file, "IEND", {});
                    const auto read = read_at_once(file);
                    ASSERT_EQ(read.fault, "");
                    EXPECT_TRUE(read.oddities.empty());
                    EXPECT_TRUE(read == read_by_rows(file, pieces.size));
                    for (int y = 0; y < 9; ++y) {
                        for (int x = 0; x < width; ++x) {
                            const auto first = pieces.sample(x, y, 0);
                            const auto color = read.colors[static_cast<std::size_t>(y * width + x)];
                            const auto wanted = kind == 3 ? std::array{10U, 90U, 1U, 255U}[first] : first;
                            ASSERT_EQ(color.red, 257 * wanted) << x << "," << y << " of kind " << kind;
                        }
                    }
                }
            }
        }
    }
}

TEST(PngRows, FilesThatAreNotAsTheyShouldBeAreToldAlike) {
    const Pieces pieces;
    const auto packed = pieces.packed(pieces.size.height);
    const auto file_of = [&](const Bytes& pixels, const std::function<void(Bytes&)>& put_between,
                             const std::function<void(Bytes&)>& put_end) {
        auto file = pieces.head();
        const auto middle = pixels.begin() + static_cast<std::ptrdiff_t>(pixels.size() / 2);
        put_chunk(file, "IDAT", {pixels.begin(), middle});
        if (put_between) put_between(file);
        put_chunk(file, "IDAT", {middle, pixels.end()});
        put_end(file);
        return file;
    };
    const auto end = [](Bytes& file) { put_chunk(file, "IEND", {}); };
    const auto text = [](Bytes& file) { put_chunk(file, "tEXt", {'B', 'e', 'r', 't', 'h', 0, '7'}); };
    const auto nothing = [](Bytes&) {};
    auto longer = packed;
    longer.insert(longer.end(), {1, 2, 3});
    auto wrong_sum = packed;
    wrong_sum.back() ^= 1U;
    auto wrong_head = packed;
    wrong_head[0] ^= 0x0fU;
    Pieces strange = pieces;
    strange.filter = [](int row) { return row == 3 ? 5 : 0; };
    const std::map<std::string, Bytes> files{
        {"sound", file_of(packed, {}, end)},
        {"a text behind the pixels", file_of(packed, {}, [&](Bytes& file) { text(file), end(file); })},
        {"a text between them", file_of(packed, text, end)},
        {"an empty chunk between them", file_of(
                                            packed, [](Bytes& file) { put_chunk(file, "IDAT", {}); }, end)},
        {"an unknown chunk that matters",
         file_of(packed, {}, [&](Bytes& file) { put_chunk(file, "QUAY", {1}), end(file); })},
        {"no end", file_of(packed, {}, nothing)},
        {"an end with something in it", file_of(packed, {},
                                                [](Bytes& file) {
                                                    put_chunk(file, "IEND", {1, 2});
                                                })},
        {"bytes behind the end", file_of(packed, {}, [&](Bytes& file) { end(file), file.insert(file.end(), 9, 7); })},
        {"more than is packed", file_of(longer, {}, end)},
        {"another sum", file_of(wrong_sum, {}, end)},
        {"another way to pack", file_of(wrong_head, {}, end)},
        {"too few rows", file_of(pieces.packed(pieces.size.height - 1), {}, end)},
        {"too many rows", file_of(pieces.packed(pieces.size.height + 1), {}, end)},
        {"no pixels", file_of({}, {}, end)}};
    for (const auto& [what, file] : files) expect_alike(file, pieces.size, what);
    EXPECT_EQ(read_at_once(files.at("sound")).fault, "");
    EXPECT_EQ(read_at_once(files.at("a text behind the pixels")).fault, "");
    EXPECT_NE(read_at_once(files.at("too few rows")).fault, "");
    EXPECT_EQ(read_at_once(files.at("bytes behind the end")).oddities,
              (std::vector<std::string>{"9 bytes follow the picture"}));
}

// Any byte of the chunks of pixels another one, and the file cut anywhere: what is read of it either way.
TEST(PngRows, DamagedBytesAndCutsAreToldAlike) {
    Pieces pieces{.size = {.width = 9, .height = 6}};
    auto file = pieces.head();
    const auto begin = file.size();
    Pieces::put_pixels(file, pieces.packed(6), 60);
    put_chunk(file, "IEND", {});
    for (auto at = begin; at < file.size(); ++at) {
        auto damaged = file;
        damaged[at] ^= static_cast<std::uint8_t>(1U << (at % 8));
        expect_alike(damaged, pieces.size, "byte " + std::to_string(at));
        const Bytes cut{file.begin(), file.begin() + static_cast<std::ptrdiff_t>(at)};
        expect_alike(cut, pieces.size, "cut at " + std::to_string(at));
    }
}

// A number that the palette has not is refused where it is met; what came before it is drawn nowhere.
TEST(PngRows, NumbersBeyondThePaletteAreRefused) {
    Pieces pieces{.kind = 3};
    auto file = pieces.head();
    // The palette loses its last colour.
    const std::string name = "PLTE";
    const auto place = std::search(file.begin(), file.end(), name.begin(), name.end());
    Bytes shorter{file.begin(), place - 4};
    put_chunk(shorter, "PLTE", {10, 20, 30, 90, 80, 70, 1, 2, 3});
    Pieces::put_pixels(shorter, pieces.packed(pieces.size.height), 1000);
    put_chunk(shorter, "IEND", {});
    const auto outcome = read_at_once(shorter);
    EXPECT_NE(outcome.fault.find("a pixel has colour 3, and the palette 3 colours"), std::string::npos)
        << outcome.fault;
    expect_alike(shorter, pieces.size, "numbers");
}

}  // namespace

// PNM, kinds P1 to P6, and PAM, by the format descriptions of their first implementation.
#include "files/samples.hpp"

#include <algorithm>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

bool is_space(std::uint8_t c) noexcept { return c == ' ' || (c >= '\t' && c <= '\r'); }

// Reads a header's words and numbers.
class PnmReader : public ByteReader {
  public:
    using ByteReader::ByteReader;

    // What stands before the next word: white space, and comments from # to the end of the line.
    void skip_space() {
        while (rest() > 0) {
            const auto c = byte();
            if (c == '#') {
                while (rest() > 0 && byte() != '\n') {
                }
            } else if (!is_space(c)) {
                return go_to(place() - 1);
            }
        }
    }

    std::uint32_t number(std::string_view what) {
        skip_space();
        std::uint32_t value = 0;
        auto digits = 0;
        auto is_there = false;
        constexpr auto most_digits = 9;
        while (rest() > 0) {
            const auto c = byte();
            if (c < '0' || c > '9') {
                go_to(place() - 1);
                break;
            }
            value = value * 10 + (c - '0');
            is_there = true;
            if (value > 0 && ++digits > most_digits) fail(what, "it has more than 9 digits");
        }
        if (!is_there) fail(what, rest() == 0 ? "the file ends before it" : "there is no number");
        return value;
    }

    // One of a plain bitmap, of which no space need be between.
    std::uint32_t digit() {
        skip_space();
        const auto c = byte();
        if (c != '0' && c != '1') fail("a pixel", "it is neither 0 nor 1");
        return c - '0';
    }

    // The one byte of white space that ends a header.
    void end_header() {
        if (!is_space(byte())) fail("the header", "it does not end in white space");
    }

    [[noreturn]] void fail(std::string_view what, std::string_view why) const {
        throw Error{std::string{kind()} + ": " + std::string{what} + ", at byte " + std::to_string(place()) + ": " +
                    std::string{why}};
    }

    // The next line, without its end, and without white space around it; of a comment, nothing.
    std::string line() {
        std::string text;
        constexpr std::size_t most = 1000;
        for (auto c = byte(); c != '\n'; c = byte()) {
            if (text.empty() && is_space(c)) continue;
            if (text != "#") text += static_cast<char>(c);
            if (text.size() > most) fail("a line of the header", "it is longer than 1000 characters");
        }
        while (!text.empty() && is_space(static_cast<std::uint8_t>(text.back()))) text.pop_back();
        return text == "#" ? std::string{} : text;
    }
};

struct PnmHeader {
    Size size;
    int channels;
    std::uint32_t most;
};

Size read_size(PnmReader& reader, const LoadLimits& limits) {
    const auto width = reader.number("the width");
    const auto height = reader.number("the height");
    check_size("pnm", width, height, limits);
    return {.width = static_cast<int>(width), .height = static_cast<int>(height)};
}

void check_most(PnmReader& reader, std::uint32_t most) {
    if (most < 1 || most > 65535)
        reader.fail("the greatest value", "it is " + std::to_string(most) + "; allowed is 1 to 65535");
}

std::uint32_t checked(PnmReader& reader, std::uint32_t value, std::uint32_t most) {
    if (value > most)
        reader.fail("a sample",
                    "it is " + std::to_string(value) + ", over the greatest value, " + std::to_string(most));
    return value;
}

int bits_for(std::uint32_t most) noexcept {
    auto bits = 1;
    while ((std::uint32_t{1} << static_cast<unsigned>(bits)) <= most) ++bits;
    return bits;
}

PictureInfo info_of(FileFormat format, const PnmHeader& header) {
    auto info = PictureInfo{.format = format,
                            .size = header.size,
                            .channels = header.channels,
                            .bits = bits_for(header.most),
                            .has_alpha = header.channels % 2 == 0};
    if ((header.most & (header.most + 1)) != 0) {
        info.oddities.push_back("its greatest value is " + std::to_string(header.most));
    }
    return info;
}

void read_binary(PnmReader& reader, const PnmHeader& header, const Receiving& to) {
    const auto is_deep = header.most > 255;
    const auto row_bytes =
        static_cast<std::size_t>(header.size.width) * static_cast<std::size_t>(header.channels) * (is_deep ? 2 : 1);
    reader.expect(std::uint64_t{row_bytes} * static_cast<unsigned>(header.size.height));
    FileBytes row;
    std::size_t at = 0;
    const auto next_byte = [&]() -> std::uint32_t {
        if (at == row.size()) {
            row = reader.take(row_bytes);
            at = 0;
        }
        return row[at++];
    };
    receive_samples(
        to, header.channels, header.most,
        [&] {
            const auto high = next_byte();
            return checked(reader, is_deep ? high << 8U | next_byte() : high, header.most);
        },
        [&](int) {
            reader.go_to(reader.place() + row_bytes);
            return true;
        });
}

void read_plain(PnmReader& reader, const PnmHeader& header, const Receiving& to) {
    // Each sample takes a digit and, but for the last, a space.
    const auto count = pixel_count(header.size) * static_cast<std::uint64_t>(header.channels);
    if (count > (reader.rest() + 1) / 2) reader.fail("the samples", "the file is too short for them");
    receive_samples(
        to, header.channels, header.most, [&] { return checked(reader, reader.number("a sample"), header.most); },
        skip_none);
}

// Eight pixels to a byte, each row from a new byte on; 1 is black.
void read_bits(PnmReader& reader, const Receiving& to) {
    const auto row_bytes = (static_cast<std::size_t>(to.size.width) + 7) / 8;
    reader.expect(std::uint64_t{row_bytes} * static_cast<unsigned>(to.size.height));
    FileBytes row;
    receive_pixels<Gray8>(
        to,
        [&](int x, int, std::uint8_t* pixel) {
            if (x == 0) row = reader.take(row_bytes);
            const auto byte = row[static_cast<std::size_t>(x) / 8];
            *pixel = ((byte >> (7U - static_cast<unsigned>(x) % 8)) & 1U) != 0 ? 0 : 255;
        },
        [&](int) {
            reader.go_to(reader.place() + row_bytes);
            return true;
        });
}

void read_plain_bits(PnmReader& reader, const Receiving& to) {
    if (pixel_count(to.size) > reader.rest()) {
        reader.fail("the pixels", "the file is too short for them");
    }
    receive_pixels<Gray8>(
        to, [&](int, int, std::uint8_t* pixel) { *pixel = reader.digit() != 0 ? 0 : 255; }, skip_none);
}

}  // namespace

PictureInfo read_pnm(const ByteSource& file, const LoadLimits& limits, PixelSink& sink) {
    PnmReader reader{"pnm", file};
    const auto kind = reader.take(2)[1];
    const auto is_plain = kind < '4';
    const auto size = read_size(reader, limits);
    const Receiving to{.kind = "pnm", .size = size, .limits = limits, .sink = sink};
    if (kind == '1' || kind == '4') {
        if (!is_plain) reader.end_header();
        is_plain ? read_plain_bits(reader, to) : read_bits(reader, to);
        auto info = PictureInfo{.format = FileFormat::pbm, .size = size, .channels = 1, .bits = 1};
        if (is_plain) reader.skip_space();
        note_rest(info, reader.rest());
        return info;
    }
    const auto is_gray = kind == '2' || kind == '5';
    const auto header =
        PnmHeader{.size = size, .channels = is_gray ? 1 : 3, .most = reader.number("the greatest value")};
    check_most(reader, header.most);
    if (!is_plain) reader.end_header();
    is_plain ? read_plain(reader, header, to) : read_binary(reader, header, to);
    auto info = info_of(is_gray ? FileFormat::pgm : FileFormat::ppm, header);
    if (is_plain) reader.skip_space();
    note_rest(info, reader.rest());
    return info;
}

namespace {

// A header of lines, each a word and its value.
class PamHeader {
  public:
    explicit PamHeader(PnmReader& reader) : reader_{reader} {
        for (;;) {
            const auto line = reader.line();
            if (line.empty()) continue;
            const auto end = static_cast<std::size_t>(std::find_if(line.begin(), line.end(), is_white) - line.begin());
            const auto word = line.substr(0, end);
            if (word == "ENDHDR") return;
            const auto value = std::find_if_not(line.begin() + static_cast<std::ptrdiff_t>(end), line.end(), is_white);
            take(word, std::string{value, line.end()});
        }
    }

    [[nodiscard]] std::uint32_t number(std::string_view word) const {
        const auto found =
            std::find_if(numbers_.begin(), numbers_.end(), [&](const auto& of) { return of.first == word; });
        if (found == numbers_.end()) reader_.fail("the header", std::string{word} + " is missing");
        return found->second;
    }
    [[nodiscard]] const std::string& type() const noexcept { return type_; }

  private:
    static bool is_white(char c) noexcept { return is_space(static_cast<std::uint8_t>(c)); }

    void take(const std::string& word, const std::string& value) {
        if (word == "TUPLTYPE") {
            type_ += (type_.empty() ? "" : " ") + value;
            return;
        }
        const auto known = {"WIDTH", "HEIGHT", "DEPTH", "MAXVAL"};
        if (std::find(known.begin(), known.end(), word) == known.end()) {
            reader_.fail("the header", "the word is " + printable(word, 40));
        }
        for (const auto& [known_word, number] : numbers_) {
            if (known_word == word) reader_.fail("the header", word + " stands there twice");
        }
        const auto digits = std::find_if(value.begin(), value.end(), [](char c) { return c != '0'; });
        const auto is_number = !value.empty() && value.end() - digits < 10 &&
                               std::all_of(value.begin(), value.end(), [](char c) { return c >= '0' && c <= '9'; });
        if (!is_number) reader_.fail("the header", word + " is " + printable(value, 40) + ", which is no number");
        const auto number = digits == value.end() ? 0 : std::stoul(std::string{digits, value.end()});
        numbers_.emplace_back(word, static_cast<std::uint32_t>(number));
    }

    PnmReader& reader_;
    std::vector<std::pair<std::string, std::uint32_t>> numbers_;
    std::string type_;
};

}  // namespace

PictureInfo read_pam(const ByteSource& file, const LoadLimits& limits, PixelSink& sink) {
    PnmReader reader{"pam", file};
    (void)reader.line();
    const PamHeader words{reader};
    const auto width = words.number("WIDTH");
    const auto height = words.number("HEIGHT");
    const auto depth = words.number("DEPTH");
    check_size("pam", width, height, limits);
    if (depth < 1 || depth > 4) reader.fail("the depth", "it is " + std::to_string(depth) + "; allowed is 1 to 4");
    const auto header = PnmHeader{.size = {.width = static_cast<int>(width), .height = static_cast<int>(height)},
                                  .channels = static_cast<int>(depth),
                                  .most = words.number("MAXVAL")};
    check_most(reader, header.most);
    read_binary(reader, header, {.kind = "pam", .size = header.size, .limits = limits, .sink = sink});
    auto info = info_of(FileFormat::pam, header);
    constexpr const char* usual[][2] = {
        {"GRAYSCALE", "BLACKANDWHITE"}, {"GRAYSCALE_ALPHA", "BLACKANDWHITE_ALPHA"}, {"RGB", ""}, {"RGB_ALPHA", ""}};
    const auto& expected = usual[depth - 1];
    if (words.type() != expected[0] && words.type() != expected[1]) {
        info.oddities.push_back("its tuple type is \"" + printable(words.type(), 80) + "\"; it is read as " +
                                expected[0]);
    }
    note_rest(info, reader.rest());
    return info;
}

}  // namespace coldbrick::inline v0::detail

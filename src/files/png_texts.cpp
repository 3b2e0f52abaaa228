#include "files/png_texts.hpp"

#include <algorithm>
#include <memory>
#include <new>
#include <optional>
#include <string>

#include <libdeflate.h>

namespace coldbrick::inline v0::detail {

namespace {

// ISO/IEC 15948, section 5: a signature of 8 bytes, then chunks, each of a length, a type, data and a checksum.
struct TextChunk {
    std::string_view type;
    FileBytes data;
};

constexpr std::size_t signature_bytes = 8;
constexpr std::size_t around_data = 12;

std::uint32_t big(FileBytes bytes) noexcept {
    return std::uint32_t{bytes[0]} << 24U | std::uint32_t{bytes[1]} << 16U | std::uint32_t{bytes[2]} << 8U | bytes[3];
}

std::string_view characters(FileBytes bytes) noexcept {
    return {reinterpret_cast<const char*>(bytes.data()), bytes.size()};
}

// Calls take(chunk, is_sound) for each that is whole and wanted, up to IEND.
template <class Wanted, class Take>
void for_each_chunk(const ByteSource& file, const Wanted& is_wanted, const Take& take) {
    ByteReader reader{"png", file};
    for (std::uint64_t at = signature_bytes; at + around_data <= file.size();) {
        reader.go_to(at);
        const std::size_t length = reader.big(4);
        if (length > file.size() - at - around_data) return;
        const auto type_bytes = reader.take(4);
        const auto type = std::string{characters(type_bytes)};
        if (type == "IEND") return;
        if (is_wanted(type, length)) {
            reader.go_to(at + 4);
            const auto bytes = reader.take(length + 8);
            const auto is_sound = libdeflate_crc32(0, bytes.data(), length + 4) == big(bytes.subspan(length + 4));
            take(TextChunk{.type = type, .data = bytes.subspan(4, length)}, is_sound);
        }
        at += around_data + length;
    }
}

// Latin-1, as texts that are not international are written.
std::string utf8_of(std::string_view latin) {
    std::string text;
    for (const auto c : latin) {
        const auto code = static_cast<std::uint8_t>(c);
        if (code < 0x80) {
            text += c;
        } else {
            text += static_cast<char>(0xc0U | code >> 6U);
            text += static_cast<char>(0x80U | (code & 0x3fU));
        }
    }
    return text;
}

class Texts {
  public:
    Texts(const LoadLimits& limits, PictureInfo& info) : limits_{limits}, info_{info}, room_{limits.text_bytes} {}

    void take(std::string_view type, std::string_view data) {
        if (static_cast<int>(info_.texts.size()) >= limits_.texts) {
            throw Error{"png: it has more texts than the " + std::to_string(limits_.texts) +
                        " that are allowed (limit texts)"};
        }
        const auto keyword = next_part(data);
        auto is_packed = type == "zTXt";
        if (type == "iTXt") {
            if (data.size() < 2) return damaged(keyword);
            is_packed = data[0] == 1;
            data.remove_prefix(2);
            (void)next_part(data);  // the language
            (void)next_part(data);  // the keyword in it
        } else if (is_packed) {
            if (data.empty()) return damaged(keyword);
            data.remove_prefix(1);
        }
        auto text = is_packed ? unpacked(data) : std::optional{std::string{data}};
        if (!text) return damaged(keyword);
        if (!is_packed) spend(text->size());
        info_.texts.push_back(
            {.keyword = std::string{keyword}, .text = type == "iTXt" ? *std::move(text) : utf8_of(*text)});
    }

    [[noreturn]] void refuse() const {
        throw Error{"png: its texts have more than the " + std::to_string(limits_.text_bytes) +
                    " bytes that are allowed (limit text_bytes)"};
    }

  private:
    // What stands before the next zero byte; the rest stays.
    static std::string_view next_part(std::string_view& data) noexcept {
        const auto end = std::min(data.find('\0'), data.size());
        const auto part = data.substr(0, end);
        data.remove_prefix(std::min(end + 1, data.size()));
        return part;
    }

    void damaged(std::string_view keyword) {
        note_damage(info_, "the text " + printable(keyword, 80) + " is damaged, and left out");
    }

    void spend(std::size_t bytes) {
        if (bytes > room_) refuse();
        room_ -= bytes;
    }

    // Nothing if it is no zlib stream. What is tried in vain counts too, so that the work is bounded by the limit.
    std::optional<std::string> unpacked(std::string_view packed) {
        const auto unpacker = std::unique_ptr<libdeflate_decompressor, decltype(&libdeflate_free_decompressor)>{
            libdeflate_alloc_decompressor(), libdeflate_free_decompressor};
        if (!unpacker) throw std::bad_alloc{};
        std::string text;
        for (auto wanted = 4 * packed.size() + 1000;; wanted *= 2) {
            text.resize(static_cast<std::size_t>(std::min<std::uint64_t>(wanted, room_)));
            std::size_t length = 0;
            const auto result = libdeflate_zlib_decompress(unpacker.get(), packed.data(), packed.size(), text.data(),
                                                           text.size(), &length);
            if (result == LIBDEFLATE_INSUFFICIENT_SPACE) {
                if (text.size() == room_) spend(room_ + 1);
                continue;
            }
            const auto is_text = result == LIBDEFLATE_SUCCESS;
            spend(is_text ? length : text.size());
            if (!is_text) return std::nullopt;
            text.resize(length);
            text.shrink_to_fit();
            return text;
        }
    }

    static void note_damage(PictureInfo& info, std::string what) {
        constexpr std::size_t most = 20;
        if (info.oddities.size() < most) info.oddities.push_back(std::move(what));
    }

    const LoadLimits& limits_;
    PictureInfo& info_;
    std::uint64_t room_;
};

void read_density(FileBytes data, PictureInfo& info) {
    constexpr std::size_t length = 9;
    if (data.size() != length) return;
    const auto across = big(data);
    const auto down = big(data.subspan(4));
    if (across == 0 || down == 0) return;
    info.density = Density{.across = double{1} * across,
                           .down = double{1} * down,
                           .unit = data[8] == 1 ? Density::Unit::meter : Density::Unit::none};
}

}  // namespace

void read_png_texts(const ByteSource& file, const LoadLimits& limits, PictureInfo& info) {
    Texts texts{limits, info};
    const auto is_text = [](std::string_view type) { return type == "tEXt" || type == "zTXt" || type == "iTXt"; };
    const auto is_wanted = [&](std::string_view type, std::size_t length) {
        // Of what is packed, no file gains by that.
        constexpr std::size_t most_besides = 1 << 16;
        if (is_text(type) && length > limits.text_bytes + most_besides) texts.refuse();
        return is_text(type) || type == "pHYs";
    };
    for_each_chunk(file, is_wanted, [&](const TextChunk& chunk, bool is_sound) {
        if (!is_sound) return;  // libpng reports it
        is_text(chunk.type) ? texts.take(chunk.type, characters(chunk.data)) : read_density(chunk.data, info);
    });
}

}  // namespace coldbrick::inline v0::detail

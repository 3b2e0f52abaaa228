// The connected region around a pixel.
#include "coldbrick/flood.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"
#include "geometry/vectors.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <cstring>
#include <map>
#include <string>
#include <unordered_map>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// Which pixels of a surface are like the first one: found for some columns of a row at a time, when they are asked for.
class Likeness {
  public:
    Likeness(const Surface& surface, const FloodFrom& how)
        : surface_{surface},
          tolerance_{how.tolerance},
          color_{decode(surface, how.from)},
          pixel_bytes_{surface.kernel->pixel_bytes()},
          is_of_bytes_{can_compare_bytes(*surface.kernel, how.tolerance)},
          blocks_{(surface.window.size.width + block_pixels - 1) / block_pixels} {
        const auto* const first = is_of_bytes_ ? pixel_address(surface, how.from.x, how.from.y)
                                               : reinterpret_cast<const std::uint8_t*>(&color_);
        const auto bytes = is_of_bytes_ ? static_cast<std::size_t>(pixel_bytes_) : sizeof color_;
        for (std::size_t i = 0; i < sizeof first_; ++i) first_[i] = first[i % bytes];
    }

    // The first pixel of a row from column x on, before the end, that is like the first one or unlike it; else the end.
    int next_like(int x, int y, int end) { return next(x, y, end, 1); }
    int next_unlike(int x, int y, int end) { return next(x, y, end, 0); }

    // The last column of those from begin to x - 1 that is unlike it, or begin - 1.
    int last_unlike(int begin, int x, int y) {
        while (x > begin) {
            const auto [bytes, first, length] = block_at(x - 1, y);
            const auto from = std::max(begin, first);
            for (; x > from; --x) {
                if (bytes[x - 1 - first] == 0) return x - 1;
            }
        }
        return begin - 1;
    }

  private:
    // Three bytes are compared as a colour's four.
    static bool can_compare_bytes(const FormatKernel& kernel, int tolerance) noexcept {
        const auto knows_bytes = kernel.blend != nullptr;
        return !kernel.is_sparse && (knows_bytes ? kernel.pixel_bits != 24 : tolerance == 0);
    }

    static constexpr int block_pixels = 1024;
    static constexpr std::size_t period = 96;  // every pixel size and every vector divides it

    struct Block {
        const std::uint8_t* bytes;  // 1 for each pixel that is like it, or 0
        int first;
        int length;
    };

    int next(int x, int y, int end, int value) {
        while (x < end) {
            const auto [bytes, first, length] = block_at(x, y);
            const auto count = static_cast<std::size_t>(std::min(end, first + length) - x);
            const auto* const found = std::memchr(bytes + (x - first), value, count);
            if (found != nullptr) return first + static_cast<int>(static_cast<const std::uint8_t*>(found) - bytes);
            x += static_cast<int>(count);
        }
        return end;
    }

    Block block_at(int x, int y) {
        const auto& [at, size] = surface_.window;
        const auto number = (x - at.x) / block_pixels;
        const auto first = at.x + number * block_pixels;
        const auto length = std::min(block_pixels, at.x + size.width - first);
        auto& bytes = found_[std::int64_t{y - at.y} * blocks_ + number];
        if (bytes.empty()) {
            bytes.resize(static_cast<std::size_t>(length));
            look({.x = first, .y = y}, bytes);
        }
        return {.bytes = bytes.data(), .first = first, .length = length};
    }

    void look(Point first, std::vector<std::uint8_t>& bytes) const {
        if (is_of_bytes_) {
            compare_bytes(pixel_address(surface_, first.x, first.y), bytes);
        } else {
            compare_colors(first, bytes);
        }
        const auto* const mask = surface_.mask();
        for (std::size_t i = 0; mask != nullptr && i < bytes.size(); ++i) {
            if (!mask->contains({.x = first.x + static_cast<int>(i), .y = first.y})) bytes[i] = 0;
        }
    }

    void compare_bytes(const std::uint8_t* pixels, std::vector<std::uint8_t>& found) const {
        const auto count = found.size();
        if (pixel_bytes_ == 4) return compare_words(pixels, count, found.data());
        if (pixel_bytes_ == 1) return compare_each(pixels, count, found.data());
        const auto pixel_bytes = static_cast<std::size_t>(pixel_bytes_);
        std::array<std::uint8_t, std::size_t{block_pixels} * 8> like;
        compare_each(pixels, count * pixel_bytes, like.data());
        for (std::size_t i = 0; i < count; ++i) {
            auto all = like[i * pixel_bytes];
            for (std::size_t k = 1; k < pixel_bytes; ++k) all &= like[i * pixel_bytes + k];
            found[i] = all;
        }
    }

    // Byte by byte.
    void compare_each(const std::uint8_t* pixels, std::size_t count, std::uint8_t* found) const {
        run_in_vectors([=, first = first_, tolerance = static_cast<std::uint8_t>(tolerance_)]() COLDBRICK_KERNEL {
            for (std::size_t done = 0; done < count; done += period) {
                const auto some = std::min(period, count - done);
                for (std::size_t i = 0; i < some; ++i) {
                    const auto byte = pixels[done + i];
                    const auto away = static_cast<std::uint8_t>(std::max(byte, first[i]) - std::min(byte, first[i]));
                    found[done + i] = away <= tolerance ? 1 : 0;
                }
            }
        });
    }

    // Pixels of four bytes.
    void compare_words(const std::uint8_t* pixels, std::size_t count, std::uint8_t* found) const {
        run_in_vectors([=, first = first_, tolerance = static_cast<std::uint8_t>(tolerance_)]() COLDBRICK_KERNEL {
            using Bytes32 = std::uint8_t __attribute__((vector_size(32)));
            using Bytes8 = std::uint8_t __attribute__((vector_size(8)));
            constexpr std::size_t at_once = 8;
            Bytes32 like;
            read(first.data(), like);
            for (std::size_t i = 0; i < count; i += at_once) {
                const auto some = std::min(at_once, count - i);
                Bytes32 bytes{};
                some == at_once ? read(pixels + 4 * i, bytes) : void(std::memcpy(&bytes, pixels + 4 * i, 4 * some));
                const Bytes32 away = (bytes > like ? bytes : like) - (bytes < like ? bytes : like);
                const auto are_near = reinterpret_cast<Ints8>(away <= tolerance);
                const auto is_found = __builtin_convertvector((are_near == -1) & 1, Bytes8);
                some == at_once ? write(is_found, found + i) : void(std::memcpy(found + i, &is_found, some));
            }
        });
    }

    void compare_colors(Point first, std::vector<std::uint8_t>& found) const {
        std::array<Color, block_pixels> colors;
        read_colors(surface_, first, static_cast<int>(found.size()), colors.data());
        compare_words(reinterpret_cast<const std::uint8_t*>(colors.data()), found.size(), found.data());
    }

    const Surface& surface_;
    int tolerance_;
    Color color_;
    int pixel_bytes_;
    bool is_of_bytes_;
    int blocks_;
    std::array<std::uint8_t, period> first_{};
    std::unordered_map<std::int64_t, std::vector<std::uint8_t>> found_;
};

// Goes from run to run: a run that is found is looked around on the rows above and below.
class Flooder {
  public:
    Flooder(const Surface& surface, const FloodFrom& how)
        : window_{surface.window},
          corners_{how.neighbors == Neighbors::eight ? 1 : 0},
          likeness_{surface, how},
          right_{surface.window.last().x + 1} {
        waiting_.push_back(how.from);
    }

    Region run() {
        while (!waiting_.empty()) {
            const auto [x, y] = waiting_.back();
            waiting_.pop_back();
            if (end_of_found(x, y) > x) continue;
            const auto left = likeness_.last_unlike(window_.at.x, x, y) + 1;
            const auto right = likeness_.next_unlike(x, y, right_);
            found_[y].emplace(left, right);
            look(left, right, y - 1);
            look(left, right, y + 1);
        }
        std::vector<Span> spans;
        for (const auto& [y, runs] : found_) {
            for (const auto& [left, right] : runs) spans.push_back({.y = y, .x = left, .length = right - left});
        }
        std::sort(spans.begin(), spans.end(),
                  [](const Span& a, const Span& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; });
        return Region::of_spans(spans);
    }

  private:
    // Where the run that was found at a pixel ends; the pixel itself if there is none.
    [[nodiscard]] int end_of_found(int x, int y) const {
        const auto row = found_.find(y);
        if (row == found_.end()) return x;
        const auto after = row->second.upper_bound(x);
        return after == row->second.begin() ? x : std::max(x, std::prev(after)->second);
    }

    // Notes the beginning of each run in a row that touches one beside it.
    void look(int left, int right, int y) {
        if (y < window_.at.y || y > window_.last().y) return;
        const auto end = std::min(right + corners_, right_);
        auto x = std::max(left - corners_, window_.at.x);
        while (x < end) {
            const auto known = end_of_found(x, y);
            if (known > x) {
                x = known;
                continue;
            }
            x = likeness_.next_like(x, y, end);
            if (x == end) return;
            if (end_of_found(x, y) > x) continue;
            waiting_.push_back({.x = x, .y = y});
            x = likeness_.next_unlike(x, y, end);
        }
    }

    Box window_;
    int corners_;
    Likeness likeness_;
    int right_;
    std::vector<Point> waiting_;
    std::unordered_map<int, std::map<int, int>> found_;  // for each row, runs by their left end
};

}  // namespace

namespace {

[[noreturn]] void refuse_start(const Surface& surface, Point from) {
    const auto words = [](Point p) { return std::to_string(p.x) + "," + std::to_string(p.y); };
    throw Error{"flood: from is " + words(from) + "; allowed is " +
                (surface.window.empty() ? "no pixel, as the view's clip is empty"
                                        : words(surface.window.at) + " to " + words(surface.window.last()))};
}

}  // namespace

void check_flood(const FloodFrom& how) {
    check_choice("flood", "neighbors", how.neighbors, {"four", "eight"});
    constexpr auto most = 255;
    if (how.tolerance < 0 || how.tolerance > most) refuse("flood", "tolerance", how.tolerance, 0, most);
}

Region flood(const Surface& surface, const FloodFrom& how) {
    if (!coldbrick::contains(surface.window, how.from)) refuse_start(surface, how.from);
    check_flood(how);
    if (surface.mask() != nullptr && !surface.mask()->contains(how.from)) {
        throw Error{"flood: from is outside the region of the view"};
    }
    return Flooder{surface, how}.run();
}

Box fill_flood(const Surface& surface, const FloodFrom& how, const Ink& ink) {
    check_flood(how);
    if (!contains(surface, how.from)) return {};
    const auto region = flood(surface, how);
    return paint(surface, ink, area_ref(region));
}

}  // namespace coldbrick::inline v0::detail

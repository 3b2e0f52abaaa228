#include "coldbrick/face.hpp"

#include "text/line_face.hpp"
#include "text/pixel_face.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <atomic>
#include <deque>
#include <mutex>
#include <numeric>
#include <string>
#include <utility>

namespace coldbrick::inline v0 {

namespace detail {

SizedFace::SizedFace() noexcept {
    static std::atomic<std::uint64_t> next{0};
    identity_ = ++next;
}

// The sizes that were asked for last.
struct FaceSource::Sizes {
    struct Size {
        double height;
        std::optional<double> weight;
        std::shared_ptr<const SizedFace> face;
    };
    std::mutex mutex;
    std::deque<Size> last;
};

FaceSource::FaceSource() : sizes_{std::make_shared<Sizes>()} {}

std::shared_ptr<const SizedFace> FaceSource::sized(double height, std::optional<double> weight) const {
    constexpr std::size_t most = 16;
    {
        const std::lock_guard lock{sizes_->mutex};
        const auto& last = sizes_->last;
        const auto found = std::find_if(last.begin(), last.end(), [&](const Sizes::Size& size) {
            return size.height == height && size.weight == weight;
        });
        if (found != last.end()) return found->face;
    }
    auto face = new_size(height, weight);
    const std::lock_guard lock{sizes_->mutex};
    sizes_->last.push_front({.height = height, .weight = weight, .face = face});
    if (sizes_->last.size() > most) sizes_->last.pop_back();
    return face;
}

Shared<FaceSource> FaceSource::with_features(const std::vector<FaceFeature>& features) const {
    if (features.empty()) return Shared<FaceSource>{this};
    throw Error{"face " + name() + " has no features; allowed are faces out of font files that have some"};
}

Shared<FaceSource> FaceSource::with_axes(const std::vector<FaceAxis>& axes) const {
    if (axes.empty()) return Shared<FaceSource>{this};
    throw Error{"face " + name() + " has no axes; allowed are faces out of variable font files"};
}

std::size_t count_all(const Face& face) noexcept {
    const auto& others = face.fallback();
    return std::accumulate(others.begin(), others.end(), std::size_t{1},
                           [](std::size_t sum, const Face& other) { return sum + count_all(other); });
}

FaceList::FaceList(std::vector<Face> faces) : faces_{std::move(faces)} {
    // So that a number of eight bits counts them and the face itself.
    constexpr std::size_t most = 254;
    std::size_t count = 0;
    for (const auto& face : faces_) count += count_all(face);
    if (count <= most) return;
    throw Error{"face: " + std::to_string(count) +
                " faces to fall back on, with those that they fall back on; allowed are " + std::to_string(most)};
}

std::optional<std::uint32_t> tag_of(std::string_view name) noexcept {
    constexpr std::size_t length = 4;
    if (name.size() != length) return std::nullopt;
    std::uint32_t tag = 0;
    for (const auto c : name) {
        if (c < ' ' || c > '~') return std::nullopt;
        tag = tag << 8U | static_cast<unsigned char>(c);
    }
    return tag;
}

}  // namespace detail

Face::Face() : source_{faces::line().source_} {}

const detail::FaceSource& Face::source() const noexcept { return *source_; }

std::string Face::name() const { return source_->name(); }

bool Face::has(char32_t character) const {
    const auto& others = fallback();
    return source_->has(character) ||
           std::any_of(others.begin(), others.end(), [=](const Face& face) { return face.has(character); });
}

std::vector<char32_t> Face::characters() const { return source_->characters(); }

std::vector<std::string> Face::features() const { return source_->features(); }

std::vector<FaceAxisRange> Face::axes() const { return source_->axes(); }

Face Face::with_features(const std::vector<FaceFeature>& features) const {
    auto other = *this;
    other.source_ = source_->with_features(features);
    return other;
}

Face Face::with_axes(const std::vector<FaceAxis>& axes) const {
    auto other = *this;
    other.source_ = source_->with_axes(axes);
    return other;
}

Face Face::with_fallback(std::vector<Face> others) const {
    auto other = *this;
    other.fallback_ = others.empty() ? nullptr : detail::make_shared_value<detail::FaceList>(std::move(others));
    return other;
}

const std::vector<Face>& Face::fallback() const noexcept {
    static const std::vector<Face> none;
    return fallback_ ? fallback_->faces() : none;
}

bool operator==(const Face& a, const Face& b) noexcept {
    return (a.source_ == b.source_ || a.source_->equals(*b.source_)) && a.fallback() == b.fallback();
}

namespace faces {

const Face& line() {
    static const Face face{detail::make_shared_value<detail::LineFace>()};
    return face;
}

const Face& pixel() {
    static const Face face{
        detail::make_shared_value<detail::PixelFace>("pixel", 7, detail::pixel_letters(), detail::pixel_marks())};
    return face;
}

const Face& tiny() {
    static const Face face{
        detail::make_shared_value<detail::PixelFace>("tiny", 5, detail::tiny_letters(), detail::tiny_marks())};
    return face;
}

}  // namespace faces

}  // namespace coldbrick::inline v0

#include "scene/faces.hpp"

#include "coldbrick/error.hpp"

#include <system_error>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// features tnum,liga=0
std::optional<std::vector<FaceFeature>> read_features(Arguments& given) {
    const auto value = given.value("features");
    const auto parts = split_at_commas(value.word());
    std::vector<FaceFeature> features;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        const auto sign = parts[i].text.find('=');
        auto feature = FaceFeature{.tag = std::string{parts[i].text.substr(0, sign)}};
        if (sign != std::string_view::npos) {
            constexpr auto most = 65535;
            const auto number = given.values().whole(value[i], 0, most);
            if (!number) return std::nullopt;
            feature.value = static_cast<unsigned>(*number);
        }
        features.push_back(std::move(feature));
    }
    return features;
}

// axes wght=700,wdth=90
std::optional<std::vector<FaceAxis>> read_axes(Arguments& given) {
    const auto value = given.value("axes");
    const auto parts = split_at_commas(value.word());
    std::vector<FaceAxis> axes;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        const auto sign = parts[i].text.find('=');
        if (sign == std::string_view::npos) {
            given.faults().add(parts[i], in_quotes(parts[i].text) + " is no place on an axis",
                               "for example: axes wght=700");
            return std::nullopt;
        }
        constexpr auto most = 32768.0;  // OpenType's numbers of 16.16 bits
        const auto number = given.values().real(value[i], -most, most);
        if (!number) return std::nullopt;
        axes.push_back({.tag = std::string{parts[i].text.substr(0, sign)}, .value = *number});
    }
    return axes;
}

// fallback deva,line
std::optional<std::vector<Face>> read_fallback(Arguments& given) {
    std::vector<Face> faces;
    const auto value = given.value("fallback");
    for (std::size_t i = 0; i < value.size(); ++i) {
        const auto face = given.values().face(value[i]);
        if (!face) return std::nullopt;
        faces.push_back(*face);
    }
    return faces;
}

// Replaces the face by change(face); reports a fault at a keyword's value.
template <class Change>
bool changed(Face& face, const Word& at, Faults& faults, const Change& change) {
    try {
        face = change(face);
        return true;
    } catch (const Error& error) {
        faults.add(at, error.what());
        return false;
    }
}

}  // namespace

bool is_built_in_face(std::string_view name) noexcept { return name == "line" || name == "pixel" || name == "tiny"; }

std::optional<Face> built_in_face(std::string_view name) {
    if (name == "line") return faces::line();
    if (name == "pixel") return faces::pixel();
    if (name == "tiny") return faces::tiny();
    return std::nullopt;
}

std::optional<Face> FaceReader::read(const GivenValue& of, Arguments& given) {
    auto face = base(of, given);
    if (!face) return std::nullopt;
    if (given.has("axes")) {
        const auto axes = read_axes(given);
        const auto change = [&](const Face& from) { return from.with_axes(*axes); };
        if (!axes || !changed(*face, given.word("axes"), faults_, change)) return std::nullopt;
    }
    if (given.has("features")) {
        const auto features = read_features(given);
        const auto change = [&](const Face& from) { return from.with_features(*features); };
        if (!features || !changed(*face, given.word("features"), faults_, change)) return std::nullopt;
    }
    if (given.has("fallback")) {
        const auto others = read_fallback(given);
        const auto change = [&](const Face& from) { return from.with_fallback(*others); };
        if (!others || !changed(*face, given.word("fallback"), faults_, change)) return std::nullopt;
    }
    return face;
}

std::optional<Face> FaceReader::base(const GivenValue& of, Arguments& given) {
    constexpr auto most_number = 65535;
    const auto number = given.whole_or("number", 0, 0, most_number);
    const auto one = given.values().single(of);
    if (!number || !one) return std::nullopt;
    if (is_cell(one->value)) {
        const auto file = given.values().text(*one);
        return file ? load(of.word(), *file, *number) : std::nullopt;
    }
    if (given.has("number")) {
        faults_.add(given.word("number"), "only a font file has faces by number");
        return std::nullopt;
    }
    return given.values().face(*one);
}

std::optional<Face> FaceReader::load(const Word& of, const std::string& file, int number) {
    const auto known = read_.find({file, number});
    if (known != read_.end()) return known->second;
    if (file.empty()) {
        faults_.add(of, "the name of the font file is empty");
        return std::nullopt;
    }
    const auto path = files_.place_of(of, file, "font file");
    if (!path) return std::nullopt;
    std::error_code unknown;
    const auto bytes = std::filesystem::file_size(*path, unknown);
    if (!unknown && paid_.insert(path->string()).second && !budget_.spend(bytes, of)) return std::nullopt;
    const auto lock = std::scoped_lock{loaded_.mutex};
    try {
        const auto key = std::pair{path->string(), number};
        auto shared = loaded_.faces.find(key);
        if (shared == loaded_.faces.end()) {
            shared = loaded_.faces.emplace(key, load_face(path->string(), number, file)).first;
        }
        return read_.emplace(std::pair{file, number}, shared->second).first->second;
    } catch (const Error& error) {
        faults_.add(of, SceneFiles::by_name(error.what(), *path, file));
        return std::nullopt;
    }
}

}  // namespace coldbrick::inline v0::detail

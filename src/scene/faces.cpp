#include "scene/faces.hpp"

#include "coldbrick/error.hpp"

#include <system_error>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// features tnum,liga=0
std::optional<std::vector<FaceFeature>> read_features(Arguments& given) {
    std::vector<FaceFeature> features;
    for (const auto& part : split_at_commas(given.value("features"))) {
        const auto sign = part.text.find('=');
        auto feature = FaceFeature{.tag = part.text.substr(0, sign)};
        if (sign != std::string::npos) {
            constexpr auto most = 65535;
            const auto value = given.values().whole(part_of(part, sign + 1, part.text.size()), 0, most);
            if (!value) return std::nullopt;
            feature.value = static_cast<unsigned>(*value);
        }
        features.push_back(std::move(feature));
    }
    return features;
}

// axes wght=700,wdth=90
std::optional<std::vector<FaceAxis>> read_axes(Arguments& given) {
    std::vector<FaceAxis> axes;
    for (const auto& part : split_at_commas(given.value("axes"))) {
        const auto sign = part.text.find('=');
        if (sign == std::string::npos) {
            given.faults().add(part, in_quotes(part.text) + " is no place on an axis", "for example: axes wght=700");
            return std::nullopt;
        }
        constexpr auto most = 32768.0;  // OpenType's numbers of 16.16 bits
        const auto value = given.values().real(part_of(part, sign + 1, part.text.size()), -most, most);
        if (!value) return std::nullopt;
        axes.push_back({.tag = part.text.substr(0, sign), .value = *value});
    }
    return axes;
}

// fallback deva,line
std::optional<std::vector<Face>> read_fallback(Arguments& given) {
    std::vector<Face> faces;
    for (const auto& part : split_at_commas(given.value("fallback"))) {
        const auto face = given.values().face(part);
        if (!face) return std::nullopt;
        faces.push_back(*face);
    }
    return faces;
}

// Has change(face) give another face; what is wrong is told at a keyword's value.
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

std::optional<Face> built_in_face(std::string_view name) {
    for (const auto* const face : {&faces::line(), &faces::pixel(), &faces::tiny()}) {
        if (face->name() == name) return *face;
    }
    return std::nullopt;
}

std::optional<Face> FaceReader::read(const Word& of, Arguments& given) {
    auto face = base(of, given);
    if (!face) return std::nullopt;
    if (given.has("axes")) {
        const auto axes = read_axes(given);
        const auto change = [&](const Face& from) { return from.with_axes(*axes); };
        if (!axes || !changed(*face, given.value("axes"), faults_, change)) return std::nullopt;
    }
    if (given.has("features")) {
        const auto features = read_features(given);
        const auto change = [&](const Face& from) { return from.with_features(*features); };
        if (!features || !changed(*face, given.value("features"), faults_, change)) return std::nullopt;
    }
    if (given.has("fallback")) {
        const auto others = read_fallback(given);
        const auto change = [&](const Face& from) { return from.with_fallback(*others); };
        if (!others || !changed(*face, given.value("fallback"), faults_, change)) return std::nullopt;
    }
    return face;
}

std::optional<Face> FaceReader::base(const Word& of, Arguments& given) {
    constexpr auto most_number = 65535;
    const auto number = given.whole_or("number", 0, 0, most_number);
    if (!number) return std::nullopt;
    if (of.text.starts_with('"')) return load(of, *number);
    if (given.has("number")) {
        faults_.add(given.value("number"), "only a font file has faces by number");
        return std::nullopt;
    }
    return given.values().face(of);
}

std::optional<Face> FaceReader::load(const Word& of, int number) {
    const auto file = files_.name_in(of, "font file", "face label = \"quay.ttf\"");
    if (!file) return std::nullopt;
    const auto known = loaded_.find({*file, number});
    if (known != loaded_.end()) return known->second;
    const auto path = files_.place_of(of, *file, "font file");
    if (!path) return std::nullopt;
    std::error_code unknown;
    const auto bytes = std::filesystem::file_size(*path, unknown);
    if (!unknown && !budget_.spend(bytes, of)) return std::nullopt;
    try {
        return loaded_.emplace(std::pair{*file, number}, load_face(path->string(), number)).first->second;
    } catch (const Error& error) {
        faults_.add(of, SceneFiles::by_name(error.what(), *path, *file));
        return std::nullopt;
    }
}

}  // namespace coldbrick::inline v0::detail

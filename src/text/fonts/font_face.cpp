#include "text/fonts/font_face.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <new>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

using Kind = Path::Step::Kind;

// Of what stands around a run, HarfBuzz looks at so many characters.
constexpr std::size_t context = 5;

// Of a thread, so that it is not made anew for each run.
hb_buffer_t* emptied_buffer() {
    thread_local const Freed<hb_buffer_t> buffer{hb_buffer_create()};
    hb_buffer_reset(buffer.get());
    return buffer.get();
}

// Has a buffer's further rules left out once the budget is spent; its shaper checks the budget again.
void ask_budget_of(hb_buffer_t* buffer) {
    const auto goes_on = [](hb_buffer_t* shaped, hb_font_t*, const char*, void*) -> hb_bool_t {
        constexpr std::uint64_t bytes_of_glyph = 40;
        try {
            MemoryHold memory;
            memory.add(bytes_of_glyph * hb_buffer_get_length(shaped));
            check_budget();
            return 1;
        } catch (const LimitError&) {
            return 0;
        }
    };
    hb_buffer_set_message_func(buffer, goes_on, nullptr, nullptr);
}

class SizedFont final : public SizedFace {
  public:
    SizedFont(Shared<FontFile> file, std::vector<hb_feature_t> features, double height)
        : file_{std::move(file)}, features_{std::move(features)}, height_{height}, scale_{height / file_->capitals()} {}

    void shape(const TextRun& run, std::vector<Glyph>& to) const override {
        auto* const buffer = shaped(run);
        const auto base = run.begin - std::min(run.begin, context);
        auto count = 0U;
        const auto* const infos = hb_buffer_get_glyph_infos(buffer, &count);
        const auto* const places = hb_buffer_get_glyph_positions(buffer, &count);
        for (auto i = 0U; i < count; ++i) {
            constexpr auto spaces_of_tab = 4;
            const auto cluster = infos[i].cluster + base;
            const auto times = run.row[cluster] == U'\t' ? spaces_of_tab : 1;
            to.push_back({.number = infos[i].codepoint,
                          .cluster = cluster,
                          .advance = places[i].x_advance * scale_ * times,
                          .gap = 0,
                          .offset = {places[i].x_offset * scale_, -places[i].y_offset * scale_}});
        }
    }

    [[nodiscard]] double outer_gap() const override { return 0; }
    [[nodiscard]] double line_height() const noexcept override { return file_->line_height() * scale_; }
    [[nodiscard]] double height() const noexcept override { return height_; }
    [[nodiscard]] double weight() const noexcept override { return 0; }
    [[nodiscard]] bool is_fitted() const noexcept override { return false; }

    void draw(std::uint32_t glyph, const LetterPlace& place, Lettering& to) const override {
        const auto outline = file_->outline(glyph);
        const auto placed = [&](Position at) { return place(Vec{at.x, -at.y} * scale_); };
        auto is_open = false;
        for (const auto& [kind, end, control_1, control_2, rest] : outline->steps) {
            if (kind == Kind::move) {
                if (is_open) to.outlines.close();
                to.outlines.move(placed(end));
            }
            is_open = true;
            if (kind == Kind::line) to.outlines.line(placed(end));
            if (kind != Kind::cubic) continue;
            to.outlines.cubic({.control_1 = placed(control_1), .control_2 = placed(control_2), .to = placed(end)});
        }
        if (is_open) to.outlines.close();
    }

  private:
    [[nodiscard]] hb_buffer_t* shaped(const TextRun& run) const {
        auto* const buffer = emptied_buffer();
        const auto first = run.begin - std::min(run.begin, context);
        const auto around = run.row.substr(first, run.end - first + context);
        std::vector<std::uint32_t> letters(around.begin(), around.end());
        // A tab is some spaces.
        std::replace(letters.begin(), letters.end(), std::uint32_t{U'\t'}, std::uint32_t{U' '});
        hb_buffer_add_utf32(buffer, letters.data(), static_cast<int>(letters.size()),
                            static_cast<unsigned>(run.begin - first), static_cast<int>(run.end - run.begin));
        hb_buffer_set_direction(buffer, run.is_right_to_left ? HB_DIRECTION_RTL : HB_DIRECTION_LTR);
        if (run.script != 0) hb_buffer_set_script(buffer, hb_script_from_iso15924_tag(run.script));
        // Not the language of where the program runs.
        const auto language = run.language.empty() ? std::string_view{"und"} : run.language;
        hb_buffer_set_language(buffer, hb_language_from_string(language.data(), static_cast<int>(language.size())));
        auto flags = 0U;
        if (run.begin == 0) flags |= HB_BUFFER_FLAG_BOT;
        if (run.end == run.row.size()) flags |= HB_BUFFER_FLAG_EOT;
        hb_buffer_set_flags(buffer, static_cast<hb_buffer_flags_t>(flags));
        std::vector<hb_feature_t> features;
        if (run.is_spaced_out) {
            for (const auto tag : {HB_TAG('l', 'i', 'g', 'a'), HB_TAG('c', 'l', 'i', 'g')}) {
                features.push_back(
                    {.tag = tag, .value = 0, .start = HB_FEATURE_GLOBAL_START, .end = HB_FEATURE_GLOBAL_END});
            }
        }
        features.insert(features.end(), features_.begin(), features_.end());
        // Rules may make runs 64 times as long, with 64 steps for each character (HarfBuzz's limits).
        constexpr std::size_t long_run = 2048;
        constexpr std::uint64_t steps_of_letter = 64;
        spend_work(steps_of_letter * letters.size());
        if (has_budget() && letters.size() > long_run) ask_budget_of(buffer);
        hb_shape(file_->shaper(), buffer, features.data(), static_cast<unsigned>(features.size()));
        hb_buffer_set_message_func(buffer, nullptr, nullptr, nullptr);
        check_budget();
        if (hb_buffer_allocation_successful(buffer) == 0) throw std::bad_alloc{};
        return buffer;
    }

    Shared<FontFile> file_;
    std::vector<hb_feature_t> features_;
    double height_;
    double scale_;
};

}  // namespace

std::shared_ptr<const SizedFace> FontFace::new_size(double height, std::optional<double> weight) const {
    if (weight) {
        throw Error{"text: weight is given for face " + name() + "; allowed for faces that have a pen: line"};
    }
    std::vector<hb_feature_t> features;
    for (const auto& [tag, value] : features_) {
        features.push_back({.tag = tag_of(tag).value_or(0),
                            .value = value,
                            .start = HB_FEATURE_GLOBAL_START,
                            .end = HB_FEATURE_GLOBAL_END});
    }
    return std::make_shared<const SizedFont>(file_, std::move(features), height);
}

Shared<FaceSource> FontFace::with_features(const std::vector<FaceFeature>& features) const {
    const auto known = file_->features();
    for (const auto& [tag, value] : features) {
        if (std::find(known.begin(), known.end(), tag) != known.end()) continue;
        std::string all;
        for (const auto& name : known) all += (all.empty() ? "" : ", ") + name;
        throw Error{"face " + name() + " has no feature \"" + printable(tag) + "\"; " +
                    (all.empty() ? "it has none" : "allowed are " + all)};
    }
    return make_shared_value<FontFace>(file_, features);
}

Shared<FaceSource> FontFace::with_axes(const std::vector<FaceAxis>& axes) const {
    return make_shared_value<FontFace>(
        make_shared_value<FontFile>(file_->from(), file_->bytes(), file_->number(), axes), features_);
}

bool FontFace::equals(const FaceSource& other) const {
    const auto* const font = dynamic_cast<const FontFace*>(&other);
    return font != nullptr && font->file_->bytes() == file_->bytes() && font->file_->number() == file_->number() &&
           font->file_->axes() == file_->axes() && font->features_ == features_;
}

}  // namespace coldbrick::inline v0::detail

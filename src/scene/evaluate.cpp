#include "scene/evaluate.hpp"

#include "scene/inks.hpp"
#include "scene/statements.hpp"

#include "coldbrick/pattern.hpp"
#include "coldbrick/smooth_region.hpp"

#include <algorithm>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <variant>

namespace coldbrick::inline v0::detail {

namespace {

constexpr std::uint64_t pixel_bytes = bytes_per_pixel<Rgba8>;

}  // namespace

void Evaluator::take(const ParsedStatement& statement) {
    (this->*statement_kind(statement.verb.text)->take)(statement);
}

void Evaluator::take_faulty(const Statement& statement) {
    const auto& verb = statement.words[0];
    if (verb.text == "palette") has_faulty_palette_ = true;
    const auto* const kind = statement_kind(verb.text);
    if (kind == nullptr) return;
    if (kind->has_end) blocks_.push_back(inner(verb));
    // What it would have defined is known, so that its uses are not told as wrong too.
    if (!kind->defines() || statement.words.size() < 2) return;
    kind->head == Head::name_and_face ? values_.define(statement.words[1], Face{})
                                      : values_.define(statement.words[1], Color{});
}

void Evaluator::finish() {
    for (const auto& block : blocks_) {
        faults_.add(block.word, "this " + block.word.text + " has no end", "write 'end' on a line after it");
    }
}

Evaluator::Block Evaluator::inner(const Word& word) {
    auto block = blocks_.empty() ? Block{.word = word, .view = scene_.drawing.under({})} : blocks_.back();
    block.word = word;
    block.name.reset();
    return block;
}

Scene& Evaluator::drawn() { return !blocks_.empty() && blocks_.back().pattern ? *blocks_.back().pattern : scene_; }

Box Evaluator::drawn_box() { return {.at = {.x = 0, .y = 0}, .size = drawn().size}; }

void Evaluator::end(const ParsedStatement& statement) {
    if (blocks_.empty()) {
        faults_.add(statement.verb, "there is nothing to end",
                    "'end' closes a clip, move, turn, scale, shear or pattern");
        return;
    }
    const auto block = blocks_.back();
    blocks_.pop_back();
    if (!block.name) return;
    // The name is known from here on even if the pattern is faulty.
    if (!block.pattern || faults_.count() > 0) return values_.define(*block.name, Color{});
    auto tile = block.pattern->sheet<Rgba8>();
    render(*block.pattern, tile);
    budget_.give_back(pixel_count(tile.size()) * pixel_bytes);
    values_.define(*block.name, Pattern::of(tile, {.offset = block.offset, .placing = block.placing}));
}

void Evaluator::sheet(const ParsedStatement& statement) {
    Arguments given{statement.arguments, values_, faults_};
    if (given.has("from")) {
        const auto picture = pictures_.read(given.value("from"));
        if (!picture) return;
        scene_.picture = kept(picture);
        scene_.size = picture->size();
        const auto& bytes = picture->bytes();
        auto is_opaque = true;
        for (std::size_t i = 3; i < bytes.size(); i += 4) is_opaque = is_opaque && bytes[i] == 255;
        scene_.ground = is_opaque ? gray(255) : Color{.alpha = 0};
        return;
    }
    const auto size = given.size("size");
    const auto ground = given.has("ink") ? given.color("ink") : std::optional{gray(255)};
    if (!size || !ground) return;
    const auto pixels = pixel_count(*size);
    if (pixels > budget_.limits().sheet_pixels) {
        budget_.refuse(given.value("size"),
                       "the sheet has " + std::to_string(pixels) + " pixels; allowed are " +
                           std::to_string(budget_.limits().sheet_pixels),
                       "sheet_pixels");
        return;
    }
    if (!budget_.spend(pixel_bytes * pixels, given.value("size"))) return;
    scene_.size = *size;
    scene_.ground = *ground;
}

namespace {

// What a transform takes into a box, as a box around it.
Box seen_before(const Transform& by, const Box& box) {
    if (by.is_identity()) return box;
    const auto back = by.inverse();
    constexpr auto far = double{max_coordinate} / 4;
    auto least = Position{far, far};
    auto most = Position{-far, -far};
    for (const auto x : {double{1} * box.at.x - 1, double{1} * box.last().x + 1}) {
        for (const auto y : {double{1} * box.at.y - 1, double{1} * box.last().y + 1}) {
            const auto before = back({x, y});
            least = {std::min(least.x, before.x), std::min(least.y, before.y)};
            most = {std::max(most.x, before.x), std::max(most.y, before.y)};
        }
    }
    const auto pixel = [=](double value) { return static_cast<int>(std::clamp(value, -far, far)); };
    return Box::between(
        {.from = {pixel(least.x - 1), pixel(least.y - 1)}, .to = {pixel(most.x + 1), pixel(most.y + 1)}});
}

}  // namespace

std::optional<Drawn> Evaluator::region_figure(const ParsedStatement& statement, Arguments& given) {
    // Only what is near the sheet can show: as far as a stroke may reach, from where a transform takes it.
    const auto is_stroked = statement.verb.text == "stroke";
    const auto how = is_stroked ? read_stroke(given) : Stroke{};
    if (!how) return std::nullopt;
    const auto reach = std::min(static_cast<int>(how->width.pixels()), max_coordinate / 4) + 4;
    const auto seen = seen_before(blocks_.empty() ? Transform{} : blocks_.back().by, drawn_box());
    const auto near = Box{.at = {.x = seen.at.x - reach, .y = seen.at.y - reach},
                          .size = {.width = seen.size.width + 2 * reach, .height = seen.size.height + 2 * reach}};
    const auto unmoved = Transform{};
    auto region = read_region({.parts = statement.parts, .by = unmoved, .values = values_, .faults = faults_}, near);
    if (!region) return std::nullopt;
    if (is_stroked) return Figure{stroked(std::move(*region), *how)};
    return Figure{filled(std::move(*region), Fill{.edge = given.edge().value_or(Edge::crisp)})};
}

void Evaluator::drawing(const ParsedStatement& statement) {
    Arguments given{statement.arguments, values_, faults_, usual_edge_};
    const auto before = faults_.count();
    const auto block = inner(statement.verb);
    auto figure = std::optional<Drawn>{};
    try {
        const auto is_region = statement.shape && statement.shape->text == "region";
        figure = is_region ? region_figure(statement, given) : read_figure(statement.words(), given);
    } catch (const Error& error) {
        faults_.add(statement.shape ? *statement.shape : statement.verb, error.what());
    }
    const auto ink = read_ink(given);
    if (ink) check_entry(*ink, given);
    if (figure && statement.shape && statement.shape->text == "text")
        remark_overhang(statement, std::get<Figure>(*figure));
    if (figure) add_call(statement, *figure, ink && faults_.count() == before ? ink : std::nullopt);
}

// What of a text is beyond the edges of the sheet.
void Evaluator::remark_overhang(const ParsedStatement& statement, const Figure& text) {
    const auto sheet = drawn_box();
    const auto around = [&]() -> Box {
        try {
            return bounds(text.then(inner(statement.verb).by));
        } catch (const Error&) {
            return {};  // told where it is drawn
        }
    }();
    if (around.empty() || intersection(around, sheet).empty() || intersection(around, sheet) == around) return;
    std::string sides;
    const auto add = [&](int by, std::string_view side) {
        if (by > 0) sides += (sides.empty() ? "" : ", ") + std::string{side} + " by " + std::to_string(by);
    };
    add(sheet.at.x - around.at.x, "on the left");
    add(sheet.at.y - around.at.y, "at the top");
    add(around.last().x - sheet.last().x, "on the right");
    add(around.last().y - sheet.last().y, "at the bottom");
    faults_.remark(*statement.shape, "this text hangs over the sheet: " + sides + " pixels");
}

// Without ink, it is only looked at whether it could be drawn.
void Evaluator::add_call(const ParsedStatement& statement, const Drawn& what, const std::optional<Ink>& ink) {
    const auto block = inner(statement.verb);
    const auto* const figure = std::get_if<Figure>(&what);
    const auto bytes = bytes_of_call + (figure != nullptr ? figure->bytes_besides() : 0);
    if (ink && !budget_.spend(bytes, statement.verb)) return;
    Drawing nowhere;
    auto view = ink ? block.view.tagged(kind_number(statement)) : nowhere.under(block.by);
    const auto where =
        SourcePlace{.file = "", .line = statement.verb.place.line, .column = statement.verb.place.column};
    try {
        if (figure != nullptr) {
            view.recorder().figure(*figure, ink.value_or(Color{}), where);
        } else if (const auto* const flood = std::get_if<FloodFrom>(&what)) {
            fill(view, *flood, ink.value_or(Color{}), where);
        } else {
            // A pixel stays one, wherever it is moved.
            const auto at = place_pixel(std::get<Mark>(what).at, block.by);
            const auto unmoved = Box{.at = at, .size = {.width = 1, .height = 1}};
            view.unmoved().recorder().figure(unmoved, ink.value_or(Color{}), where);
        }
    } catch (const Error& error) {
        faults_.add(statement.shape ? *statement.shape : statement.verb, error.what());
    }
}

std::uint64_t Evaluator::kind_number(const ParsedStatement& statement) {
    auto& kinds = drawn().kinds;
    const auto words = statement.words();
    const auto found = std::find(kinds.begin(), kinds.end(), words);
    const auto number = found - kinds.begin();
    if (found == kinds.end()) kinds.push_back(words);
    return static_cast<std::uint64_t>(number);
}

void Evaluator::paste(const ParsedStatement& statement) {
    Arguments given{statement.arguments, values_, faults_};
    const auto before = faults_.count();
    const auto block = inner(statement.verb);
    try {
        const auto pasted = read_paste(statement.values.front(), pictures_, given);
        const auto laying = read_laying(given);
        if (!pasted || !laying || faults_.count() != before) return;
        if (!budget_.spend(bytes_of_call + bytes_of_paste, statement.verb)) return;
        const auto where =
            SourcePlace{.file = "", .line = statement.verb.place.line, .column = statement.verb.place.column};
        block.view.tagged(kind_number(statement))
            .recorder()
            .paste(pasted->picture, Paste{.at = pasted->at, .laying = *laying}, pasted->by, where);
    } catch (const Error& error) {
        faults_.add(statement.verb, error.what());
    }
}

// A palette's entry is an ink only where there is a palette that has it.
void Evaluator::check_entry(const Ink& ink, Arguments& given) {
    const auto* const entry = std::get_if<PaletteEntry>(&ink.of());
    if (entry == nullptr || has_faulty_palette_) return;
    const auto& of = drawn().palette;
    if (!of) {
        faults_.add(given.value("ink"), "the sheet has no palette", "name one after the sheet, as in: palette quay");
    } else if (entry->number >= static_cast<int>(of->size())) {
        faults_.add(given.value("ink"), "the palette has no entry " + std::to_string(entry->number),
                    "allowed is 0 to " + std::to_string(of->size() - 1));
    }
}

void Evaluator::begin_clip(const ParsedStatement& statement) {
    auto block = inner(statement.verb);
    const PartsOf of{.parts = statement.parts, .by = block.by, .values = values_, .faults = faults_};
    const auto is_smooth = std::any_of(statement.parts.begin(), statement.parts.end(), [](const RegionPart& part) {
        return std::any_of(part.arguments.begin(), part.arguments.end(),
                           [](const Argument& argument) { return argument.keyword.text == "smooth"; });
    });
    try {
        if (is_smooth) {
            auto region = read_smooth_region(of, drawn_box()).value_or(SmoothRegion{});
            // A byte for each pixel at most, and twice that while it is made.
            if (!budget_.spend(pixel_count(region.bounds().size), statement.verb)) return;
            block.view = block.view.within(region);
        } else {
            auto region = read_region(of, drawn_box()).value_or(Region{});
            if (!budget_.spend(region.spans().size() * sizeof(Span), statement.verb)) return;
            block.view = block.view.within(region);
        }
    } catch (const Error& error) {
        faults_.add(statement.verb, error.what());
    }
    blocks_.push_back(std::move(block));
}

// move by 10,20; turn by 30 about 80,60; scale by 2 or by 2,-1; shear by 0.5,0.
std::optional<Transform> Evaluator::group_transform(std::string_view verb, Arguments& given) {
    const auto about = given.position_or("about", {});
    if (!about) return std::nullopt;
    const auto around = [&](const Transform& by) {
        return Transform{}.move({-about->x, -about->y}).then(by).move(*about);
    };
    if (verb == "turn") {
        const auto angle = given.angle_or("by", {});
        return angle ? std::optional{around(Transform{}.turn(*angle))} : std::nullopt;
    }
    const auto& word = given.value("by");
    const auto is_one = verb == "scale" && split_at_commas(word).size() == 1;
    const auto by = is_one ? given.real_or("by", 1, -max_coordinate, max_coordinate) : std::nullopt;
    const auto pair = is_one ? std::optional{Position{by.value_or(1), by.value_or(1)}} : given.position("by");
    if (!pair || (is_one && !by)) return std::nullopt;
    if (verb == "move") return Transform{}.move(*pair);
    if (verb == "shear") return around(Transform{}.shear(*pair));
    if (pair->x == 0 || pair->y == 0) {
        faults_.add(word, "scaled by 0, everything would be flat", "allowed are other factors, also negative ones");
        return std::nullopt;
    }
    return around(Transform{}.scale(*pair));
}

void Evaluator::begin_group(const ParsedStatement& statement) {
    auto block = inner(statement.verb);
    Arguments given{statement.arguments, values_, faults_};
    const auto by = group_transform(statement.verb.text, given);
    // What is in the group is moved by it first, and then by the groups around it.
    if (by) {
        block.by = by->then(block.by);
        block.view = block.view.under(*by);
    }
    blocks_.push_back(std::move(block));
}

void Evaluator::begin_pattern(const ParsedStatement& statement) {
    Block block{.word = statement.verb, .view = scene_.drawing.under({})};
    Arguments given{statement.arguments, values_, faults_};
    constexpr auto most_side = 4096;
    const auto size = given.size("size");
    const auto ground = given.color_or("ink", {.alpha = 0});
    const auto offset = given.has("offset") ? given.point("offset") : Point{};
    const auto placing = read_placing(given);
    if (size && (size->width > most_side || size->height > most_side)) {
        faults_.add(given.value("size"), "a pattern is at most " + std::to_string(most_side) + " pixels wide and high");
    } else if (size && ground && offset && placing &&
               budget_.spend(pixel_count(*size) * (pixel_bytes + sizeof(Color16)), given.value("size"))) {
        block.pattern = std::make_shared<Scene>(
            Scene{.name = scene_.name, .size = *size, .ground = *ground, .drawing = {}, .seconds = scene_.seconds});
        block.view = block.pattern->drawing.under({});
        block.offset = *offset;
        block.placing = *placing;
    }
    block.name = statement.name;
    if (values_.check_new(*statement.name)) values_.reserve(*statement.name);
    blocks_.push_back(std::move(block));
}

void Evaluator::define(const ParsedStatement& statement) {
    const auto& verb = statement.verb.text;
    auto ink = std::optional<Ink>{};
    if (verb == "color") {
        const auto color = values_.color(statement.values.front());
        if (color) ink = *color;
    } else {
        Arguments given{statement.arguments, values_, faults_};
        ink = verb == "gradient" ? read_gradient(statement.shape->text, given) : read_hatch(given);
    }
    if (values_.check_new(*statement.name)) values_.define(*statement.name, ink.value_or(Color{}));
}

void Evaluator::face(const ParsedStatement& statement) {
    Arguments given{statement.arguments, values_, faults_};
    const auto face = faces_.read(statement.values.front(), given);
    if (values_.check_new(*statement.name)) values_.define(*statement.name, face.value_or(Face{}));
}

void Evaluator::edges(const ParsedStatement& statement) {
    const auto& word = statement.values.front();
    if (word.text == "smooth") {
        usual_edge_ = Edge::smooth;
    } else if (word.text == "crisp") {
        usual_edge_ = Edge::crisp;
    } else {
        faults_.add(word, "unknown edges " + in_quotes(word.text), "allowed are smooth and crisp");
    }
}

void Evaluator::palette(const ParsedStatement& statement) {
    if (statement.values.size() == 1) {
        const auto& word = statement.values.front();
        if (const auto* const known = palettes::find(word.text)) {
            scene_.palette = *known;
            return;
        }
        if (!word.text.starts_with('#')) {
            const auto names = palettes::names();
            const auto near = nearest_word(word.text, {names.begin(), names.end()});
            has_faulty_palette_ = true;
            faults_.add(word, "unknown palette " + in_quotes(word.text),
                        near.empty() ? "allowed are " + in_words({names.begin(), names.end()}, "and") + ", or colours"
                                     : "did you mean " + in_quotes(near) + "?");
            return;
        }
    }
    std::vector<Color> colors;
    for (const auto& word : statement.values) {
        if (const auto color = values_.color(word)) colors.push_back(*color);
    }
    has_faulty_palette_ = true;
    if (colors.size() != statement.values.size()) return;
    try {
        scene_.palette = Palette{std::move(colors)};
        has_faulty_palette_ = false;
    } catch (const Error& error) {
        faults_.add(statement.verb, error.what());
    }
}

}  // namespace coldbrick::inline v0::detail

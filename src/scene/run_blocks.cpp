// Statements that begin and end blocks, and those that give values to names.
#include "scene/arithmetic.hpp"
#include "scene/inks.hpp"
#include "scene/run.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/pattern.hpp"
#include "coldbrick/smooth_region.hpp"

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

// Whether a block may begin.
bool Runner::open(const Node& node) {
    if (blocks_.size() >= budget_.limits().depth) {
        budget_.refuse(node.verb,
                       "shapes, loops and other blocks stand more than " + std::to_string(budget_.limits().depth) +
                           " deep in each other",
                       "depth");
        return false;
    }
    if (!budget_.spend(sizeof(OpenBlock) + sizeof(View), node.verb)) return false;
    blocks_.push_back({.node = static_cast<std::uint32_t>(&node - program_.nodes.data()),
                       .edge = usual_edge_,
                       .marks = memory_.marks()});
    return true;
}

void Runner::push_view(View view) {
    blocks_.back().has_view = true;
    views_.push_back(std::move(view));
}

namespace {

// A box around where a transform takes one.
Box moved(const Box& box, const Transform& by) {
    if (box.empty() || by.is_identity()) return box;
    try {
        return bounds(transformed(filled(box, {}), by));
    } catch (const Error&) {
        return box;
    }
}

}  // namespace

// Ends the innermost block.
void Runner::close() {
    const auto block = blocks_.back();
    blocks_.pop_back();
    usual_edge_ = block.edge;
    budget_.give_back(sizeof(OpenBlock) + sizeof(View) + block.bytes);
    if (block.has_view) {
        if (program_.uses_last) {
            auto& last = memory_.boxes.front();
            last = moved(block.is_use ? drawn_ : last, views_.back().own);
            if (block.is_use) {
                drawn_ = enclosing(block.drawn_before, last);
                if (!last.empty()) memory_.slot(0, last_slot) = Value::kept(ValueKind::box, 0);
            }
        }
        views_.pop_back();
    }
    if (block.is_use) {
        memory_.end_call();
        next_ = block.return_to;
    }
    memory_.drop_to(block.marks);
}

void Runner::end(const Node& node) {
    const auto& begin = program_.nodes[node.end];
    if (blocks_.empty()) return;
    auto& block = blocks_.back();
    if (begin.kind->block == Block::repeat && next_round(block, begin)) return;
    if (begin.kind->block == Block::pattern && block.has_view) {
        const auto view = std::move(views_.back());
        close();
        return end_pattern(begin, view);
    }
    close();
}

void Runner::end_pattern(const Node& begin, const View& view) {
    if (begin.slot == no_slot || !view.pattern || faults_.count() > 0) return;
    auto tile = view.pattern->sheet<Rgba8>();
    render(*view.pattern, tile, [](std::size_t, const Box&) {});
    budget_.give_back(pixel_count(tile.size()) * bytes_per_pixel<Rgba8> + view.pattern->drawing.bytes());
    keep_ink(begin, Pattern::of(tile, {.offset = view.offset, .placing = view.placing}));
}

void Runner::keep_ink(const Node& node, const Ink& ink) {
    memory_.inks.push_back(ink);
    slot(node, node.slot) = Value::kept(ValueKind::ink, memory_.inks.size() - 1);
}

void Runner::begin_clip(const Node& node) {
    evaluate(node);
    auto next = view();
    next.own = {};
    const auto parts = parts_of(node, next.by);
    const auto is_smooth = std::any_of(parts.parts.begin(), parts.parts.end(), [&](const RegionPart& part) {
        const auto given = std::span{program_.arguments}.subspan(part.first_argument, part.argument_count);
        return std::any_of(given.begin(), given.end(),
                           [](const Argument& argument) { return argument.keyword == Key{"smooth"}.number(); });
    });
    try {
        if (is_smooth) {
            auto region = read_smooth_region(parts, drawn_box()).value_or(SmoothRegion{});
            // A byte for each pixel at most, and twice that while it is made.
            if (!budget_.spend(pixel_count(region.bounds().size), node.verb)) return;
            next.view = next.view.within(region);
        } else {
            auto region = read_region(parts, drawn_box()).value_or(Region{});
            if (!budget_.spend(region.spans().size() * sizeof(Span), node.verb)) return;
            next.view = next.view.within(region);
        }
    } catch (const Error& error) {
        faults_.add(node.verb, error.what());
    }
    budget_.check_time(node.verb);
    if (open(node)) push_view(std::move(next));
}

// move by 10,20; turn by 30 about 80,60; scale by 2 or by 2,-1; shear by 0.5,0.
std::optional<Transform> Runner::group_transform(std::string_view verb, Arguments& given) {
    const auto about = given.position_or("about", {});
    if (!about) return std::nullopt;
    const auto around = [&](const Transform& by) {
        return Transform{}.move({-about->x, -about->y}).then(by).move(*about);
    };
    if (verb == "turn") {
        const auto angle = given.angle_or("by", {});
        return angle ? std::optional{around(Transform{}.turn(*angle))} : std::nullopt;
    }
    const auto value = given.value("by");
    const auto is_one = verb == "scale" && value.size() == 1 && value[0].value.kind != ValueKind::pair;
    const auto by = is_one ? given.real_or("by", 1, -max_coordinate, max_coordinate) : std::nullopt;
    const auto pair = is_one ? std::optional{Position{by.value_or(1), by.value_or(1)}} : given.position("by");
    if (!pair || (is_one && !by)) return std::nullopt;
    if (verb == "move") return Transform{}.move(*pair);
    if (verb == "shear") return around(Transform{}.shear(*pair));
    if (pair->x == 0 || pair->y == 0) {
        faults_.add(value.word(), "scaled by 0, everything would be flat",
                    "allowed are other factors, also negative ones");
        return std::nullopt;
    }
    return around(Transform{}.scale(*pair));
}

void Runner::begin_group(const Node& node) {
    evaluate(node);
    auto given = arguments(node);
    const auto by = group_transform(node.verb.text, given);
    if (!open(node)) return;
    auto next = view();
    next.own = {};
    // What is in the group is moved by it first, and then by the groups around it.
    if (by) {
        next.own = *by;
        next.by = by->then(next.by);
        next.view = next.view.under(*by);
    }
    push_view(std::move(next));
}

void Runner::begin_pattern(const Node& node) {
    evaluate(node);
    View next{.view = scene_.drawing.under({})};
    auto given = arguments(node);
    constexpr auto most_side = 4096;
    const auto size = given.size("size");
    const auto ground = given.color_or("ink", {.alpha = 0});
    const auto offset = given.has("offset") ? given.point("offset") : Point{};
    const auto placing = read_placing(given);
    if (size && (size->width > most_side || size->height > most_side)) {
        faults_.add(given.word("size"), "a pattern is at most " + std::to_string(most_side) + " pixels wide and high");
    } else if (size && ground && offset && placing &&
               budget_.spend(pixel_count(*size) * (bytes_per_pixel<Rgba8> + sizeof(Color16)), given.word("size"))) {
        next.pattern = std::make_shared<Scene>(
            Scene{.name = scene_.name, .size = *size, .ground = *ground, .drawing = {}, .limits = scene_.limits});
        next.view = next.pattern->drawing.under({});
        next.offset = *offset;
        next.placing = *placing;
    }
    if (open(node)) push_view(std::move(next));
}

void Runner::define(const Node& node) {
    evaluate(node);
    const auto verb = node.verb.text;
    if (verb == "color") {
        const auto color = values_.color(given(node, 0));
        if (color) slot(node, node.slot) = Value::colored(*color);
        return;
    }
    auto given = arguments(node);
    const auto ink = verb == "gradient" ? read_gradient(given) : read_hatch(given);
    if (ink) keep_ink(node, *ink);
}

void Runner::face(const Node& node) {
    evaluate(node);
    auto given = arguments(node);
    const auto face = faces_.read(this->given(node, 0), given);
    if (!face) return;
    memory_.faces.push_back(*face);
    slot(node, node.slot) = Value::kept(ValueKind::face, memory_.faces.size() - 1);
}

void Runner::let(const Node& node) {
    evaluate(node);
    const auto value = given(node, 0);
    auto& to = slot(node, node.slot);
    to = {};
    if (value.size() == 1) {
        to = value[0].value;
        // Names have numbers that are numbers: without a value they would be no use.
        if (to.kind == ValueKind::number && !std::isfinite(to.x)) {
            to = {};
            faults_.add(value.word(), "this has no value (a division by 0, or a number too large)");
        }
        // Blocks in blocks have names of their own: their texts are there together.
        if (to.kind == ValueKind::text && memory_.text_bytes > budget_.rest())
            budget_.spend(memory_.text_bytes, node.verb);
        return;
    }
    const auto pair = values_.position(value, -1e300, 1e300);
    if (pair) to = Value::pair(pair->x, pair->y);
}

void Runner::dial(const Node& node) {
    evaluate(node);
    auto given = arguments(node);
    constexpr auto far = 1e15;
    const auto from = given.real_or("from", 0, -far, far);
    const auto to = given.real_or("to", 0, -far, far);
    const auto step = given.real_or("step", 0, 0, far);
    const auto usual = values_.real(this->given(node, 0), -far, far);
    if (!from || !to || !step || !usual) return;
    if (*from > *to)
        return faults_.add(given.word("to"), "this is less than where the dial begins, " + in_digits(*from));
    auto value = *usual;
    const auto name = std::string{node.word.text};
    const auto allowed = "allowed is " + in_digits(*from) + " to " + in_digits(*to);
    const auto set =
        std::find_if(input_.set.rbegin(), input_.set.rend(), [&](const OutsideValue& v) { return v.name == name; });
    if (set != input_.set.rend()) {
        const auto number = number_of_text(set->value);
        if (!number)
            return faults_.add(
                node.word,
                "the dial " + in_quotes(name) + " is set to " + in_quotes(set->value) + ", which is no number",
                allowed);
        value = *number;
    }
    if (value < *from || value > *to) {
        const auto is_set = set != input_.set.rend();
        return faults_.add(
            is_set ? node.word : this->given(node, 0).word(),
            "the dial " + in_quotes(name) + (is_set ? " is set to " : " is ") + in_digits(value) + "; " + allowed);
    }
    slot(node, node.slot) = Value::number(value);
    scene_.dials.push_back(
        {.name = name, .value = value, .from = *from, .to = *to, .step = *step, .place = node.word.place});
}

void Runner::seed(const Node& node) {
    evaluate(node);
    constexpr auto most = 9007199254740991.0;  // 2^53 - 1: whole numbers up to here are exact
    const auto number = values_.real(given(node, 0), 0, most);
    if (!number) return;
    if (*number != std::floor(*number)) {
        return faults_.add(given(node, 0).word(), "this is " + in_digits(*number) + "; a whole number is needed");
    }
    memory_.random.seed(static_cast<std::uint64_t>(*number));
}

void Runner::frames(const Node& node) {
    const auto most = static_cast<int>(std::min<std::uint64_t>(budget_.limits().frames, 1U << 30U));
    // How many there are comes first: the time of a frame may depend on its progress.
    const auto& word = program_.values[node.first_value];
    std::vector<Value> first;
    for (std::uint32_t i = 0; i < word.part_count; ++i)
        first.push_back(machine_.evaluate(program_.parts[word.first_part + i], word, i));
    const auto count = values_.whole(GivenValue{word, first.data()}, 1, max_coordinate);
    if (!count) return;
    if (*count > most) {
        return budget_.refuse(
            word.word, "the scene has " + std::to_string(*count) + " frames; allowed are " + std::to_string(most),
            "frames");
    }
    memory_.slot(0, progress_slot) = Value::number(static_cast<double>(input_.frame) / *count);
    scene_.frames.count = *count;
    if (input_.frame < 0 || input_.frame >= *count) {
        throw Error{"there is no frame " + std::to_string(input_.frame) + "; the scene has frames 0 to " +
                    std::to_string(*count - 1)};
    }
    evaluate(node);
    auto given = arguments(node);
    constexpr auto most_rate = 1000.0;
    constexpr auto most_loops = 65535;  // of 16 bits, as GIF has them
    constexpr auto longest = 65.0;      // animated PNG: up to 65535 thousandths
    const auto rate = given.real_or("rate", 1, 1.0 / 60, most_rate);
    const auto loops = given.whole_or("loops", 0, 0, most_loops);
    const auto time = given.real_or("time", 1 / rate.value_or(1), 0, longest);
    if (!rate || !loops || !time) return;
    scene_.frames.rate = *rate;
    scene_.frames.loops = *loops;
    scene_.frames.time = *time;
}

}  // namespace coldbrick::inline v0::detail

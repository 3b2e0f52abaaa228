// What of a scene shows.
#include "scene/budget.hpp"

#include "coldbrick/save_drawing.hpp"

#include <cmath>
#include <optional>
#include <string>

namespace coldbrick::inline v0 {

namespace {

std::string in_words(Point point) { return std::to_string(point.x) + "," + std::to_string(point.y); }

std::string in_words(const Box& box) {
    const auto first = in_words(box.at);
    return box.last() == box.at ? first : first + " to " + in_words(box.last());
}

// On which side of the sheet a box lies that does not meet it.
std::string side_of(const Box& box, const Box& sheet) {
    std::string side;
    const auto add = [&](const char* name, std::int64_t away) {
        if (away <= 0) return;
        side += (side.empty() ? "" : " and ") + std::to_string(away) + (away == 1 ? " pixel " : " pixels ") + name;
    };
    add("above", std::int64_t{sheet.at.y} - box.last().y);
    add("below", std::int64_t{box.at.y} - sheet.last().y);
    add("left of", std::int64_t{sheet.at.x} - box.last().x);
    add("right of", std::int64_t{box.at.x} - sheet.last().x);
    return side;
}

std::string reason(const Box& around, const Box& sheet, const std::optional<Box>& clip) {
    if (around.empty()) return "it covers no pixel at all";
    if (clip && clip->empty()) return "the clip that it is in has no pixel on the sheet";
    if (clip && !intersection(around, sheet).empty()) {
        return "it lies within " + in_words(around) + ", and the clip that it is in within " + in_words(*clip) +
               "; they have no pixel in common";
    }
    if (!intersection(around, sheet).empty()) {
        return "it lies within " + in_words(around) + ", but none of its pixels is on the sheet, " + in_words(sheet);
    }
    return "it lies at " + in_words(around) + ", " + side_of(around, sheet) + " the sheet, " + in_words(sheet);
}

}  // namespace

namespace {

// Where a call stands in its scene's text.
std::string place_of(const Scene& scene, std::size_t number) {
    const auto [line, column] = scene.place_of(number);
    const auto file = scene.file_of(number);
    return printable(file.empty() ? scene.name : file) + ":" + std::to_string(line) + ":" + std::to_string(column) +
           ": ";
}

}  // namespace

namespace detail {

namespace {

// Draws calls of a scene, within its limits, and says where faults are.
class SceneHooks {
  public:
    explicit SceneHooks(const Scene& scene) : scene_{scene}, budget_{scene.limits, scene.spent}, scope_{&budget_} {
        budget_.name_memory("scene_memory");
        budget_.check();
    }

    // Calls work(), and says at which statement it meets a limit.
    template <class Work>
    auto at_place(std::size_t number, const Work& work) const {
        try {
            return work();
        } catch (const LimitError& error) {
            throw LimitError{error.limit(), place_of(scene_, number) + error.what()};
        }
    }

    Box draw(CallRenderer& renderer, std::size_t number) const {
        return at_place(number, [&] {
            // Some faults depend on what is seen, and come up only now.
            try {
                return renderer.draw(number);
            } catch (const LimitError&) {
                throw;
            } catch (const Error& error) {
                throw Error{place_of(scene_, number) + error.what()};
            }
        });
    }

    [[nodiscard]] DrawingHooks hooks() const noexcept {
        DrawingHooks hooks{.context = this,
                           .draw = [](const void* context, CallRenderer& renderer, std::size_t number) {
                               return static_cast<const SceneHooks*>(context)->draw(renderer, number);
                           }};
        if (scene_.picture) {
            hooks.ground = [](const void* context, const Surface& rows) {
                static_cast<const SceneHooks*>(context)->scene_.paste_ground(rows);
            };
        }
        return hooks;
    }

  private:
    const Scene& scene_;
    Budget budget_;
    BudgetScope scope_;
};

}  // namespace

void render(const Scene& scene, const Surface& surface, const ReportTouched& report) {
    const SceneHooks hooks{scene};
    CallRenderer renderer{scene.drawing, surface};
    for (std::size_t number = 0; number < scene.drawing.size(); ++number) {
        const auto touched = hooks.draw(renderer, number);
        hooks.at_place(number, [&] { report(number, touched); });
    }
}

Box render_in_bands(const Scene& scene, const Surface& surface, int threads) {
    const SceneHooks hooks{scene};
    return render_in_bands(scene.drawing, surface, threads, hooks.hooks());
}

}  // namespace detail

void save(const Scene& scene, const FilePath& path, FileFormat format, const SaveOptions& options) {
    const detail::SceneHooks hooks{scene};
    detail::save_in_bands(scene.drawing, {.size = scene.size, .ground = scene.ground, .palette = scene.palette}, path,
                          format, options, hooks.hooks());
}

std::vector<Box> bounds_on_sheet(const Scene& scene) {
    const detail::SceneHooks hooks{scene};
    const auto sheet = Box{.at = {}, .size = scene.size};
    std::vector<Box> boxes;
    boxes.reserve(scene.drawing.size());
    for (std::size_t number = 0; number < scene.drawing.size(); ++number) {
        const auto call = scene.drawing[number];
        const auto box = hooks.at_place(number, [&] { return call.bounds(); });
        boxes.push_back(intersection(intersection(box, sheet), call.clip().value_or(sheet)));
    }
    return boxes;
}

detail::DrawCalls detail::draw_calls(const Scene& scene) {
    return {&scene, [](const void* of, const Surface& surface, const ReportTouched& report) {
                render(*static_cast<const Scene*>(of), surface, report);
            }};
}

namespace {

// Calls use(sheet) with a new one.
template <class Use>
auto on_sheet(const Scene& scene, const Use& use) {
    return scene.palette ? use(scene.sheet<Index8>()) : use(scene.sheet<Rgba8>());
}

std::string pixels_in_words(std::int64_t count) {
    return count == 1 ? "the pixel that it touches" : "the " + std::to_string(count) + " pixels that it touches";
}

// The call as messages name it: "fill box, line 7"; in an included file, with its name.
std::string call_in_words(const Scene& scene, std::size_t number) {
    const auto file = scene.file_of(number);
    return scene.kind_of(number) + ", " + (file.empty() ? "" : printable(file) + " ") + "line " +
           std::to_string(scene.place_of(number).line);
}

std::string covers_in_words(const Scene& scene, const CallStory& story) {
    std::string words;
    std::int64_t reported = 0;
    for (std::size_t i = 0; i < story.covered_by.size(); ++i) {
        const auto& [call, pixels] = story.covered_by[i];
        reported += pixels;
        const auto is_last = i + 1 == story.covered_by.size() && reported == story.changed;
        if (i > 0) words += is_last ? " and " : ", ";
        words += call_in_words(scene, call);
        if (pixels < story.changed) words += " (" + std::to_string(pixels) + " of them)";
    }
    return reported < story.changed ? words + " and others" : words;
}

std::string reason(const Scene& scene, std::size_t number, const CallStory& story) {
    switch (story.showing) {
        case Showing::transparent:
            return "its ink is transparent in " + pixels_in_words(story.touched);
        case Showing::unchanged:
            return pixels_in_words(story.touched) + (story.touched == 1 ? " has" : " have") +
                   " the colour already that it would give";
        case Showing::covered: {
            const auto changed = story.changed == 1
                                     ? "the pixel that it changes is"
                                     : "the " + std::to_string(story.changed) + " pixels that it changes are";
            return changed + " covered later by " + covers_in_words(scene, story);
        }
        default: {
            const auto call = scene.drawing[number];
            return reason(call.bounds(), {.at = {.x = 0, .y = 0}, .size = scene.size}, call.clip());
        }
    }
}

}  // namespace

Explanation explain(const Scene& scene) {
    const detail::SceneHooks both_times{scene};
    return on_sheet(scene, [&](auto sheet) { return render_explained(scene, sheet); });
}

PixelStory explain(const Scene& scene, Point pixel) {
    const detail::SceneHooks every_time{scene};
    return on_sheet(scene, [&](auto sheet) {
        return detail::explain(scene.drawing, detail::SurfaceAccess::of(sheet), pixel, detail::draw_calls(scene));
    });
}

std::string explain_unseen(const Scene& scene, std::size_t number, const CallStory& story) {
    return place_of(scene, number) + "nothing of this " + scene.kind_of(number) +
           " shows: " + reason(scene, number, story);
}

std::string explain_unseen(const Scene& scene, std::size_t number) {
    CallStory story;
    story.showing = Showing::outside;
    return explain_unseen(scene, number, story);
}

}  // namespace coldbrick::inline v0

#include "watch/page_drawing.hpp"

#include "color_words.hpp"
#include "output.hpp"
#include "panels.hpp"
#include "scene_input.hpp"
#include "shown.hpp"

#include <algorithm>
#include <chrono>
#include <cstring>
#include <filesystem>
#include <set>
#include <span>
#include <utility>

#include <fmt/core.h>

namespace coldbrick::tool {

namespace {

std::string line_of_json(const Json& json) { return json.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n"; }

Json json_of(const Size& size) { return {size.width, size.height}; }

Json json_of(const Fault& fault) {
    return {{"file", fault.file},     {"line", fault.place.line}, {"column", fault.place.column},
            {"length", fault.length}, {"what", fault.what},       {"advice", fault.advice},
            {"way", fault.way}};
}

Json faults_of(const SceneError& error) {
    auto faults = Json::array();
    for (const auto& fault : error.faults()) faults.push_back(json_of(fault));
    return faults;
}

Json fault_without_place(const std::string& what) {
    return Json::array(
        {{{"file", ""}, {"line", 0}, {"column", 0}, {"length", 0}, {"what", what}, {"advice", ""}, {"way", ""}}});
}

Json description_of(const Scene& scene) {
    auto dials = Json::array();
    for (const auto& dial : scene.dials) {
        dials.push_back(
            {{"name", dial.name}, {"value", dial.value}, {"from", dial.from}, {"to", dial.to}, {"step", dial.step}});
    }
    auto remarks = Json::array();
    for (const auto& remark : scene.remarks) {
        remarks.push_back({{"file", remark.file},
                           {"line", remark.place.line},
                           {"column", remark.place.column},
                           {"what", remark.what}});
    }
    return {{"drawings", scene.drawing.size()},
            {"dials", std::move(dials)},
            {"frames", {{"count", scene.frames.count}, {"rate", scene.frames.rate}, {"time", scene.frames.time}}},
            {"remarks", std::move(remarks)}};
}

bool is_same_input(const SceneInput& a, const SceneInput& b) {
    return a.frame == b.frame && std::equal(a.set.begin(), a.set.end(), b.set.begin(), b.set.end(),
                                            [](const OutsideValue& x, const OutsideValue& y) {
                                                return x.name == y.name && x.value == y.value;
                                            });
}

// Sent at once; of larger pictures a smaller one comes first.
constexpr std::int64_t most_at_once = 1 << 20;

// In pairs, so that the time grows as n log n.
Region united(std::vector<Region> regions) {
    while (regions.size() > 1) {
        std::vector<Region> pairs;
        for (std::size_t i = 0; i + 1 < regions.size(); i += 2) pairs.push_back(unite(regions[i], regions[i + 1]));
        if (regions.size() % 2 != 0) pairs.push_back(std::move(regions.back()));
        regions = std::move(pairs);
    }
    return regions.empty() ? Region{} : std::move(regions.front());
}

std::string bytes_of(const Bitmap<Rgba8>& picture) {
    const auto& bytes = picture.bytes();
    return {reinterpret_cast<const char*>(bytes.data()), bytes.size()};
}

}  // namespace

// From when a question has come until it is answered. An older one of the same kind and page is ended by it.
class PageDrawing::Turn {
  public:
    Turn(PageDrawing& drawing, std::string_view kind, const std::string& page)
        : drawing_{drawing}, name_{fmt::format("{} {}", kind, page)} {
        const std::scoped_lock lock{drawing_.turns_mutex_};
        for (auto* const other : drawing_.turns_) {
            if (!page.empty() && other->name_ == name_) other->budget_.cancel();
        }
        if (drawing_.is_stopped_) budget_.cancel();
        drawing_.turns_.push_back(this);
    }
    Turn(const Turn&) = delete;
    Turn(Turn&&) = delete;
    Turn& operator=(const Turn&) = delete;
    Turn& operator=(Turn&&) = delete;
    ~Turn() {
        const std::scoped_lock lock{drawing_.turns_mutex_};
        drawing_.turns_.remove(this);
    }

    // Calls work() when it is its turn. Throws LimitError if it has been ended.
    template <class Work>
    auto run(const Work& work) {
        const std::scoped_lock lock{drawing_.mutex_};
        return budget_.run(work);
    }
    void cancel() noexcept { budget_.cancel(); }
    [[nodiscard]] const std::string& name() const noexcept { return name_; }

    // What is answered in place of a picture.
    [[nodiscard]] std::string without_picture(const Json& faults) const {
        if (budget_.is_cancelled()) return line_of_json({{"ended", true}, {"faults", faults}});
        return line_of_json({{"faults", faults}});
    }

  private:
    PageDrawing& drawing_;
    std::string name_;
    Budget budget_;
};

void PageDrawing::end_drawing(const std::string& page) {
    const std::scoped_lock lock{turns_mutex_};
    for (auto* const turn : turns_) {
        if (turn->name() == fmt::format("draw {}", page)) turn->cancel();
    }
}

void PageDrawing::stop() {
    const std::scoped_lock lock{turns_mutex_};
    is_stopped_ = true;
    for (auto* const turn : turns_) turn->cancel();
}

PageDrawing::PageDrawing(const SceneArguments& arguments) : limits_{scene_limits(arguments.limits)} {
    constexpr auto usual_seconds = 10.0;
    const auto has_own = std::any_of(arguments.limits.begin(), arguments.limits.end(),
                                     [](const std::string& limit) { return limit.starts_with("seconds="); });
    if (!has_own) limits_.seconds = usual_seconds;
    limits_.files_from = arguments.files_from;
    set_ = outside_values(arguments.set);
}

std::shared_ptr<const Scene> PageDrawing::scene_for(const PageRequest& request) {
    if (!made_ || made_->request.path != request.path || made_->request.text != request.text) {
        made_.reset();
        const auto folder = std::filesystem::path{request.path}.parent_path().string();
        std::vector<std::string> names;
        for (const auto& value : set_) names.push_back(value.name);
        auto program = parse_program(request.text, request.path, folder, limits_, names);
        made_ = Made{
            .request = request, .program = std::make_shared<const SceneProgram>(std::move(program)), .scene = nullptr};
    }
    if (!made_->scene || !is_same_input(made_->request.input, request.input)) {
        made_->scene.reset();
        auto input = request.input;
        for (const auto& value : set_) {
            const auto is_set = std::any_of(input.set.begin(), input.set.end(),
                                            [&](const OutsideValue& of) { return of.name == value.name; });
            if (!is_set) input.set.push_back(value);
        }
        // A dial that is no longer there is left aside.
        std::erase_if(input.set, [&](const OutsideValue& value) { return !made_->program->uses(value.name); });
        made_->scene = std::make_shared<const Scene>(made_->program->evaluate(input));
        made_->request.input = request.input;
    }
    return made_->scene;
}

std::string PageDrawing::answer(Json json, Bitmap<Rgba8> picture) {
    const auto size = picture.size();
    json["size"] = json_of(size);
    ++number_;
    const auto pixels = std::int64_t{size.width} * size.height;
    if (pixels <= most_at_once) {
        json["shown"] = json_of(size);
        return line_of_json(json) + bytes_of(picture);
    }
    constexpr auto side = 800;
    auto small = size.width >= size.height ? resized(picture, {.width = side, .height = 0}, Scaling::nearest)
                                           : resized(picture, {.width = 0, .height = side}, Scaling::nearest);
    json["shown"] = json_of(small.size());
    json["whole"] = number_;
    picture_ = std::move(picture);
    return line_of_json(json) + bytes_of(small);
}

std::string PageDrawing::draw(const PageRequest& request) {
    Turn turn{*this, "draw", request.page};
    try {
        return turn.run([&] {
            const auto begin = std::chrono::steady_clock::now();
            const auto scene = scene_for(request);
            auto json = description_of(*scene);
            auto picture = picture_of(*scene);
            const std::chrono::duration<double, std::milli> taken = std::chrono::steady_clock::now() - begin;
            json["milliseconds"] = taken.count();
            return answer(std::move(json), std::move(picture));
        });
    } catch (const SceneError& error) {
        return turn.without_picture(faults_of(error));
    } catch (const Error& error) {
        return turn.without_picture(fault_without_place(error.what()));
    } catch (const std::bad_alloc&) {
        return line_of_json({{"faults", fault_without_place("there is not enough memory")}});
    }
}

std::string PageDrawing::read(const std::string& path, const FollowedFile& file) {
    Turn turn{*this, "read", {}};
    try {
        return turn.run([&] {
            const auto bytes = file.read(limits_.pictures.file_bytes);
            if (!bytes) throw Error{"cannot be read, or is no ordinary file"};
            const auto* const first = reinterpret_cast<const std::uint8_t*>(bytes->data());
            return answer(Json::object(), load<Rgba8>(std::span{first, bytes->size()}, limits_.pictures));
        });
    } catch (const Error& error) {
        return line_of_json({{"faults", fault_without_place(fmt::format("{}: {}", printable(path), error.what()))}});
    } catch (const std::bad_alloc&) {
        return line_of_json({{"faults", fault_without_place("there is not enough memory")}});
    }
}

std::optional<std::string> PageDrawing::whole(std::uint64_t number) {
    const std::scoped_lock lock{mutex_};
    if (number != number_ || picture_.empty()) return std::nullopt;
    return bytes_of(std::exchange(picture_, Bitmap<Rgba8>{}));
}

Json PageDrawing::pixel(const PageRequest& request, Point at) {
    Turn turn{*this, "pixel", request.page};
    return turn.run([&] { return pixel_of(*scene_for(request), at); });
}

Json PageDrawing::pixel_of(const Scene& scene, Point at) {
    const auto story = coldbrick::explain(scene, at);
    auto steps = Json::array();
    for (const auto& step : story.steps) {
        const auto [line, column] = scene.place_of(step.call);
        steps.push_back({{"file", scene.file_of(step.call)},
                         {"line", line},
                         {"column", column},
                         {"statement", scene.kind_of(step.call)},
                         {"coverage", step.coverage / 255.0},
                         {"ink", hex(step.ink)},
                         {"after", hex(step.after)},
                         {"changes", step.changes}});
    }
    const auto color = story.steps.empty() ? story.ground : story.steps.back().after;
    return {
        {"x", at.x}, {"y", at.y}, {"color", hex(color)}, {"ground", hex(story.ground)}, {"steps", std::move(steps)}};
}

Json PageDrawing::outline(const PageRequest& request, int line) {
    Turn turn{*this, "outline", request.page};
    return turn.run([&] { return outline_of(*scene_for(request), line); });
}

Json PageDrawing::outline_of(const Scene& scene, int line) {
    const auto sheet = Box{.at = {}, .size = scene.size};
    std::vector<Region> regions;
    constexpr std::size_t most_calls = 2'000;
    std::size_t count = 0;
    for (std::size_t i = 0; i < scene.drawing.size() && count < most_calls; ++i) {
        if (scene.place_of(i).line != line || !scene.file_of(i).empty()) continue;
        ++count;
        const auto call = scene.drawing[i];
        const auto within = intersection(sheet, call.clip().value_or(sheet));
        if (const auto figure = call.figure()) {
            regions.emplace_back(*figure, within);
        } else if (call.picture() != nullptr) {
            regions.emplace_back(intersection(call.bounds(), within));
        }
    }
    const auto all = united(std::move(regions));
    auto spans = Json::array();
    for (const auto& [y, x, length] : all.spans()) spans.push_back({y, x, length});
    const auto box = all.bounds();
    return {{"line", line},
            {"drawings", count},
            {"box", {box.at.x, box.at.y, box.size.width, box.size.height}},
            {"spans", std::move(spans)}};
}

Json PageDrawing::unseen(const PageRequest& request) {
    Turn turn{*this, "unseen", request.page};
    return turn.run([&] { return unseen_of(*scene_for(request)); });
}

Json PageDrawing::unseen_of(const Scene& scene) {
    const auto explanation = coldbrick::explain(scene);
    std::set<StatementPlace> seen;
    for (std::size_t i = 0; i < explanation.calls.size(); ++i) {
        if (explanation.calls[i].showing == Showing::seen) seen.insert(statement_of(scene, i));
    }
    auto list = Json::array();
    constexpr std::size_t most = 100;
    for (std::size_t i = 0; i < explanation.calls.size() && list.size() < most; ++i) {
        const auto place = statement_of(scene, i);
        if (!seen.insert(place).second) continue;
        auto what = explain_unseen(scene, i, explanation.calls[i]);
        const auto words = what.find("nothing of this");
        list.push_back({{"file", std::get<0>(place)},
                        {"line", std::get<1>(place)},
                        {"column", std::get<2>(place)},
                        {"what", words == std::string::npos ? what : what.substr(words)}});
    }
    return {{"unseen", std::move(list)}};
}

std::vector<std::string> PageDrawing::parts() {
    const std::scoped_lock lock{mutex_};
    std::vector<std::string> paths;
    if (!made_ || !made_->scene) return paths;
    const auto folder = std::filesystem::path{made_->request.path}.parent_path();
    for (const auto& file : made_->scene->files) paths.push_back((folder / file).string());
    return paths;
}

}  // namespace coldbrick::tool

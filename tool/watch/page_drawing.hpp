// What the page asks for: pictures, pixels, statements, as JSON and bytes.
#pragma once

#include "commands.hpp"
#include "watch/followed_file.hpp"

#include <coldbrick/coldbrick.hpp>

#include <list>
#include <memory>
#include <mutex>
#include <optional>
#include <string>
#include <vector>

#include <nlohmann/json.hpp>

namespace coldbrick::tool {

using Json = nlohmann::ordered_json;

// A picture of a scene's text, as it is in the page's editor.
struct PageRequest {
    std::string path;  // of the scene's file, which need not have that text
    std::string text;
    SceneInput input;
    std::string page = {};  // which page asks: a newer text of it ends the drawing of an older one
};

// Draws scenes and reads pictures, one after the other; what was made last is kept for the next question.
class PageDrawing {
  public:
    // Limits and folders of scenes as the arguments say; what they set is set where a question sets nothing else.
    explicit PageDrawing(const SceneArguments& arguments);

    // A line of JSON, and then the pixels, four bytes each: red, green, blue, alpha. "size" of the picture, "shown" of
    // what is here: of large ones a smaller one first, and "whole" is the number under which the whole one is kept. Of
    // a scene with faults, "faults", and no pixels; of one that a newer text has ended, "ended".
    [[nodiscard]] std::string draw(const PageRequest& request);
    [[nodiscard]] std::string read(const std::string& path, const FollowedFile& file);

    // The whole pixels of the last picture, if it has that number.
    [[nodiscard]] std::optional<std::string> whole(std::uint64_t number);

    // What happened to a pixel: "steps", the last one last.
    [[nodiscard]] Json pixel(const PageRequest& request, Point at);

    // The pixels of the drawings of the statement at a line: "spans", [y, x, length] each, and "box".
    [[nodiscard]] Json outline(const PageRequest& request, int line);

    // What does not show, and why: "unseen", a place and words each.
    [[nodiscard]] Json unseen(const PageRequest& request);

    // The files that the last scene includes, as paths.
    [[nodiscard]] std::vector<std::string> parts();

    // Ends what is being drawn for a page: draw() says so by "ended".
    void end_drawing(const std::string& page);

    // Ends all that is being drawn, and lets nothing more begin. From any thread.
    void stop();

  private:
    // What is being made for a page, to be ended from elsewhere.
    class Turn;
    friend class Turn;

    struct Made {
        PageRequest request;
        std::shared_ptr<const SceneProgram> program;
        std::shared_ptr<const Scene> scene;
    };

    [[nodiscard]] std::shared_ptr<const Scene> scene_for(const PageRequest& request);
    [[nodiscard]] static Json pixel_of(const Scene& scene, Point at);
    [[nodiscard]] static Json outline_of(const Scene& scene, int line);
    [[nodiscard]] static Json unseen_of(const Scene& scene);
    [[nodiscard]] std::string answer(Json json, Bitmap<Rgba8> picture);

    std::mutex mutex_;  // one is drawn after the other
    std::mutex turns_mutex_;
    std::list<Turn*> turns_;  // those that wait, and the one that is drawn
    bool is_stopped_ = false;
    SceneLimits limits_;
    std::vector<OutsideValue> set_;
    std::optional<Made> made_;
    Bitmap<Rgba8> picture_;
    std::uint64_t number_ = 0;
};

}  // namespace coldbrick::tool

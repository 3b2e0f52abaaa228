#include "watch/page_server.hpp"

#include "color_words.hpp"
#include "scene_input.hpp"
#include "watch/connection_stream.hpp"
#include "watch/page_files.hpp"

#include <charconv>
#include <filesystem>
#include <limits>
#include <set>
#include <utility>

#include <fmt/core.h>
#include <httplib.h>

namespace coldbrick::tool {

namespace {

constexpr auto json_type = "application/json";
constexpr auto binary_type = "application/octet-stream";

// A file's text with a number that another text would not have (FNV-1a, 64 bits).
std::string version_of(std::string_view text) {
    auto hash = std::uint64_t{0xcbf29ce484222325};
    for (const auto c : text) hash = (hash ^ static_cast<unsigned char>(c)) * std::uint64_t{0x100000001b3};
    return fmt::format("{:016x}", hash);
}

// As it is: on one machine, packing takes longer than sending.
void send(httplib::Response& response, std::string content, const std::string& type) {
    const auto kept = std::make_shared<const std::string>(std::move(content));
    response.set_content_provider(kept->size(), type,
                                  [kept](std::size_t offset, std::size_t length, httplib::DataSink& sink) {
                                      return sink.write(kept->data() + offset, length);
                                  });
}

void send_json(httplib::Response& response, const Json& json) {
    send(response, json.dump(-1, ' ', false, Json::error_handler_t::replace), json_type);
}

void send_error(httplib::Response& response, int status, const std::string& what) {
    response.status = status;
    send_json(response, {{"error", what}});
}

Json words_as_json() {
    const auto& words = scene_words();
    const auto entries = [](const std::vector<SceneEntry>& list) {
        auto json = Json::array();
        for (const auto& of : list) {
            json.push_back({{"name", of.name},
                            {"form", of.form},
                            {"meaning", of.meaning},
                            {"example", of.example},
                            {"has_end", of.has_end},
                            {"moves", of.moves}});
        }
        return json;
    };
    auto statements = Json::object();
    for (const auto& [name, forms] : words.statements) {
        auto& keywords = statements[name] = Json::array();
        std::set<std::string> known;
        for (const auto& form : forms) {
            for (const auto& list : {form.needed, form.optional}) {
                for (const auto& word : list) {
                    if (known.insert(word).second) keywords.push_back(word);
                }
            }
        }
    }
    auto keywords = Json::array();
    for (const auto& keyword : words.keywords) keywords.push_back(keyword.name);
    auto functions = Json::array();
    for (const auto& function : words.functions)
        functions.push_back({{"name", function.name}, {"example", function.example}});
    auto colors = Json::object();
    for (const auto& named : named_colors) colors[std::string{named.name}] = hex(named.color);
    return {{"verbs", entries(words.verbs)},   {"shapes", entries(words.shapes)}, {"statements", std::move(statements)},
            {"keywords", std::move(keywords)}, {"joiners", words.joiners},        {"functions", std::move(functions)},
            {"colors", std::move(colors)}};
}

// A whole number in a query; nothing if there is none.
std::optional<std::uint64_t> number_in(const httplib::Request& request, const char* name) {
    const auto words = request.get_param_value(name);
    std::uint64_t number = 0;
    const auto [end, error] = std::from_chars(words.data(), words.data() + words.size(), number);
    if (words.empty() || error != std::errc{} || end != words.data() + words.size()) return std::nullopt;
    return number;
}

// JSON of up to some dozen brackets in each other: what is deeper is none of the page's. Throws Json's exceptions, and
// Error.
Json parsed(const std::string& text) {
    constexpr auto deepest = 32;
    auto depth = 0;
    auto in_string = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto c = text[i];
        if (in_string && c == '\\') {
            ++i;
        } else if (c == '"') {
            in_string = !in_string;
        } else if (!in_string && (c == '[' || c == '{') && ++depth > deepest) {
            throw Error{fmt::format("JSON is nested more than {} deep", deepest)};
        } else if (!in_string && (c == ']' || c == '}')) {
            --depth;
        }
    }
    return Json::parse(text);
}

// A member that is a whole number, and none that has to be rounded. Throws Error if there is none.
int whole_of(const Json& body, const char* name) {
    const auto& value = body.at(name);
    const auto is_known = value.is_number_integer() && value <= std::numeric_limits<int>::max() &&
                          value >= std::numeric_limits<int>::min();
    if (!is_known) throw Error{fmt::format("'{}' is no whole number", name)};
    return value.get<int>();
}

bool is_picture(const FollowedFile& file) {
    constexpr std::uint64_t enough = 4096;
    const auto first = file.read(enough);
    return first && picture_kind_of(*first).has_value();
}

// What a question of the page is about. Throws Json's exceptions and Error for what is none.
PageRequest request_of(const Json& body, const std::string& path) {
    PageRequest request{.path = path, .text = body.at("text").get<std::string>(), .input = {}};
    if (body.contains("page")) request.page = body.at("page").get<std::string>();
    if (body.contains("frame")) request.input.frame = whole_of(body, "frame");
    if (body.contains("set")) {
        for (const auto& [name, value] : body.at("set").items()) {
            request.input.set.push_back(
                {.name = name, .value = value.is_string() ? value.get<std::string>() : value.dump()});
        }
    }
    return request;
}

}  // namespace

// The HTTP library without its sockets: it answers what has been let in.
class HttpAnswers final : public httplib::Server {
  public:
    // While there is a socket, it is not shutting down.
    void begin(int listener) noexcept { svr_sock_ = listener; }
    void end() noexcept { svr_sock_ = -1; }

    // Whether the connection goes on.
    bool answer(Connection& connection) {
        ConnectionStream stream{connection};
        auto is_closed = false;
        const auto is_done = process_request(stream, false, is_closed, nullptr);
        stream.finish();
        return is_done && !is_closed;
    }
};

PageServer::PageServer(WatchedFiles& files, PageDrawing& drawing, int port)
    : files_{files},
      drawing_{drawing},
      connections_{port},
      guard_{new_token(), connections_.port()},
      answers_{std::make_unique<HttpAnswers>()} {
    set_up();
}

PageServer::~PageServer() = default;

std::string PageServer::address() const {
    return fmt::format("http://127.0.0.1:{}/{}/", connections_.port(), guard_.token());
}

void PageServer::run() {
    answers_->begin(connections_.listener());
    connections_.run(guard_, [this](Connection& connection) { return answers_->answer(connection); });
}

void PageServer::stop() {
    answers_->end();
    files_.stop();
    drawing_.stop();
    connections_.stop();
}

void PageServer::set_up() {
    answers_->set_payload_max_length(RequestGuard::most_bytes);
    answers_->set_pre_routing_handler([](const Request&, Response& response) {
        response.set_header("X-Content-Type-Options", "nosniff");
        response.set_header("Referrer-Policy", "no-referrer");
        response.set_header("Cache-Control", "no-store");
        response.set_header("Cross-Origin-Resource-Policy", "same-origin");
        response.set_header(
            "Content-Security-Policy",
            "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; img-src 'self' "
            "data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'");
        return httplib::Server::HandlerResponse::Unhandled;
    });
    const auto handle = [this](const Request& request, Response& response) { route(request, response); };
    answers_->Get(".*", handle);
    answers_->Post(".*", handle);
}

void PageServer::route(const Request& request, Response& response) {
    const auto what = guard_.path_within(request.path);
    try {
        if (request.method == "POST") return post(what, request, response);
        if (what == "events") return send_events(response);
        if (what == "words") return send_json(response, words_as_json());
        if (what == "files") {
            auto list = Json::array();
            for (std::size_t i = 0; i < files_.size(); ++i) {
                list.push_back(
                    {{"name", printable(files_.path(i))}, {"kind", is_picture(files_.file(i)) ? "picture" : "scene"}});
            }
            return send_json(response, list);
        }
        const auto file = number_in(request, "file").value_or(0);
        if (what == "whole") {
            auto pixels = drawing_.whole(number_in(request, "number").value_or(0));
            if (!pixels) return send_error(response, 404, "it is not there any more");
            return send(response, std::move(*pixels), binary_type);
        }
        if ((what == "text" || what == "picture") && file >= files_.size())
            return send_error(response, 404, "no such file");
        if (what == "text") return send_text(file, response);
        if (what == "picture") return send(response, drawing_.read(files_.path(file), files_.file(file)), binary_type);
        send_file(what.empty() ? "index.html" : what, response);
    } catch (const SceneError& error) {
        send_error(response, 422, error.what());
    } catch (const Error& error) {
        send_error(response, 422, error.what());
    } catch (const Json::exception&) {
        send_error(response, 400, "this is not what the page asks");
    } catch (const std::bad_alloc&) {
        send_error(response, 507, "there is not enough memory");
    }
}

void PageServer::send_file(std::string_view name, Response& response) const {
    const auto file = page_file(name);
    if (!file) return send_error(response, 404, "there is no such part of the page");
    send(response, std::string{file->content}, std::string{file->type});
}

void PageServer::send_text(std::size_t file, Response& response) const {
    const auto text = files_.file(file).read(SceneLimits{}.scene_bytes);
    if (!text) return send_error(response, 404, fmt::format("{}: cannot be read", printable(files_.path(file))));
    if (text->size() > SceneLimits{}.scene_bytes) return send_error(response, 413, "the scene is too long");
    send_json(response, {{"text", *text}, {"version", version_of(*text)}});
}

// Server-sent events (HTML Standard, 9.2): the number of changes of each file, as often as they change.
void PageServer::send_events(Response& response) {
    constexpr auto most_listeners = 32;
    if (++listeners_ > most_listeners) {
        --listeners_;
        return send_error(response, 503, "too many pages are open");
    }
    auto known = std::make_shared<WatchedFiles::Changes>();
    const auto send = [this, known](std::size_t, httplib::DataSink& sink) {
        constexpr auto between = 1000;  // milliseconds: a page that is gone is noticed by writing to it
        const auto now = files_.wait(*known, between);
        if (files_.is_stopped()) {
            sink.done();
            return true;
        }
        const auto words = now == *known ? std::string{":\n\n"} : fmt::format("data: {}\n\n", Json(now).dump());
        *known = now;
        return sink.write(words.data(), words.size());
    };
    response.set_chunked_content_provider("text/event-stream", send, [this](bool) { --listeners_; });
}

void PageServer::post(std::string_view what, const Request& request, Response& response) {
    const auto body = parsed(request.body);
    const auto file = static_cast<std::size_t>(whole_of(body, "file"));  // below 0, it is far too large
    if (file >= files_.size()) return send_error(response, 404, "no such file");
    if (what == "save") return save(file, body, response);
    if (what == "end") {
        drawing_.end_drawing(body.at("page").get<std::string>());
        return send_json(response, Json::object());
    }
    const auto asked = request_of(body, files_.path(file));
    if (what == "draw") {
        send(response, drawing_.draw(asked), binary_type);
        files_.set_parts(file, drawing_.parts());
        return;
    }
    if (what == "pixel") {
        return send_json(response, drawing_.pixel(asked, {.x = whole_of(body, "x"), .y = whole_of(body, "y")}));
    }
    if (what == "outline") return send_json(response, drawing_.outline(asked, whole_of(body, "line")));
    if (what == "unseen") return send_json(response, drawing_.unseen(asked));
    send_error(response, 404, "there is no such question");
}

// Only what the page has seen is overwritten.
void PageServer::save(std::size_t file, const Json& body, Response& response) {
    const auto text = body.at("text").get<std::string>();
    const auto version = body.at("version").get<std::string>();
    const auto saved =
        files_.file(file).replace(text, [&](std::string_view found) { return version_of(found) == version; });
    const auto name = printable(files_.path(file));
    switch (saved) {
        case FollowedFile::Saved::changed:
            return send_error(response, 409, "the file has been changed by another program meanwhile");
        case FollowedFile::Saved::deleted:
            return send_error(response, 409, "the file has been deleted meanwhile");
        case FollowedFile::Saved::no_file:
            return send_error(response, 409, "there is a link, or no ordinary file, in the file's place now");
        case FollowedFile::Saved::failed:
            return send_error(response, 422, fmt::format("{}: cannot be written", name));
        default:
            files_.note_written(file);
            send_json(response, {{"version", version_of(text)}});
    }
}

}  // namespace coldbrick::tool

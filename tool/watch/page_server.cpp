#include "watch/page_server.hpp"

#include "color_words.hpp"
#include "scene_input.hpp"
#include "watch/page_files.hpp"

#include <charconv>
#include <filesystem>
#include <fstream>
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

// No more than some bytes more than a scene may have.
std::optional<std::string> content_of(const std::string& path) {
    std::ifstream file{path, std::ios::binary};
    return file ? std::optional{read_all(file, SceneLimits{}.scene_bytes)} : std::nullopt;
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

RequestOrigin origin_of(const httplib::Request& request) {
    RequestOrigin origin{.method = request.method,
                         .path = request.path,
                         .host = request.get_header_value("Host"),
                         .origin = request.get_header_value("Origin"),
                         .fetch_site = request.get_header_value("Sec-Fetch-Site")};
    origin.is_chunked = request.has_header("Transfer-Encoding");
    const auto words = request.get_header_value("Content-Length");
    std::uint64_t length = 0;
    const auto [end, error] = std::from_chars(words.data(), words.data() + words.size(), length);
    if (!words.empty()) {
        const auto is_number = error == std::errc{} && end == words.data() + words.size();
        origin.length = is_number ? length : RequestGuard::most_bytes + 1;
    }
    return origin;
}

// A member that is a whole number, and none that has to be rounded. Throws Error if there is none.
int whole_of(const Json& body, const char* name) {
    const auto& value = body.at(name);
    const auto is_known = value.is_number_integer() && value <= std::numeric_limits<int>::max() &&
                          value >= std::numeric_limits<int>::min();
    if (!is_known) throw Error{fmt::format("'{}' is no whole number", name)};
    return value.get<int>();
}

// What a question of the page is about. Throws Json's exceptions and Error for what is none.
PageRequest request_of(const Json& body, const std::string& path) {
    PageRequest request{.path = path, .text = body.at("text").get<std::string>(), .input = {}};
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

PageServer::PageServer(WatchedFiles& files, PageDrawing& drawing, int port)
    : files_{files}, drawing_{drawing}, server_{std::make_unique<httplib::Server>()} {
    constexpr auto loopback = "127.0.0.1";
    set_up();
    port_ = port != 0 ? (server_->bind_to_port(loopback, port) ? port : -1) : server_->bind_to_any_port(loopback);
    if (port_ < 0) {
        throw Error{port != 0 ? fmt::format("watch: port {} of {} cannot be listened at; is it taken?", port, loopback)
                              : fmt::format("watch: no port of {} can be listened at", loopback)};
    }
    guard_ = std::make_unique<RequestGuard>(new_token(), port_);
}

PageServer::~PageServer() = default;

std::string PageServer::address() const { return fmt::format("http://127.0.0.1:{}/{}/", port_, guard_->token()); }

void PageServer::run() { server_->listen_after_bind(); }

void PageServer::stop() {
    files_.stop();
    server_->stop();
}

void PageServer::set_up() {
    constexpr std::size_t threads = 128;  // a connection that says nothing holds one, for as long as is waited for it
    constexpr auto seconds_to_wait = 2;
    constexpr auto seconds_to_read = 5;
    constexpr auto seconds_to_write = 20;
    server_->new_task_queue = [] { return new httplib::ThreadPool{threads}; };
    constexpr std::size_t questions = 100'000;  // on one connection
    server_->set_keep_alive_timeout(seconds_to_wait);
    server_->set_keep_alive_max_count(questions);
    server_->set_read_timeout(seconds_to_read);
    server_->set_write_timeout(seconds_to_write);
    server_->set_tcp_nodelay(true);
    // A port that somebody else listens at is not shared.
    server_->set_socket_options([](int socket) {
        const int yes = 1;
        ::setsockopt(socket, SOL_SOCKET, SO_REUSEADDR, &yes, sizeof yes);
    });
    server_->set_payload_max_length(RequestGuard::most_bytes);
    server_->set_pre_routing_handler([this](const Request& request, Response& response) {
        response.set_header("X-Content-Type-Options", "nosniff");
        response.set_header("Referrer-Policy", "no-referrer");
        response.set_header("Cache-Control", "no-store");
        response.set_header("Cross-Origin-Resource-Policy", "same-origin");
        response.set_header(
            "Content-Security-Policy",
            "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; img-src 'self' "
            "data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'");
        const auto refused = guard_->refusal(origin_of(request));
        if (!refused) return httplib::Server::HandlerResponse::Unhandled;
        response.status = *refused;
        response.set_header("Connection", "close");
        response.set_content("refused\n", "text/plain");
        return httplib::Server::HandlerResponse::Handled;
    });
    const auto handle = [this](const Request& request, Response& response) { route(request, response); };
    server_->Get(".*", handle);
    server_->Post(".*", handle);
}

void PageServer::route(const Request& request, Response& response) {
    const auto what = guard_->path_within(request.path);
    try {
        if (request.method == "POST") return post(what, request, response);
        if (what == "events") return send_events(response);
        if (what == "words") return send_json(response, words_as_json());
        if (what == "files") {
            auto list = Json::array();
            for (std::size_t i = 0; i < files_.size(); ++i) {
                list.push_back({{"name", printable(files_.path(i))},
                                {"kind", is_picture_file(files_.path(i)) ? "picture" : "scene"}});
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
        if (what == "picture") return send(response, drawing_.read(files_.path(file)), binary_type);
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
    const auto text = content_of(files_.path(file));
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
    const auto body = Json::parse(request.body);
    const auto file = static_cast<std::size_t>(whole_of(body, "file"));  // below 0, it is far too large
    if (file >= files_.size()) return send_error(response, 404, "no such file");
    if (what == "save") return save(file, body, response);
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
    const auto& path = files_.path(file);
    const auto text = body.at("text").get<std::string>();
    const auto before = content_of(path);
    if (before && version_of(*before) != body.at("version").get<std::string>()) {
        return send_error(response, 409, "the file has been changed by somebody else meanwhile");
    }
    const auto* const bytes = reinterpret_cast<const std::uint8_t*>(text.data());
    write_file(path, {bytes, bytes + text.size()});
    files_.note_written(file);
    send_json(response, {{"version", version_of(text)}});
}

}  // namespace coldbrick::tool

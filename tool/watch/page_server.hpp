// The page over HTTP, on this machine only.
#pragma once

#include "watch/connections.hpp"
#include "watch/page_drawing.hpp"
#include "watch/request_guard.hpp"
#include "watch/watched_files.hpp"

#include <atomic>
#include <memory>
#include <string>

namespace httplib {
struct Request;
struct Response;
}  // namespace httplib

namespace coldbrick::tool {

class HttpAnswers;

class PageServer {
  public:
    // Port 0: any that is free. Throws Error if it cannot be listened at.
    PageServer(WatchedFiles& files, PageDrawing& drawing, int port);
    PageServer(const PageServer&) = delete;
    PageServer(PageServer&&) = delete;
    PageServer& operator=(const PageServer&) = delete;
    PageServer& operator=(PageServer&&) = delete;
    ~PageServer();

    // "http://127.0.0.1:40123/TOKEN/"
    [[nodiscard]] std::string address() const;

    // Answers until stop(), which ends drawings that are being made.
    void run();
    void stop();

  private:
    using Request = httplib::Request;
    using Response = httplib::Response;

    void set_up();
    void route(const Request& request, Response& response);
    void send_file(std::string_view name, Response& response) const;
    void send_text(std::size_t file, Response& response) const;
    void send_events(Response& response);
    void post(std::string_view what, const Request& request, Response& response);
    void save(std::size_t file, const Json& body, Response& response);

    WatchedFiles& files_;
    PageDrawing& drawing_;
    Connections connections_;
    RequestGuard guard_;
    std::unique_ptr<HttpAnswers> answers_;
    std::atomic<int> listeners_ = 0;
};

}  // namespace coldbrick::tool

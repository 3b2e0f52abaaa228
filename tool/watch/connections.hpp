// Connections to the page's server, until it is known of each request that it is the page's.
//
// Heads of requests are read by one thread, for all connections at once, and within limits of size and time; only what
// is allowed goes on to a thread that answers. So a client without the token can hold neither memory nor threads.
#pragma once

#include "watch/request_guard.hpp"

#include <atomic>
#include <chrono>
#include <condition_variable>
#include <cstddef>
#include <deque>
#include <functional>
#include <list>
#include <mutex>
#include <optional>
#include <set>
#include <string>
#include <thread>
#include <vector>

namespace coldbrick::tool {

// A connection, and what has been read of it and not been answered.
struct Connection {
    int socket = -1;
    std::string read;
};

class Connections {
  public:
    static constexpr std::size_t most_head_bytes = 16'384;
    static constexpr std::size_t most_head_lines = 100;
    static constexpr std::size_t most_waiting = 256;  // more push out those that have waited longest
    static constexpr std::size_t threads = 64;
    static constexpr std::chrono::seconds for_head{4};   // from its first byte on
    static constexpr std::chrono::seconds for_next{30};  // until the first byte of another request

    // Listens at a port of 127.0.0.1; 0: any that is free. Throws Error if it cannot.
    explicit Connections(int port);
    Connections(const Connections&) = delete;
    Connections(Connections&&) = delete;
    Connections& operator=(const Connections&) = delete;
    Connections& operator=(Connections&&) = delete;
    ~Connections();

    [[nodiscard]] int port() const noexcept { return port_; }
    [[nodiscard]] int listener() const noexcept { return listener_; }

    // Answers a request whose head has been read and is allowed; returns whether the connection goes on. Several at a
    // time are called, on threads of their own.
    using Answer = std::function<bool(Connection& connection)>;

    // Until stop(); then the connections are closed, and calls of answer() are waited for.
    void run(const RequestGuard& guard, const Answer& answer);
    void stop() noexcept;
    [[nodiscard]] bool is_stopped() const noexcept { return is_stopped_; }

  private:
    using Clock = std::chrono::steady_clock;
    struct Waiting {
        Connection connection;
        Clock::time_point until;
        bool is_refused = false;  // what still comes is thrown away, so that the refusal arrives
        std::size_t thrown_away = 0;
    };

    void look(const RequestGuard& guard);
    void take_new();
    void read_some(Waiting& of);
    void look_at_head(Waiting& of, const RequestGuard& guard);
    void refuse(Waiting& of, int status);
    void push(Connection connection);
    void work(const Answer& answer);
    void take_back();

    int port_ = 0;
    int listener_ = -1;
    int wake_ = -1;
    std::atomic<bool> is_stopped_ = false;
    std::list<Waiting> waiting_;  // of the thread that reads heads; the oldest first

    std::mutex mutex_;
    std::condition_variable changed_;
    std::deque<Connection> allowed_;
    std::vector<Connection> answered_;
    std::set<int> active_;  // sockets of requests that are being answered
};

// The status with which a head is refused: 400 for one that is none, 415 for a body that is packed, 417, 431 for too
// many lines, and what the guard says (request_guard.hpp); nothing for one that is allowed.
[[nodiscard]] std::optional<int> refusal_of_head(std::string_view head, const RequestGuard& guard);

}  // namespace coldbrick::tool

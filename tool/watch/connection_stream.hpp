// A request, from its head on, for the HTTP library.
#pragma once

#include "watch/connections.hpp"

#include <algorithm>
#include <cerrno>
#include <chrono>

#include <httplib.h>
#include <poll.h>
#include <sys/socket.h>

namespace coldbrick::tool {

// What was read comes first, then the rest of the body, in a time that grows with its length; writing waits for a
// reader that takes nothing no longer than that either.
class ConnectionStream final : public httplib::Stream {
  public:
    explicit ConnectionStream(Connection& connection) noexcept : connection_{connection} {}

    [[nodiscard]] bool is_readable() const override { return at_ < connection_.read.size() || wait(POLLIN, until_); }
    [[nodiscard]] bool is_writable() const override { return wait(POLLOUT, Clock::now() + for_write); }

    ssize_t read(char* to, std::size_t size) override {
        if (at_ < connection_.read.size()) {
            const auto count = std::min(size, connection_.read.size() - at_);
            std::copy_n(connection_.read.data() + at_, count, to);
            at_ += count;
            return static_cast<ssize_t>(count);
        }
        if (!wait(POLLIN, until_)) return -1;
        const auto count = ::recv(connection_.socket, to, size, 0);
        constexpr auto bytes_a_second = 1 << 20;
        if (count > 0) until_ += std::chrono::microseconds{count * 1'000'000 / bytes_a_second};
        return count;
    }

    ssize_t write(const char* from, std::size_t size) override {
        if (!wait(POLLOUT, Clock::now() + for_write)) return -1;
        return ::send(connection_.socket, from, size, MSG_NOSIGNAL);
    }

    void get_remote_ip_and_port(std::string& ip, int& port) const override {
        ip = "127.0.0.1";
        port = 0;
    }
    void get_local_ip_and_port(std::string& ip, int& port) const override { get_remote_ip_and_port(ip, port); }
    [[nodiscard]] socket_t socket() const override { return connection_.socket; }

    // Leaves of what was read what belongs to the next request.
    void finish() { connection_.read.erase(0, at_); }

  private:
    using Clock = std::chrono::steady_clock;
    static constexpr std::chrono::seconds for_body{5};
    static constexpr std::chrono::seconds for_write{20};

    bool wait(short events, Clock::time_point until) const {
        while (true) {
            const auto left = std::chrono::duration_cast<std::chrono::milliseconds>(until - Clock::now()).count();
            if (left <= 0) return false;
            pollfd of{.fd = connection_.socket, .events = events, .revents = 0};
            const auto ready = ::poll(&of, 1, static_cast<int>(left));
            if (ready < 0 && errno == EINTR) continue;
            return ready > 0;
        }
    }

    Connection& connection_;
    std::size_t at_ = 0;
    Clock::time_point until_ = Clock::now() + for_body;
};

}  // namespace coldbrick::tool

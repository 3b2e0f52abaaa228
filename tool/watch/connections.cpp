#include "watch/connections.hpp"

#include <coldbrick/error.hpp>

#include <algorithm>
#include <array>
#include <cerrno>
#include <charconv>
#include <exception>
#include <map>
#include <new>
#include <string_view>
#include <utility>

#include <arpa/inet.h>
#include <fmt/core.h>
#include <netinet/in.h>
#include <netinet/tcp.h>
#include <poll.h>
#include <sys/eventfd.h>
#include <sys/socket.h>
#include <unistd.h>

namespace coldbrick::tool {

namespace {

constexpr std::string_view end_of_head = "\r\n\r\n";

constexpr auto bad_request = 400;
constexpr auto packed_body = 415;
constexpr auto no_expectation = 417;
constexpr auto too_many_lines = 431;
constexpr auto too_busy = 503;

int listen_at(int port) {
    const auto listener = ::socket(AF_INET, SOCK_STREAM | SOCK_CLOEXEC | SOCK_NONBLOCK, 0);
    if (listener < 0) return -1;
    const int yes = 1;
    // A port at which another process listens is not shared.
    ::setsockopt(listener, SOL_SOCKET, SO_REUSEADDR, &yes, sizeof yes);
    sockaddr_in address{};
    address.sin_family = AF_INET;
    address.sin_port = htons(static_cast<std::uint16_t>(port));
    address.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
    constexpr auto backlog = 128;
    if (::bind(listener, reinterpret_cast<const sockaddr*>(&address), sizeof address) == 0 &&
        ::listen(listener, backlog) == 0) {
        return listener;
    }
    ::close(listener);
    return -1;
}

int port_of(int listener) {
    sockaddr_in address{};
    socklen_t length = sizeof address;
    return ::getsockname(listener, reinterpret_cast<sockaddr*>(&address), &length) == 0 ? ntohs(address.sin_port) : -1;
}

std::string in_lower_case(std::string_view text) {
    std::string lower{text};
    std::transform(lower.begin(), lower.end(), lower.begin(),
                   [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
    return lower;
}

std::string_view trimmed(std::string_view text) {
    while (!text.empty() && (text.front() == ' ' || text.front() == '\t')) text.remove_prefix(1);
    while (!text.empty() && (text.back() == ' ' || text.back() == '\t')) text.remove_suffix(1);
    return text;
}

// The next line of a head, without its end.
std::string_view take_line(std::string_view& head) {
    const auto end = std::min(head.find("\r\n"), head.size());
    const auto line = head.substr(0, end);
    head.remove_prefix(std::min(end + 2, head.size()));
    return line;
}

// Header fields by their names in lower case (RFC 9112, section 5); nothing if a line is none, or a name comes twice.
std::optional<std::map<std::string, std::string, std::less<>>> fields_of(std::string_view head) {
    std::map<std::string, std::string, std::less<>> fields;
    while (!head.empty()) {
        const auto line = take_line(head);
        const auto colon = line.find(':');
        if (colon == std::string_view::npos || colon == 0) return std::nullopt;
        const auto name = line.substr(0, colon);
        const auto is_bad = [](char c) { return static_cast<unsigned char>(c) <= ' ' || c == 0x7f; };
        if (std::any_of(name.begin(), name.end(), is_bad)) return std::nullopt;
        if (!fields.emplace(in_lower_case(name), trimmed(line.substr(colon + 1))).second) return std::nullopt;
    }
    return fields;
}

}  // namespace

std::optional<int> refusal_of_head(std::string_view head, const RequestGuard& guard) {
    head = head.substr(0, head.find(end_of_head) + 2);
    if (head.find('\0') != std::string_view::npos) return bad_request;
    if (static_cast<std::size_t>(std::count(head.begin(), head.end(), '\n')) > Connections::most_head_lines) {
        return too_many_lines;
    }
    const auto line = take_line(head);
    const auto first = line.find(' ');
    const auto last = line.rfind(' ');
    if (first == std::string_view::npos || first == last) return bad_request;
    const auto version = line.substr(last + 1);
    if (version != "HTTP/1.1" && version != "HTTP/1.0") return bad_request;
    const auto fields = fields_of(head);
    if (!fields) return bad_request;
    const auto field = [&](std::string_view name) {
        const auto found = fields->find(name);
        return found == fields->end() ? std::string{} : found->second;
    };
    if (fields->contains("content-encoding")) return packed_body;
    if (fields->contains("expect")) return no_expectation;
    const auto target = line.substr(first + 1, last - first - 1);
    RequestOrigin origin{.method = std::string{line.substr(0, first)},
                         .path = std::string{target.substr(0, target.find('?'))},
                         .host = field("host"),
                         .origin = field("origin"),
                         .fetch_site = field("sec-fetch-site"),
                         .is_chunked = fields->contains("transfer-encoding")};
    if (fields->contains("content-length")) {
        const auto words = field("content-length");
        std::uint64_t length = 0;
        const auto [end, error] = std::from_chars(words.data(), words.data() + words.size(), length);
        const auto is_number = error == std::errc{} && end == words.data() + words.size();
        origin.length = is_number ? length : RequestGuard::most_bytes + 1;
    }
    return guard.refusal(origin);
}

Connections::Connections(int port) : listener_{listen_at(port)} {
    if (listener_ < 0) {
        throw Error{port != 0 ? fmt::format("watch: port {} of 127.0.0.1 cannot be listened at; is it taken?", port)
                              : "watch: no port of 127.0.0.1 can be listened at"};
    }
    port_ = port_of(listener_);
    wake_ = ::eventfd(0, EFD_CLOEXEC | EFD_NONBLOCK);
    if (wake_ < 0) throw Error{"watch: the system gives no event"};
}

Connections::~Connections() {
    for (const auto& of : waiting_) ::close(of.connection.socket);
    for (const auto& of : allowed_) ::close(of.socket);
    for (const auto& of : answered_) ::close(of.socket);
    ::close(listener_);
    if (wake_ >= 0) ::close(wake_);
}

void Connections::stop() noexcept {
    is_stopped_ = true;
    const std::uint64_t one = 1;
    (void)!::write(wake_, &one, sizeof one);
    const std::scoped_lock lock{mutex_};
    for (const auto socket : active_) ::shutdown(socket, SHUT_RDWR);
    changed_.notify_all();
}

void Connections::take_new() {
    while (true) {
        const auto socket = ::accept4(listener_, nullptr, nullptr, SOCK_CLOEXEC | SOCK_NONBLOCK);
        if (socket < 0) return;
        const int yes = 1;
        ::setsockopt(socket, IPPROTO_TCP, TCP_NODELAY, &yes, sizeof yes);
        waiting_.push_back({.connection = {.socket = socket, .read = {}}, .until = Clock::now() + for_head});
        if (waiting_.size() <= most_waiting) continue;
        ::close(waiting_.front().connection.socket);
        waiting_.pop_front();
    }
}

// One that has ended has no socket any more.
void Connections::read_some(Waiting& of) {
    std::array<char, 4096> bytes;
    auto& [socket, read] = of.connection;
    const auto count = ::recv(socket, bytes.data(), bytes.size(), MSG_DONTWAIT);
    if (count < 0 && (errno == EAGAIN || errno == EINTR)) return;
    if (count <= 0) {
        ::close(std::exchange(socket, -1));
        return;
    }
    if (of.is_refused) {
        constexpr std::size_t most_thrown_away = 1 << 20;
        of.thrown_away += static_cast<std::size_t>(count);
        if (of.thrown_away > most_thrown_away) ::close(std::exchange(socket, -1));
        return;
    }
    if (read.empty()) of.until = Clock::now() + for_head;
    read.append(bytes.data(), static_cast<std::size_t>(count));
}

void Connections::refuse(Waiting& of, int status) {
    const auto answer = fmt::format(
        "HTTP/1.1 {} Refused\r\nContent-Type: text/plain\r\nContent-Length: 8\r\nConnection: close\r\n\r\nrefused\n",
        status);
    (void)::send(of.connection.socket, answer.data(), answer.size(), MSG_DONTWAIT | MSG_NOSIGNAL);
    ::shutdown(of.connection.socket, SHUT_WR);
    of.is_refused = true;
    of.connection.read.clear();
    of.until = Clock::now() + std::chrono::seconds{1};
}

// Passes a request on whose head is there; refuses what will not be one.
void Connections::look_at_head(Waiting& of, const RequestGuard& guard) {
    if (of.is_refused || of.connection.read.empty()) return;
    const auto& read = of.connection.read;
    const auto end = read.find(end_of_head);
    if (end == std::string::npos) {
        const auto lines = static_cast<std::size_t>(std::count(read.begin(), read.end(), '\n'));
        if (read.size() > most_head_bytes || lines > most_head_lines) refuse(of, too_many_lines);
        return;
    }
    if (end > most_head_bytes) return refuse(of, too_many_lines);
    if (const auto status = refusal_of_head(read, guard)) return refuse(of, *status);
    {
        const std::scoped_lock lock{mutex_};
        if (allowed_.size() < most_waiting) {
            allowed_.push_back(std::move(of.connection));
            of.connection.socket = -1;
            changed_.notify_one();
            return;
        }
    }
    refuse(of, too_busy);
}

// Those that have been answered wait for another request; some of it may have been read.
void Connections::take_back() {
    const std::scoped_lock lock{mutex_};
    for (auto& of : answered_) {
        const auto until = Clock::now() + (of.read.empty() ? for_next : for_head);
        waiting_.push_back({.connection = std::move(of), .until = until});
    }
    answered_.clear();
}

void Connections::work(const Answer& answer) {
    std::unique_lock lock{mutex_};
    while (true) {
        changed_.wait(lock, [this] { return is_stopped_ || !allowed_.empty(); });
        if (is_stopped_) return;
        auto connection = std::move(allowed_.front());
        allowed_.pop_front();
        active_.insert(connection.socket);
        lock.unlock();
        const auto goes_on = [&] {
            try {
                return answer(connection);
            } catch (const std::exception&) {
                return false;
            }
        }();
        lock.lock();
        active_.erase(connection.socket);
        if (!goes_on || is_stopped_) {
            ::close(connection.socket);
            continue;
        }
        answered_.push_back(std::move(connection));
        const std::uint64_t one = 1;
        (void)!::write(wake_, &one, sizeof one);
    }
}

// Reads what has come, once there is something, or for a while.
void Connections::look(const RequestGuard& guard) {
    std::vector<pollfd> polled{{.fd = listener_, .events = POLLIN, .revents = 0},
                               {.fd = wake_, .events = POLLIN, .revents = 0}};
    for (const auto& of : waiting_) polled.push_back({.fd = of.connection.socket, .events = POLLIN, .revents = 0});
    constexpr auto between_looks = 250;  // milliseconds
    ::poll(polled.data(), polled.size(), between_looks);
    const auto now = Clock::now();
    auto next = polled.begin() + 2;
    for (auto& of : waiting_) {
        if (next++->revents != 0) read_some(of);
        if (of.connection.socket >= 0 && now > of.until) ::close(std::exchange(of.connection.socket, -1));
    }
    std::uint64_t woken = 0;
    (void)!::read(wake_, &woken, sizeof woken);
    take_back();
    for (auto& of : waiting_) {
        if (of.connection.socket >= 0) look_at_head(of, guard);
    }
    waiting_.remove_if([](const Waiting& of) { return of.connection.socket < 0; });
    take_new();
}

void Connections::run(const RequestGuard& guard, const Answer& answer) {
    std::vector<std::jthread> workers;
    workers.reserve(threads);
    for (std::size_t i = 0; i < threads; ++i) workers.emplace_back([&] { work(answer); });
    while (!is_stopped_) {
        try {
            look(guard);
        } catch (const std::bad_alloc&) {
            // Who has not been let in goes.
            for (const auto& of : waiting_) {
                if (of.connection.socket >= 0) ::close(of.connection.socket);
            }
            waiting_.clear();
        }
    }
}

}  // namespace coldbrick::tool

#include "commands.hpp"
#include "output.hpp"
#include "panels.hpp"
#include "watch/page_server.hpp"

#include <atomic>
#include <csignal>
#include <cstdio>
#include <ctime>
#include <filesystem>
#include <thread>

#include <fmt/core.h>

namespace coldbrick::tool {

namespace {

// Ends a server when the user or the system wants the program to end. Threads that are begun later leave these signals
// to it.
class Ending {
  public:
    Ending() {
        ::sigemptyset(&signals_);
        for (const auto signal : {SIGINT, SIGTERM, SIGHUP}) ::sigaddset(&signals_, signal);
        ::pthread_sigmask(SIG_BLOCK, &signals_, nullptr);
        // A page that goes away while it is written to.
        std::signal(SIGPIPE, SIG_IGN);
    }

    void run(PageServer& server) {
        std::atomic<bool> is_over = false;
        std::jthread waiting{[&] {
            constexpr std::timespec between{.tv_sec = 0, .tv_nsec = 200'000'000};
            while (!is_over) {
                if (::sigtimedwait(&signals_, nullptr, &between) < 0) continue;
                server.stop();
                return;
            }
        }};
        server.run();
        is_over = true;
    }

  private:
    sigset_t signals_{};
};

}  // namespace

Exit watch(const WatchArguments& arguments) {
    constexpr auto last_port = 65535;
    if (arguments.port < 0 || arguments.port > last_port) {
        throw WrongCall{fmt::format("--port is {}; allowed is 0 to {}", arguments.port, last_port)};
    }
    for (const auto& path : arguments.files) {
        if (path == "-") throw WrongCall{"watch follows files; standard input is none"};
        if (std::filesystem::is_directory(path)) throw Error{fmt::format("{}: this is a folder", printable(path))};
        if (!std::filesystem::exists(path)) throw Error{fmt::format("{}: there is no such file", printable(path))};
    }
    Ending ending;
    PageDrawing drawing{arguments};
    WatchedFiles files{arguments.files};
    PageServer server{files, drawing, arguments.port};
    fmt::print("{}\nOpen this address in a browser; Ctrl-C ends it.\n", server.address());
    std::fflush(stdout);
    ending.run(server);
    return Exit::done;
}

}  // namespace coldbrick::tool

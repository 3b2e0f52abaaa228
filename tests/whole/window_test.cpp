// The example in a window, on a display of its own: it starts, shows what it draws, follows the mouse, and ends.
#include <array>
#include <chrono>
#include <cstdlib>
#include <memory>
#include <optional>
#include <string>
#include <thread>
#include <vector>

#include <gtest/gtest.h>
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>
#include <xcb/xcb.h>

namespace {

using namespace std::chrono_literals;

template <class Type>
struct Freed {
    void operator()(Type* pointer) const noexcept { std::free(pointer); }
};
template <class Type>
using Reply = std::unique_ptr<Type, Freed<Type>>;

pid_t start(const std::vector<std::string>& words) {
    const auto child = ::fork();
    if (child != 0) return child;
    std::vector<char*> arguments;
    for (const auto& word : words) arguments.push_back(const_cast<char*>(word.c_str()));
    arguments.push_back(nullptr);
    ::execvp(arguments[0], arguments.data());
    ::_exit(127);
}

// A program that is ended with the test, however that ends.
class Program {
  public:
    explicit Program(const std::vector<std::string>& words) : process_{start(words)} {}
    Program(const Program&) = delete;
    Program(Program&&) = delete;
    Program& operator=(const Program&) = delete;
    Program& operator=(Program&&) = delete;
    ~Program() {
        if (status_) return;
        ::kill(process_, SIGKILL);
        ::waitpid(process_, nullptr, 0);
    }

    // Whether it has ended.
    bool is_over() {
        auto status = 0;
        if (!status_ && ::waitpid(process_, &status, WNOHANG) == process_) status_ = status;
        return status_.has_value();
    }
    [[nodiscard]] bool is_well() const { return status_ && WIFEXITED(*status_) && WEXITSTATUS(*status_) == 0; }

  private:
    pid_t process_;
    std::optional<int> status_;
};

// What is seen on the screen, and the mouse.
class Screen {
  public:
    explicit Screen(const std::string& display) : connection_{xcb_connect(display.c_str(), nullptr)} {}
    Screen(const Screen&) = delete;
    Screen(Screen&&) = delete;
    Screen& operator=(const Screen&) = delete;
    Screen& operator=(Screen&&) = delete;
    ~Screen() { xcb_disconnect(connection_); }

    [[nodiscard]] bool is_there() const { return xcb_connection_has_error(connection_) == 0; }
    [[nodiscard]] xcb_window_t root() const { return xcb_setup_roots_iterator(xcb_get_setup(connection_)).data->root; }

    // The first window that is seen; 0 if there is none.
    [[nodiscard]] xcb_window_t window() const {
        const Reply<xcb_query_tree_reply_t> tree{
            xcb_query_tree_reply(connection_, xcb_query_tree(connection_, root()), nullptr)};
        if (!tree || xcb_query_tree_children_length(tree.get()) == 0) return 0;
        return xcb_query_tree_children(tree.get())[0];
    }

    void move_mouse(xcb_window_t to, int x, int y) {
        xcb_warp_pointer(connection_, XCB_NONE, to, 0, 0, 0, 0, static_cast<std::int16_t>(x),
                         static_cast<std::int16_t>(y));
        xcb_flush(connection_);
    }

    // The colour of a pixel of a window, 0xrrggbb.
    [[nodiscard]] std::uint32_t color_at(xcb_window_t window, int x, int y) const {
        const auto asked = xcb_get_image(connection_, XCB_IMAGE_FORMAT_Z_PIXMAP, window, static_cast<std::int16_t>(x),
                                         static_cast<std::int16_t>(y), 1, 1, ~0U);
        const Reply<xcb_get_image_reply_t> image{xcb_get_image_reply(connection_, asked, nullptr)};
        if (!image) return 0xffffffffU;
        const auto* const bytes = xcb_get_image_data(image.get());
        return static_cast<std::uint32_t>(bytes[2]) << 16U | static_cast<std::uint32_t>(bytes[1]) << 8U | bytes[0];
    }

    // What a window manager sends when somebody closes a window.
    void close(xcb_window_t window) {
        const auto atom = [&](const std::string& name) {
            const auto asked = xcb_intern_atom(connection_, 0, static_cast<std::uint16_t>(name.size()), name.data());
            const Reply<xcb_intern_atom_reply_t> reply{xcb_intern_atom_reply(connection_, asked, nullptr)};
            return reply->atom;
        };
        xcb_client_message_event_t event{};
        event.response_type = XCB_CLIENT_MESSAGE;
        event.format = 32;
        event.window = window;
        event.type = atom("WM_PROTOCOLS");
        event.data.data32[0] = atom("WM_DELETE_WINDOW");
        xcb_send_event(connection_, 0, window, 0, reinterpret_cast<const char*>(&event));
        xcb_flush(connection_);
    }

  private:
    xcb_connection_t* connection_;
};

// Waits up to some seconds for something to come true.
template <class Condition>
bool comes_true(const Condition& condition) {
    for (int i = 0; i < 200; ++i) {
        if (condition()) return true;
        std::this_thread::sleep_for(50ms);
    }
    return false;
}

TEST(Window, ShowsFollowsTheMouseAndEnds) {
    const auto display = ":" + std::to_string(100 + ::getpid() % 20000);
    const Program server{{"Xvfb", display, "-screen", "0", "640x480x24", "-nolisten", "tcp", "-noreset"}};
    ASSERT_TRUE(comes_true([&] { return Screen{display}.is_there(); })) << "Xvfb does not start";
    Screen screen{display};
    ::setenv("DISPLAY", display.c_str(), 1);
    Program program{{TIDE_WINDOW}};
    ASSERT_TRUE(comes_true([&] { return screen.window() != 0; })) << "there is no window";
    const auto window = screen.window();
    // The ground, the clock's face, the chart, a buoy.
    EXPECT_TRUE(comes_true([&] { return screen.color_at(window, 2, 2) == 0x0b2239U; }));
    EXPECT_EQ(screen.color_at(window, 260, 40), 0x2d6a8eU);
    EXPECT_EQ(screen.color_at(window, 360, 150), 0xc8402eU);
    // The hand moves.
    const auto face = [&] {
        std::vector<std::uint32_t> pixels;
        for (int x = 60; x < 200; x += 4) {
            for (int y = 60; y < 200; y += 4) pixels.push_back(screen.color_at(window, x, y));
        }
        return pixels;
    };
    const auto first = face();
    EXPECT_TRUE(comes_true([&] { return face() != first; }));
    // The buoy under the mouse is bright, and is not any more once the mouse has gone.
    const auto line = [&] {
        std::vector<std::uint32_t> pixels;
        for (int x = 12; x < 300; x += 2) {
            for (int y = 280; y < 292; y += 2) pixels.push_back(screen.color_at(window, x, y));
        }
        return pixels;
    };
    const auto before = line();
    screen.move_mouse(window, 360, 150);
    EXPECT_TRUE(comes_true([&] { return screen.color_at(window, 360, 150) == 0xffffffU; }));
    EXPECT_TRUE(comes_true([&] { return line() != before; })) << "the line tells the place";
    screen.move_mouse(window, 300, 180);
    EXPECT_TRUE(comes_true([&] { return screen.color_at(window, 360, 150) == 0xc8402eU; }));
    screen.close(window);
    EXPECT_TRUE(comes_true([&] { return program.is_over(); })) << "it does not end";
    EXPECT_TRUE(program.is_well());
}

}  // namespace

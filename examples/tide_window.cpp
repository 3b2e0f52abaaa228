// The tide clock of Tarn Quay in a window of its own, drawn straight into memory that the window system shares, in its
// own pixel format, 60 times a second. The line below tells the place and the colour under the mouse; a buoy under the
// mouse is drawn brighter. Escape, q, or closing the window ends it.
//
//     tide_window [SECONDS]          ends by itself after so long
#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <charconv>
#include <chrono>
#include <cmath>
#include <cstdlib>
#include <exception>
#include <iostream>
#include <memory>
#include <optional>
#include <stdexcept>
#include <string>
#include <thread>

#include <sys/ipc.h>
#include <sys/shm.h>
#include <xcb/shm.h>
#include <xcb/xcb.h>

namespace harbour {

using namespace coldbrick;

constexpr Size window_size{480, 300};

struct Buoy {
    const char* name;
    Point at;
    Color color;
};
constexpr std::array buoys{Buoy{"north cardinal", {300, 80}, 0xe8b23a_rgb}, Buoy{"port hand", {360, 150}, 0xc8402e_rgb},
                           Buoy{"starboard hand", {420, 110}, 0x3f9d5a_rgb},
                           Buoy{"safe water", {340, 220}, 0xd7dbe0_rgb}};

// What a buoy is made of: the same value is drawn, and asked whether the mouse is on it.
Figure shape_of(const Buoy& buoy) { return filled(Circle{.center = buoy.at, .radius = 14}, {.edge = Edge::smooth}); }

// What the mouse points at.
struct Pointer {
    std::optional<Point> at;
};

template <class Target>
void draw_clock(Target& target, double seconds) {
    const auto center = Point{130, 130};
    fill(target, Circle{.center = center, .radius = 104}, {.edge = Edge::smooth}, 0x123a5c_rgb);
    stroke(target, Circle{.center = center, .radius = 104}, {.width = 4, .edge = Edge::smooth}, 0xfff1c9_rgb);
    for (int hour = 0; hour < 12; ++hour) {
        const auto angle = Angle::degrees(hour * 30.0);
        const auto from = place_at(center, angle, hour % 3 == 0 ? 84 : 92);
        stroke(target, subpixel::Line{.from = from, .to = place_at(center, angle, 98)},
               {.width = hour % 3 == 0 ? 4.0 : 2.0, .cap = Cap::round, .edge = Edge::smooth}, 0xfff1c9_rgb);
    }
    // Once around in twelve and a half hours, of which each lasts a second here.
    constexpr auto tide = 12.42;
    const auto angle = Angle::degrees(-90 + 360 * seconds / tide);
    stroke(target, subpixel::Line{.from = center, .to = place_at(center, angle, 80)},
           {.width = 6, .cap = Cap::round, .edge = Edge::smooth}, 0xe8b23a_rgb);
    fill(target, Circle{.center = center, .radius = 7}, {.edge = Edge::smooth}, 0xe8b23a_rgb);
    for (const auto& [words, y] : {std::pair{"HIGH", 74}, std::pair{"LOW", 200}}) {
        fill(target, Text{.words = words, .at = {130, double{1} * y}, .anchor = TextAnchor::center, .height = 9},
             0xfff1c9_rgb);
    }
}

// The line that tells what is under the mouse, before the line itself is drawn.
template <class Target>
std::string told(const Target& target, const Pointer& pointer) {
    if (!pointer.at || !contains(Box{.at = {}, .size = window_size}, *pointer.at))
        return "move the mouse over the chart";
    const auto color = target.color_at(*pointer.at);
    std::array<char, 64> text{};
    std::snprintf(text.data(), text.size(), "%d,%d  #%02x%02x%02x", pointer.at->x, pointer.at->y, color.red,
                  color.green, color.blue);
    const auto on = std::find_if(buoys.begin(), buoys.end(),
                                 [&](const Buoy& buoy) { return contains(shape_of(buoy), *pointer.at); });
    return std::string{text.data()} + (on != buoys.end() ? std::string{"  "} + on->name : "");
}

template <class Target>
void draw(Target& target, double seconds, const Pointer& pointer) {
    clear(target, 0x0b2239_rgb);
    draw_clock(target, seconds);
    fill(target, RoundedBox{.box = {.at = {256, 26}, .size = {208, 232}}, .corner_radius = 8}, 0x2d6a8e_rgb);
    for (const auto& buoy : buoys) {
        const auto is_hit = pointer.at && contains(shape_of(buoy), *pointer.at);
        fill(target, shape_of(buoy), is_hit ? colors::white : buoy.color);
        stroke(target, Circle{.center = buoy.at, .radius = 14}, {.width = is_hit ? 5.0 : 2.0, .edge = Edge::smooth},
               is_hit ? buoy.color : colors::white);
    }
    const auto line = told(target, pointer);
    fill(target, Box{.at = {0, 272}, .size = {window_size.width, 28}}, 0x06141f_rgb);
    fill(target, Text{.words = line, .at = {12, 291}, .anchor = TextAnchor::baseline, .height = 10}, 0xfff1c9_rgb);
}

template <class Type>
struct Freed {
    void operator()(Type* pointer) const noexcept { std::free(pointer); }
};
template <class Type>
using Reply = std::unique_ptr<Type, Freed<Type>>;

// A window, and memory for its pixels that both sides see.
class Window {
  public:
    Window() : connection_{xcb_connect(nullptr, nullptr)} {
        if (xcb_connection_has_error(connection_) != 0) throw std::runtime_error{"no display can be reached"};
        screen_ = xcb_setup_roots_iterator(xcb_get_setup(connection_)).data;
        check_format();
        make_window();
        share_memory();
    }
    Window(const Window&) = delete;
    Window(Window&&) = delete;
    Window& operator=(const Window&) = delete;
    Window& operator=(Window&&) = delete;
    ~Window() {
        if (memory_ != nullptr) ::shmdt(memory_);
        xcb_disconnect(connection_);
    }

    // The pixels, where they are.
    [[nodiscard]] Pixels<Bgra8> pixels() const {
        return Pixels<Bgra8>{{.top_left = memory_, .size = window_size, .stride = stride}};
    }

    // Has the window show them.
    void show() {
        xcb_shm_put_image(connection_, window_, graphics_, window_size.width, window_size.height, 0, 0,
                          window_size.width, window_size.height, 0, 0, screen_->root_depth, XCB_IMAGE_FORMAT_Z_PIXMAP,
                          0, segment_, 0);
        // Until it is there, nothing may be drawn anew.
        const Reply<xcb_get_input_focus_reply_t> done{
            xcb_get_input_focus_reply(connection_, xcb_get_input_focus(connection_), nullptr)};
        if (!done) throw std::runtime_error{"the display is gone"};
    }

    // Takes what has happened; false once it is to end.
    bool take_events(Pointer& pointer) {
        while (const Reply<xcb_generic_event_t> event{xcb_poll_for_event(connection_)}) {
            const auto kind = event->response_type & 0x7fU;
            if (kind == XCB_MOTION_NOTIFY) {
                const auto& motion = *reinterpret_cast<const xcb_motion_notify_event_t*>(event.get());
                pointer.at = Point{motion.event_x, motion.event_y};
            } else if (kind == XCB_LEAVE_NOTIFY) {
                pointer.at.reset();
            } else if (kind == XCB_KEY_PRESS) {
                // Escape and q, by where they are on the keyboard.
                const auto key = reinterpret_cast<const xcb_key_press_event_t*>(event.get())->detail;
                if (key == 9 || key == 24) return false;
            } else if (kind == XCB_CLIENT_MESSAGE) {
                return reinterpret_cast<const xcb_client_message_event_t*>(event.get())->data.data32[0] != closing_;
            }
        }
        return xcb_connection_has_error(connection_) == 0;
    }

  private:
    static constexpr std::ptrdiff_t stride = std::ptrdiff_t{4} * window_size.width;

    // That a pixel is four bytes: blue, green, red, and one for nothing.
    void check_format() const {
        for (auto depth = xcb_screen_allowed_depths_iterator(screen_); depth.rem > 0; xcb_depth_next(&depth)) {
            for (auto visual = xcb_depth_visuals_iterator(depth.data); visual.rem > 0; xcb_visualtype_next(&visual)) {
                if (visual.data->visual_id != screen_->root_visual) continue;
                const auto is_ours = visual.data->red_mask == 0xff0000U && visual.data->green_mask == 0xff00U &&
                                     visual.data->blue_mask == 0xffU && screen_->root_depth >= 24;
                if (is_ours && xcb_get_setup(connection_)->image_byte_order == XCB_IMAGE_ORDER_LSB_FIRST) return;
            }
        }
        throw std::runtime_error{"the display's pixels are not of 8 bits each of blue, green, red"};
    }

    void make_window() {
        window_ = xcb_generate_id(connection_);
        const std::array<std::uint32_t, 1> events{XCB_EVENT_MASK_POINTER_MOTION | XCB_EVENT_MASK_LEAVE_WINDOW |
                                                  XCB_EVENT_MASK_KEY_PRESS};
        xcb_create_window(connection_, XCB_COPY_FROM_PARENT, window_, screen_->root, 20, 20, window_size.width,
                          window_size.height, 0, XCB_WINDOW_CLASS_INPUT_OUTPUT, screen_->root_visual, XCB_CW_EVENT_MASK,
                          events.data());
        constexpr std::string_view title = "Tarn Quay: tide";
        xcb_change_property(connection_, XCB_PROP_MODE_REPLACE, window_, XCB_ATOM_WM_NAME, XCB_ATOM_STRING, 8,
                            title.size(), title.data());
        // Closing the window is told, instead of ending the program at once.
        const auto protocols = atom("WM_PROTOCOLS");
        closing_ = atom("WM_DELETE_WINDOW");
        xcb_change_property(connection_, XCB_PROP_MODE_REPLACE, window_, protocols, XCB_ATOM_ATOM, 32, 1, &closing_);
        graphics_ = xcb_generate_id(connection_);
        xcb_create_gc(connection_, graphics_, window_, 0, nullptr);
        xcb_map_window(connection_, window_);
    }

    void share_memory() {
        const auto bytes = static_cast<std::size_t>(stride) * window_size.height;
        const auto id = ::shmget(IPC_PRIVATE, bytes, IPC_CREAT | 0600);
        if (id < 0) throw std::runtime_error{"there is no memory to be shared"};
        auto* const memory = ::shmat(id, nullptr, 0);
        segment_ = xcb_generate_id(connection_);
        const auto attach = xcb_shm_attach_checked(connection_, segment_, static_cast<std::uint32_t>(id), 0);
        const Reply<xcb_generic_error_t> error{xcb_request_check(connection_, attach)};
        // It goes once null_sink has it any more.
        ::shmctl(id, IPC_RMID, nullptr);
        if (memory == reinterpret_cast<void*>(-1) || error) throw std::runtime_error{"the display shares no memory"};
        memory_ = static_cast<std::uint8_t*>(memory);
    }

    [[nodiscard]] xcb_atom_t atom(std::string_view name) const {
        const auto asked = xcb_intern_atom(connection_, 0, static_cast<std::uint16_t>(name.size()), name.data());
        const Reply<xcb_intern_atom_reply_t> reply{xcb_intern_atom_reply(connection_, asked, nullptr)};
        return reply ? reply->atom : xcb_atom_t{XCB_ATOM_NONE};
    }

    xcb_connection_t* connection_;
    xcb_screen_t* screen_ = nullptr;
    xcb_window_t window_ = 0;
    xcb_gcontext_t graphics_ = 0;
    xcb_shm_seg_t segment_ = 0;
    xcb_atom_t closing_ = XCB_ATOM_NONE;
    std::uint8_t* memory_ = nullptr;
};

int show(double most_seconds) {
    using Clock = std::chrono::steady_clock;
    Window window;
    auto pixels = window.pixels();
    Pointer pointer;
    const auto begin = Clock::now();
    const auto seconds = [&] { return std::chrono::duration<double>{Clock::now() - begin}.count(); };
    auto frames = 0;
    auto drawing = 0.0;
    while (window.take_events(pointer) && seconds() < most_seconds) {
        const auto before = seconds();
        draw(pixels, before, pointer);
        drawing += seconds() - before;
        window.show();
        ++frames;
        constexpr auto rate = 60;
        std::this_thread::sleep_until(begin + std::chrono::microseconds{std::int64_t{1'000'000} * frames / rate});
    }
    const auto passed = seconds();
    std::cout << frames << " frames in " << passed << " s, " << frames / passed << " a second; drawing one took "
              << 1000 * drawing / std::max(frames, 1) << " ms\n";
    return EXIT_SUCCESS;
}

}  // namespace harbour

int main(int argc, char** argv) {
    try {
        auto seconds = 1e9;
        if (argc > 1) seconds = std::stod(argv[1]);
        return harbour::show(seconds);
    } catch (const std::exception& error) {
        std::cerr << "tide_window: " << error.what() << '\n';
        return EXIT_FAILURE;
    }
}

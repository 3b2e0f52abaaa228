// A fuzz target for requests to the page's server: whatever the head, it is refused, or it is one of the page's own.
#include "repeats.hpp"
#include "watch/connections.hpp"

#include <string_view>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick::tool;
    static const RequestGuard guard{"0123456789abcdef0123456789abcdef", 8080};
    auto head = std::string{reinterpret_cast<const char*>(bytes), count} + "\r\n\r\n";
    if (refusal_of_head(head, guard)) return 0;
    head.resize(head.find("\r\n\r\n") + 4);
    const auto target = std::string_view{head}.substr(head.find(' ') + 1);
    if (!target.starts_with("/0123456789abcdef0123456789abcdef/")) __builtin_trap();
    if (head.find("127.0.0.1:8080") == std::string::npos && head.find("localhost:8080") == std::string::npos) {
        __builtin_trap();
    }
    return 0;
}

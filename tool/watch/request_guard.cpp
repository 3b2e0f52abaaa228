#include "watch/request_guard.hpp"

#include <random>
#include <utility>

#include <fmt/core.h>

namespace coldbrick::tool {

std::string new_token() {
    std::random_device random;
    std::string token;
    constexpr auto numbers = 4;
    for (int i = 0; i < numbers; ++i) token += fmt::format("{:08x}", static_cast<std::uint32_t>(random()));
    return token;
}

RequestGuard::RequestGuard(std::string token, int port)
    : token_{std::move(token)},
      by_address_{fmt::format("127.0.0.1:{}", port)},
      by_name_{fmt::format("localhost:{}", port)} {}

bool RequestGuard::is_own_host(std::string_view host) const noexcept { return host == by_address_ || host == by_name_; }

// Compared in the same time wherever they differ.
bool RequestGuard::has_token(std::string_view path) const noexcept {
    if (path.size() < token_.size() + 2 || path[0] != '/' || path[token_.size() + 1] != '/') return false;
    unsigned difference = 0;
    for (std::size_t i = 0; i < token_.size(); ++i) {
        difference |= static_cast<unsigned char>(path[i + 1]) ^ static_cast<unsigned char>(token_[i]);
    }
    return difference == 0;
}

std::optional<int> RequestGuard::refusal(const RequestOrigin& request) const {
    constexpr auto forbidden = 403;
    constexpr auto not_found = 404;
    constexpr auto not_allowed = 405;
    constexpr auto no_length = 411;
    constexpr auto too_long = 413;
    if (!is_own_host(request.host)) return forbidden;
    constexpr std::string_view scheme = "http://";
    if (!request.origin.empty()) {
        const auto is_own = request.origin.starts_with(scheme) && is_own_host(request.origin.substr(scheme.size()));
        if (!is_own) return forbidden;
    }
    const auto& site = request.fetch_site;
    if (!site.empty() && site != "same-origin" && site != "none") return forbidden;
    if (!has_token(request.path)) return not_found;
    if (request.method != "GET" && request.method != "HEAD" && request.method != "POST") return not_allowed;
    if (request.is_chunked) return no_length;
    if (request.method == "POST" && !request.length) return no_length;
    if (request.length && *request.length > most_bytes) return too_long;
    return std::nullopt;
}

std::string_view RequestGuard::path_within(std::string_view path) const noexcept {
    return path.substr(token_.size() + 2);
}

}  // namespace coldbrick::tool

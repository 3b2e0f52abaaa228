// Who may ask the page's server for something.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace coldbrick::tool {

// What of a request says where it comes from; empty where a header is missing.
struct RequestOrigin {
    std::string method;
    std::string path;                                    // of the address, without a query
    std::string host;                                    // the Host header
    std::string origin;                                  // the Origin header
    std::string fetch_site;                              // the Sec-Fetch-Site header
    std::optional<std::uint64_t> length = std::nullopt;  // Content-Length
    bool is_chunked = false;                             // a body without a length
};

// A secret word for the address: 32 hexadecimal digits from the system's random numbers.
[[nodiscard]] std::string new_token();

class RequestGuard {
  public:
    static constexpr std::uint64_t most_bytes = std::uint64_t{1} << 26U;  // of a body

    RequestGuard(std::string token, int port);

    [[nodiscard]] const std::string& token() const noexcept { return token_; }

    // The status of HTTP (RFC 9110) with which a request is refused: 403 from another host or page, 404 without the
    // token, 405, 411, 413 for a body without a length or that is too long; nothing for one that is allowed.
    [[nodiscard]] std::optional<int> refusal(const RequestOrigin& request) const;

    // The path behind the token.
    [[nodiscard]] std::string_view path_within(std::string_view path) const noexcept;

  private:
    [[nodiscard]] bool is_own_host(std::string_view host) const noexcept;
    [[nodiscard]] bool has_token(std::string_view path) const noexcept;

    std::string token_;
    std::string by_address_;
    std::string by_name_;
};

}  // namespace coldbrick::tool

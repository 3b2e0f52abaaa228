// Sanitizers make slow tests ten times slower: these do less with them.
#pragma once

#ifdef __has_feature
#if __has_feature(address_sanitizer)
constexpr bool is_sanitized = true;
#else
constexpr bool is_sanitized = false;
#endif
#elif defined(__SANITIZE_ADDRESS__)
constexpr bool is_sanitized = true;
#else
constexpr bool is_sanitized = false;
#endif

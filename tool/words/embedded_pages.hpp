// The pages of docs/reference, which are in the program.
#pragma once

#include <span>
#include <string_view>

namespace coldbrick::tool {

struct EmbeddedPage {
    std::string_view name;  // of the file, without its suffix
    std::string_view content;
};

[[nodiscard]] std::span<const EmbeddedPage> embedded_pages() noexcept;

// Those of docs/reference/calls.
[[nodiscard]] std::span<const EmbeddedPage> call_pages() noexcept;

// The files that their examples read, by their whole names.
[[nodiscard]] std::span<const EmbeddedPage> example_files() noexcept;

}  // namespace coldbrick::tool

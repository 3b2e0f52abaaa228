// The files of the page, which are in the program.
#pragma once

#include <optional>
#include <string_view>

namespace coldbrick::tool {

struct PageFile {
    std::string_view content;
    std::string_view type;  // of media, as HTTP says it
};

// Nothing if there is none of that name.
[[nodiscard]] std::optional<PageFile> page_file(std::string_view name) noexcept;

}  // namespace coldbrick::tool

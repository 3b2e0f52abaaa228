// A file that the page shows and saves, at the place that it had when the program began.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

#include <sys/stat.h>

namespace coldbrick::tool {

class FollowedFile {
  public:
    // Links are followed now, and never again. Throws Error if there is no such file.
    explicit FollowedFile(const std::string& path);
    FollowedFile(const FollowedFile&) = delete;
    FollowedFile(FollowedFile&& other) noexcept;
    FollowedFile& operator=(const FollowedFile&) = delete;
    FollowedFile& operator=(FollowedFile&&) = delete;
    ~FollowedFile();

    // Its bytes, at most so many and one more; nothing if no ordinary file is there. Waits for nothing.
    [[nodiscard]] std::optional<std::string> read(std::uint64_t most) const;

    enum class Saved { done, changed, deleted, no_file, failed };

    // Puts a text in place of one that is_expected(text), in one step: what another program has put there meanwhile
    // stays. What is no ordinary file is left as it is.
    template <class IsExpected>
    Saved replace(std::string_view text, const IsExpected& is_expected) const {
        return replace(text, &is_expected, [](const void* expected, std::string_view found) {
            return (*static_cast<const IsExpected*>(expected))(found);
        });
    }

  private:
    using Expected = bool (*)(const void* expected, std::string_view found);
    Saved replace(std::string_view text, const void* expected, Expected is_expected) const;

    int folder_ = -1;
    std::string name_;
};

}  // namespace coldbrick::tool

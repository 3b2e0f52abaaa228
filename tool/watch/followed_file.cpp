#include "watch/followed_file.hpp"

#include <coldbrick/error.hpp>

#include <array>
#include <cerrno>
#include <chrono>
#include <filesystem>
#include <system_error>
#include <thread>
#include <utility>

#include <fcntl.h>
#include <fmt/core.h>
#include <unistd.h>

namespace coldbrick::tool {

namespace {

// Closed in any case.
class Descriptor {
  public:
    explicit Descriptor(int number) noexcept : number_{number} {}
    Descriptor(const Descriptor&) = delete;
    Descriptor(Descriptor&&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    Descriptor& operator=(Descriptor&&) = delete;
    ~Descriptor() {
        if (number_ >= 0) ::close(number_);
    }
    [[nodiscard]] int number() const noexcept { return number_; }

  private:
    int number_;
};

int open_to_read(int folder, const std::string& name) {
    return ::openat(folder, name.c_str(), O_RDONLY | O_NONBLOCK | O_NOFOLLOW | O_CLOEXEC);
}

bool is_ordinary(int file, struct stat& status) { return ::fstat(file, &status) == 0 && S_ISREG(status.st_mode); }

std::optional<std::string> content_of(int file, std::uint64_t most) {
    std::string text;
    std::array<char, 65536> some;
    while (text.size() <= most) {
        const auto count = ::pread(file, some.data(), some.size(), static_cast<off_t>(text.size()));
        if (count < 0 && errno == EINTR) continue;
        if (count < 0) return std::nullopt;
        if (count == 0) break;
        text.append(some.data(), static_cast<std::size_t>(count));
    }
    return text;
}

bool write_all(int file, std::string_view text) {
    for (std::size_t done = 0; done < text.size();) {
        const auto count = ::write(file, text.data() + done, text.size() - done);
        if (count < 0 && errno != EINTR) return false;
        if (count > 0) done += static_cast<std::size_t>(count);
    }
    return ::fsync(file) == 0 || errno == EINVAL;
}

// Both change their places in one step. A file system that cannot do it puts the first in the place of the second.
bool exchange(int folder, const std::string& a, const std::string& b, bool& is_exchanged) {
    is_exchanged = ::renameat2(folder, a.c_str(), folder, b.c_str(), RENAME_EXCHANGE) == 0;
    if (is_exchanged) return true;
    return (errno == EINVAL || errno == ENOSYS) && ::renameat(folder, a.c_str(), folder, b.c_str()) == 0;
}

// Whether what was in the file's place is what was expected, and no process has it open for writing.
template <class IsExpected>
bool is_as_expected(int folder, const std::string& name, const IsExpected& is_expected) {
    const Descriptor file{open_to_read(folder, name)};
    struct stat before {};
    struct stat after {};
    if (file.number() < 0 || !is_ordinary(file.number(), before)) return false;
    constexpr auto most = std::uint64_t{1} << 26U;
    const auto look = [&] {
        const auto text = content_of(file.number(), most);
        return text && is_expected(*text);
    };
    if (!look()) return false;
    // Who had opened it before writes to it now.
    constexpr std::chrono::milliseconds a_moment{10};
    std::this_thread::sleep_for(a_moment);
    if (!is_ordinary(file.number(), after) || after.st_size != before.st_size ||
        after.st_mtim.tv_sec != before.st_mtim.tv_sec || after.st_mtim.tv_nsec != before.st_mtim.tv_nsec) {
        return look();
    }
    return true;
}

}  // namespace

FollowedFile::FollowedFile(const std::string& path) {
    std::error_code unknown;
    const auto real = std::filesystem::canonical(path, unknown);
    if (unknown) throw Error{fmt::format("{}: cannot be read: {}", printable(path), unknown.message())};
    name_ = real.filename().string();
    folder_ = ::open(real.parent_path().c_str(), O_PATH | O_DIRECTORY | O_CLOEXEC);
    if (folder_ < 0) {
        throw Error{fmt::format("{}: cannot be read: {}", printable(path), std::generic_category().message(errno))};
    }
}

FollowedFile::FollowedFile(FollowedFile&& other) noexcept
    : folder_{std::exchange(other.folder_, -1)}, name_{std::move(other.name_)} {}

FollowedFile::~FollowedFile() {
    if (folder_ >= 0) ::close(folder_);
}

std::optional<std::string> FollowedFile::read(std::uint64_t most) const {
    const Descriptor file{open_to_read(folder_, name_)};
    struct stat status {};
    if (file.number() < 0 || !is_ordinary(file.number(), status)) return std::nullopt;
    return content_of(file.number(), most);
}

FollowedFile::Saved FollowedFile::replace(std::string_view text, const void* expected, Expected is_expected) const {
    const auto fits = [&](std::string_view found) { return is_expected(expected, found); };
    struct stat status {};
    {
        const Descriptor file{open_to_read(folder_, name_)};
        if (file.number() < 0) return errno == ENOENT ? Saved::deleted : Saved::no_file;
        if (!is_ordinary(file.number(), status)) return Saved::no_file;
        constexpr auto most = std::uint64_t{1} << 26U;
        const auto found = content_of(file.number(), most);
        if (!found || !fits(*found)) return Saved::changed;
    }
    if (::faccessat(folder_, name_.c_str(), W_OK, AT_SYMLINK_NOFOLLOW) != 0 && errno == EACCES) return Saved::failed;
    const auto beside =
        fmt::format(".unfinished-{}-{}", ::getpid(), std::hash<std::thread::id>{}(std::this_thread::get_id()));
    const Descriptor own{
        ::openat(folder_, beside.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, S_IRUSR | S_IWUSR)};
    if (own.number() < 0) return Saved::failed;
    const auto leave = [&](Saved how) {
        ::unlinkat(folder_, beside.c_str(), 0);
        return how;
    };
    constexpr mode_t permissions = 0777;
    (void)!::fchown(own.number(), status.st_uid, status.st_gid);
    if (::fchmod(own.number(), status.st_mode & permissions) != 0 || !write_all(own.number(), text))
        return leave(Saved::failed);
    struct stat written {};
    ::fstat(own.number(), &written);
    // What was in its place is looked at once it is out of it: so nothing can come between.
    auto is_exchanged = false;
    if (!exchange(folder_, beside, name_, is_exchanged)) {
        return leave(errno == ENOENT ? Saved::deleted : Saved::failed);
    }
    if (!is_exchanged) return Saved::done;
    if (is_as_expected(folder_, beside, fits)) return leave(Saved::done);
    // Somebody else has saved. It goes back, and so does what has been saved since then, until our own comes out.
    constexpr auto attempts = 100;
    for (auto i = 0; i < attempts; ++i) {
        if (!exchange(folder_, beside, name_, is_exchanged)) break;
        struct stat out {};
        if (::fstatat(folder_, beside.c_str(), &out, AT_SYMLINK_NOFOLLOW) == 0 && out.st_ino == written.st_ino &&
            out.st_dev == written.st_dev) {
            return leave(Saved::changed);
        }
    }
    return Saved::changed;
}

}  // namespace coldbrick::tool

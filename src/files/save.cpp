// Bytes to files and streams, complete or not at all.
#include "files/byte_sink.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/files.hpp"

#include <algorithm>
#include <cerrno>
#include <csignal>
#include <filesystem>
#include <functional>
#include <initializer_list>
#include <ostream>
#include <span>
#include <string>
#include <system_error>
#include <utility>

#include <fcntl.h>
#include <pthread.h>
#include <sys/stat.h>
#include <unistd.h>

namespace coldbrick::inline v0 {

namespace fs = std::filesystem;

namespace {

[[noreturn]] void fail(const fs::path& path, int error) {
    throw Error{printable(path.string()) + ": cannot be written: " + std::generic_category().message(error)};
}

// Those that end a program, and the one for a file that grows beyond a limit.
constexpr std::initializer_list<int> all_signals = {SIGINT, SIGTERM, SIGHUP, SIGQUIT, SIGXFSZ};

// While it lives, this thread takes no signal that would end it with an unfinished file; those that come are taken
// then. One for a file that grows beyond a limit is reported by the call that writes, and is not taken any more.
class SignalsHeld {
  public:
    explicit SignalsHeld(std::initializer_list<int> signals) noexcept {
        sigset_t held;
        sigemptyset(&held);
        for (const auto signal : signals) sigaddset(&held, signal);
        pthread_sigmask(SIG_BLOCK, &held, &before_);
    }
    SignalsHeld(const SignalsHeld&) = delete;
    SignalsHeld(SignalsHeld&&) = delete;
    SignalsHeld& operator=(const SignalsHeld&) = delete;
    SignalsHeld& operator=(SignalsHeld&&) = delete;
    ~SignalsHeld() {
        sigset_t of_size;
        sigemptyset(&of_size);
        sigaddset(&of_size, SIGXFSZ);
        constexpr timespec at_once{};
        if (sigismember(&before_, SIGXFSZ) == 0) sigtimedwait(&of_size, nullptr, &at_once);
        pthread_sigmask(SIG_SETMASK, &before_, nullptr);
    }

  private:
    sigset_t before_{};
};

// Whether a signal that ends the program waits for this thread to take it.
bool is_interrupted() noexcept {
    sigset_t pending;
    sigemptyset(&pending);
    sigpending(&pending);
    return std::any_of(all_signals.begin(), all_signals.end(),
                       [&](int signal) { return signal != SIGXFSZ && sigismember(&pending, signal) == 1; });
}

// A file to write to, closed in any case.
class OpenFile {
  public:
    OpenFile(const fs::path& path, int flags) {
        do {
            descriptor_ = ::open(path.c_str(), flags | O_WRONLY | O_CLOEXEC, 0666);
        } while (descriptor_ < 0 && errno == EINTR);
    }
    OpenFile(const OpenFile&) = delete;
    OpenFile(OpenFile&&) = delete;
    OpenFile& operator=(const OpenFile&) = delete;
    OpenFile& operator=(OpenFile&&) = delete;
    ~OpenFile() {
        if (descriptor_ >= 0) ::close(descriptor_);
    }

    [[nodiscard]] bool is_open() const noexcept { return descriptor_ >= 0; }
    [[nodiscard]] int descriptor() const noexcept { return descriptor_; }

    // Each returns 0, or the error's number.
    [[nodiscard]] int write(std::span<const std::uint8_t> bytes) noexcept {
        for (std::size_t done = 0; done < bytes.size();) {
            const auto count = ::write(descriptor_, bytes.data() + done, bytes.size() - done);
            if (count < 0 && errno != EINTR) return errno;
            if (count > 0) done += static_cast<std::size_t>(count);
        }
        return 0;
    }
    // Owner and group as far as that is allowed, and the mode but for the bits that set an owner or a group.
    [[nodiscard]] int become_like(const struct stat& old) noexcept {
        constexpr mode_t permissions = 0777;
        if (::fchown(descriptor_, old.st_uid, old.st_gid) != 0) {
            (void)!::fchown(descriptor_, static_cast<uid_t>(-1), old.st_gid);
        }
        return ::fchmod(descriptor_, old.st_mode & permissions) == 0 ? 0 : errno;
    }
    // Waits until it is on the disk. What has no disk needs no waiting.
    [[nodiscard]] int sync() noexcept {
        return ::fsync(descriptor_) == 0 || errno == EINVAL || errno == EROFS ? 0 : errno;
    }
    [[nodiscard]] int close() noexcept { return ::close(std::exchange(descriptor_, -1)) == 0 ? 0 : errno; }

  private:
    int descriptor_ = -1;
};

// Writes what a file is to have in it. Returns 0, or the error's number.
using Write = std::function<int(OpenFile&)>;

void write_in_place(const fs::path& path, const Write& write) {
    OpenFile file{path, 0};
    if (!file.is_open()) fail(path, errno);
    if (const auto error = write(file)) fail(path, error);
    if (const auto error = file.close()) fail(path, error);
}

// A new name in the same folder, so that the move is one step; short, as the file's own name may be as long as names
// go.
fs::path name_beside(const fs::path& path, int attempt) {
    return path.parent_path() / (".unfinished-" + std::to_string(::getpid()) + "-" + std::to_string(attempt));
}

// All that is to be done to a file before it takes its place.
int finish(OpenFile& file, const struct stat* old, const Write& write) {
    if (old != nullptr) {
        if (const auto error = file.become_like(*old)) return error;
    }
    if (const auto error = write(file)) return error;
    return file.sync();
}

fs::path folder_of(const fs::path& path) { return path.has_parent_path() ? path.parent_path() : fs::path{"."}; }

// The folder of a file that is to take its place.
class Folder {
  public:
    explicit Folder(const fs::path& path)
        : descriptor_{::open(folder_of(path).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC)} {}
    Folder(const Folder&) = delete;
    Folder(Folder&&) = delete;
    Folder& operator=(const Folder&) = delete;
    Folder& operator=(Folder&&) = delete;
    ~Folder() {
        if (descriptor_ >= 0) ::close(descriptor_);
    }

    // Returns 0, or the error's number. Then the name is on the disk too; where that cannot be, the file is there all
    // the same.
    [[nodiscard]] int move(const fs::path& from, const fs::path& to) const noexcept {
        if (::rename(from.c_str(), to.c_str()) != 0) return errno;
        sync();
        return 0;
    }
    void sync() const noexcept {
        if (descriptor_ >= 0) (void)::fsync(descriptor_);
    }

  private:
    int descriptor_;
};

// By a file without a name, of which nothing is left whatever ends the program. Says whether there are such files here.
bool write_nameless(const fs::path& path, const struct stat* old, const Write& write) {
    const Folder folder{path};
    OpenFile file{folder_of(path), O_TMPFILE};
    if (!file.is_open()) return false;
    if (const auto error = finish(file, old, write)) fail(path, error);
    const SignalsHeld held{all_signals};
    const auto own_name = "/proc/self/fd/" + std::to_string(file.descriptor());
    const auto link_to = [&](const fs::path& name) {
        return ::linkat(AT_FDCWD, own_name.c_str(), AT_FDCWD, name.c_str(), AT_SYMLINK_FOLLOW) == 0;
    };
    // A new file needs no other name before: a signal that another thread takes leaves none behind.
    if (old == nullptr && link_to(path)) {
        folder.sync();
        return true;
    }
    constexpr auto attempts = 100;
    for (int attempt = 0; attempt < attempts; ++attempt) {
        const auto beside = name_beside(path, attempt);
        if (!link_to(beside)) {
            if (errno == EEXIST) continue;
            return false;
        }
        if (const auto error = folder.move(beside, path)) {
            ::unlink(beside.c_str());
            fail(path, error);
        }
        return true;
    }
    return false;
}

void write_named(const fs::path& path, const struct stat* old, const Write& write) {
    const Folder folder{path};
    // A signal that would leave the file behind is taken when it has been removed (is_interrupted()).
    const SignalsHeld held{all_signals};
    constexpr auto attempts = 100;
    for (int attempt = 0; attempt < attempts; ++attempt) {
        const auto beside = name_beside(path, attempt);
        OpenFile file{beside, O_CREAT | O_EXCL};
        if (!file.is_open() && errno == EEXIST) continue;
        if (!file.is_open()) fail(path, errno);
        auto error = 0;
        try {
            error = finish(file, old, write);
        } catch (...) {
            ::unlink(beside.c_str());
            throw;
        }
        if (error == 0) error = file.close();
        if (error == 0) error = folder.move(beside, path);
        if (error == 0) return;
        ::unlink(beside.c_str());
        fail(path, error);
    }
    fail(path, EEXIST);
}

void write_beside(const fs::path& path, const struct stat* old, const Write& write,
                  std::initializer_list<int> signals) {
    if (old != nullptr && ::access(path.c_str(), W_OK) != 0) fail(path, errno);
    const SignalsHeld held{signals};
    if (!write_nameless(path, old, write)) write_named(path, old, write);
}

// What a link points to, also if nothing is there.
fs::path end_of_links(fs::path path) {
    constexpr auto most = 40;
    for (int links = 0; links < most; ++links) {
        std::error_code no_link;
        const auto to = fs::read_symlink(path, no_link);
        if (no_link) return path;
        path = path.parent_path() / to;
    }
    fail(path, ELOOP);
}

void write_by(const FilePath& file, const Write& write, std::initializer_list<int> signals) {
    const auto path = fs::path{file.name()};
    if (path.native().find('\0') != std::string::npos) {
        throw Error{printable(path.string()) + ": cannot be written: the name has a NUL byte"};
    }
    struct stat old {};
    // A link goes on pointing to its file.
    const auto real = end_of_links(path);
    if (::stat(real.c_str(), &old) != 0) {
        if (errno != ENOENT) fail(path, errno);
        return write_beside(real, nullptr, write, signals);
    }
    if (S_ISDIR(old.st_mode)) fail(path, EISDIR);
    if (!S_ISREG(old.st_mode)) return write_in_place(path, write);
    write_beside(real, &old, write, signals);
}

}  // namespace

void write_file(const FilePath& path, const std::vector<std::uint8_t>& bytes) {
    write_by(
        path, [&](OpenFile& file) { return file.write(bytes); }, all_signals);
}

void detail::write_file_in_parts(const FilePath& path, const std::function<void(const ByteSink&)>& produce) {
    struct Failed {
        int error;
    };
    const auto write = [&](OpenFile& file) {
        try {
            produce([&](std::span<const std::uint8_t> bytes) {
                if (is_interrupted()) throw Failed{EINTR};
                if (const auto error = file.write(bytes)) throw Failed{error};
            });
        } catch (const Failed& failed) {
            return failed.error;
        }
        return 0;
    };
    write_by(path, write, {SIGXFSZ});
}

void write_stream(std::ostream& stream, const std::vector<std::uint8_t>& bytes) {
    stream.write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
    stream.flush();
    if (!stream) throw Error{"stream: the picture cannot be written to it"};
}

}  // namespace coldbrick::inline v0

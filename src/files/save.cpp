// Bytes to files and streams, complete or not at all.
#include "coldbrick/error.hpp"
#include "coldbrick/files.hpp"

#include <cerrno>
#include <ostream>
#include <string>
#include <system_error>
#include <utility>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace coldbrick {

namespace fs = std::filesystem;

namespace {

[[noreturn]] void fail(const fs::path& path, int error) {
    throw Error{path.string() + ": cannot be written: " + std::generic_category().message(error)};
}

// A file to write to, closed in any case.
class OpenFile {
  public:
    OpenFile(fs::path path, int flags) : path_{std::move(path)} {
        do {
            descriptor_ = ::open(path_.c_str(), flags | O_WRONLY | O_CLOEXEC, 0666);
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

    // Each returns 0, or the error's number.
    [[nodiscard]] int write(const std::vector<std::uint8_t>& bytes) noexcept {
        for (std::size_t done = 0; done < bytes.size();) {
            const auto count = ::write(descriptor_, bytes.data() + done, bytes.size() - done);
            if (count < 0 && errno != EINTR) return errno;
            if (count > 0) done += static_cast<std::size_t>(count);
        }
        return 0;
    }
    [[nodiscard]] int take_mode(mode_t mode) noexcept { return ::fchmod(descriptor_, mode) == 0 ? 0 : errno; }
    [[nodiscard]] int close() noexcept { return ::close(std::exchange(descriptor_, -1)) == 0 ? 0 : errno; }

  private:
    fs::path path_;
    int descriptor_ = -1;
};

void write_in_place(const fs::path& path, const std::vector<std::uint8_t>& bytes) {
    OpenFile file{path, 0};
    if (!file.is_open()) fail(path, errno);
    if (const auto error = file.write(bytes)) fail(path, error);
    if (const auto error = file.close()) fail(path, error);
}

// A new name in the same folder, so that the move is one step.
fs::path name_beside(const fs::path& path, int attempt) {
    auto name = path;
    name += ".unfinished-" + std::to_string(::getpid()) + "-" + std::to_string(attempt);
    return name;
}

int write_and_move(const fs::path& from, OpenFile& file, const fs::path& path, const struct stat* old,
                   const std::vector<std::uint8_t>& bytes) {
    if (old != nullptr) {
        if (const auto error = file.take_mode(old->st_mode & 07777U)) return error;
    }
    if (const auto error = file.write(bytes)) return error;
    if (const auto error = file.close()) return error;
    return ::rename(from.c_str(), path.c_str()) == 0 ? 0 : errno;
}

void write_beside(const fs::path& path, const struct stat* old, const std::vector<std::uint8_t>& bytes) {
    if (old != nullptr && ::access(path.c_str(), W_OK) != 0) fail(path, errno);
    constexpr auto attempts = 100;
    for (int attempt = 0; attempt < attempts; ++attempt) {
        const auto beside = name_beside(path, attempt);
        OpenFile file{beside, O_CREAT | O_EXCL};
        if (!file.is_open() && errno == EEXIST) continue;
        if (!file.is_open()) fail(path, errno);
        if (const auto error = write_and_move(beside, file, path, old, bytes)) {
            ::unlink(beside.c_str());
            fail(path, error);
        }
        return;
    }
    fail(path, EEXIST);
}

}  // namespace

void write_file(const fs::path& path, const std::vector<std::uint8_t>& bytes) {
    struct stat old {};
    if (::stat(path.c_str(), &old) != 0) return write_beside(path, nullptr, bytes);
    if (S_ISDIR(old.st_mode)) fail(path, EISDIR);
    if (!S_ISREG(old.st_mode)) return write_in_place(path, bytes);
    std::error_code unresolved;
    const auto real = fs::canonical(path, unresolved);  // a link goes on pointing to its file
    write_beside(unresolved ? path : real, &old, bytes);
}

void write_stream(std::ostream& stream, const std::vector<std::uint8_t>& bytes) {
    stream.write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
    stream.flush();
    if (!stream) throw Error{"stream: the picture cannot be written to it"};
}

}  // namespace coldbrick

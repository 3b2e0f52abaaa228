#include "files/byte_source.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cerrno>
#include <string>
#include <system_error>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace coldbrick::inline v0::detail {

void fail_to_read(int error) { throw Error{"cannot be read: " + std::generic_category().message(error)}; }

OpenFile::OpenFile(const std::filesystem::path& path)
    : descriptor_{::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC)} {
    if (descriptor_ < 0) fail_to_read(errno);
}

OpenFile::~OpenFile() { ::close(descriptor_); }

std::uint64_t OpenFile::length() const {
    struct stat status {};
    if (::fstat(descriptor_, &status) != 0) fail_to_read(errno);
    if (S_ISDIR(status.st_mode)) fail_to_read(EISDIR);
    if (!S_ISREG(status.st_mode)) throw Error{"cannot be read: it is a device, a pipe or a socket, and no file"};
    return static_cast<std::uint64_t>(status.st_size);
}

namespace {

// Calls read(done) until there are as many bytes, or no more.
template <class Read>
std::size_t read_until(std::size_t count, const Read& read) {
    for (std::size_t done = 0; done < count;) {
        const auto now = read(done);
        if (now < 0 && errno != EINTR) fail_to_read(errno);
        if (now == 0) return done;
        if (now > 0) done += static_cast<std::size_t>(now);
    }
    return count;
}

}  // namespace

std::size_t OpenFile::read(std::uint8_t* to, std::size_t count) const {
    return read_until(count, [&](std::size_t done) { return ::read(descriptor_, to + done, count - done); });
}

std::size_t OpenFile::read_at(std::uint64_t place, std::uint8_t* to, std::size_t count) const {
    return read_until(count, [&](std::size_t done) {
        return ::pread(descriptor_, to + done, count - done, static_cast<off_t>(place + done));
    });
}

void ByteSource::read(std::uint64_t place, std::uint8_t* to, std::size_t count) const {
    if (file_ == nullptr) {
        std::copy_n(all_.data() + place, count, to);
    } else if (file_->read_at(place, to, count) < count) {
        throw Error{"the file has become shorter while it was read"};
    }
}

FileBytes ByteSource::all() const {
    if (file_ == nullptr) return all_;
    if (read_.empty()) {
        std::vector<std::uint8_t> bytes(static_cast<std::size_t>(size_));
        read(0, bytes.data(), bytes.size());
        read_ = std::move(bytes);
    }
    return read_;
}

}  // namespace coldbrick::inline v0::detail

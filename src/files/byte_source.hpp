// The bytes of a picture file: in memory, or read from the file as they are asked for.
#pragma once

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <optional>
#include <span>
#include <vector>

namespace coldbrick::inline v0::detail {

using FileBytes = std::span<const std::uint8_t>;

// A file that is open for reading. Each throws Error "cannot be read: ...".
class OpenFile {
  public:
    // Opens a pipe without waiting for its writer.
    explicit OpenFile(const std::filesystem::path& path);
    OpenFile(const OpenFile&) = delete;
    OpenFile(OpenFile&&) = delete;
    OpenFile& operator=(const OpenFile&) = delete;
    OpenFile& operator=(OpenFile&&) = delete;
    ~OpenFile();

    // Throws Error for what is no ordinary file.
    [[nodiscard]] std::uint64_t length() const;

    // From where it was read last; returns how many bytes, fewer only at the end.
    std::size_t read(std::uint8_t* to, std::size_t count) const;
    // From a place.
    std::size_t read_at(std::uint64_t place, std::uint8_t* to, std::size_t count) const;

  private:
    int descriptor_;
};

// Throws Error that names the system's error.
[[noreturn]] void fail_to_read(int error);

class ByteSource {
  public:
    explicit ByteSource(FileBytes all) noexcept : size_{all.size()}, all_{all} {}
    // Of a file that has so many bytes, and outlives it.
    ByteSource(const OpenFile& file, std::uint64_t size) noexcept : file_{&file}, size_{size} {}

    [[nodiscard]] std::uint64_t size() const noexcept { return size_; }

    // All of it, if it lies in memory.
    [[nodiscard]] std::optional<FileBytes> in_memory() const noexcept {
        return file_ == nullptr ? std::optional{all_} : std::nullopt;
    }

    // Some of it, which there must be. Throws Error if the file cannot be read, or has become shorter.
    void read(std::uint64_t place, std::uint8_t* to, std::size_t count) const;

    // All of it, for as long as this lives: of a file, read into memory.
    [[nodiscard]] FileBytes all() const;

  private:
    const OpenFile* file_ = nullptr;
    std::uint64_t size_;
    FileBytes all_;
    mutable std::vector<std::uint8_t> read_;
};

}  // namespace coldbrick::inline v0::detail

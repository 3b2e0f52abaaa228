// Calls of libpng, which knows neither exceptions nor destructors.
#pragma once

#include "files/readers.hpp"

#include <algorithm>
#include <csetjmp>
#include <cstdio>
#include <cstdlib>
#include <exception>
#include <new>
#include <string>

#include <png.h>

namespace coldbrick::inline v0::detail {

// A file that is read, and what libpng says of it.
class PngReader {
  public:
    explicit PngReader(const ByteSource& file) noexcept : file_{"png", file} {
        png_ = png_create_read_struct_2(PNG_LIBPNG_VER_STRING, this, on_error, on_warning, this, allocate, release);
        info_ = png_ != nullptr ? png_create_info_struct(png_) : nullptr;
        end_info_ = png_ != nullptr ? png_create_info_struct(png_) : nullptr;
        if (end_info_ != nullptr) png_set_read_fn(png_, this, read);
    }
    PngReader(const PngReader&) = delete;
    PngReader(PngReader&&) = delete;
    PngReader& operator=(const PngReader&) = delete;
    PngReader& operator=(PngReader&&) = delete;
    ~PngReader() { png_destroy_read_struct(&png_, &info_, &end_info_); }

    // Does call(png, info, end_info), in which nothing may need to be undone: a fault leaves it by a long jump. Throws
    // Error for one.
    template <class Call>
    void run(const Call& call) {
        if (info_ == nullptr || end_info_ == nullptr) throw std::bad_alloc{};
        // NOLINTNEXTLINE(cert-err52-cpp): libpng requires it.
        if (setjmp(png_jmpbuf(png_)) != 0) fail();
        call(png_, info_, end_info_);
    }

    [[nodiscard]] std::uint64_t rest() const noexcept { return file_.rest(); }
    [[nodiscard]] const std::vector<std::string>& warnings() const noexcept { return warnings_; }

  private:
    [[noreturn]] void fail() const {
        if (has_no_memory_) throw std::bad_alloc{};
        throw Error{std::string{"png: "} + fault_};
    }

    static void* allocate(png_structp png, png_alloc_size_t bytes) {
        auto* const memory = std::malloc(bytes);
        if (memory == nullptr) static_cast<PngReader*>(png_get_mem_ptr(png))->has_no_memory_ = true;
        return memory;
    }
    static void release(png_structp, void* memory) { std::free(memory); }

    static void read(png_structp png, png_bytep to, std::size_t count) {
        auto& self = *static_cast<PngReader*>(png_get_io_ptr(png));
        if (count > self.rest()) png_error(png, "the file ends too early");
        if (!self.copy(to, count)) png_error(png, self.fault_);
    }
    // Returns whether it could be read, else it sets the fault.
    bool copy(std::uint8_t* to, std::size_t count) noexcept {
        try {
            std::copy_n(file_.take(count).data(), count, to);
            return true;
        } catch (const std::exception& error) {
            std::snprintf(fault_, sizeof fault_, "%s", error.what());
            return false;
        }
    }
    [[noreturn]] static void on_error(png_structp png, png_const_charp message) {
        auto& self = *static_cast<PngReader*>(png_get_error_ptr(png));
        // It has room for any message of libpng.
        if (message != self.fault_) std::snprintf(self.fault_, sizeof self.fault_, "%s", message);
        png_longjmp(png, 1);
    }
    static void on_warning(png_structp png, png_const_charp message) noexcept {
        auto& self = *static_cast<PngReader*>(png_get_error_ptr(png));
        constexpr std::size_t most = 20;
        try {
            if (self.warnings_.size() < most) self.warnings_.emplace_back(message);
        } catch (const std::bad_alloc&) {
            return;
        }
    }

    ByteReader file_;
    png_structp png_ = nullptr;
    png_infop info_ = nullptr;
    png_infop end_info_ = nullptr;
    bool has_no_memory_ = false;
    char fault_[256] = "";
    std::vector<std::string> warnings_;
};

}  // namespace coldbrick::inline v0::detail

// A test with a folder of its own, which goes with the test.
#pragma once

#include <filesystem>
#include <fstream>
#include <iterator>
#include <string>

#include <gtest/gtest.h>
#include <unistd.h>

class FolderTest : public testing::Test {
  protected:
    void SetUp() override {
        const auto* const test = testing::UnitTest::GetInstance()->current_test_info();
        folder_ =
            std::filesystem::temp_directory_path() / ("coldbrick-" + std::to_string(::getpid()) + "-" + test->name());
        std::filesystem::create_directories(folder_);
    }
    void TearDown() override { std::filesystem::remove_all(folder_); }

    [[nodiscard]] const std::filesystem::path& folder() const { return folder_; }
    [[nodiscard]] std::filesystem::path path(const std::string& name) const { return folder_ / name; }

    [[nodiscard]] std::size_t file_count() const {
        return static_cast<std::size_t>(
            std::distance(std::filesystem::directory_iterator{folder_}, std::filesystem::directory_iterator{}));
    }

    static std::string content(const std::filesystem::path& file) {
        std::ifstream stream{file, std::ios::binary};
        return {std::istreambuf_iterator<char>{stream}, std::istreambuf_iterator<char>{}};
    }

    void write(const std::string& name, const std::string& text) const {
        std::ofstream{path(name), std::ios::binary} << text;
    }

  private:
    std::filesystem::path folder_;
};

// The message of the Error that a call throws.
template <class Call>
std::string error_of(const Call& call) {
    try {
        call();
    } catch (const std::exception& error) {
        return error.what();
    }
    return "no error";
}

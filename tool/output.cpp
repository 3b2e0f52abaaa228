#include "output.hpp"

#include <coldbrick/error.hpp>

#include <iostream>

#include <fmt/core.h>

namespace coldbrick::tool {

FileFormat format_for(const SaveArguments& arguments) {
    try {
        if (!arguments.kind.empty()) return file_format_of(std::filesystem::path{"picture." + arguments.kind});
        return arguments.picture == "-" ? FileFormat::png : file_format_of(std::filesystem::path{arguments.picture});
    } catch (const Error& error) {
        if (arguments.kind.empty()) throw WrongCall{error.what()};
        throw WrongCall{
            fmt::format("--kind is {}; allowed are png, jpg, pbm, pgm, ppm, pnm, pam, bmp and qoi", arguments.kind)};
    }
}

SaveOptions options_for(const SaveArguments& arguments) {
    if (arguments.quality < 1 || arguments.quality > 100) {
        throw WrongCall{fmt::format("--quality is {}; allowed is 1 to 100", arguments.quality)};
    }
    return {.effort = arguments.small ? Effort::most : Effort::usual,
            .storage = arguments.small ? Storage::fewest_bits : Storage::as_it_is,
            .quality = arguments.quality};
}

void put_file(const std::string& path, const std::vector<std::uint8_t>& bytes, const std::string& what) {
    const auto is_stdout = path == "-";
    is_stdout ? write_stream(std::cout, bytes) : write_file(path, bytes);
    fmt::print(is_stdout ? stderr : stdout, "{}: {}, {} bytes\n", is_stdout ? "standard output" : path, what,
               bytes.size());
}

}  // namespace coldbrick::tool

// JPEG files put together by libjpeg, apart from the library: of kinds that the library does not write.
#pragma once

#include "png_builder.hpp"

// Before the header that needs it.
#include <cstdio>
#include <cstdlib>

#include <jpeglib.h>

namespace oracle {

// A file of equal rows. set_up(jpeg) says what is special about it, behind the defaults.
template <class SetUp>
Bytes jpeg_file(Bytes row, int height, J_COLOR_SPACE space, int components, const SetUp& set_up) {
    jpeg_compress_struct jpeg{};
    jpeg_error_mgr errors{};
    jpeg.err = jpeg_std_error(&errors);
    jpeg_create_compress(&jpeg);
    unsigned char* memory = nullptr;
    unsigned long length = 0;
    jpeg_mem_dest(&jpeg, &memory, &length);
    jpeg.image_width = static_cast<JDIMENSION>(row.size()) / static_cast<unsigned>(components);
    jpeg.image_height = static_cast<JDIMENSION>(height);
    jpeg.input_components = components;
    jpeg.in_color_space = space;
    jpeg_set_defaults(&jpeg);
    set_up(jpeg);
    jpeg_start_compress(&jpeg, TRUE);
    for (int y = 0; y < height; ++y) {
        JSAMPROW rows[] = {row.data()};
        jpeg_write_scanlines(&jpeg, rows, 1);
    }
    jpeg_finish_compress(&jpeg);
    Bytes file{memory, memory + length};
    jpeg_destroy_compress(&jpeg);
    std::free(memory);
    return file;
}

}  // namespace oracle

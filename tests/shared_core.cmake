cmake_policy(VERSION 3.25)
# The core and words alone, as shared libraries in a project of others: built there without any package, installed, and used from
# there by a project that finds it with CMake, and by a compiler call with pkg-config. All of it has ThreadSanitizer, which goes
# with no other sanitizer: what several threads draw at once is tried with the same libraries.
file(REMOVE_RECURSE ${WORK})
function(run)
    execute_process(COMMAND ${ARGN} COMMAND_ERROR_IS_FATAL ANY)
endfunction()
set(sanitizer -fsanitize=thread)
run(${CMAKE_COMMAND} -S ${OUTSIDE}/parent -B ${WORK}/parent -G ${GENERATOR} -DCOLDBRICK=${SOURCE}
    -DCMAKE_CXX_COMPILER=${COMPILER} -DCMAKE_BUILD_TYPE=Debug -DCMAKE_CXX_FLAGS_DEBUG=-O1
    -DCMAKE_CXX_FLAGS=${sanitizer} -DCMAKE_INSTALL_LIBDIR=lib -DCOLDBRICK_SIMD=OFF -DTHREADS_TEST=${THREADS_TEST})
run(${CMAKE_COMMAND} --build ${WORK}/parent)
run(${WORK}/parent/parent)
run(${WORK}/parent/words)
run(${WORK}/parent/threads)
run(${CMAKE_COMMAND} --install ${WORK}/parent --prefix ${WORK}/prefix)

run(${CMAKE_COMMAND} -S ${OUTSIDE}/core -B ${WORK}/core -G ${GENERATOR} -DCMAKE_CXX_COMPILER=${COMPILER}
    -DCMAKE_CXX_FLAGS=${sanitizer} -DCMAKE_PREFIX_PATH=${WORK}/prefix)
run(${CMAKE_COMMAND} --build ${WORK}/core)
run(${WORK}/core/core_only)

set(ENV{PKG_CONFIG_PATH} ${WORK}/prefix/lib/pkgconfig)
execute_process(COMMAND pkg-config --cflags --libs coldbrick OUTPUT_VARIABLE flags OUTPUT_STRIP_TRAILING_WHITESPACE
    COMMAND_ERROR_IS_FATAL ANY)
separate_arguments(flags)
run(${COMPILER} -std=c++20 ${sanitizer} ${OUTSIDE}/core/main.cpp ${flags} -o ${WORK}/by_pkg_config)
run(${CMAKE_COMMAND} -E env LD_LIBRARY_PATH=${WORK}/prefix/lib ${WORK}/by_pkg_config)

# Its name has the version, and nothing of its insides can be seen.
set(library ${WORK}/prefix/lib/libcoldbrick_core.so)
execute_process(COMMAND nm -DC --defined-only ${library} OUTPUT_VARIABLE symbols COMMAND_ERROR_IS_FATAL ANY)
foreach(inside FineEdges CoverEdges Contours SpanBatch)
    if(symbols MATCHES "[ :]${inside}::")
        message(FATAL_ERROR "${inside} can be seen from outside")
    endif()
endforeach()
if(NOT symbols MATCHES "coldbrick::v0::detail::paint\\(")
    message(FATAL_ERROR "what drawing calls use cannot be seen")
endif()
if(NOT EXISTS ${library}.0.1)
    message(FATAL_ERROR "the library has no version in its name")
endif()
file(GLOB headers RELATIVE ${WORK}/prefix/include/coldbrick ${WORK}/prefix/include/coldbrick/*.hpp)
if("files.hpp" IN_LIST headers OR "coldbrick.hpp" IN_LIST headers OR NOT "draw.hpp" IN_LIST headers)
    message(FATAL_ERROR "other headers than the core's: ${headers}")
endif()

file(REMOVE_RECURSE ${WORK})
execute_process(COMMAND ${CMAKE_COMMAND} --install ${BUILD} --prefix ${WORK}/prefix OUTPUT_QUIET COMMAND_ERROR_IS_FATAL ANY)
# The C++ and the scene of the README are taken from it as they stand.
file(READ ${README} readme)
string(REGEX MATCH "```cpp\n([^`]*)```" code "${readme}")
file(WRITE ${WORK}/readme.cpp "${CMAKE_MATCH_1}")
string(REGEX MATCH "```\n(sheet [^`]*)```" code "${readme}")
file(WRITE ${WORK}/harbour.brick "${CMAKE_MATCH_1}")

execute_process(COMMAND ${CMAKE_COMMAND} -S ${OUTSIDE} -DREADME_PROGRAM=${WORK}/readme.cpp -B ${WORK}/build -G ${GENERATOR}
    -DCMAKE_PREFIX_PATH=${WORK}/prefix -DCMAKE_CXX_COMPILER=${COMPILER} COMMAND_ERROR_IS_FATAL ANY)
execute_process(COMMAND ${CMAKE_COMMAND} --build ${WORK}/build COMMAND_ERROR_IS_FATAL ANY)
execute_process(COMMAND ${WORK}/build/outside ${WORK}/outside.png COMMAND_ERROR_IS_FATAL ANY)
execute_process(COMMAND ${WORK}/prefix/bin/coldbrick --version OUTPUT_VARIABLE version COMMAND_ERROR_IS_FATAL ANY)
if(NOT version MATCHES "^coldbrick [0-9]+\\.[0-9]+\\.[0-9]+\n$")
    message(FATAL_ERROR "unexpected version: ${version}")
endif()

execute_process(COMMAND ${WORK}/build/readme WORKING_DIRECTORY ${WORK} COMMAND_ERROR_IS_FATAL ANY)
file(SIZE ${WORK}/chart.png bytes)
execute_process(COMMAND ${WORK}/prefix/bin/coldbrick render harbour.brick -o harbour.png --scale 8
    WORKING_DIRECTORY ${WORK} OUTPUT_VARIABLE drawn ERROR_VARIABLE warned COMMAND_ERROR_IS_FATAL ANY)
if(NOT drawn MATCHES "576 x 360 pixels, 9 of 9 drawings show" OR NOT warned STREQUAL "")
    message(FATAL_ERROR "the scene of the README: ${drawn}${warned}")
endif()

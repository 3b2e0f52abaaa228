# How the tests are compiled.
# The tests are compiled quickly rather than run quickly; but for those, with sanitizers, that look at every pixel by a
# slow rule of their own.
if(COLDBRICK_SANITIZE)
    target_compile_options(coldbrick_test_objects PRIVATE -O0)
    set_source_files_properties(drawing/drawing_test.cpp shapes/extremes_test.cpp shapes/path_test.cpp shapes/proof_table_test.cpp shapes/regions_test.cpp shapes/round_shapes_test.cpp shapes/round_strokes_test.cpp shapes/shapes_test.cpp
        raster/smooth_strokes_test.cpp raster/smooth_test.cpp raster/strokes_test.cpp text/faces_test.cpp text/fonts_test.cpp text/text_test.cpp
        PROPERTIES COMPILE_OPTIONS -O1 SKIP_PRECOMPILE_HEADERS ON)
else()
    target_compile_options(coldbrick_test_objects PRIVATE -O0)
    set_source_files_properties(text/faces_test.cpp text/fonts_test.cpp text/text_test.cpp shapes/proof_table_test.cpp shapes/round_shapes_test.cpp raster/smooth_test.cpp
        raster/smooth_strokes_test.cpp raster/strokes_test.cpp PROPERTIES COMPILE_OPTIONS -O1 SKIP_PRECOMPILE_HEADERS ON)
endif()
target_precompile_headers(coldbrick_test_objects PRIVATE
    <algorithm> <functional> <map> <random> <string> <vector> <gtest/gtest.h>
    <coldbrick/compose.hpp> <coldbrick/drawing.hpp> <coldbrick/draw_each.hpp> <coldbrick/error.hpp> <coldbrick/path.hpp>)
target_compile_definitions(coldbrick_test_objects PRIVATE
    COLDBRICK_SCENES="${PROJECT_SOURCE_DIR}/demo/scenes"
    COLDBRICK_TESTS="${CMAKE_CURRENT_SOURCE_DIR}")
target_compile_options(coldbrick_memory_test_objects PRIVATE -O0)

# The headers of several tests are read once. What they have in namespaces without a name must not be named alike.
function(coldbrick_together)
    set(sources "")
    foreach(name IN LISTS ARGN)
        set(found ${test_sources})
        list(FILTER found INCLUDE REGEX "/${name}_test\\.cpp$")
        list(APPEND sources ${found})
    endforeach()
    set_source_files_properties(${sources} PROPERTIES UNITY_GROUP ${ARGV0})
endfunction()
if(COLDBRICK_UNITY)
    # What one of them has may hide what another one has.
    set_target_properties(coldbrick_test_objects PROPERTIES UNITY_BUILD ON UNITY_BUILD_MODE GROUP
        UNITY_BUILD_CODE_BEFORE_INCLUDE "#pragma GCC diagnostic ignored \"-Wshadow\"")
    coldbrick_together(areas bands bit1 blending)
    coldbrick_together(broken_files color compare)
    coldbrick_together(corners each exact_areas)
    coldbrick_together(budget crowded hostile_fonts)
    coldbrick_together(explain faults)
    coldbrick_together(excerpt explain_calls)
    coldbrick_together(figure film_files font_texts frames)
    coldbrick_together(files geometry hostile_calls inks)
    coldbrick_together(hostile_files jpeg_files load painting)
    coldbrick_together(few_pixels png_rows rows)
    coldbrick_together(hostile_scenes pixels scene_inks scene_pictures)
    coldbrick_together(scene_flow rings table recording)
    coldbrick_together(scene_values scene)
    coldbrick_together(scene_texts open_ends)
    coldbrick_together(tool_explain tool_frames tool_look tool)
endif()

# What is installed: the headers, a library for each layer, and for each what finds it with CMake and with pkg-config.
include(CMakePackageConfigHelpers)
if(NOT DEFINED BUILD_SHARED_LIBS)
    set(BUILD_SHARED_LIBS OFF)
endif()

set(coldbrick_cmake_dir ${CMAKE_INSTALL_LIBDIR}/cmake/coldbrick)
# From where pkg-config finds its files to the prefix, wherever that is.
file(RELATIVE_PATH coldbrick_up /${CMAKE_INSTALL_LIBDIR}/pkgconfig /)

# What each layer needs, by pkg-config's names: of the layers, and packages.
set(files_requires coldbrick-core)
set(files_packages "libpng libjpeg libgif libwebp libwebpmux libwebpdemux libdeflate")
set(text_requires coldbrick-core)
set(text_packages "")
if(COLDBRICK_FONTS)
    set(text_packages "freetype2 harfbuzz fribidi icu-uc")
endif()
set(scene_requires "coldbrick-core, coldbrick-files, coldbrick-text")
set(scene_packages "")
set(core_description "Draws straight into pixel buffers, by published pixel rules")
set(files_description "Picture files for Cold Brick")
set(text_description "Words as shapes for Cold Brick")
set(scene_description "The scene language of Cold Brick")

# Headers of layers that are left out are left out too.
set(headers_of_files file_format files frames load)
set(headers_of_text face text)
set(headers_of_scene scene table)
set(headers_of_all coldbrick)
set(left_out "")
foreach(layer files text scene)
    if(NOT layer IN_LIST coldbrick_layers)
        foreach(header IN LISTS headers_of_${layer} headers_of_all)
            list(APPEND left_out PATTERN ${header}.hpp EXCLUDE)
        endforeach()
    endif()
endforeach()
install(DIRECTORY ${PROJECT_SOURCE_DIR}/include/coldbrick DESTINATION ${CMAKE_INSTALL_INCLUDEDIR} ${left_out})

set(all_requires "")
foreach(layer IN LISTS coldbrick_layers)
    install(TARGETS coldbrick_${layer} EXPORT coldbrick-${layer})
    install(EXPORT coldbrick-${layer} NAMESPACE coldbrick:: FILE coldbrick-${layer}-targets.cmake
        DESTINATION ${coldbrick_cmake_dir})
    set(name coldbrick-${layer})
    set(description "${${layer}_description}")
    set(requires "${${layer}_requires}")
    set(packages "${${layer}_packages}")
    set(libraries "-L\${libdir} -lcoldbrick_${layer}")
    configure_file(${PROJECT_SOURCE_DIR}/cmake/coldbrick.pc.in ${PROJECT_BINARY_DIR}/${name}.pc @ONLY)
    list(APPEND all_requires ${name})
    install(FILES ${PROJECT_BINARY_DIR}/${name}.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
endforeach()
set(name coldbrick)
set(description "All of Cold Brick")
list(JOIN all_requires ", " requires)
set(packages "")
set(libraries "")
configure_file(${PROJECT_SOURCE_DIR}/cmake/coldbrick.pc.in ${PROJECT_BINARY_DIR}/coldbrick.pc @ONLY)
install(FILES ${PROJECT_BINARY_DIR}/coldbrick.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)

configure_package_config_file(${PROJECT_SOURCE_DIR}/cmake/coldbrick-config.cmake.in
    ${PROJECT_BINARY_DIR}/coldbrick-config.cmake INSTALL_DESTINATION ${coldbrick_cmake_dir})
write_basic_package_version_file(${PROJECT_BINARY_DIR}/coldbrick-config-version.cmake
    VERSION ${PROJECT_VERSION} COMPATIBILITY SameMinorVersion)
install(FILES ${PROJECT_BINARY_DIR}/coldbrick-config.cmake ${PROJECT_BINARY_DIR}/coldbrick-config-version.cmake
    DESTINATION ${coldbrick_cmake_dir})

#!/usr/bin/env bash
# Builds the libraries that read files of strangers (libpng, libwebp, giflib, FreeType, HarfBuzz) out of Debian's sources,
# instrumented for the fuzz targets as the library itself is: scripts/fuzz_libraries.sh. They go to build/fuzz-libraries, and
# scripts/fuzz.sh takes them from there if they are there. Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing dpkg-dev clang libclang-rt-14-dev cmake ninja-build meson zlib1g-dev

work="$PWD/build/fuzz-libraries"
mkdir -p "$work/sources"
as_root=()
[ "$(id -u)" -eq 0 ] || as_root=(sudo)

# Where packages come from, their sources come from too: in lists of their own, which change nothing of the system's.
lists="$work/apt"
mkdir -p "$lists/lists/partial" "$lists/parts"
{
    cat /etc/apt/sources.list 2>/dev/null || true
    cat /etc/apt/sources.list.d/*.list 2>/dev/null || true
} | sed -n 's/^deb /deb-src /p' >"$lists/sources.list"
for file in /etc/apt/sources.list.d/*.sources; do
    [ -f "$file" ] && sed 's/^Types:.*/Types: deb-src/' "$file" >"$lists/parts/$(basename "$file")"
done
options=(-o "Dir::Etc::sourcelist=$lists/sources.list" -o "Dir::Etc::sourceparts=$lists/parts"
    -o "Dir::State::lists=$lists/lists" -o APT::Get::List-Cleanup=0 -o APT::Sandbox::User=root)
"${as_root[@]}" apt-get -qq "${options[@]}" update

export CC=clang CXX=clang++
flags="-O1 -g1 -fno-omit-frame-pointer -fsanitize=address,undefined,fuzzer-no-link -fno-sanitize=function,vptr"
export CFLAGS="$flags" CXXFLAGS="$flags"
export PKG_CONFIG_PATH="$work/lib/pkgconfig" CMAKE_PREFIX_PATH="$work"

# The newest version of which the sources are there.
fetch() {
    local name=$1 version
    [ ! -d "$work/sources/$name" ] || return 0
    cd "$work/sources"
    for version in $(apt-cache "${options[@]}" showsrc "$name" | sed -n 's/^Version: //p' | sort -rVu); do
        if apt-get -qq "${options[@]}" source --download-only "$name=$version" >/dev/null 2>&1; then
            dpkg-source --no-check -x "$name"_*.dsc "$name" >/dev/null 2>&1
            break
        fi
    done
    cd - >/dev/null
    [ -d "$work/sources/$name" ] || { echo "the sources of $name cannot be had" >&2 && exit 1; }
}
with_cmake() {
    local name=$1
    shift
    fetch "$name"
    cmake -S "$work/sources/$name" -B "$work/build/$name" -G Ninja -DCMAKE_BUILD_TYPE=None -DBUILD_SHARED_LIBS=OFF \
        -DCMAKE_POSITION_INDEPENDENT_CODE=ON -DCMAKE_INSTALL_PREFIX="$work" -DCMAKE_INSTALL_LIBDIR=lib "$@" >/dev/null
    cmake --build "$work/build/$name" >/dev/null
    cmake --install "$work/build/$name" >/dev/null
    echo "$name is there"
}

with_cmake libpng1.6 -DPNG_SHARED=OFF -DPNG_TESTS=OFF -DPNG_EXECUTABLES=OFF
with_cmake libwebp -DWEBP_BUILD_ANIM_UTILS=OFF -DWEBP_BUILD_CWEBP=OFF -DWEBP_BUILD_DWEBP=OFF -DWEBP_BUILD_GIF2WEBP=OFF \
    -DWEBP_BUILD_IMG2WEBP=OFF -DWEBP_BUILD_VWEBP=OFF -DWEBP_BUILD_WEBPINFO=OFF -DWEBP_BUILD_WEBPMUX=OFF -DWEBP_BUILD_EXTRAS=OFF
with_cmake freetype -DFT_DISABLE_BROTLI=ON -DFT_DISABLE_BZIP2=ON -DFT_DISABLE_HARFBUZZ=ON -DFT_DISABLE_PNG=ON
with_cmake harfbuzz -DHB_HAVE_FREETYPE=ON
fetch giflib
make -s -C "$work/sources/giflib" libgif.a CC="$CC" CFLAGS="$flags -fPIC" >/dev/null
install -D -m 644 "$work/sources/giflib/libgif.a" "$work/lib/libgif.a"
install -D -m 644 "$work/sources/giflib/gif_lib.h" "$work/include/gif_lib.h"
echo "giflib is there"

#!/usr/bin/env bash
# Builds the core for other processors (64 bits; 64 bits with the bytes in the other order; 32 bits), draws the same
# pictures on all of them, the others emulated, and compares the checksums with those of this one: once as it is built
# here, and once more with flags with which a caller's own arithmetic is not exact. Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing g++ cmake ninja-build g++-aarch64-linux-gnu g++-s390x-linux-gnu g++-arm-linux-gnueabihf qemu-user

build=build/elsewhere
draw() {
    local name=$1 run=$2
    shift 2
    [ -f "$build/$name/build.ninja" ] ||
        cmake -S tests/elsewhere -B "$build/$name" -G Ninja -DCMAKE_BUILD_TYPE=Release "$@" >/dev/null
    cmake --build "$build/$name" >"$build/$name.log" || { cat "$build/$name.log" >&2; exit 1; }
    $run "$build/$name/checksums" >"$build/$name.txt"
}
elsewhere() {
    draw "$1" "$2 -L /usr/$1" -DCMAKE_SYSTEM_NAME=Linux -DCMAKE_SYSTEM_PROCESSOR="${1%%-*}" -DCMAKE_CXX_COMPILER="$1-g++"
    same "$1"
}
same() {
    if cmp -s "$build/here.txt" "$build/$1.txt"; then
        echo "$1: the same $(wc -l <"$build/here.txt") checksums"
    else
        echo "$1: other checksums than here:" >&2
        diff "$build/here.txt" "$build/$1.txt" >&2 || true
        failed=1
    fi
}
failed=0
draw here "" -DCOLDBRICK_SIMD=ON
cat "$build/here.txt"
draw plain "" -DCOLDBRICK_SIMD=OFF
same plain
elsewhere aarch64-linux-gnu qemu-aarch64
elsewhere s390x-linux-gnu qemu-s390x
elsewhere arm-linux-gnueabihf qemu-arm
exit "$failed"

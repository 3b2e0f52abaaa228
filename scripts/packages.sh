#!/usr/bin/env bash
# Sourced: installs the named Debian packages that are missing, with sudo when not root.
install_missing() {
    local missing=()
    local package
    for package in "$@"; do
        [ "$(dpkg-query -W -f='${db:Status-Status}' "$package" 2>/dev/null)" = installed ] || missing+=("$package")
    done
    [ "${#missing[@]}" -gt 0 ] || return 0
    echo "Installing: ${missing[*]}"
    local as_root=()
    [ "$(id -u)" -eq 0 ] || as_root=(sudo)
    "${as_root[@]}" apt-get update -qq
    "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

# What the library and the tool are built with.
build_packages=(g++ cmake ninja-build pkg-config libpng-dev libjpeg-dev libdeflate-dev libfreetype-dev libharfbuzz-dev libfribidi-dev libicu-dev libgif-dev libwebp-dev libcli11-dev libfmt-dev nlohmann-json3-dev libcpp-httplib-dev libjs-codemirror)

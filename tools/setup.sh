#!/bin/sh
# SPDX-License-Identifier: GPL-3.0-or-later
# Sourced by ./demo and ./check: installs the Debian packages that are missing. As root, or through sudo.
set -eu

install_missing() {
  missing=
  for package in "$@"; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || missing="$missing $package"
  done
  [ -z "$missing" ] && return 0
  as_root=
  [ "$(id -u)" = 0 ] || as_root=sudo
  echo "Installing:$missing"
  $as_root env DEBIAN_FRONTEND=noninteractive apt-get update -q
  # shellcheck disable=SC2086
  $as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends $missing
}

build_packages="g++ cmake ninja-build ccache qt6-base-dev qt6-svg-dev qt6-serialport-dev libpoppler-qt6-dev pkg-config libeigen3-dev libboost-dev libfmt-dev libnlopt-dev robin-map-dev
  nlohmann-json3-dev libcli11-dev catch2 xvfb xauth"
check_packages="libbenchmark-dev python3 python3-jsonschema python3-ezdxf poppler-utils"

if [ -z "${XDG_RUNTIME_DIR:-}" ]; then
  XDG_RUNTIME_DIR=$(mktemp -d)
  export XDG_RUNTIME_DIR
fi

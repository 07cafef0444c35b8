#!/usr/bin/env bash
# Installs the Debian packages of tools/packages.txt that are missing; sudo only when not root.
set -euo pipefail
cd "$(dirname "$0")/.."
wanted=$(grep -v '^#' tools/packages.txt)
missing=()
for package in $wanted; do
  dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'install ok installed' || missing+=("$package")
done
if [ "${#missing[@]}" -gt 0 ]; then
  as_root=""
  [ "$(id -u)" -eq 0 ] || as_root="sudo"
  echo "Installing: ${missing[*]}"
  $as_root apt-get update -qq
  DEBIAN_FRONTEND=noninteractive $as_root apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
fi

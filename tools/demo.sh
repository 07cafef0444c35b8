#!/usr/bin/env bash
# Installs what is missing, builds, and opens Erdwerk with the Quillmoor demo.
#   tools/demo.sh                     opens the window (under Xvfb when there is no display)
#   tools/demo.sh --screenshot FILE   takes a picture of it and ends; --show LIST says what of
set -euo pipefail
cd "$(dirname "$0")/.."
tools/setup.sh
[ -f build/release/build.ninja ] || cmake --preset release >/dev/null
cmake --build --preset release --target erdwerk
run=(build/release/bin/erdwerk --demo "$@")
if [ -n "${DISPLAY:-}${WAYLAND_DISPLAY:-}" ]; then
  exec "${run[@]}"
fi
exec xvfb-run -a -s "-screen 0 1600x1000x24" "${run[@]}"

#!/usr/bin/env bash
# What the last build took, from Ninja's log: units, processor time, the dearest twenty, and the headers that cost most (what they
# and all they include add up to, over the units that include them; a slow part of it, left out with --units).
#   tools/times.sh [PRESET] [--units]
set -euo pipefail
cd "$(dirname "$0")/.."
exec python3 tools/times.py "$@"

#!/usr/bin/env bash
# Builds the fuzz targets with Clang and runs each for a minute (or as many seconds as given). What they find
# is left in build/fuzz/found and ends the run with an error: it becomes a test first, then a fix.
set -euo pipefail
cd "$(dirname "$0")/.."
seconds=${1:-60}
cmake --preset fuzz >/dev/null
cmake --build --preset fuzz >/dev/null
seeds=build/fuzz/seeds
found=build/fuzz/found
mkdir -p "$seeds" "$found"
build/fuzz/bin/fuzz-seeds "$seeds"
failed=0
for reader in csv las ply landxml project; do
  echo "== $reader, $seconds s"
  build/fuzz/bin/fuzz-$reader -max_total_time="$seconds" -max_len=65536 -rss_limit_mb=4096 -timeout=20 \
    -print_final_stats=1 -artifact_prefix="$found/$reader-" "$seeds/$reader" 2>&1 |
    grep -E "stat::number_of_executed_units|ERROR|SUMMARY|Test unit written" || failed=1
done
if [ -n "$(ls -A "$found")" ]; then
  echo "found:"; ls "$found"; exit 1
fi
exit $failed

#!/usr/bin/env bash
# Builds the fuzz target with Clang and runs it for a minute (or as many seconds as given) on each format that is read. What they find
# is left in build/fuzz/found and ends the run with an error: it becomes a test first, then a fix.
set -euo pipefail
cd "$(dirname "$0")/.."
seconds=${1:-60}
cmake --preset fuzz >/dev/null
cmake --build --preset fuzz >/dev/null
seeds=build/fuzz/seeds
found=build/fuzz/found
mkdir -p "$seeds" "$found"
failed=0
for ending in $(build/fuzz/bin/fuzz-seeds "$seeds"); do
  echo "== $ending, $seconds s"
  FUZZ_ENDING=$ending build/fuzz/bin/fuzz-format -max_total_time="$seconds" -max_len=65536 -rss_limit_mb=4096 -timeout=20 \
    -print_final_stats=1 -artifact_prefix="$found/${ending#.}-" "$seeds/${ending#.}" 2>&1 |
    grep -E "stat::number_of_executed_units|ERROR|SUMMARY|Test unit written" || failed=1
done
if [ -n "$(ls -A "$found")" ]; then
  echo "found:"; ls "$found"; exit 1
fi
exit $failed

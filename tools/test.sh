#!/usr/bin/env bash
# All the set-up and every check and test: format, layers, sizes, build, windows under Xvfb, the core's tests with sanitizers,
# clang-tidy. What was compiled or checked before on this machine, in any clone, is not done again. Closes with ctest's own summary.
set -euo pipefail
cd "$(dirname "$0")/.."
last=$SECONDS
step() { printf '\n== %s (%d s so far, the last step %d s)\n' "$*" "$SECONDS" "$((SECONDS - last))"; last=$SECONDS; }

step "packages"
tools/setup.sh

step "format"
git ls-files '*.cpp' '*.h' | xargs clang-format --dry-run --Werror

step "layers, sizes"
python3 tools/check_layers.py
python3 tools/check_sizes.py

step "release build"
cmake --preset release >/dev/null
# All but the core tests, which are built and run once, with sanitizers.
cmake --build --preset release --target erdwerk erdwerk-cli erdwerk-demo-site app-tests cli-tests case-runner benches

step "core tests with sanitizers, build"
cmake --preset sanitize >/dev/null
cmake --build --preset sanitize --target core-tests
step "core tests with sanitizers"
parts=()
for part in 0 1; do
  GTEST_TOTAL_SHARDS=2 GTEST_SHARD_INDEX=$part UBSAN_OPTIONS=print_stacktrace=1 ASAN_OPTIONS=detect_leaks=0 \
    build/sanitize/bin/core-tests --gtest_brief=1 &
  parts+=($!)
done
for part in "${parts[@]}"; do wait "$part"; done

step "clang-tidy"
python3 tools/tidy.py

step "tests"
ctest --preset release -j 2 -LE '^core$' -E core-tests_NOT_BUILT
step "done"

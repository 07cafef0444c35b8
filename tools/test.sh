#!/usr/bin/env bash
# All the set-up and every check: format, layers, sizes, build, tests (windows under Xvfb), sanitizer run of the core tests,
# clang-tidy. Closes with ctest's own summary.
set -euo pipefail
cd "$(dirname "$0")/.."
step() { printf '\n== %s (%d s so far)\n' "$*" "$SECONDS"; }

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

step "core tests with sanitizers"
cmake --preset sanitize >/dev/null
cmake --build --preset sanitize --target core-tests
parts=()
for part in 0 1; do
  GTEST_TOTAL_SHARDS=2 GTEST_SHARD_INDEX=$part UBSAN_OPTIONS=print_stacktrace=1 ASAN_OPTIONS=detect_leaks=0 \
    build/sanitize/bin/core-tests --gtest_brief=1 &
  parts+=($!)
done
for part in "${parts[@]}"; do wait "$part"; done

step "clang-tidy"
# Without the precompiled header: the other compiler cannot read it, and each file then stands for what it includes.
mkdir -p build/tidy
sed -E "s#-include [^ ]*cmake_pch.hxx##g; s#-Winvalid-pch##g" build/release/compile_commands.json > build/tidy/compile_commands.json
# The units with CGAL or GDAL inside take minutes each and are left to the compiler's warnings.
git ls-files 'src/core/*.cpp' 'src/cli/*.cpp' | grep -vE 'terrain/build|geometry/predicates|geometry/box_index|format/vector_file' |
  xargs -P 2 -n 6 clang-tidy -p build/tidy --quiet --extra-arg=-Wno-unknown-warning-option 2>/dev/null

step "tests"
ctest --preset release -j 2 -LE '^core$' -E core-tests_NOT_BUILT

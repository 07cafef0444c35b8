#!/usr/bin/env bash
# The window's tests with AddressSanitizer and its leak check, and those with workers with ThreadSanitizer. Takes long: each
# builds the application anew. "tools/sanitize.sh address" or "… thread" runs one of them.
set -euo pipefail
cd "$(dirname "$0")/.."
which="${1:-both}"
if [ "$which" != thread ]; then
  cmake --preset sanitize-app >/dev/null
  cmake --build --preset sanitize-app
  LSAN_OPTIONS="suppressions=$PWD/tools/leaks.txt:print_suppressions=0" ASAN_OPTIONS=detect_leaks=1 UBSAN_OPTIONS=print_stacktrace=1 \
    xvfb-run -a -s "-screen 0 1600x1000x24" build/sanitize-app/bin/app-tests --gtest_brief=1
fi
if [ "$which" != address ]; then
  cmake --preset sanitize-thread >/dev/null
  cmake --build --preset sanitize-thread
  TSAN_OPTIONS="suppressions=$PWD/tools/threads.txt" \
    xvfb-run -a -s "-screen 0 1600x1000x24" build/sanitize-thread/bin/app-tests --gtest_brief=1 --gtest_filter='Keeping.*:Edits.*:Plan.*'
fi

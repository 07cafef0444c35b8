#!/usr/bin/env python3
"""Checks that no function is longer than 60 lines and no source or test file longer than 450. Exits 1 with file, line and
length."""
import pathlib
import re
import sys

FUNCTION = 60
FILE = 450
# Function definitions stand at the margin, or one step in, inside a class; what opens otherwise is no function.
OPENS = re.compile(r"^( {0,8})(?! )(?!namespace|struct|class|enum|union|extern|if|for|while|switch|else|do|case|public|private|return)"
                   r"[^#/\s].*\{$")
NO_FUNCTION = re.compile(r"^\s*(?:\[\[nodiscard\]\] )?(?:inline |static |const |constexpr |thread_local )*"
                         r"(?:namespace|struct|class|enum|union|extern)\b|=\s*\{$|^\s*\{$")


def functions(lines):
    """(first line, length) of what looks like a function in clang-format's layout."""
    skip_until = -1
    for number, line in enumerate(lines):
        if number <= skip_until:
            continue
        match = OPENS.match(line)
        start = number
        if not match or NO_FUNCTION.search(line):
            continue
        # The head may have begun on lines before.
        while start > 0 and lines[start - 1].strip() and not re.search(r"[;{}:]$|^\s*//", lines[start - 1]):
            start -= 1
        head = " ".join(lines[start:number + 1])
        if "(" not in head or re.match(r"^\s*(?:struct|class|enum|namespace)\b", head):
            continue
        indent = len(lines[start]) - len(lines[start].lstrip())
        for end in range(number + 1, len(lines)):
            if re.match(r"^ {%d}\}" % indent, lines[end]):
                yield start + 1, end - number + 1
                skip_until = end
                break


def main():
    root = pathlib.Path(__file__).resolve().parent.parent
    bad = 0
    for folder in ("src", "tests", "bench"):
        for path in sorted(list((root / folder).rglob("*.h")) + list((root / folder).rglob("*.cpp"))):
            lines = path.read_text(encoding="utf-8").splitlines()
            name = path.relative_to(root)
            if len(lines) > FILE:
                print(f"{name}: {len(lines)} lines; at most {FILE}")
                bad += 1
            for number, length in functions(lines):
                if length > FUNCTION:
                    print(f"{name}:{number}: a function of {length} lines; at most {FUNCTION}")
                    bad += 1
    return 1 if bad else 0


sys.exit(main())

#!/usr/bin/env python3
"""Checks that includes point one way: base, geometry, the field folders in their order, document, check, format, cli and app;
and that the core knows nothing of Qt. Exits 1 with file, line and reason."""
import pathlib
import re
import sys

ORDER = ["base", "geometry", "survey", "terrain", "linework", "earthwork", "route", "parcel", "annotate", "document", "operations", "check", "format"]
INCLUDE = re.compile(r'^\s*#include\s+[<"]([^>"]+)[>"]')


def problems(root):
    for path in sorted(list((root / "src").rglob("*.h")) + list((root / "src").rglob("*.cpp"))):
        parts = path.relative_to(root / "src").parts
        for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
            match = INCLUDE.match(line)
            if not match:
                continue
            target = match.group(1)
            words = target.split("/")
            where = f"{path.relative_to(root)}:{number}"
            if parts[0] == "core":
                if words[0] in ("app", "cli"):
                    yield f"{where}: the core includes {target}"
                if re.match(r"Q[A-Z]", target) or target.startswith("Qt"):
                    yield f"{where}: the core includes Qt ({target})"
                if words[0] == "core":
                    if words[1] not in ORDER or parts[1] not in ORDER:
                        yield f"{where}: unknown room {words[1]} or {parts[1]}"
                    elif ORDER.index(words[1]) > ORDER.index(parts[1]):
                        yield f"{where}: {parts[1]} includes {words[1]}, which comes after it"
            if parts[0] == "cli" and words[0] == "app":
                yield f"{where}: the command line includes the application"
            if parts[0] == "app" and words[0] == "cli":
                yield f"{where}: the application includes the command line"


def main():
    root = pathlib.Path(__file__).resolve().parent.parent
    found = list(problems(root))
    for problem in found:
        print(problem)
    return 1 if found else 0


sys.exit(main())

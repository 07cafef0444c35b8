#!/usr/bin/env python3
"""Checks that includes point one way, in the core and in the application; and that the core knows nothing of Qt. Exits 1
with file, line and reason."""
import pathlib
import re
import sys

CORE = ["base", "geometry", "survey", "terrain", "linework", "earthwork", "route", "parcel", "annotate", "paper", "objects",
        "document", "derive", "operations", "check", "format"]
APP = ["base", "plan", "scene", "section", "kinds", "sheet", "tools", "bench", "panels", "window"]
INCLUDE = re.compile(r'^\s*#include\s+[<"]([^>"]+)[>"]')


def room_problems(where, order, own, target):
    words = target.split("/")
    if len(words) < 3 or own == "main.cpp":
        return
    if words[1] not in order or own not in order:
        yield f"{where}: unknown room {words[1]} or {own}"
    elif order.index(words[1]) > order.index(own):
        yield f"{where}: {own} includes {words[1]}, which comes after it"


def problems(root):
    for path in sorted(list((root / "src").rglob("*.h")) + list((root / "src").rglob("*.cpp"))):
        parts = path.relative_to(root / "src").parts
        name = str(path.relative_to(root))
        for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
            match = INCLUDE.match(line)
            if not match:
                continue
            target = match.group(1)
            first = target.split("/")[0]
            where = f"{name}:{number}"
            if parts[0] == "core":
                if first in ("app", "cli"):
                    yield f"{where}: the core includes {target}"
                if re.match(r"Q[A-Z]", target) or target.startswith("Qt"):
                    yield f"{where}: the core includes Qt ({target})"
                if first == "core":
                    yield from room_problems(where, CORE, parts[1], target)
            if parts[0] == "cli" and first == "app":
                yield f"{where}: the command line includes the application"
            if parts[0] == "app":
                if first == "cli":
                    yield f"{where}: the application includes the command line"
                if first == "app":
                    yield from room_problems(where, APP, parts[1], target)


def main():
    root = pathlib.Path(__file__).resolve().parent.parent
    found = list(problems(root))
    for problem in found:
        print(problem)
    return 1 if found else 0


sys.exit(main())

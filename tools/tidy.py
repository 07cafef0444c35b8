#!/usr/bin/env python3
"""clang-tidy over the core and the command line, each file once: what was found clean is remembered by the file, all that it
includes, its flags and the settings, for every clone on the machine. Prints what is found and ends with 1.

Needs a finished release build: it says what each file includes. Remembered in ~/.cache/erdwerk/tidy (XDG_CACHE_HOME)."""
import concurrent.futures
import hashlib
import json
import os
import pathlib
import re
import subprocess
import sys

root = pathlib.Path(__file__).resolve().parent.parent
build = root / "build" / "release"
memory = pathlib.Path(os.environ.get("XDG_CACHE_HOME", pathlib.Path.home() / ".cache")) / "erdwerk" / "tidy"
# The units with CGAL or GDAL inside take minutes each and are left to the compiler's warnings.
left_out = re.compile(r"terrain/build\.cpp|geometry/predicates\.cpp|geometry/box_index\.cpp|format/vector_file\.cpp")


def run(*words, **more):
    return subprocess.run(words, capture_output=True, text=True, **more)


def included():
    """Of each object and precompiled header what it was made from, as Ninja knows it."""
    out, at = {}, None
    for line in run("ninja", "-C", str(build), "-t", "deps").stdout.splitlines():
        if line.startswith("    "):
            at.append(os.path.normpath(build / line.strip()))
        elif ": #deps" in line:
            at = out.setdefault(os.path.normpath(build / line.split(":")[0]), [])
    return out


def commands(folder):
    """Those of the files to check, without the precompiled header: the other compiler cannot read it, and each file then stands
    for what it includes."""
    out = []
    for entry in json.loads((build / "compile_commands.json").read_text()):
        command = re.sub(r"-include \S*cmake_pch\.hxx|-Winvalid-pch|-fpch-preprocess", "", entry["command"])
        unit = pathlib.Path(entry["file"])
        if unit.parent.name != "together":
            out.append(dict(entry, command=command))
            continue
        # Files that are compiled together are read one by one: each includes what it needs.
        for name in re.findall(r'#include "(.+)"', unit.read_text()):
            file = str(next(root / top / name for top in ("src", "tests") if (root / top / name).exists()))
            out.append(dict(entry, file=file, command=command.replace(str(unit), file)))
    folder.mkdir(parents=True, exist_ok=True)
    (folder / "compile_commands.json").write_text(json.dumps(out))
    return out


def digest_of(path, known={}):
    if path not in known:
        inside = path.is_relative_to(root)
        known[path] = hashlib.sha256(path.read_bytes()).hexdigest() if inside else str(path.stat().st_size)
    return known[path]


def key_of(entry, deps, settings):
    text = hashlib.sha256(settings)
    # How hard the compiler tries, and where it puts what, is nothing to clang-tidy.
    flags = re.sub(r" -(O\d|o \S+|MD|MT \S+|MF \S+)(?= )", "", entry["command"])
    text.update(flags.replace(str(root), ".").encode())
    waiting, seen = [os.path.normpath(build / re.search(r" -o (\S+)", entry["command"])[1])], set()
    while waiting:
        for name in deps.get(waiting.pop(), []):
            if name in seen:
                continue
            seen.add(name)
            if name.endswith(".gch"):
                waiting.append(name)
    if not seen:
        return None  # not built: nothing is known of it
    for name in sorted(seen):
        path = pathlib.Path(name)
        if path.is_relative_to(build):
            continue
        shown = path.relative_to(root) if path.is_relative_to(root) else path
        text.update(f"{shown} {digest_of(path)}\n".encode())
    return text.hexdigest()


def main():
    folder = root / "build" / "tidy"
    settings = (root / ".clang-tidy").read_bytes() + run("clang-tidy", "--version").stdout.encode()
    deps = included()
    wanted, remembered = [], 0
    for entry in commands(folder):
        name = os.path.relpath(entry["file"], root)
        if not re.match(r"src/(core|cli)/.*\.cpp$", name) or left_out.search(name):
            continue
        key = key_of(entry, deps, settings)
        if key and (memory / key).exists():
            remembered += 1
        else:
            wanted.append((name, key))
    memory.mkdir(parents=True, exist_ok=True)

    def check(job):
        name, key = job
        done = run("clang-tidy", "-p", str(folder), "--quiet", "--extra-arg=-Wno-unknown-warning-option", name, cwd=root)
        if done.returncode == 0 and key:
            (memory / key).touch()
        # One that died says nothing of the file: a failure all the same.
        return "" if done.returncode == 0 else done.stdout or f"{name}: clang-tidy ended with {done.returncode}\n{done.stderr}"

    found = False
    with concurrent.futures.ThreadPoolExecutor(2) as pool:
        for text in pool.map(check, wanted):
            found = found or bool(text)
            print(text, end="", flush=True)
    print(f"{len(wanted)} files checked, {remembered} known to be clean")
    return 1 if found else 0


sys.exit(main())

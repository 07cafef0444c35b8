"""See times.sh."""
import collections
import json
import os
import pathlib
import re
import resource
import subprocess
import sys
import tempfile

root = pathlib.Path(__file__).resolve().parent.parent
words = [w for w in sys.argv[1:] if not w.startswith("--")]
build = root / "build" / (words[0] if words else "release")


def units():
    """Seconds of each object and precompiled header, as it was made last."""
    out = {}
    # The log remembers what is no longer built, too.
    now = set(re.findall(r" -o (\S+)", (build / "compile_commands.json").read_text()))
    for line in (build / ".ninja_log").read_text().splitlines():
        part = line.split("\t")
        if len(part) == 5 and (part[3] in now or part[3].endswith(".gch")):
            out[part[3]] = (int(part[1]) - int(part[0])) / 1000
    return out


def shown(name):
    return re.sub(r"CMakeFiles/[\w-]+\.dir/", "", name)


def headers():
    """How many units include each of our headers."""
    count = collections.Counter()
    for line in subprocess.run(["ninja", "-C", build, "-t", "deps"], capture_output=True, text=True).stdout.splitlines():
        if line.startswith("    "):
            name = os.path.relpath(os.path.normpath(build / line.strip()), root)
            if name.startswith("src/") and name.endswith(".h"):
                count[name] += 1
    return count


def cost(header, like):
    """Processor seconds that a unit with only this header takes more than an empty one, with the flags of `like`."""
    command = re.search(r"(\S*/(?:c\+\+|g\+\+|clang\+\+)\s.*)$", like["command"])[1]
    command = re.sub(r" -o \S+ -c \S+$", "", command)
    taken = []
    for text in ("", f'#include "{header[4:]}"\n'):
        with tempfile.NamedTemporaryFile("w", suffix=".cpp") as file:
            file.write(text)
            file.flush()
            before = resource.getrusage(resource.RUSAGE_CHILDREN)
            subprocess.run(f"{command} -w -o /dev/null -c {file.name}", shell=True, cwd=like["directory"], stderr=subprocess.DEVNULL)
            after = resource.getrusage(resource.RUSAGE_CHILDREN)
            taken.append(after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime)
    return max(0.0, taken[1] - taken[0])


def main():
    made = units()
    total = sum(made.values())
    print(f"{len(made)} units, {total / 60:.1f} minutes of compiling ({build.name})")
    rooms = collections.defaultdict(lambda: [0, 0.0])
    for name, seconds in made.items():
        room = rooms[os.path.dirname(shown(name))]
        room[0] += 1
        room[1] += seconds
    print("\nrooms: units, seconds, seconds a unit")
    for room, (count, seconds) in sorted(rooms.items(), key=lambda r: -r[1][1]):
        print(f"{count:5d} {seconds:8.1f} {seconds / count:6.1f}  {room}")
    print("\nthe dearest twenty units, seconds")
    for name, seconds in sorted(made.items(), key=lambda u: -u[1])[:20]:
        print(f"{seconds:8.1f}  {shown(name)}")
    if "--units" in sys.argv:
        return
    print("\nheaders: units that include it, seconds in each beyond the precompiled headers, together")
    entries = json.loads((build / "compile_commands.json").read_text())
    core = next(e for e in entries if e["file"].endswith("core/paper/room.cpp"))
    app = next((e for e in entries if e["file"].endswith("app/panels/rack.cpp")), core)
    dear = []
    for header, count in headers().most_common(60):
        seconds = cost(header, app if header.startswith("src/app/") else core)
        dear.append((seconds * count, seconds, count, header))
    for together, seconds, count, header in sorted(dear, reverse=True)[:20]:
        print(f"{count:5d} {seconds:6.2f} {together:8.1f}  {header}")


main()

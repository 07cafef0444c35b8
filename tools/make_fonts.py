#!/usr/bin/python3
"""Makes data/fonts: Inter with tabular figures as its ordinary ones.

Qt 6.4 cannot switch a font's figures, and columns of figures that do not stand under each other are hard to read. The
cut exchanges the figures of the character map for the font's own tabular ones and keeps the signs that Erdwerk
writes. Needs Debian's python3-fonttools and fonts-inter; run it again only when Inter changes.
"""

import pathlib

from fontTools import subset
from fontTools.ttLib import TTFont

SOURCE = pathlib.Path("/usr/share/fonts/opentype/inter")
TARGET = pathlib.Path(__file__).resolve().parent.parent / "data" / "fonts"
FAMILY = "Erdwerk Sans"
# Latin with its extensions, Greek (delta), punctuation, arrows, signs, shapes.
KEPT = "U+0020-024F,U+0300-036F,U+0370-03FF,U+2000-206F,U+2070-209F,U+20AC,U+2100-214F,U+2190-21FF,U+2200-22FF,U+2300-23FF,U+25A0-26FF,U+2713,U+2717"


def tabular(font):
    """Glyph names of the font's tabular figures, by the ordinary ones."""
    table = font["GSUB"].table
    out = {}
    for record in table.FeatureList.FeatureRecord:
        if record.FeatureTag != "tnum":
            continue
        for index in record.Feature.LookupListIndex:
            for sub in table.LookupList.Lookup[index].SubTable:
                sub = getattr(sub, "ExtSubTable", sub)
                out.update(getattr(sub, "mapping", {}))
    return out


def make(weight):
    font = TTFont(SOURCE / f"Inter-{weight}.otf")
    figures = tabular(font)
    signs = [ord(c) for c in "0123456789+-.,:%°"]
    for table in font["cmap"].tables:
        for code in signs:
            name = table.cmap.get(code)
            if name in figures and chr(code).isdigit():
                table.cmap[code] = figures[name]
    for record in font["name"].names:
        if record.nameID in (1, 16):
            record.string = FAMILY if weight in ("Regular", "Bold") else f"{FAMILY} {weight}" if record.nameID == 1 else FAMILY
        elif record.nameID == 4:
            record.string = f"{FAMILY} {weight}"
        elif record.nameID == 6:
            record.string = f"ErdwerkSans-{weight}"
    options = subset.Options()
    options.layout_features = ["kern", "mark", "mkmk", "ccmp"]
    options.name_IDs = ["*"]
    options.notdef_outline = True
    subsetter = subset.Subsetter(options)
    subsetter.populate(unicodes=subset.parse_unicodes(KEPT))
    subsetter.subset(font)
    TARGET.mkdir(parents=True, exist_ok=True)
    font.save(TARGET / f"ErdwerkSans-{weight}.otf")


for weight in ("Regular", "SemiBold"):
    make(weight)

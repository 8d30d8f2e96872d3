"""A small font with a width axis, made here: capital letters A to Z as blocks, 600 units wide at 100 %, 300 at 50 %."""

from __future__ import annotations

import io

from fontTools.fontBuilder import FontBuilder
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib.tables.TupleVariation import TupleVariation

LETTERS = [chr(point) for point in range(ord("A"), ord("Z") + 1)]
WIDE, NARROW = 600, 300


def width_font() -> bytes:
    builder = FontBuilder(1000, isTTF=True)
    names = [".notdef", "space", *LETTERS]
    builder.setupGlyphOrder(names)
    builder.setupCharacterMap({32: "space", **{ord(letter): letter for letter in LETTERS}})
    pen = TTGlyphPen(None)
    pen.moveTo((50, 0))
    for point in ((50, 700), (550, 700), (550, 0)):
        pen.lineTo(point)
    pen.closePath()
    block = pen.glyph()
    builder.setupGlyf({name: block if name in LETTERS else TTGlyphPen(None).glyph() for name in names})
    builder.setupHorizontalMetrics(dict.fromkeys(names, (WIDE, 50)))
    builder.setupHorizontalHeader(ascent=900, descent=-250)
    builder.setupNameTable({"familyName": "Quay Blocks", "styleName": "Regular"})
    builder.setupOS2(sTypoAscender=900, sTypoDescender=-250, usWinAscent=900, usWinDescent=250)
    builder.setupPost()
    builder.setupFvar([("wdth", 50, 100, 100, "Width")], [])
    narrower = NARROW - WIDE
    outline = [(0, 0), (0, 0), (narrower, 0), (narrower, 0)]
    phantoms = [(0, 0), (narrower, 0), (0, 0), (0, 0)]
    builder.setupGvar(
        {
            name: [TupleVariation({"wdth": (-1.0, -1.0, 0.0)}, [*(outline if name in LETTERS else []), *phantoms])]
            for name in names
        }
    )
    out = io.BytesIO()
    builder.save(out)
    return out.getvalue()

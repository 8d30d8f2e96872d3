"""How long do the small pictures of forty pieces take? `python -m bench small_pictures`

Of the demo's pieces, over and over, drawn and written, once fit knows them; the best of many. The yardstick: the same
site's style sheet, written anew.
"""

from __future__ import annotations

import sys
from collections.abc import Iterator
from itertools import cycle, islice

from upper_rim.core.kinds.markup import html
from upper_rim.core.output.css.sheet import sheet
from upper_rim.core.output.drawn.draw_piece import PieceDrawer
from upper_rim.core.output.drawn.svg import drawn_svg
from upper_rim.core.output.fitting import fitter_of
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .measured import Measured, table, timed

PIECES, TIMES, ASKED_MS, WIDTH_PX = 40, 40, 100.0, 1120


def measure(tiny: bool) -> Iterator[Measured]:
    times = 2 if tiny else TIMES
    site, contents = ostrey()
    fitter, shipped = fitter_of(shelf(), contents.__getitem__, 2026), shelf()

    known = PieceDrawer(site, fitter)
    shown = [piece for piece in known.site.pieces if known.draw(piece, "en", WIDTH_PX)]

    def draw() -> None:
        drawer = PieceDrawer(site, fitter)
        for at, piece in enumerate(islice(cycle(shown), PIECES)):
            drawing = drawer.draw(piece, "en", WIDTH_PX)
            assert drawing is not None
            html([drawn_svg(drawing, shipped, str, str(at), "")])

    def write_sheet() -> None:
        sheet(site, shipped, "/")

    yardstick = ("the site’s style sheet", timed(times, write_sheet))
    yield Measured("small pictures of 40 pieces", timed(times, draw), ASKED_MS, "ms", yardstick)


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

"""How long does the coverage of a large site take? `python -m bench coverage`

As a ratio to the yardstick: a loop that compares every page's path with every piece's paths, which is what the answer
would cost without an index.
"""

from __future__ import annotations

import sys
import time
from collections.abc import Iterator
from random import Random

from tests.visitors import any_audience, any_card
from upper_rim.core.conditions.below import Below
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.model.site import Band, Page, Site
from upper_rim.core.reach.board import Board
from upper_rim.core.reach.coverage import Coverage

from .measured import Measured, table


def measure(tiny: bool) -> Iterator[Measured]:
    page_count, piece_count = (100, 4) if tiny else (10_000, 40)
    pages = tuple(
        Page(id=f"pg-{at}", path=f"/s{at % 50}/t{at % 500}/n{at}/", tags=("new",) if at % 3 else ())
        for at in range(page_count)
    )
    pieces = tuple(
        Header(
            id=f"pc-{at}",
            name=f"Header {at}",
            reach=(
                ReachRule(id=f"rr-{at}-a"),
                ReachRule(id=f"rr-{at}-b", where=Below(path=f"/s{at}/")),
                ReachRule(id=f"rr-{at}-c", shows=False, where=Below(path=f"/s{at}/t{at}/")),
            ),
        )
        for at in range(piece_count)
    )
    bands = (Band(id="bd-narrow", name="Narrow", from_px=0), Band(id="bd-wide", name="Wide", from_px=900))
    site = Site(key="qbench", name="Bench", pages=pages, pieces=pieces, bands=bands)
    begin = time.perf_counter()
    assert sum(len(slots["header"]) for _, slots in Coverage(site).pages()) == 2 * page_count
    taken = (time.perf_counter() - begin) * 1000
    begin = time.perf_counter()
    prefixes = [rule.where.path for piece in pieces for rule in piece.reach if isinstance(rule.where, Below)]
    assert sum(page.path.startswith(prefix) for page in pages for prefix in prefixes)
    plain = (time.perf_counter() - begin) * 1000
    told = f"what shows on {page_count} pages, {piece_count} pieces"
    yield Measured(told, taken, None, "ms", ("comparing all paths", plain))
    chance, many, cards = Random(1), 100 if tiny else 20_000, 2 if tiny else 20
    pages = tuple(Page(id=f"pg-{at}", path=f"/s{at % 50}/t{at % 500}/n{at}/") for at in range(many))
    site = site.replaced(pages=pages, pieces=tuple(piece.replaced(audience=any_audience(chance)) for piece in pieces))
    visitors = [any_card(chance) for _ in range(cards)]
    begin = time.perf_counter()
    coverage = Coverage(site)
    for gets in [coverage.gets(card) for card in visitors]:
        assert sum(len(coverage.on(page, gets)["header"]) for page in pages) == 2 * many
    taken = (time.perf_counter() - begin) * 1000
    told = f"what {cards} visitors get on {many} pages, {piece_count} pieces"
    yield Measured(told, taken, 2000.0, "ms", ("comparing all paths", plain))
    begin = time.perf_counter()
    coverage = Coverage(site)
    board = Board(coverage, coverage.gets(visitors[0]))
    assert list(board.rows(0, frozenset(), 200))
    taken = (time.perf_counter() - begin) * 1000
    yield Measured(f"the board of {many} pages, folded", taken, 200.0, "ms", ("comparing all paths", plain))
    begin = time.perf_counter()
    assert len(list(board.rows(0, frozenset({"/s1/", "/s1/t1/"}), 200))) > 1
    taken = (time.perf_counter() - begin) * 1000
    yield Measured("unfolding a section of it", taken, 100.0, "ms", ("comparing all paths", plain))


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

"""How long does the coverage of a large site take? `python -m bench.coverage [PAGES] [PIECES]`

As a ratio to the yardstick: a loop that compares every page's path with every piece's paths, which is what the answer
would cost without an index.
"""

from __future__ import annotations

import sys
import time

from upper_rim.core.model.site import Band, Below, Header, Page, ReachRule, Site
from upper_rim.core.reach.coverage import Coverage


def main() -> None:
    page_count, piece_count = (int(sys.argv[at]) if len(sys.argv) > at else size for at, size in ((1, 10_000), (2, 40)))
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
    outcomes = sum(len(slots["header"]) for _, slots in Coverage(site).pages())
    taken = time.perf_counter() - begin
    begin = time.perf_counter()
    prefixes = [rule.where.path for piece in pieces for rule in piece.reach if isinstance(rule.where, Below)]
    compared = sum(page.path.startswith(prefix) for page in pages for prefix in prefixes)
    plain = time.perf_counter() - begin
    print(
        f"{page_count} pages, {piece_count} pieces: {outcomes} outcomes in {taken:.2f} s, ratio {taken / plain:.1f} to comparing all paths ({compared} matches in {plain:.2f} s)"
    )


if __name__ == "__main__":
    main()

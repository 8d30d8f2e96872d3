"""How long does it take to look through a whole site? `python -m bench findings`

The demo from nothing and after an edit of a text; then a site of 20,000 pages. Yardsticks: laying out the demo's main header
once in one language from nothing, and comparing all pages with each other by identity. Fonts have been read, which is done
once for all; pages' own contents are read here by one reader, in the application by several. Values are collected as rarely as in the processes that serve the studio.
"""

from __future__ import annotations

import sys
import time
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from functools import lru_cache

from cachetools import cached

from upper_rim.collecting import collect_rarely
from upper_rim.core.exchange.html.outline import PageOutline, outline_of
from upper_rim.core.findings.whole import LookedAt, findings_of
from upper_rim.core.fit.rows.fitter import Fitter
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Set
from upper_rim.core.model.site import Page, Site
from upper_rim.core.movement.scene import Shape
from upper_rim.core.output.fitting import estimated_shape, fitter_of
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .corpus import large_site
from .measured import Measured, table, timed

FIRST_MS, AGAIN_MS = 1_500.0, 150.0
MANY, MANY_FIRST_MS, MANY_AGAIN_MS = 20_000, 20_000.0, 300.0
FEW, EDITS = 100, 5
"""Of few pages what takes time is the middle one of as many looks as there are edits."""


def measure(tiny: bool) -> Iterator[Measured]:
    collect_rarely()
    site, contents = ostrey()
    read_fonts = fitter_of(shelf(), contents.__getitem__, 2026)
    list(findings_of(_looked(read_fonts, site, contents.__getitem__)))
    main = next(piece for piece in site.pieces if piece.id == "pc-main")
    laid = timed(3, lambda: fitter_of(shelf(), contents.__getitem__, 2026).rows(site, main, ["en"]))
    yardstick = ("the main header in English", laid)
    yield from _of("the demo", site, contents.__getitem__, (FIRST_MS, AGAIN_MS), yardstick)
    many, made = large_site(200 if tiny else MANY, 6)
    kept = {page.content: made(page.content) for page in many.pages if page.content}
    read = {**contents, **kept}.__getitem__
    begin = time.perf_counter()
    assert all(one is other for one, other in zip(many.pages, tuple(many.pages), strict=True))
    walked = (time.perf_counter() - begin) * 1000
    asked = (MANY_FIRST_MS, MANY_AGAIN_MS)
    yield from _of(f"{len(many.pages)} pages", many, read, asked, ("a walk over the pages", walked))


def _of(
    name: str, site: Site, read: Callable[[str], bytes], asked: tuple[float, float], yardstick: tuple[str, float]
) -> Iterator[Measured]:
    took = []
    for _ in range(EDITS if len(site.pages) < FEW else 1):
        looked = _looked(fitter_of(shelf(), read, 2026), site, read)
        begin = time.perf_counter()
        list(findings_of(looked))
        took.append((time.perf_counter() - begin) * 1000)
    yield Measured(f"{name}, from nothing", sorted(took)[len(took) // 2], asked[0], "ms", yardstick)
    took = []
    for at in range(EDITS):
        after = apply(site, Set(node="it-tagline", field="words", value={"text": f"Three ships, {at} harbours"}))
        assert isinstance(after, Site)
        begin = time.perf_counter()
        list(findings_of(looked.at(after)))
        took.append((time.perf_counter() - begin) * 1000)
    yield Measured(f"{name}, after an edit", sorted(took)[EDITS // 2], asked[1], "ms", yardstick)


def _looked(fitter: Fitter, site: Site, read: Callable[[str], bytes]) -> LookedAt:
    @lru_cache(maxsize=200_000)
    def outline(content: str, path: str, encoding: str) -> PageOutline | None:
        return outline_of(read(content), encoding, path)

    @cached({}, key=lambda page, viewport_px: (page.id, viewport_px[0]))
    def shape(page: Page, viewport_px: tuple[int, int]) -> Shape:
        return estimated_shape(page, read, viewport_px[0])

    return LookedAt(
        fitter.resolved(site),
        fitter,
        read,
        lambda page: frozenset(),
        lambda page: outline(page.content, page.path, page.encoding) if page.content else None,
        shape,
        datetime.now(UTC),
    )


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

"""What are a page's bytes with something put in at places, and without what was cut out?"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from ...model.site import Page

Chunk = bytes | memoryview
"""Bytes that are put together with others only once, where they are needed."""


def spliced(content: bytes, insertions: Iterable[tuple[int, Sequence[Chunk]]], page: Page) -> bytes:
    """Content with bytes put in at places and cuts left out. A place within a cut is taken as the cut's start."""
    parts: list[Chunk] = []
    at = 0
    pending = list(insertions)
    for cut in page.cuts:
        while pending and pending[0][0] < cut.end:
            place, inserted = pending.pop(0)
            place = min(place, cut.start)
            parts += (content[at:place], *inserted)
            at = place
        parts.append(content[at : cut.start])
        at = cut.end
    for place, inserted in pending:
        parts += (content[at:place], *inserted)
        at = place
    parts.append(content[at:])
    return b"".join(parts)

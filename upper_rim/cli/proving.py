"""Do the places for pieces, and the cuts, that a bundle says of its pages belong to their contents? Nothing is published
otherwise."""

from __future__ import annotations

import json
import os
from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import suppress
from multiprocessing import get_context

from ..core.exchange.bundle import BrokenBundle
from ..core.exchange.html.anatomy import places_hold
from ..core.model.site import Page
from .files import CannotDo
from .progress import Progress

SHARED_FROM = 500
"""Pages from which on a second process is worth its beginning."""
MOST_TOLD = 20


def misplaced(pages: Sequence[Page], read: Callable[[str], bytes], told: Progress) -> list[str]:
    """What is wrong, in words. Raises `BrokenBundle` where a content is missing or another one."""
    if len(pages) < SHARED_FROM:
        return list(_faults(told.counted("Pages checked:", pages, len(pages)), read))
    receives, sends = os.pipe()
    other = get_context("fork").Process(target=_in_child, args=(sends, pages[1::2], read))
    other.start()
    os.close(sends)
    with os.fdopen(receives, "rb") as found:
        ours = list(_faults(told.counted("Pages checked:", pages[::2], len(pages) // 2), read))
        theirs = found.read()
    other.join()
    if other.exitcode:
        raise CannotDo("not all pages could be checked")
    said = json.loads(theirs)
    if isinstance(said, str):
        raise BrokenBundle(said)
    return [*ours, *said]


def _in_child(sends: int, pages: Sequence[Page], read: Callable[[str], bytes]) -> None:
    try:
        found: list[str] | str = list(_faults(pages, read))
    except BrokenBundle as broken:
        found = str(broken)
    # Nobody listens any more where the other half is broken, too.
    with suppress(BrokenPipeError), os.fdopen(sends, "wb") as out:
        out.write(json.dumps(found).encode())


def _faults(pages: Iterable[Page], read: Callable[[str], bytes]) -> Iterator[str]:
    for page in pages:
        if page.content is None:
            continue
        content = read(page.content)
        if page.splice is not None and not places_hold(content, page.splice):
            yield f"{page.path}: the places for pieces do not belong to this content"
        if any(not cut.start <= cut.end <= len(content) for cut in page.cuts):
            yield f"{page.path}: a cut lies outside its content"

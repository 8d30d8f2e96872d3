"""What is found about a site, kept for all who look at it: of which state it is true is told with it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from datetime import datetime, timedelta
from functools import lru_cache
from threading import Lock
from typing import NamedTuple

from cachetools import LRUCache, cached
from django.utils import timezone
from pydantic import TypeAdapter

from ...core.exchange.html.outline import Outlined, PageOutline, outlines_of
from ...core.exchange.html.places import ids_in
from ...core.findings.finding import Finding
from ...core.findings.let_be import Sorted, sorted_out
from ...core.findings.whole import Cause, LookedAt, causes, found_at_once, found_by_laying_out
from ...core.model.site import Page, Site
from ...core.movement.scene import Shape
from ...core.output.fitting import estimated_shape
from ...core.output.page.splicing import spliced
from .. import wall
from .contents import ReadAhead, of_pages, read_content
from .fitters import site_fitter
from .models import LookedThrough, StoredSite

KEPT_FOR = timedelta(minutes=10)
"""After that it is looked at anew: times pass."""


class Looking(NamedTuple):
    """`found`: all causes, the worst first. `revision`: of which state they are true, and `at` when that was seen; `is_whole`:
    nothing is left to be laid out."""

    found: tuple[Cause, ...]
    revision: int
    at: datetime
    is_whole: bool = True

    def is_true_of(self, revision: int) -> bool:
        return self.is_whole and self.revision == revision and timezone.now() - self.at < KEPT_FOR


_locks: LRUCache[int, Lock] = LRUCache(200)
_locks_lock = Lock()
_findings = TypeAdapter(tuple[Finding, ...])
MOST_KEPT = 4_000


def known_of(site_id: int) -> Looking | None:
    """What was found when it was last looked at as a whole, by whichever process."""
    row = LookedThrough.objects.filter(site_id=site_id).first()
    return Looking(tuple(causes(_findings.validate_python(row.findings))), row.revision, row.at) if row else None


def sorted_today(looking: Looking, site: Site) -> Sorted:
    """By what is let be on the site as it is."""
    return sorted_out(looking.found, site, timezone.localdate())


_sorted: LRUCache[int, tuple[object, Sorted]] = LRUCache(64)
_sorted_lock = Lock()


def sorted_last(site_id: int, site: Site) -> Sorted:
    """What was found when it was last looked at as a whole; nothing before that. Read once for each time that it was looked
    at."""
    at = LookedThrough.objects.filter(site_id=site_id).values_list("revision", "at").first()
    told = (at, site.let_be, timezone.localdate())
    with _sorted_lock:
        kept = _sorted.get(site_id)
    if kept is None or kept[0] != told:
        known = known_of(site_id) if at else None
        kept = (told, sorted_today(known, site) if known else Sorted((), (), {}))
        with _sorted_lock:
            _sorted[site_id] = kept
    return kept[1]


def begun(site_id: int, revision: int, site: Site) -> Looking:
    """What takes no time."""
    looked = looked_at(site_id, site, timezone.now())
    return Looking(tuple(causes(found_at_once(looked))), revision, looked.now, False)


def whole(site_id: int, revision: int, site: Site) -> Looking:
    """Everything. Two who ask at the same time wait for one answer. What was found is kept for all who look next."""
    with _locks_lock:
        lock = _locks.setdefault(site_id, Lock())
    with lock:
        known = known_of(site_id)
        if known is not None and known.is_true_of(revision):
            return known
        looked = looked_at(site_id, site, timezone.now())
        found = (*found_at_once(looked), *found_by_laying_out(looked))
        listed = causes(found)
        _keep(site_id, revision, looked, found[:MOST_KEPT], sorted_out(listed, site, looked.now.date()).open)
    return Looking(tuple(listed), revision, looked.now)


def _keep(
    site_id: int, revision: int, looked: LookedAt, found: tuple[Finding, ...], still_open: Iterable[Cause]
) -> None:
    told = _findings.dump_python(found, mode="json")
    LookedThrough.objects.update_or_create(
        site_id=site_id, defaults={"revision": revision, "at": looked.now, "findings": told}
    )
    counts = Counter(cause.severity for cause in still_open)
    told_counts: dict[str, int] = {"revision": revision, **{str(one): many for one, many in counts.items()}}
    StoredSite.objects.filter(pk=site_id).update(found=told_counts)


def looked_at(site_id: int, site: Site, now: datetime) -> LookedAt:
    fitter = site_fitter(site_id)
    site = fitter.resolved(site)
    outlines = _outlines(site.pages)
    read = ReadAhead(page.content for page in site.pages if page.content)
    return LookedAt(site, fitter, read, _ids_of, lambda page: outlines.get(page.id), _shape_of, now)


def _ids_of(page: Page) -> frozenset[str]:
    return ids_of_content(page.content, page.encoding) if page.content else frozenset()


@lru_cache(maxsize=2048)
def ids_of_content(content: str, encoding: str) -> frozenset[str]:
    """Behind the wall; none where it cannot be read."""
    return wall.read_or(frozenset(), ids_in, read_content(content), encoding)


def _given(page: Page, viewport_px: tuple[int, int]) -> tuple[object, ...]:
    splice = page.splice
    return (page.content, splice and (splice.body_at, splice.end_at), page.encoding, viewport_px[0])


@cached(LRUCache(200_000), key=_given, lock=Lock())
def _shape_of(page: Page, viewport_px: tuple[int, int]) -> Shape:
    return estimated_shape(page, read_content, viewport_px[0])


_known_outlines: LRUCache[tuple[object, ...], PageOutline | None] = LRUCache(60_000)
_outlines_lock = Lock()


def _outlines(pages: Iterable[Page]) -> dict[str, PageOutline | None]:
    """By the pages' ids; read behind the wall, many at a time, and once for what does not change."""
    keys = {page.id: (page.content, page.cuts, page.path, page.encoding) for page in pages if page.content}
    with _outlines_lock:
        found = {page: _known_outlines[key] for page, key in keys.items() if key in _known_outlines}
    missing = [page for page in pages if page.id in keys and page.id not in found]
    for some in of_pages(missing):
        asked = [Outlined(spliced(content, (), page), page.encoding, page.path) for page, content in some]
        read = wall.read_or(None, outlines_of, asked)
        if read is None:
            read = [wall.read_or([None], outlines_of, [one])[0] for one in asked]
        for (page, _), outline in zip(some, read, strict=True):
            found[page.id] = outline
            with _outlines_lock:
                _known_outlines[keys[page.id]] = outline
    return found


def forget_all() -> None:
    """Drops what this process keeps; for tests, where databases come and go."""
    with _outlines_lock:
        _known_outlines.clear()
    with _sorted_lock:
        _sorted.clear()

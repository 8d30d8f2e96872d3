"""What is found about a site, kept for all who look at it: of which state it is true is told with it."""

from __future__ import annotations

from collections import Counter, deque
from collections.abc import Callable, Iterable, Iterator, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
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
from ...core.model.memo import Memo
from ...core.model.site import Page, Site
from ...core.movement.scene import Shape
from ...core.output.fitting import estimated_shape
from ...core.output.page.splicing import spliced
from .. import wall
from .contents import ReadAhead, of_pages, read_content
from .fitters import site_fitter
from .models import LookedThrough, LookingThrough, StoredSite
from .progress import Progress

MANY_PAGES = 300
"""With more that are still to be read one waits for longer than a moment."""
READERS, LOAD_PAGES, LOAD_BYTES = 2, 500, 4_000_000
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
    """What takes no time; nothing yet, where many pages are still to be read."""
    if len(_unread(site.pages)) > MANY_PAGES:
        return Looking((), revision, timezone.now(), False)
    looked = looked_at(site_id, site, timezone.now())
    return Looking(tuple(causes(found_at_once(looked))), revision, looked.now, False)


def how_far(site_id: int) -> LookingThrough | None:
    """While a site of many pages is looked through."""
    return LookingThrough.objects.filter(site_id=site_id).first()


class _Telling:
    """Tells who waits how many pages have been read, where there are many; once all are, the rest is laid out."""

    def __init__(self, site_id: int) -> None:
        self._site_id = site_id
        self._rows = LookingThrough.objects.filter(site_id=site_id)
        self._progress: Progress | None = None

    def tell(self, read: int, of: int) -> None:
        if of <= MANY_PAGES:
            return
        if self._progress is None:
            LookingThrough.objects.update_or_create(site_id=self._site_id, defaults={"done": read, "total": of})
            self._progress = Progress(self._rows)
        elif read < of:
            self._progress.tell(read)
        else:
            self._rows.update(done=of)

    def end(self) -> None:
        if self._progress is not None:
            self._rows.delete()


Tells = Callable[[int, int], None]
"""Is told how many pages have been read, of how many."""


def _to_nobody(read: int, of: int) -> None:
    """Where nobody waits."""


def whole(site_id: int, revision: int, site: Site) -> Looking:
    """Everything. Two who ask at the same time wait for one answer. What was found is kept for all who look next."""
    with _locks_lock:
        lock = _locks.setdefault(site_id, Lock())
    with lock:
        known = known_of(site_id)
        if known is not None and known.is_true_of(revision):
            return known
        telling = _Telling(site_id)
        try:
            looked = looked_at(site_id, site, timezone.now(), telling.tell)
            found = (*found_at_once(looked), *found_by_laying_out(looked))
        finally:
            telling.end()
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


def looked_at(site_id: int, site: Site, now: datetime, tell: Tells = _to_nobody) -> LookedAt:
    fitter = site_fitter(site_id)
    site = fitter.resolved(site)
    outlines = _outlines_of.of(site.pages, lambda pages: _outlines(pages, tell))
    read = ReadAhead(page.content for page in site.pages if page.content)
    return LookedAt(site, fitter, read, _ids_of, lambda page: outlines.get(page.id), _shape_of, now)


_outlines_of: Memo[tuple[Page, ...], dict[str, PageOutline | None]] = Memo(24)


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


def _outline_key(page: Page) -> tuple[object, ...]:
    return (page.content, page.cuts, page.path, page.encoding)


def _unread(pages: Iterable[Page]) -> list[Page]:
    with _outlines_lock:
        return [page for page in pages if page.content and _outline_key(page) not in _known_outlines]


def _outlines(pages: Sequence[Page], tell: Tells) -> dict[str, PageOutline | None]:
    """By the pages' ids; read once for what does not change."""
    unread = _unread(pages)
    tell(0, len(unread))
    with _outlines_lock:
        found = {page.id: _known_outlines.get(_outline_key(page)) for page in pages if page.content}
    read = 0
    for some, outlines in _read_by_many(unread):
        found.update((page.id, outline) for page, outline in zip(some, outlines, strict=True))
        with _outlines_lock:
            _known_outlines.update(zip(map(_outline_key, some), outlines, strict=True))
        read += len(some)
        tell(read, len(unread))
    return found


def _read_by_many(pages: Iterable[Page]) -> Iterator[tuple[list[Page], list[PageOutline | None]]]:
    """Some at a time, by several readers side by side; no more contents are held than they are at."""
    going: deque[tuple[list[Page], Future[list[PageOutline | None]]]] = deque()
    with ThreadPoolExecutor(READERS) as readers:
        for some in _loads(pages):
            asked = [Outlined(spliced(content, (), page), page.encoding, page.path) for page, content in some]
            going.append(([page for page, _ in some], readers.submit(_read_outlines, asked)))
            if len(going) > READERS:
                listed, outlines = going.popleft()
                yield listed, outlines.result()
        for listed, outlines in going:
            yield listed, outlines.result()


def _loads(pages: Iterable[Page]) -> Iterator[list[tuple[Page, bytes]]]:
    """So many as one reader takes at once: to begin takes a reader as long as some dozens of small pages."""
    load: list[tuple[Page, bytes]] = []
    size = 0
    for some in of_pages(pages):
        load += some
        size += sum(len(content) for _, content in some)
        if len(load) >= LOAD_PAGES or size >= LOAD_BYTES:
            yield load
            load, size = [], 0
    if load:
        yield load


def _read_outlines(asked: list[Outlined]) -> list[PageOutline | None]:
    """Behind the wall; where they cannot be read together, each by itself."""
    read = wall.read_or(None, outlines_of, asked)
    return [wall.read_or([None], outlines_of, [one])[0] for one in asked] if read is None else read


def forget_all() -> None:
    """Drops what this process keeps; for tests, where databases come and go."""
    with _outlines_lock:
        _known_outlines.clear()
    _outlines_of.forget()
    with _sorted_lock:
        _sorted.clear()

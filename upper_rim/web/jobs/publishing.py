"""How does an edition come about in the background, once, even where a worker dies on the way?

Files are named by content and written whole, so doing it again does nothing twice. The site turns to the new edition in
one step at the end; until then it keeps the old one whole.
"""

from __future__ import annotations

import json
import logging
from collections import deque
from collections.abc import Callable, Mapping
from concurrent.futures import Future, ThreadPoolExecutor
from functools import partial
from typing import NamedTuple

from django.db import transaction
from django.utils import timezone

from ...core.exchange.imports.import_pages import digest, file_name
from ...core.gates.guards import guards_of
from ...core.gates.opened import open_site
from ...core.model.site import Site
from ...core.output.file_types import content_type, is_compressible
from ...core.output.page.compose import Composer
from ...core.output.publication import file_count, publication
from ...core.output.renewal import NOTHING_KEPT, Kept, Making, Sorts, kept_pages
from ...core.output.search.site_search import files_of_index, index_again, index_state, is_part, part_path
from ...shipped import program
from ..sites import contents, store
from ..sites.models import Content, Edition, StoredSite
from ..sites.progress import Progress
from ..sites.storage import keep, keep_compressed, stored
from ..sites.walled import walled_shelf

log = logging.getLogger(__name__)


def new_edition(stored: StoredSite, author_id: int | None) -> Edition:
    """An edition of the site's newest state, waiting to be made. One that waits already is given back instead."""
    with transaction.atomic():
        locked = StoredSite.objects.select_for_update().get(pk=stored.pk)
        pending = locked.editions.filter(state=Edition.State.WAITING, revision=locked.revision).first()
        if pending is not None:
            return pending
        newest = locked.editions.order_by("-number").values_list("number", flat=True).first() or 0
        return Edition.objects.create(site=locked, number=newest + 1, revision=locked.revision, author_id=author_id)


class _Before(NamedTuple):
    """An earlier edition: the site as it was then, its files and how they were made."""

    site: Site
    listed: Mapping[str, str]
    making: Making


class _IsAnother(Exception):
    """A page that is made again, to see that it is what it was, is another one."""


def make_edition(edition_id: int) -> None:
    """Writes the edition's files and turns the site to it. Does nothing for an edition that is done."""
    edition = Edition.objects.select_related("site").get(pk=edition_id)
    if edition.state == Edition.State.DONE:
        return
    site = store.load_revision(edition.site_id, edition.revision)
    Edition.objects.filter(pk=edition_id).update(state=Edition.State.WORKING, done=0, total=file_count(site))
    before = _before(edition)
    try:
        listed, making = _made(edition_id, site, before)
    except _IsAnother:
        log.exception("edition %s was begun anew", edition_id)
        listed, making = _made(edition_id, site, None)
    kept = [_kept_as_json(one) for one in (json.dumps(listed, sort_keys=True), making.model_dump_json())]
    _finish(edition_id, *kept)


def _kept_as_json(told: str) -> str:
    """Its hash."""
    data = told.encode()
    keep(digest(data), data)
    return digest(data)


FURTHEST_BEFORE = 200
"""Steps back to the state of the edition before: beyond them everything is made anew."""


def _before(edition: Edition) -> _Before | None:
    """The newest edition of an earlier or the same state of which it is known how it was made: none where that is lost, or
    was written by a program that said it in another way."""
    earlier = edition.site.editions.filter(state=Edition.State.DONE, revision__lte=edition.revision).exclude(making="")
    newest = earlier.filter(revision__gte=edition.revision - FURTHEST_BEFORE).first()
    if newest is None:
        return None
    try:
        making, listed = Making.model_validate_json(stored(newest.making)), json.loads(stored(newest.manifest))
    except (FileNotFoundError, ValueError):
        return None
    return _Before(store.load_revision(edition.site_id, newest.revision), listed, making)


def _made(edition_id: int, site: Site, before: _Before | None) -> tuple[dict[str, str], Making]:
    """What is written, or is there already: hashes by file name; and how it was made."""
    year = timezone.localdate().year
    made_by = f"{program()} {year}"
    kept = kept_pages(before.site, before.making, site, made_by) if before else NOTHING_KEPT
    by_name = {file_name(page.path): page for page in site.pages}
    listed = _as_before(site, before, kept) if before else {}
    sorts, done = Sorts(), len(listed)
    progress = Progress(Edition.objects.filter(pk=edition_id))
    read = contents.ReadAhead(
        [
            *(page.content for page in site.pages if page.content and page.id not in kept.pages),
            *(asset.content for asset in site.assets if file_name(asset.path) not in listed),
        ]
    )
    files = publication(
        site, walled_shelf(), read, year=year, kept=frozenset(listed), index=partial(_index, before=before, read=read)
    )
    with ThreadPoolExecutor(max_workers=2) as writers:
        writing: deque[Future[None]] = deque()
        for at, file in enumerate(files, done + 1):
            listed[file.name] = content = file.content or digest(file.data)
            page = by_name.get(file.name)
            if page is not None:
                sorts.add(page, file.data)
                if before and page.id in kept.proofs and before.listed.get(file.name) != content:
                    raise _IsAnother(file.name)
            writing.append(writers.submit(_keep, file.name, content, file.data))
            if len(writing) >= MOST_WAITING:
                writing.popleft().result()
            progress.tell(at)
        for left in writing:
            left.result()
    for page_id, proof in kept.pages.items():
        sorts.as_before(page_id, proof)
    return listed, Making(made_by=made_by, sorts=sorts.found)


def _as_before(site: Site, before: _Before, kept: Kept) -> dict[str, str]:
    """Pages that are not made again, and files of which nothing has changed."""
    names = (file_name(page.path) for page in site.pages if page.id in kept.pages)
    listed = {name: before.listed[name] for name in names}
    for asset in site.assets:
        name = file_name(asset.path)
        if before.listed.get(name) == asset.content:
            listed[name] = asset.content
    return listed


def _index(
    composer: Composer, language: str, before: _Before | None, read: Callable[[str], bytes]
) -> Mapping[str, bytes]:
    """A search index: that of the edition before, where its pages say the same; made of that, where few say something
    else; else anew."""
    head = composer.index_paths[language]
    if before is None or head[1:] not in before.listed:
        return composer.index(language)
    then = open_site(before.site, guards_of(before.site))

    def of_before(part: str) -> bytes:
        return stored(before.listed[part_path(head, part)[1:]])

    state = index_state(composer.site, language)
    if index_state(then, language) == state:
        return {f"/{name}": stored(content) for name, content in before.listed.items() if is_part(f"/{name}", head)}
    try:
        index = index_again(then, composer.site, language, of_before, read)
    except (Content.DoesNotExist, FileNotFoundError, KeyError):
        index = None
    return composer.index(language) if index is None else files_of_index(head, index, state)


def _keep(name: str, content: str, data: bytes) -> None:
    keep(content, data)
    if is_compressible(content_type(f"/{name}")):
        keep_compressed(content, data)


MOST_WAITING = 64
"""Files composed ahead of those that write them: bounds the memory that a large site takes."""


def _finish(edition_id: int, manifest: str, making: str) -> None:
    with transaction.atomic():
        edition = Edition.objects.select_for_update().get(pk=edition_id)
        if edition.state == Edition.State.DONE:
            return
        edition.state, edition.done = Edition.State.DONE, edition.total
        edition.manifest, edition.making, edition.finished_at = manifest, making, timezone.now()
        edition.save(update_fields=["state", "manifest", "making", "done", "finished_at"])
        site = StoredSite.objects.select_for_update().get(pk=edition.site_id)
        newer = site.current_edition is not None and site.current_edition.number > edition.number
        if not newer:
            StoredSite.objects.filter(pk=site.pk).update(current_edition=edition)


def fail_edition(edition_id: int, sentence: str) -> None:
    Edition.objects.filter(pk=edition_id).exclude(state=Edition.State.DONE).update(
        state=Edition.State.FAILED, message=sentence
    )

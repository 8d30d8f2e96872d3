"""How does an edition come about in the background, once, even where a worker dies on the way?

Files are named by content and written whole, so doing it again does nothing twice. The site turns to the new edition in
one step at the end; until then it keeps the old one whole.
"""

from __future__ import annotations

import json
from collections import deque
from concurrent.futures import Future, ThreadPoolExecutor

from django.db import transaction
from django.utils import timezone

from ...core.exchange.imports.import_pages import digest
from ...core.output.file_types import content_type, is_compressible
from ...core.output.publication import file_count, publication
from ...shipped import shelf
from ..sites import contents, store
from ..sites.models import Edition, StoredSite
from ..sites.storage import keep, keep_compressed
from .progress import Progress


def new_edition(stored: StoredSite, author_id: int | None) -> Edition:
    """An edition of the site's newest state, waiting to be made. One that waits already is given back instead."""
    with transaction.atomic():
        locked = StoredSite.objects.select_for_update().get(pk=stored.pk)
        pending = locked.editions.filter(state=Edition.State.WAITING, revision=locked.revision).first()
        if pending is not None:
            return pending
        newest = locked.editions.order_by("-number").values_list("number", flat=True).first() or 0
        return Edition.objects.create(site=locked, number=newest + 1, revision=locked.revision, author_id=author_id)


def make_edition(edition_id: int) -> None:
    """Writes the edition's files and turns the site to it. Does nothing for an edition that is done."""
    edition = Edition.objects.select_related("site").get(pk=edition_id)
    if edition.state == Edition.State.DONE:
        return
    site = store.load_revision(edition.site_id, edition.revision)
    Edition.objects.filter(pk=edition_id).update(state=Edition.State.WORKING, done=0, total=file_count(site))
    listed: dict[str, str] = {}
    progress = Progress(Edition, edition_id)
    read = contents.ReadAhead(
        [page.content for page in site.pages if page.content] + [asset.content for asset in site.assets]
    )
    with ThreadPoolExecutor(max_workers=2) as writers:
        writing: deque[Future[None]] = deque()
        for at, file in enumerate(publication(site, shelf(), read, year=timezone.localdate().year), 1):
            listed[file.name] = content = file.content or digest(file.data)
            writing.append(writers.submit(_keep, file.name, content, file.data))
            if len(writing) >= MOST_WAITING:
                writing.popleft().result()
            progress.tell(at)
        for left in writing:
            left.result()
    manifest = json.dumps(listed, sort_keys=True).encode()
    keep(digest(manifest), manifest)
    _finish(edition_id, digest(manifest))


def _keep(name: str, content: str, data: bytes) -> None:
    keep(content, data)
    if is_compressible(content_type(f"/{name}")):
        keep_compressed(content, data)


MOST_WAITING = 64
"""Files composed ahead of those that write them: bounds the memory that a large site takes."""


def _finish(edition_id: int, manifest: str) -> None:
    with transaction.atomic():
        edition = Edition.objects.select_for_update().get(pk=edition_id)
        if edition.state == Edition.State.DONE:
            return
        edition.state, edition.manifest, edition.done = Edition.State.DONE, manifest, edition.total
        edition.finished_at = timezone.now()
        edition.save(update_fields=["state", "manifest", "done", "finished_at"])
        site = StoredSite.objects.select_for_update().get(pk=edition.site_id)
        newer = site.current_edition is not None and site.current_edition.number > edition.number
        if not newer:
            StoredSite.objects.filter(pk=site.pk).update(current_edition=edition)


def fail_edition(edition_id: int, sentence: str) -> None:
    Edition.objects.filter(pk=edition_id).exclude(state=Edition.State.DONE).update(
        state=Edition.State.FAILED, message=sentence
    )

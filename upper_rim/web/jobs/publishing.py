"""How does an edition come about in the background, once, even where a worker dies on the way?

Files are named by content and written whole, so doing it again does nothing twice. The site turns to the new edition in
one step at the end; until then it keeps the old one whole.
"""

from __future__ import annotations

import json

from django.core.files.base import ContentFile
from django.db import transaction
from django.utils import timezone

from ...core.exchange.pages_in import digest
from ...core.output.publication import file_count, publication
from ...shipped import shelf
from ..sites import store
from ..sites.models import Edition, StoredSite
from ..sites.storage import editions, stored_name
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
    for at, file in enumerate(publication(site, shelf(), store.read_content), 1):
        listed[file.name] = _keep(file.data, file.content)
        progress.tell(at)
    _finish(edition_id, _keep(json.dumps(listed, sort_keys=True).encode()))


def _keep(data: bytes, content: str | None = None) -> str:
    name = content or digest(data)
    storage = editions()
    if not storage.exists(stored_name(name)):
        storage.save(stored_name(name), ContentFile(data))
    return name


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

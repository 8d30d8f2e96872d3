"""What is kept that nothing names any more? Contents of pages and files, files of editions, uploads.

They go some time after the last that named them has gone, as when a site is deleted. What is being brought in or published
is kept before anything names it: so nothing goes that was kept lately, by the clock of whoever kept it.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from datetime import timedelta
from typing import NamedTuple

from django.core.files.storage import Storage, storages
from django.db import connection, transaction
from django.utils import timezone

from ..sites.models import Arrival, Content, Edition, Revision, StoredNode, StoredSite, Trial, Undertaking, Work
from ..sites.storage import editions, stored_name

YOUNG = timedelta(hours=1)
_KEPT = re.compile(r"([0-9a-f]{64})(?:\.[a-z]+)?")
"""A file of editions, or one of its compressed forms; others were begun, and never finished."""
_NAMING = (
    (StoredSite, "document"),
    (StoredNode, "document"),
    (Revision, "edit"),
    (Revision, "inverse"),
    (Trial, "edit"),
    (Arrival, "document"),
)
"""Wherever a content can be named: what was undone can be done again."""


class Swept(NamedTuple):
    """How many went."""

    contents: int
    files: int
    uploads: int


def sweep() -> Swept | None:
    """None where something is being brought in or published: it is for another time then."""
    unfinished = {"state__in": (Undertaking.State.WAITING, Undertaking.State.WORKING)}
    if Edition.objects.filter(**unfinished).exists() or Work.objects.filter(**unfinished).exists():
        return None
    return Swept(_sweep_contents(), _sweep_editions(), _sweep_uploads())


def _sweep_contents() -> int:
    """In the database alone: it holds more names than have room anywhere else."""
    tables = [(field, connection.ops.quote_name(model._meta.db_table)) for model, field in _NAMING]
    told = " union all ".join(f"select {field}::text as said from {table}" for field, table in tables)  # noqa: S608 - ours
    kept = connection.ops.quote_name(Content._meta.db_table)
    with transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("drop table if exists pg_temp.named")
        cursor.execute(f"create temporary table named on commit drop as {_HASHES.format(told)}")
        cursor.execute("create index on named (hash)")
        nobodys = "kept_at < %s and not exists (select 1 from named where named.hash = kept.hash)"
        cursor.execute(f"delete from {kept} as kept where {nobodys}", [timezone.now() - YOUNG])  # noqa: S608 - ours
        return int(cursor.rowcount)


_HASHES = "select distinct (regexp_matches(said, '[0-9a-f]{{64}}', 'g'))[1] as hash from ({}) as told"


def _sweep_editions() -> int:
    storage, named = editions(), set[bytes]()
    for manifest, making in Edition.objects.filter(state=Edition.State.DONE).values_list("manifest", "making"):
        with storage.open(stored_name(manifest)) as file:
            listed = json.load(file).values()
        named.update(bytes.fromhex(content) for content in (*listed, manifest, making))
    gone = 0
    for name in list(_old_files(storage)):
        kept = _KEPT.fullmatch(name.rpartition("/")[2])
        if kept is None or bytes.fromhex(kept[1]) not in named:
            storage.delete(name)
            gone += 1
    return gone


def _sweep_uploads() -> int:
    storage = storages["default"]
    named = set(Work.objects.exclude(file="").values_list("file", flat=True))
    old = [name for name in _old_files(storage) if name not in named]
    for name in old:
        storage.delete(name)
    return len(old)


def _old_files(storage: Storage, folder: str = "") -> Iterator[str]:
    try:
        folders, files = storage.listdir(folder)
    except FileNotFoundError:
        return
    before = timezone.now() - YOUNG
    for file in files:
        name = f"{folder}/{file}" if folder else file
        if storage.get_modified_time(name) < before:
            yield name
    for below in folders:
        yield from _old_files(storage, f"{folder}/{below}" if folder else below)

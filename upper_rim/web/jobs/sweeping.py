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
from django.db.models import Model
from django.utils import timezone
from psycopg.sql import SQL, Identifier

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
    (Work, "details"),
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
    told = SQL(" union all ").join(
        SQL("select {}::text as said from {}").format(Identifier(field), _table(model)) for model, field in _NAMING
    )
    with transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("drop table if exists pg_temp.named")
        cursor.execute(SQL(_NAMED).format(told))
        cursor.execute("create index on named (hash)")
        cursor.execute(SQL(_NOBODYS).format(_table(Content)), [timezone.now() - YOUNG])
        return int(cursor.rowcount)


def _table(model: type[Model]) -> Identifier:
    return Identifier(model._meta.db_table)


_NAMED = """create temporary table named on commit drop as
select distinct (regexp_matches(said, '[0-9a-f]{{64}}', 'g'))[1] as hash from ({}) as told"""
_NOBODYS = """delete from {} as kept
where kept_at < %s and not exists (select 1 from named where named.hash = kept.hash)"""


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

"""The bytes of pages, files and fonts, kept and read by the hash that names them."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from functools import cached_property

import psycopg
from django.db import connection

from ...core.model.site import Page
from .models import Content


def keep_contents(contents: Mapping[str, bytes]) -> None:
    """Those that are there already are new again: nothing that is about to be named is swept away."""
    rows = [Content(hash=name, data=data) for name, data in sorted(contents.items())]
    Content.objects.bulk_create(
        rows, batch_size=200, update_conflicts=True, unique_fields=["hash"], update_fields=["kept_at"]
    )


def read_content(content: str) -> bytes:
    return bytes(Content.objects.values_list("data", flat=True).get(pk=content))


class ReadAhead:
    """Reads contents that will be asked for about in this order, many at a time from the one asked for on; others one
    by one."""

    def __init__(self, order: Iterable[str]) -> None:
        self._given = order
        self._ahead: dict[str, bytes] = {}

    @cached_property
    def _order(self) -> list[str]:
        return list(dict.fromkeys(self._given))

    @cached_property
    def _place(self) -> dict[str, int]:
        return {content: at for at, content in enumerate(self._order)}

    def __call__(self, content: str) -> bytes:
        at = self._place.get(content)
        if at is None:
            return read_content(content)
        if content not in self._ahead:
            self._ahead = dict(read_contents(self._order[at : at + READ_AT_ONCE]))
        return self._ahead[content]


READ_AT_ONCE = 100


def of_pages(pages: Iterable[Page]) -> Iterator[list[tuple[Page, bytes]]]:
    """Pages with their contents, some at a time; those that have none are left out."""
    listed = [page for page in pages if page.content]
    for at in range(0, len(listed), READ_AT_ONCE):
        some = listed[at : at + READ_AT_ONCE]
        found = dict(read_contents([page.content or "" for page in some]))
        yield [(page, found[page.content or ""]) for page in some]


def read_contents(wanted: list[str]) -> list[tuple[str, bytes]]:
    """Contents by hash. In PostgreSQL's binary format: as text, bytes take twice the room and have to be read anew."""
    statement = f"select hash, data from {Content._meta.db_table} where hash = any(%s)"  # noqa: S608 - the table is ours
    with connection.cursor() as django_cursor, psycopg.Cursor(django_cursor.connection) as cursor:
        found: list[tuple[str, bytes]] = cursor.execute(statement, [wanted], binary=True).fetchall()
    return found

"""The bytes of pages, files and fonts, kept and read by the hash that names them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from itertools import islice

import psycopg
from django.db import connection

from .models import Content


def keep_contents(contents: Mapping[str, bytes]) -> None:
    rows = [Content(hash=name, data=data) for name, data in contents.items()]
    Content.objects.bulk_create(rows, batch_size=200, ignore_conflicts=True)


def read_content(content: str) -> bytes:
    return bytes(Content.objects.values_list("data", flat=True).get(pk=content))


class ReadAhead:
    """Reads contents in the order in which they will be asked for, many at a time; others one by one."""

    def __init__(self, order: Iterable[str]) -> None:
        self._order = iter(dict.fromkeys(order))
        self._ahead: dict[str, bytes] = {}

    def __call__(self, content: str) -> bytes:
        if content not in self._ahead:
            wanted = list(islice(self._order, READ_AT_ONCE))
            self._ahead = dict(read_contents(wanted)) if content in wanted else {}
        return self._ahead[content] if content in self._ahead else read_content(content)


READ_AT_ONCE = 100


def read_contents(wanted: list[str]) -> list[tuple[str, bytes]]:
    """Contents by hash. In PostgreSQL's binary format: as text, bytes take twice the room and have to be read anew."""
    statement = f"select hash, data from {Content._meta.db_table} where hash = any(%s)"  # noqa: S608 - the table is ours
    with connection.cursor() as django_cursor, psycopg.Cursor(django_cursor.connection) as cursor:
        found: list[tuple[str, bytes]] = cursor.execute(statement, [wanted], binary=True).fetchall()
    return found

"""Where the files of editions lie: named by their content, written whole or not at all, never changed.

What compresses well lies there in its compressed forms, too.
"""

from __future__ import annotations

import errno
import gzip
import os
import secrets
from collections.abc import Callable, Iterator
from contextlib import suppress
from functools import lru_cache, partial
from pathlib import Path
from typing import Any

import brotli
import psycopg
from django.core.files.base import ContentFile
from django.core.files.storage import FileSystemStorage, Storage, storages


class ContentStorage(FileSystemStorage):
    """A file appears under its name only when all its bytes are written: a killed worker leaves no half file."""

    def keep(self, name: str, make: Callable[[], bytes]) -> None:
        """Writes a file, unless it is there: what has the same name has the same content, and is new again."""
        path = Path(self.location, name)
        with suppress(FileNotFoundError):
            os.utime(path)
            return
        data = make()
        unfinished = path.with_name(f"{path.name}.{secrets.token_hex(6)}")
        try:
            unfinished.write_bytes(data)
        except FileNotFoundError:
            path.parent.mkdir(parents=True, exist_ok=True)
            unfinished.write_bytes(data)
        unfinished.replace(path)

    def _save(self, name: str, content: Any) -> str:
        self.keep(name, content.read)
        return name

    def get_available_name(self, name: str, max_length: int | None = None) -> str:
        return name


def editions() -> Storage:
    return storages["editions"]


def keep(content: str, data: bytes) -> None:
    """Keeps a content under its hash, in whatever storage the editions have."""
    _keep(stored_name(content), lambda: data)


def keep_compressed(content: str, data: bytes) -> None:
    """Keeps its compressed forms beside it, so that no request has to make them."""
    if SMALLEST_COMPRESSED <= len(data) <= LARGEST_COMPRESSED:
        for encoding, compress in _COMPRESS.items():
            _keep(stored_name(content, encoding), partial(compress, data))


def _keep(name: str, make: Callable[[], bytes]) -> None:
    storage = editions()
    if isinstance(storage, ContentStorage):
        storage.keep(name, make)
    elif not storage.exists(name):
        storage.save(name, ContentFile(make()))


_COMPRESS: dict[str, Callable[[bytes], bytes]] = {
    "br": partial(brotli.compress, quality=5),
    "gzip": partial(gzip.compress, compresslevel=6, mtime=0),
}
SMALLEST_COMPRESSED, LARGEST_COMPRESSED = 400, 4_000_000
"""In bytes: what is smaller gains nothing, what is larger takes long."""


@lru_cache(maxsize=512)
def stored(content: str, encoding: str = "") -> bytes:
    """A content by its hash, or one of its compressed forms; it never changes. `FileNotFoundError` where it is not
    kept."""
    with editions().open(stored_name(content, encoding)) as file:
        return bytes(file.read())


def stored_name(content: str, encoding: str = "") -> str:
    return f"{content[:2]}/{content}" + (f".{encoding}" if encoding else "")


NO_ROOM = "The server's disk is full; nothing was changed. Tell whoever looks after it, and try again when it has room."


def no_room(error: BaseException | None) -> bool:
    """Was there no room left on a disk: that of files, or the database's (SQLSTATE 53100)?"""
    return any(
        isinstance(one, psycopg.errors.DiskFull)
        or (isinstance(one, OSError) and one.errno in {errno.ENOSPC, errno.EDQUOT, errno.EFBIG})
        for one in _and_its_causes(error)
    )


def _and_its_causes(error: BaseException | None) -> Iterator[BaseException]:
    while error is not None:
        yield error
        error = error.__cause__ or error.__context__

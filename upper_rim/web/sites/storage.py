"""Where the files of editions lie: named by their content, written whole or not at all, never changed."""

from __future__ import annotations

import secrets
from functools import lru_cache
from pathlib import Path
from typing import Any

from django.core.files.base import ContentFile
from django.core.files.storage import FileSystemStorage, Storage, storages


class ContentStorage(FileSystemStorage):
    """A file appears under its name only when all its bytes are written: a killed worker leaves no half file."""

    def keep(self, name: str, data: bytes) -> None:
        """Writes a file, unless it is there: what has the same name has the same content."""
        path = Path(self.location, name)
        if path.exists():
            return
        unfinished = path.with_name(f"{path.name}.{secrets.token_hex(6)}")
        try:
            unfinished.write_bytes(data)
        except FileNotFoundError:
            path.parent.mkdir(parents=True, exist_ok=True)
            unfinished.write_bytes(data)
        unfinished.replace(path)

    def _save(self, name: str, content: Any) -> str:
        self.keep(name, content.read())
        return name

    def get_available_name(self, name: str, max_length: int | None = None) -> str:
        return name


def editions() -> Storage:
    return storages["editions"]


def keep(content: str, data: bytes) -> None:
    """Keeps a content under its hash, in whatever storage the editions have."""
    storage, name = editions(), stored_name(content)
    if isinstance(storage, ContentStorage):
        storage.keep(name, data)
    elif not storage.exists(name):
        storage.save(name, ContentFile(data))


@lru_cache(maxsize=256)
def stored(content: str) -> bytes:
    """A content by its hash; it never changes."""
    with editions().open(stored_name(content)) as file:
        return bytes(file.read())


def stored_name(content: str) -> str:
    return f"{content[:2]}/{content}"

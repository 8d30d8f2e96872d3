"""Where the files of editions lie: named by their content, written whole or not at all, never changed."""

from __future__ import annotations

import os
import secrets
from typing import Any

from django.core.files.storage import FileSystemStorage, Storage, storages


class ContentStorage(FileSystemStorage):
    """A file appears under its name only when all its bytes are written: a killed worker leaves no half file."""

    def _save(self, name: str, content: Any) -> str:
        path = self.path(name)
        os.makedirs(os.path.dirname(path), exist_ok=True)
        unfinished = f"{path}.{secrets.token_hex(6)}"
        with open(unfinished, "wb") as file:
            for chunk in content.chunks():
                file.write(chunk)
        os.replace(unfinished, path)
        return name

    def get_available_name(self, name: str, max_length: int | None = None) -> str:
        return name


def editions() -> Storage:
    return storages["editions"]


def stored_name(content: str) -> str:
    return f"{content[:2]}/{content}"

"""Where does the system find what somebody uploads, whichever storage keeps it?"""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager

from django.core.files import File


@contextmanager
def on_disk(upload: File) -> Iterator[str]:
    """A path to its bytes, for readers that are children of their own."""
    with tempfile.NamedTemporaryFile() as file:
        for chunk in upload.chunks():
            file.write(chunk)
        file.flush()
        yield file.name

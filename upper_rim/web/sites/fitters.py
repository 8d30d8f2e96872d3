"""What fit has worked out for sites, kept in this process."""

from __future__ import annotations

from threading import Lock
from typing import Any

from cachetools import LRUCache, cached
from django.utils import timezone

from ...core.fit.rows.fitter import Fitter
from ...core.fit.text.faces import font_data
from ...core.output.fitting import fitter_of
from ...core.style.type.faces import IN_SLICES
from ...shipped import shelf
from .contents import read_content
from .walled import walled_shelf

_fitters: LRUCache[Any, Fitter] = LRUCache(24)
_lock = Lock()


@cached(_fitters, lock=_lock)
def site_fitter(site_id: int) -> Fitter:
    """One for each site, which remembers what it has worked out."""
    return fitter_of(walled_shelf(), read_content, timezone.localdate().year)


def read_faces() -> None:
    """Reads the shipped faces ahead, so that nobody waits for it when a piece is first looked at; but for those that come in
    slices, of which few are asked for."""
    for face in shelf().faces.values():
        for file in face.files:
            if not IN_SLICES.search(file.name):
                font_data(file.data, file.unicode_range).read()


def forget_all() -> None:
    """Drops what this process keeps; for tests, where databases come and go."""
    with _lock:
        _fitters.clear()

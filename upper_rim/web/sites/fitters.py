"""What fit has worked out for sites, kept in this process."""

from __future__ import annotations

from collections import OrderedDict

from django.utils import timezone

from ...core.fit.faces import font_data
from ...core.fit.fitter import Fitter
from ...core.output.fitting import fitter_of
from ...shipped import shelf
from . import store

_KEPT = 24
_fitters: OrderedDict[int, Fitter] = OrderedDict()


def site_fitter(site_id: int) -> Fitter:
    """One for each site, which remembers what it has worked out."""
    fitter = _fitters.get(site_id)
    if fitter is None:
        fitter = _fitters[site_id] = fitter_of(shelf(), store.read_content, timezone.localdate().year)
        while len(_fitters) > _KEPT:
            _fitters.popitem(last=False)
    _fitters.move_to_end(site_id)
    return fitter


def read_faces() -> None:
    """Reads the shipped faces ahead, so that nobody waits for it when a piece is first looked at."""
    for face in shelf().faces.values():
        for file in face.files:
            font_data(file.data)


def forget_all() -> None:
    """Drops what this process keeps; for tests, where databases come and go."""
    _fitters.clear()

"""The sites that ship for trying out: *Ostrey Ferries* and *Quillwort Press*. All in them is made up."""

from __future__ import annotations

from functools import cache

from . import ostrey as _ostrey
from . import quillwort as _quillwort
from .making import Demo

__all__ = ["ostrey", "quillwort"]

# A site never changes: each is made once. The contents are the caller's own.
_ferries, _press = cache(_ostrey.demo), cache(_quillwort.demo)


def ostrey() -> Demo:
    site, contents = _ferries()
    return site, dict(contents)


def quillwort() -> Demo:
    site, contents = _press()
    return site, dict(contents)

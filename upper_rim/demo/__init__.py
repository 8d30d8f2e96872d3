"""The sites that ship for trying out: *Ostrey Ferries* and *Quillwort Press*. All in them is made up."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache

from ..core.model.site import Site
from . import ostrey as _ostrey
from . import quillwort as _quillwort

__all__ = ["ostrey", "quillwort"]

Demo = tuple[Site, dict[str, bytes]]


def ostrey() -> Demo:
    """The site, and the bytes of its contents by hash."""
    return _made(_ostrey.made)


def quillwort() -> Demo:
    """The same of the other site."""
    return _made(_quillwort.made)


def _made(make: Callable[[], Demo]) -> Demo:
    """A site never changes: it is made once. The contents are the caller's own."""
    site, contents = _once(make)
    return site, dict(contents)


@cache
def _once(make: Callable[[], Demo]) -> Demo:
    return make()

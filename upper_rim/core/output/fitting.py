"""With which faces, marks, pictures and posts does fit work out what is published?"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import cache
from typing import Any

from ..fit.fitter import Fitter
from ..model.site import Site
from ..style.pictures import Pictures
from .shelf import Shelf
from .shown_files import ShownFiles


def fitter_of(shelf: Shelf, read: Callable[[str], bytes] | None, year: int | None, *, foresees: bool = True) -> Fitter:
    """`read`, `year` as for the composer. `foresees`: see `Fitter`."""

    def pictures(site: Site) -> Pictures:
        return cache(ShownFiles(site, read).picture)

    def posts(site: Site) -> Callable[[Any, str], Sequence[tuple[str, str]]]:
        files = ShownFiles(site, read)
        return lambda item, language: [(post.title, post.date) for post in files.posts(item, language)]

    return Fitter(shelf.faces, shelf.brands, pictures, posts, read, year, foresees)

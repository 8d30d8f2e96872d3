"""With which faces, marks, pictures and posts does fit work out what is published, and movement with which content?"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ..exchange.html.encoding import decode
from ..fit.rows.fitter import Fitter
from ..model.site import Page, Site
from ..movement.content import estimated_content_px
from ..movement.scene import Shape
from ..style.paint.pictures import Pictures
from .shelf import Shelf
from .shown_files import ShownFiles


def fitter_of(shelf: Shelf, read: Callable[[str], bytes] | None, year: int | None, *, foresees: bool = True) -> Fitter:
    """`read`, `year` as for the composer. `foresees`: see `Fitter`."""

    def pictures(site: Site) -> Pictures:
        return ShownFiles(site, read, shelf.readers).picture

    def posts(site: Site) -> Callable[[Any, str], Sequence[tuple[str, str]]]:
        files = ShownFiles(site, read, shelf.readers)
        return lambda item, language: [(post.title, post.date) for post in files.posts(item.feed, item.below, language)]

    return Fitter(shelf.faces, shelf.brands, shelf.sheets, pictures, posts, read, year, foresees)


def estimated_shape(page: Page, read: Callable[[str], bytes], width: int) -> Shape:
    """About what a page's own content is like at a viewport width, where nobody has measured it."""
    if page.content is None or page.splice is None:
        return Shape(0.0)
    content = read(page.content)
    inner = content[page.splice.body_at : page.splice.end_at]
    return Shape(estimated_content_px(decode(inner, page.encoding), float(width)))

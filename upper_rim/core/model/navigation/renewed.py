"""What stays of pages that come in again, and which translations are of what their original said before?"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from ...kinds.page_shapes import PageShape
from ..site import Page


def renewed(pages: Iterable[Page], known: Iterable[Page], shapes: Iterable[PageShape] = ()) -> list[Page]:
    """Pages that come in: those that stand where a known one does are that one, with another content. What is new of a
    translation translates what its original says now. Of the known `shapes` those that were measured stay with pages
    whose own CSS tells what it told."""
    before = {page.path: page for page in known}
    measured = {shape.id: shape.instead_of for shape in shapes if shape.is_measured}
    kept = [_as_known(page, before.get(page.path), measured) for page in pages]
    originals = {page.id: page for page in (*before.values(), *kept)}
    return [_of_now(page, before.get(page.path), originals) for page in kept]


def _as_known(page: Page, old: Page | None, measured: Mapping[str, str]) -> Page:
    if old is None:
        return page
    if old.shape and measured.get(old.shape) == (page.shape or ""):
        page = page.replaced(shape=old.shape)
    page = page.replaced(id=old.id, tags=old.tags, bare=old.bare, translates=old.translates, also=old.also, of=old.of)
    # It does not say its language: what was said by hand stays, and is not asked about again.
    return page.replaced(language=old.language, likely=page.likely if old.likely else "") if page.likely else page


def _of_now(page: Page, old: Page | None, originals: Mapping[str, Page]) -> Page:
    original = originals.get(page.translates or "")
    if original is None or (old is not None and old.of and old.content == page.content):
        return page
    return page.replaced(of=original.content)


def is_older(page: Page, originals: Mapping[str, Page]) -> bool:
    """Whether its original has changed since; not where nobody knows what it was."""
    original = originals.get(page.translates or "")
    return bool(page.of and original and original.content and original.content != page.of)


def older_pages(pages: Iterable[Page]) -> Sequence[Page]:
    listed = {page.id: page for page in pages}
    return [page for page in listed.values() if page.of and is_older(page, listed)]

"""Which files make up a published site?

Pages with their pieces, the files carried along, the shared parts and a page for what is not found: one by one, so
that a large site needs no more memory than its largest file.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import NamedTuple

from ..exchange.pages_in import file_name
from ..model.site import Site
from .compose import Composer
from .shelf import Shelf

NOT_FOUND = "/404.html"


class PublishedFile(NamedTuple):
    """A file's name below the site's folder and its bytes; `content` is its hash where it is known beforehand."""

    name: str
    data: bytes
    content: str | None = None


def publication(
    site: Site,
    shelf: Shelf,
    read: Callable[[str], bytes],
    *,
    share: int = 0,
    of: int = 1,
    year: int | None = None,
) -> Iterator[PublishedFile]:
    """All files of the site, pages first; or one share of them, where several processes publish it together.

    `read` gives the bytes of a content by its hash; `year` is the present one, for lines that tell it.
    """
    composer = Composer(site, shelf, read, year=year)
    for page in site.pages[share::of]:
        if page.content is None:
            yield PublishedFile(file_name(page.path), composer.page_to_come(page))
        else:
            yield PublishedFile(file_name(page.path), composer.page(page, read(page.content)))
    for asset in site.assets[share::of]:
        yield PublishedFile(file_name(asset.path), read(asset.content), asset.content)
    if share > 0:
        return
    for path, data in composer.parts():
        yield PublishedFile(path[1:], data)
    if all(page.path != NOT_FOUND for page in site.pages):
        yield PublishedFile(NOT_FOUND[1:], composer.not_found_page())


def file_count(site: Site) -> int:
    """How many pages and files are to be published, for progress."""
    return len(site.pages) + len(site.assets)

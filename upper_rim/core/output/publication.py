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


def publication(site: Site, shelf: Shelf, read: Callable[[str], bytes]) -> Iterator[PublishedFile]:
    """All files of the site, pages first. `read` gives the bytes of a content by its hash."""
    composer = Composer(site, shelf)
    has_own_not_found = False
    for page in site.pages:
        has_own_not_found = has_own_not_found or page.path == NOT_FOUND
        if page.content is None:
            yield PublishedFile(file_name(page.path), composer.page_to_come(page))
        else:
            yield PublishedFile(file_name(page.path), composer.page(page, read(page.content)))
    for asset in site.assets:
        yield PublishedFile(file_name(asset.path), read(asset.content), asset.content)
    for path, data in composer.parts():
        yield PublishedFile(path[1:], data)
    if not has_own_not_found:
        yield PublishedFile(NOT_FOUND[1:], composer.not_found_page())


def file_count(site: Site) -> int:
    """How many pages and files are to be published, for progress."""
    return len(site.pages) + len(site.assets)

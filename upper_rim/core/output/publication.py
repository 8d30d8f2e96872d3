"""Which files make up a published site?

Pages with their pieces, the files carried along, the shared parts and a page for what is not found: one by one, so
that a large site needs no more memory than its largest file.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import NamedTuple

from ..exchange.imports.import_pages import file_name
from ..kinds.items.form import FORMS, Form
from ..model.site import Page, Site
from ..model.tree import items_of
from .fitting import fitter_of
from .page.compose import Composer
from .search.search_html import results_path
from .shelf import Shelf

NOT_FOUND = "/404.html"


class PublishedFile(NamedTuple):
    """A file's name below the site's folder and its bytes; `content` is its hash where it is known beforehand."""

    name: str
    data: bytes
    content: str | None = None


def publisher(site: Site, shelf: Shelf, read: Callable[[str], bytes], year: int | None = None) -> Composer:
    """The composer of a site as it is published."""
    fitter = fitter_of(shelf, read, year)
    return Composer(fitter.resolved(site), shelf, read, year=year, fitter=fitter)


def publication(
    site: Site,
    shelf: Shelf,
    read: Callable[[str], bytes],
    *,
    share: int = 0,
    of: int = 1,
    year: int | None = None,
    composer: Composer | None = None,
) -> Iterator[PublishedFile]:
    """All files of the site, pages first; or one share of them, where several processes publish it together. Each share
    has what its own pages load: what two of them load bears the same name in both.

    `read` gives the bytes of a content by its hash; `year` is the present one, for lines that tell it. `composer`: one
    that was made for it before.
    """
    composer = composer or publisher(site, shelf, read, year)
    for page in _pages_of(site, composer, share, of):
        if page.content is None:
            yield PublishedFile(file_name(page.path), composer.page_to_come(page))
        else:
            yield PublishedFile(file_name(page.path), composer.page(page, read(page.content)))
    for asset in site.assets[share::of]:
        yield PublishedFile(file_name(asset.path), read(asset.content), asset.content)
    if share == of - 1:
        for language, path in composer.index_paths.items():
            yield PublishedFile(path[1:], composer.index(language).encode())
    if share == 0:
        yield from _our_pages(site, composer)
    for path, data in composer.loaded() if share else composer.parts():
        yield PublishedFile(path[1:], data)


def _pages_of(site: Site, composer: Composer, share: int, of: int) -> Iterator[Page]:
    """Making the indexes takes longer than composing all pages: the share that makes them has no page."""
    sharing = of - 1 if of > 1 and composer.index_paths else of
    return (page for at, page in enumerate(site.pages) if at % sharing == share)


def _our_pages(site: Site, composer: Composer) -> Iterator[PublishedFile]:
    """Pages that are not the site's own: results, answers, what is not found."""
    taken = {page.path for page in site.pages}
    for language in composer.index_paths:
        results = results_path(language, site.language)
        if results not in taken:
            yield PublishedFile(file_name(results), composer.results_page(language))
    for form in (item for item in items_of(site.pieces) if isinstance(item, Form)):
        yield PublishedFile(f"{FORMS[1:]}{form.id}/form.json", form.model_dump_json().encode())
        for language in sorted({page.language for page in site.pages} | {site.language}):
            yield PublishedFile(
                f"{FORMS[1:]}{form.id}/sent-{language}.html", composer.answer_page(form, language, sent=True)
            )
            yield PublishedFile(
                f"{FORMS[1:]}{form.id}/not-sent-{language}.html", composer.answer_page(form, language, sent=False)
            )
    if all(page.path != NOT_FOUND for page in site.pages):
        yield PublishedFile(NOT_FOUND[1:], composer.not_found_page())


def file_count(site: Site) -> int:
    """How many pages and files are to be published, for progress."""
    return len(site.pages) + len(site.assets)

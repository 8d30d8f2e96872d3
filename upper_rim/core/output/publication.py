"""Which files make up a published site?

Pages with their pieces, the files carried along, the shared parts and a page for what is not found: one by one, so
that a large site needs no more memory than its largest file.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Container, Iterator, Mapping
from typing import NamedTuple
from urllib.parse import unquote

from ..exchange.imports.import_pages import file_name
from ..gates.guards import Guards, guards_of
from ..gates.opened import open_site
from ..gates.waiting import asks
from ..kinds.items.form import FORMS, Form
from ..kinds.pieces.gate import GATE_STATES, Gate
from ..model.site import Page, Site
from ..model.tree import items_of
from .fitting import fitter_of
from .page.compose import Composer
from .search.search_html import results_path
from .shelf import Shelf
from .shown_files import PICTURE_NAME, ShownFiles
from .sitemap import sitemaps

NOT_FOUND = "/404.html"
GATES_PATH = "/_rim/gates/"
GUARDS_PATH = f"{GATES_PATH}guards.json"
CONSENT_PATH = f"{GATES_PATH}consent.json"


class PublishedFile(NamedTuple):
    """A file's name below the site's folder and its bytes; `content` is its hash where it is known beforehand."""

    name: str
    data: bytes
    content: str | None = None


def composer_of(site: Site, shelf: Shelf, read: Callable[[str], bytes], year: int | None = None) -> Composer:
    """The composer of a site as it is published."""
    fitter = fitter_of(shelf, read, year)
    return Composer(fitter.resolved(site), shelf, read, year=year, fitter=fitter)


class Publisher:
    """Of what anybody may see one composer, and another of what is behind a locked door: nothing that the first one
    makes knows of that."""

    def __init__(self, site: Site, shelf: Shelf, read: Callable[[str], bytes], year: int | None = None) -> None:
        guards = guards_of(site)
        opened = open_site(site, guards)
        self.opened = composer_of(opened, shelf, read, year)
        self.behind = self.opened if opened is site else composer_of(site, shelf, read, year)
        shown = (ShownFiles(one, read, shelf.readers) for one in (opened, site))
        self.guards = _with_smaller(guards, site, *shown) if guards and opened is not site else guards

    def of(self, path: str) -> Composer:
        return self.behind if self.is_locked(path) else self.opened

    def is_locked(self, path: str) -> bool:
        return self.behind is not self.opened and self.guards is not None and self.guards.is_locked(path)

    def is_for_everybody(self, page: Page) -> bool:
        """Whether nothing stands before it."""
        return self.guards is None or not self.guards.before_path(page.path).any


def publication(
    site: Site,
    shelf: Shelf,
    read: Callable[[str], bytes],
    *,
    share: int = 0,
    of: int = 1,
    year: int | None = None,
    publisher: Publisher | None = None,
    kept: Container[str] = (),
    index: Callable[[Composer, str], Mapping[str, bytes]] = Composer.index,
) -> Iterator[PublishedFile]:
    """All files of the site, pages first; or one share of them, where several processes publish it together. Each share
    has what its own pages load: what two of them load bears the same name in both.

    `read` gives the bytes of a content by its hash; `year` is the present one, for lines that tell it. `publisher`: one
    that was made for it before. `kept`: pages and files that are not made again, by their names; `index`: what a search
    index consists of. They are for our own server, which keeps the gates; for others see `unserved`.
    """
    made_by = publisher or Publisher(site, shelf, read, year)
    composer = made_by.opened
    for page in _pages_of(site, composer, share, of):
        name = file_name(page.path)
        if name in kept:
            continue
        if page.content is None:
            yield PublishedFile(name, made_by.of(page.path).page_to_come(page))
        else:
            yield PublishedFile(name, made_by.of(page.path).page(page, read(page.content)))
    for asset in site.assets[share::of]:
        name = file_name(asset.path)
        if name not in kept:
            yield PublishedFile(name, read(asset.content), asset.content)
    if share == of - 1:
        for language in composer.index_paths:
            yield from (PublishedFile(path[1:], data) for path, data in index(composer, language).items())
    if share == 0:
        yield from _our_pages(site, composer)
        for path, data in sitemaps(composer.site, composer.counterparts, made_by.is_for_everybody):
            yield PublishedFile(path[1:], data)
        if made_by.guards:
            yield from _gate_pages(site, composer, made_by.guards)
            yield PublishedFile(GUARDS_PATH[1:], made_by.guards.kept.model_dump_json().encode())
        if asks(site):
            yield _answers_kept(site)
    loaded = dict(composer.loaded() if share else composer.parts())
    if made_by.behind is not composer:
        loaded |= made_by.behind.loaded() if share else made_by.behind.parts()
    for path, data in loaded.items():
        yield PublishedFile(path[1:], data)


def _pages_of(site: Site, composer: Composer, share: int, of: int) -> Iterator[Page]:
    """Making the indexes takes longer than composing all pages: the share that makes them has no page."""
    sharing = of - 1 if of > 1 and composer.index_paths else of
    return (page for at, page in enumerate(site.pages) if at % sharing == share)


def _gate_pages(site: Site, composer: Composer, guards: Guards) -> Iterator[PublishedFile]:
    """What each gate shows in each state, by language. No visitor gets these by their names."""
    for gate in (piece for piece in composer.site.pieces if isinstance(piece, Gate) and piece.id in guards.gates):
        for language in site.languages:
            for state in GATE_STATES:
                name = f"{GATES_PATH[1:]}{gate.id}/{state}-{language}.html"
                yield PublishedFile(name, composer.gate_page(gate, language, state))


def _answers_kept(site: Site) -> PublishedFile:
    """What a server needs to know of answers to a question about consent."""
    about = {"categories": [one.id for one in site.categories], "kept_days": site.consent.kept_days}
    return PublishedFile(CONSENT_PATH[1:], json.dumps(about).encode())


def _with_smaller(guards: Guards, site: Site, opened: ShownFiles, behind: ShownFiles) -> Guards:
    """The smaller sizes of a picture are guarded as it is, where it shows only to who has passed."""
    open_ones = {path for path, _ in opened.smaller_pictures()}
    smaller = {path for path, _ in behind.smaller_pictures()} - open_ones
    whole = {asset.content[:PICTURE_NAME]: unquote(asset.path) for asset in site.assets}
    pages = {path: guards.kept.pages[whole[path.rpartition("/")[2][:PICTURE_NAME]]] for path in sorted(smaller)}
    return Guards(guards.kept.replaced(pages={**guards.kept.pages, **pages})) if pages else guards


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

"""Where does a link of a menu, button or icon lead, for a page in a given language?"""

from __future__ import annotations

from urllib.parse import quote

from ...kinds.entries import Entry
from ...values.targets import Target, ToAddress, ToPage, ToPlace
from ..site import Page, Site
from .counterparts import Counterparts
from .page_index import index_of


class Links:
    """The site's pages by id, and their translations."""

    def __init__(self, site: Site) -> None:
        self.pages = index_of(site.pages).by_id
        self.counterparts = Counterparts(site)
        self._front = index_of(site.pages).by_path.get("/")

    def page(self, page_id: str, language: str) -> Page | None:
        """The page itself, or its translation into `language` where there is one; None where it is gone."""
        page = self.pages.get(page_id)
        return page and (self.counterparts.same(page, language) or page)

    def front(self, language: str) -> str:
        """Path of the front page in that language."""
        page = self.page(self._front.id, language) if self._front else None
        return page.path if page else "/"

    def resolve(self, target: Target, language: str) -> tuple[str | None, Page | None]:
        """The href (None: no link) and the page it leads to, if it is one of the site's."""
        match target:
            case ToPage(page=page_id):
                page = self.page(page_id, language)
                return (page.path, page) if page else (None, None)
            case ToPlace(page=page_id, place=place):
                page = self.page(page_id, language)
                return (f"{page.path}#{quote(place)}", page) if page else (None, None)
            case ToAddress(address=address):
                return address, None
            case _:
                return None, None

    def label(self, entry: Entry, language: str) -> str:
        """The entry's words, or the title of its page."""
        words = entry.label.in_language(language)
        if words:
            return words
        target = entry.target
        page = self.page(target.page, language) if isinstance(target, ToPage | ToPlace) else None
        return (page.title or page.path) if page else ""

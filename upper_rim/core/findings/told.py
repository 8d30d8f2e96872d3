"""How is it said what was found: what, about what, at which widths and in which languages, on how many pages?"""

from __future__ import annotations

import re
from collections.abc import Sequence

from ..kinds.entries import Entry
from ..kinds.items.base import BaseItem
from ..kinds.pieces.base import Piece
from ..languages.names import name_in
from ..model.names import cause_name, node_name
from ..model.navigation.links import Links
from ..model.site import Menu, Page, Site
from ..model.tree import ROOT, walk
from ..reach.reached import reached
from ..values.styling import Styled
from .finding import Finding
from .whole import Cause
from .words import WORDS, finding_words

_NAMES_IT = re.compile(r"\{(who|both)\}|“\{first\}” (and|brings)")


def all_of(listed: Sequence[str]) -> str:
    """One, two and three."""
    return " and ".join((", ".join(listed[:-1]), listed[-1])) if len(listed) > 1 else "".join(listed)


class Teller:
    """Of one site. Names are those under which things are worked on."""

    def __init__(self, site: Site) -> None:
        self.site = site
        self._links = Links(site)
        self._pages = {page.id: page.path for page in site.pages}
        self._bands = {band.id: band.name for band in site.bands}
        self._names = {ROOT: site.name}
        self._within: dict[str, Piece | Menu] = {}
        for holder in (*site.pieces, *site.menus):
            for node in (holder, *walk(holder)):
                self._within[node.id] = holder
                self._names[node.id] = self._name(node)
        for node in walk(site):
            if node.id not in self._names:
                self._names[node.id] = self._name(node)

    def _name(self, node: object) -> str:
        if isinstance(node, Entry):
            return self._links.label(node, self.site.language)
        if isinstance(node, Page):
            return node.path
        if isinstance(node, BaseItem) or (isinstance(node, Styled) and hasattr(node, "track")):
            return node_name(node, self.site)
        said = getattr(node, "name", "") or getattr(getattr(node, "words", None), "text", "")
        return str(said or getattr(node, "id", ""))

    def name(self, node: str) -> str:
        return self._names.get(node, node)

    def holder(self, node: str) -> Piece | Menu | None:
        """The piece or the menu that it is, or stands in."""
        return self._within.get(node)

    def page(self, page: str) -> str:
        """Its path, by its id."""
        return self._pages.get(page, "")

    def said(self, cause: Cause) -> str:
        """A sentence without its end, of the place where it is most."""
        return self.said_of(cause.findings[0])

    def said_of(self, one: Finding) -> str:
        return finding_words(one, lambda node: self._caused(node, one.language))

    def _caused(self, node: str, language: str) -> str:
        """A menu's entry in the language in which something is so."""
        said = cause_name(self.site, node, language) if language and isinstance(self.holder(node), Menu) else ""
        return said.strip("“”") or self.name(node)

    def line(self, cause: Cause) -> str:
        """All of it in one line, for a terminal."""
        said = self.said(cause)
        if cause.node != ROOT and not _NAMES_IT.search(WORDS[cause.kind]):
            said = f"{self.name(cause.node)}: {said}"
        languages = ", ".join(self.languages(cause))
        more = len(cause.findings) - 1
        return f"{said}{f', in {languages}' if languages else ''}{f' (and {more} more)' if more else ''}"

    def languages(self, cause: Cause) -> list[str]:
        """What they are called in English."""
        return [name_in(tag, "en") for tag in cause.languages]

    def bands(self, cause: Cause) -> list[str]:
        bands = dict.fromkeys(one.place.band for one in cause.findings)
        return [] if len(bands) == len(self._bands) else [self._bands[band] for band in bands if band in self._bands]

    def where(self, cause: Cause) -> list[str]:
        """From the outside in: a piece or menu, and what in it; a page; the site."""
        holder = self.holder(cause.node)
        if holder is not None:
            own = [] if holder.id == cause.node else [self.name(cause.node)]
            return [holder.name, *own, *([self.name(cause.stage)] if cause.stage else [])]
        page = self.page(cause.findings[0].place.page)
        return [page if cause.node == ROOT and page else self.name(cause.node)]

    def when(self, cause: Cause) -> list[str]:
        """In which languages, at which widths, on how many pages: what of it there is to say."""
        pages, languages, bands = self.on(cause), self.languages(cause), self.bands(cause)
        said = (
            f"in {all_of(languages)}" if languages else "",
            f"at {all_of(bands)}" if bands else "",
            f"on {pages} page{'' if pages == 1 else 's'}" if pages is not None else "",
        )
        return [one for one in said if one]

    def on(self, cause: Cause) -> int | None:
        """On how many pages the piece shows that it is about; None where it is about none."""
        holder = self.holder(cause.node)
        return reached(self.site).pages.get(holder.id, 0) if isinstance(holder, Piece) else None

"""A list of links out of a menu."""

from __future__ import annotations

from collections.abc import Mapping, Set
from typing import Literal

from ...values.styling import Part
from ...values.words import Words
from ..context import PageContext, Speaks
from ..marks import entries_mark
from ..markup import Markup, element
from .base import Landmark, ShowsMenu, named_by
from .parts import listed, title_over


class LinkList(ShowsMenu):
    """The first level of a menu as a list under a title."""

    NAME = "List of links"
    ABOUT = "A title, and links one below the other"
    CALLED = ("list", "column")
    ROLES = {"box": "menu", "content": "entry", "heading": "list-title", "second-line": "second-line", "badge": "badge"}

    kind: Literal["links"] = "links"
    words: Words = Words()

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def landmark(self, speaks: Speaks) -> Landmark:
        name = self.words.in_language(speaks.language) or speaks.menu_name(self.menu) or self.NAME
        return Landmark("navigation", name)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        head = title_over(page.words(self.words, self.id), self.id, page)
        named = {"aria-labelledby": head.attributes["id"]} if head else {"aria-label": self.landmark(page).name}
        attributes = {**page.attributes(self, "menu", "links", self.id), **named}
        return (element("nav", attributes, head, listed(page, entries_mark(self.id, page))),)

    @property
    def unseen_parts(self) -> Set[Part]:
        return set() if self.words.text else {"heading"}

    def texts_within(self) -> tuple[Part, ...]:
        return ("heading",) if self.words.text else ()

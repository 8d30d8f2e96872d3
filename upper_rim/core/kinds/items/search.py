"""A search field."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Literal

from pydantic import Field

from ...values.brands import Brands
from ...values.styling import Part
from ...values.words import Words
from ..context import PageContext, Speaks
from ..markup import Markup, element
from .base import BaseItem, Landmark, named_by
from .parts import icon


class SearchBox(BaseItem):
    """Searches the published pages, in the language of the page that it stands on."""

    NAME = "Search"
    ABOUT = "Finds words on the site’s pages"
    CALLED = ("find",)
    ROLES = {"box": "block", "field": "field", "icon": "icon"}

    kind: Literal["search"] = "search"
    words: Words = Field(default=Words(), description="The field's name; “Search” in the page's language where empty.")

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def landmark(self, speaks: Speaks) -> Landmark:
        return Landmark("search", self.words.in_language(speaks.language), early=True)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        """A search landmark where pieces come first; below, only a form, so that landmarks stay few and unlike."""
        words = self.words.in_language(page.language) or page.phrase("search")
        field = element(
            "input",
            {
                "class": page.name("field"),
                "id": page.html_id(f"{self.id}-field"),
                "type": "search",
                "name": "q",
                "autocomplete": "off",
                "aria-label": words,
                "placeholder": words,
            },
        )
        button = element("button", {"class": page.name("link"), "aria-label": words}, icon("search", page))
        form = element(
            "form",
            {
                "role": "search" if page.early else None,
                "aria-label": (self.landmark(page).name or None) if page.early else None,
                "action": page.results_path,
                "class": page.name("asking"),
                "data-rim-search": page.index_path,
                "data-rim-late": page.module("search"),
            },
            field,
            button,
        )
        told = element("p", {"role": "status", "data-rim-words": page.phrase("found", "{0}")})
        found = element("div", {"class": page.name("found"), "hidden": True}, told, element("ul", {"role": "list"}))
        return (element("div", page.attributes(self, "block", "search", self.id), form, found),)

    def icons(self, brands: Brands) -> Iterable[str]:
        return ("search",)

    def modules(self, band_from_px: Mapping[str, int]) -> Iterable[str]:
        return ("search",)

    def texts_within(self) -> tuple[Part, ...]:
        return ("field",)

    @property
    def has_placeholder(self) -> bool:
        return True

"""A plain text."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, Literal

from ...values.words import Words
from ..context import PageContext, SiteOffer
from ..markup import Markup, element
from .base import Lack, Leads, is_first, named_by
from .parts import link


class TextItem(Leads):
    """Words in one style; all of them a link, where they lead somewhere."""

    NAME = "Text"
    ABOUT = "Words, in one style"
    CALLED = ("words", "sentence", "tagline")
    ROLES = {"box": "text"}

    kind: Literal["text"] = "text"
    words: Words = Words(text="Text")

    @classmethod
    def beginning(cls, offer: SiteOffer) -> dict[str, Any]:
        return {"words": {"text": offer.site_name}}

    def lacks(self) -> Iterator[Lack]:
        if is_first(self):
            yield Lack("first words", "words")

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        attributes, words = page.attributes(self, "text", self.id), page.words(self.words, self.id)
        if page.destination(self.target).href is None:
            return (element("span", attributes, words),)
        return (link(self.target, attributes, page, words, new_window=self.new_window),)

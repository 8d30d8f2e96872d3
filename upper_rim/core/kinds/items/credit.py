"""Whose work something is."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

from ...values.words import Label, Words
from ..context import PageContext, SiteOffer
from ..markup import Markup, element
from .base import Leads, named_by
from .parts import link


class Credit(Leads):
    """What somebody made, and who it was: a link to them, where it leads somewhere."""

    NAME = "Credit"
    ABOUT = "Who made the site, its pictures or its words"
    CALLED = ("credits", "made by", "design by", "photos by")
    ROLES = {"box": "text"}

    kind: Literal["credit"] = "credit"
    words: Words = Words(text="Made by")
    who: Label = ""

    @classmethod
    def beginning(cls, offer: SiteOffer) -> dict[str, Any]:
        return {"who": offer.site_name}

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.who)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        words = page.words(self.words, self.id)
        said: list[Markup] = [f"{words} " if words and self.who else words]
        if self.who:
            said.append(element("bdi", {}, self.who))
        attributes = page.attributes(self, "text", self.id)
        if page.destination(self.target).href is None:
            return (element("span", attributes, *said),)
        return (link(self.target, attributes, page, *said, new_window=self.new_window),)

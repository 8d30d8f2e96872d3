"""A link that looks like a button."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, Literal

from pydantic import Field

from ...values.styling import Part, Role
from ...values.words import Words
from ..context import PageContext, SiteOffer
from ..markup import Markup
from .base import Lack, Leads, lacks_of_a_link, named_by
from .parts import link


class ButtonItem(Leads):
    NAME = "Button"
    ABOUT = "One thing to press"
    CALLED = ("link", "call to action")
    ALIKE = ("words", "target")

    kind: Literal["button"] = "button"
    words: Words = Words(text="Button")
    rank: Literal["first", "second"] = Field(
        default="first", description="Whose defaults it takes: those of the button, or of the second button."
    )

    @classmethod
    def beginning(cls, offer: SiteOffer) -> dict[str, Any]:
        """It leads somewhere from the beginning."""
        if offer.section is None:
            return {}
        page, title = offer.section
        return {"words": {"text": title}, "target": {"kind": "page", "page": page}}

    @property
    def roles(self) -> Mapping[Part, Role]:
        return {"box": "second" if self.rank == "second" else "button"}

    def lacks(self) -> Iterator[Lack]:
        return lacks_of_a_link(self)

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        attributes = page.attributes(self, self.roles["box"], self.id)
        return (link(self.target, attributes, page, page.words(self.words, self.id), new_window=self.new_window),)

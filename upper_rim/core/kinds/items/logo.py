"""The site's title or its picture."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from ...values.addresses import PagePath
from ...values.words import Words
from ..context import PageContext, SheetContext
from ..markup import Markup, element
from ..rule import Rule
from .base import Leads
from .parts import link


class Logo(Leads):
    """The site's title, or a picture carried with the site; leads to the front page, unless it says otherwise."""

    NAME = "Logo"
    ABOUT = "The site’s own picture, or its title"
    CALLED = ("title", "brand")
    ROLES = {"box": "title"}
    ALIKE = ("words", "picture", "height_px")

    kind: Literal["logo"] = "logo"
    words: Words = Field(
        default=Words(), description="Shown as text, or as the picture's name; the site's name where empty."
    )
    picture: PagePath | None = Field(default=None, description="Path of a picture among the site's files.")
    height_px: Annotated[int, Field(ge=8, le=400)] = 40

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        words = self.words.in_language(page.language) or page.site_name
        content: Markup = words
        if self.picture:
            content = element("img", {"src": self.picture, "alt": words, **page.size(self.picture, self.height_px)})
        attributes = page.attributes(self, "logo", self.id)
        if page.destination(self.target).href is None:
            made = element("a", {**attributes, "href": page.front}, content)
        else:
            made = link(self.target, attributes, page, content, new_window=self.new_window)
        return (element("h1", {"class": page.name("plain")}, made) if page.is_heading(self.id) else made,)

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        if self.picture is None:
            return
        size = {"block-size": f"{self.height_px}px"}
        picture = sheet.picture(self.picture)
        if picture:
            # Its width is kept free until it is there, so that what stands beside it does not move.
            size["inline-size"] = f"{self.height_px * picture.width / picture.height:.4g}px"
        yield Rule(f"{own}>img", size)

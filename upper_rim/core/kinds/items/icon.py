"""An icon with a link."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Literal

from pydantic import Field

from ...values.addresses import PagePath
from ...values.brands import Brand, Brands
from ...values.scalars import IconName, IconSize, WordsShown
from ...values.words import Words
from ..context import PageContext, SheetContext
from ..markup import Markup, element
from ..rule import Rule
from .base import Lack, Leads, lacks_of_a_link
from .parts import WORDS_CLASS, drawn_mask, icon, link, square


class IconLink(Leads):
    """An icon with a link; its words are its accessible name."""

    NAME = "Icon link"
    ABOUT = "A sign that leads somewhere"
    CALLED = ("icon", "symbol")
    ROLES = {"box": "icon"}
    TAKES_BRANDS = True

    kind: Literal["icon"] = "icon"
    icon: IconName = "link"
    picture: PagePath | None = Field(default=None, description="A drawing of one's own among the site's files.")
    words: Words = Words(text="Link")
    icon_px: IconSize = 22
    words_shown: WordsShown = "none"

    def lacks(self) -> Iterator[Lack]:
        return lacks_of_a_link(self)

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return f"Icon: {self.icon}"

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        name = page.words(self.words, self.id)
        drawn = icon(f"own-{self.id}" if self.picture else self.icon, page)
        if self.words_shown == "none":
            return (
                link(
                    self.target,
                    {**page.attributes(self, "link", self.id), "aria-label": name},
                    page,
                    drawn,
                    new_window=self.new_window,
                ),
            )
        attributes = page.attributes(self, "link", WORDS_CLASS[self.words_shown], self.id)
        return (link(self.target, attributes, page, drawn, element("span", {}, name), new_window=self.new_window),)

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        if self.picture:
            yield Rule(f"{own}>.{sheet.key}-icon-own-{self.id}", drawn_mask(self.picture))
        yield Rule(f"{own}>.{sheet.key}-icon", square(self.icon_px))

    def icons(self, brands: Brands) -> Iterable[str]:
        return () if self.picture else (self.icon,)

    def brand_marks(self, brands: Brands) -> Iterable[Brand]:
        brand = brands.by_slug.get(self.icon.removeprefix("brand-")) if self.icon.startswith("brand-") else None
        return (brand,) if brand else ()

    def named_icons(self) -> Mapping[str, str]:
        return {"icon": self.icon}

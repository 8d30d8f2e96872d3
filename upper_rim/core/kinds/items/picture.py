"""A picture."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ...values.addresses import PagePath
from ...values.scalars import Percent
from ...values.targets import Target, ToNothing
from ...values.words import Words
from ..context import PageContext, SheetContext
from ..markup import Element, Markup, element
from ..rule import Rule
from .base import BaseItem, Lack
from .parts import lazy


class PictureItem(BaseItem):
    """A picture carried with the site. Its words are its alternative; an ornament has none."""

    NAME = "Picture"
    ABOUT = "A picture of the site’s files"
    CALLED = ("image", "photo")

    kind: Literal["picture"] = "picture"
    picture: PagePath | None = None
    words: Words = Words()
    ornament: bool = False
    width_px: Annotated[int, Field(ge=8, le=4000)] = 320
    ratio: Annotated[str, StringConstraints(pattern=r"^([1-9]\d{0,3}/[1-9]\d{0,3})?$")] = Field(
        default="", description="Width/height that it is cropped to; its own where empty."
    )
    fits: Literal["cover", "contain"] = Field(
        default="cover", description="In its shape it is cropped, or whole with room beside it (CSS `object-fit`)."
    )
    focus_x: Percent = Field(default=50, description="What stays in view when it is cropped: from the start, in %.")
    focus_y: Percent = Field(default=50, description="From the top, in %.")
    target: Target = ToNothing()

    def lacks(self) -> Iterator[Lack]:
        if self.picture is None:
            yield Lack("no picture", "picture")
        elif not self.ornament and not self.words.text.strip():
            yield Lack("no alternative", "words")

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return f"Picture: {self.picture.rpartition('/')[2]}" if self.picture else "Picture: none yet"

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        attributes = page.attributes(self, "block", "picture", self.id)
        if self.picture is None:
            return (element("div", attributes),)
        image, leads = self._image(self.picture, page), page.destination(self.target)
        if leads.href is None:
            return (element("div", attributes, image),)
        return (element("a", {**attributes, "href": leads.href}, image),)

    def _image(self, path: str, page: PageContext) -> Element:
        smaller = page.smaller_pictures(path, self.width_px)
        return element(
            "img",
            {
                "src": path,
                "srcset": ", ".join(f"{source} {width}w" for source, width in smaller) or None,
                "sizes": f"(width < {self.width_px}px) 100vw, {self.width_px}px" if smaller else None,
                "alt": "" if self.ornament else self.words.in_language(page.language),
                **page.size(path),
                "loading": lazy(page),
                "decoding": "async",
            },
        )

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        size = {
            "display": "block",
            "inline-size": f"{self.width_px}px",
            "max-inline-size": "100%",
            "block-size": "auto",
        }
        natural = sheet.picture(self.picture) if self.picture else None
        if self.ratio:
            place = f"{self.focus_x}% {self.focus_y}%"
            size |= {"aspect-ratio": self.ratio, "object-fit": self.fits, "object-position": place}
        elif natural:
            size["aspect-ratio"] = f"{natural.width}/{natural.height}"
        yield Rule(f"{own}>img", size)

"""The overlay in which pictures open."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Set
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ...values.brands import Brands
from ...values.scalars import Percent
from ...values.styling import Part
from ..context import PageContext, SheetContext
from ..markup import Element, Markup, element
from ..rule import Rule
from .base import BaseItem
from .parts import icon

NO_PICTURE = "data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw=="
"""One clear pixel, until there is a picture to show (HTML, 4.8.3: an `img` has a source)."""


class Viewer(BaseItem):
    """The overlay in which pictures of a page's own content open."""

    NAME = "Picture viewer"
    ABOUT = "Opens a page’s pictures large"
    CALLED = ("lightbox", "gallery")
    ROLES = {"box": "block", "icon": "icon", "arrow": "icon", "caption": "caption"}

    kind: Literal["viewer"] = "viewer"
    selector: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = "main img, article img"
    opacity_percent: Percent = Field(default=92, description="Of the ground behind the picture.")
    captions: bool = True

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        data = {
            "viewer": self.selector,
            "late": page.module("viewing"),
            "pieces": f".{page.name()}",
            "enlarge": page.phrase("enlarge"),
            "picture": page.phrase("picture"),
            "captions": "" if self.captions else None,
        }
        told = {f"data-rim-{name}": value for name, value in data.items()}
        attributes = {
            **page.attributes(self, "block", "viewer", self.id),
            "aria-label": page.phrase("picture"),
            **told,
        }
        figure = element(
            "figure",
            {"class": page.name("figure")},
            element("img", {"alt": "", "src": NO_PICTURE}),
            element("figcaption", {}),
        )
        close, before, after = (
            _button(drawn, page.phrase(words), page) for drawn, words in (("x", "close_notice"), *_ARROWS.items())
        )
        return (element("dialog", attributes, close, before, figure, after),)

    @property
    def unseen_parts(self) -> Set[Part]:
        return set() if self.captions else {"caption"}

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        yield Rule(own, {f"--{sheet.key}-veil": f"{self.opacity_percent}%"})

    def named_selectors(self) -> Mapping[str, str]:
        return {"selector": self.selector} if self.selector else {}

    def icons(self, brands: Brands) -> Iterable[str]:
        return tuple(_ARROWS)

    def modules(self, band_from_px: Mapping[str, int]) -> Iterable[str]:
        return ("viewing",)


_ARROWS = {"chevron-left": "before", "chevron-right": "after"}


def _button(drawn: str, words: str, page: PageContext) -> Element:
    classes = ("link", "arrow") if drawn in _ARROWS else ("link",)
    attributes = {"type": "button", "class": " ".join(map(page.name, classes)), "aria-label": words}
    return element("button", attributes, icon(drawn, page))

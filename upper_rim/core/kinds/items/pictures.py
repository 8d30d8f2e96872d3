"""Links with their pictures."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Annotated, Literal

from pydantic import Field

from ...values.addresses import PagePath
from ...values.nodes import Node, Pixels
from ...values.refs import BandRef, PageRef
from ...values.styling import Part
from ...values.targets import Target, ToNothing, ToPage
from ...values.words import Words
from ..context import PageContext, SheetContext
from ..markup import Attributes, Element, Markup, element
from ..rule import Rule
from .base import BaseItem, Lack
from .parts import lazy, listed


class PictureLink(Node):
    """A link of a picture list, and the picture that shows with it."""

    words: Words = Words()
    second: Words = Field(default=Words(), description="A second line.")
    picture: PagePath | None = None
    target: Target = ToNothing()


class PictureList(BaseItem):
    """Links; the picture of the one that is pointed at, or has the focus, shows. At first, the first one's."""

    NAME = "Picture list"
    ABOUT = "Links, and a picture for each"
    CALLED = ("images", "gallery")
    ROLES = {"box": "menu", "content": "entry", "second-line": "second-line"}
    CHILDREN = ("links",)
    FILLS = True

    kind: Literal["pictures"] = "pictures"
    links: tuple[PictureLink, ...] = ()
    place: Literal["beside", "behind", "edges"] = Field(
        default="beside", description="Pictures beside the list, behind it, or behind it to the window's edges."
    )
    list_side: Literal["start", "end"] = "start"
    list_percent: Annotated[int, Field(ge=10, le=100)] = Field(default=45, description="The list's share of the width.")
    list_padding_px: Pixels = 16
    gap_px: Pixels = 4
    gap_grows: Annotated[int, Field(ge=0, le=20)] = Field(
        default=0, description="By how much the space between links grows, in hundredths of the viewport's width."
    )
    least_height_px: Pixels = 280
    pictures_from: BandRef | None = Field(
        default=None, description="The first width band, from narrow to wide, that shows pictures; all where None."
    )

    def lacks(self) -> Iterator[Lack]:
        if not self.links:
            yield Lack("empty list", "links")
        for link in self.links:
            if link.picture is None:
                yield Lack("no picture", "picture", link.id)
            if not link.words.text.strip():
                yield Lack("first words", "words", link.id)
            if isinstance(link.target, ToNothing):
                yield Lack("leads nowhere", "target", link.id)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        lines = (self._line(link, page) for link in self.links)
        return (element("div", page.attributes(self, "menu", "pictures", self.id), listed(page, *lines)),)

    def _line(self, link: PictureLink, page: PageContext) -> Element:
        """The picture says nothing that the link does not say: it has no alternative."""
        leads = page.destination(link.target)
        title = page.words(link.words, link.id) or leads.title
        second = page.words(link.second, link.id)
        lead: Attributes
        if leads.href is None:
            lead = {"role": "link", "aria-disabled": "true"}
        else:
            lead = {"href": leads.href, "aria-current": "page" if leads.is_current else None}
        anchor = element(
            "a",
            {**lead, **page.mark(link.id)},
            element("span", {}, title),
            element("small", {"class": page.name("more")}, second) if second else None,
        )
        return element("li", {}, anchor, self._picture(link.picture, page) if link.picture else None)

    def _picture(self, path: str, page: PageContext) -> Element:
        return element("img", {"src": path, "alt": "", **page.size(path), "loading": lazy(page), "decoding": "async"})

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        """The list's share of the room, and where the pictures stand in the bands that show them."""
        key, begins = sheet.key, self.list_side == "start"
        listing, image = f"{own} .{key}-list", f"{own} img"
        gap = f"calc({self.gap_px}px + {self.gap_grows}vw)" if self.gap_grows else f"{self.gap_px}px"
        yield Rule(listing, {"row-gap": gap, "padding": f"{self.list_padding_px}px"})
        (from_px,) = self.changes_at(sheet.band_from_px)
        shown = (f"@media (width >= {from_px}px)",) if from_px else ()
        share, rest = f"{self.list_percent}%", f"{100 - self.list_percent}%"
        size = {
            "min-block-size": f"{self.least_height_px}px",
            "margin-inline": f"0 {rest}" if begins else f"{rest} 0",
            "inline-size": share,
        }
        yield Rule(listing, size, shown)
        places = {
            "beside": {"inset-inline": f"{share} 0" if begins else f"0 {share}", "inline-size": rest},
            "behind": {"inset-inline": "0", "inline-size": "100%"},
            "edges": {"inset-inline": "calc(50% - 50vw)", "inline-size": "100vw"},
        }
        yield Rule(image, places[self.place], shown)
        if self.place != "beside":
            # What can be read over the piece's ground can be read here.
            yield Rule(listing, {"background": f"var(--{key}-ground)"}, shown)
        if self.place == "edges":
            # As wide as the window with its scroll bar, and no wider than the piece.
            yield Rule(own, {"overflow": "visible"}, shown)
            yield Rule(f".{key}:has({own})", {"overflow-x": "clip"}, shown)
        if from_px:
            yield Rule(image, {"display": "none"}, (f"@media (width < {from_px}px)",))

    def texts_within(self) -> tuple[Part, ...]:
        return ("second-line",) if any(link.second.text for link in self.links) else ()

    def changes_at(self, band_from_px: Mapping[str, int]) -> tuple[int, ...]:
        return (band_from_px.get(self.pictures_from or "", 0),)

    def pages_led_to(self) -> Iterable[PageRef]:
        return [link.target.page for link in self.links if isinstance(link.target, ToPage)]

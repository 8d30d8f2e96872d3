"""A map: a drawing made from the coordinates alone, a stand-in which says so, and leads to a real one by a `geo:`
address (RFC 5870)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from math import cos, radians, sin
from typing import Annotated, Literal
from urllib.parse import quote

from pydantic import Field

from ...values.styling import Part
from ...values.words import Words
from ..context import PageContext
from ..markup import Element, Markup, element, html
from .base import BaseItem, Lack, named_by


class MapItem(BaseItem):
    """A drawn map of a place, with a link that map programs open (RFC 5870)."""

    NAME = "Map"
    ABOUT = "Where to find you"
    CALLED = ("place", "directions")
    ROLES = {"box": "block", "link": "link"}

    kind: Literal["map"] = "map"
    words: Words = Words(text="Where we are")
    latitude: Annotated[float, Field(ge=-90, le=90)] = 54.0
    longitude: Annotated[float, Field(ge=-180, le=180)] = -4.5
    width_px: Annotated[int, Field(ge=80, le=2000)] = 320
    height_px: Annotated[int, Field(ge=80, le=2000)] = 200

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def lacks(self) -> Iterator[Lack]:
        first = (MapItem.model_fields[name].default for name in ("latitude", "longitude"))
        if (self.latitude, self.longitude) == tuple(first):
            yield Lack("first place", "latitude")

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        words = self.words.in_language(page.language)
        source = "data:image/svg+xml," + quote(html([self.drawing()]), safe="/=:.,'")
        size = {"width": str(self.width_px), "height": str(self.height_px)}
        link = element(
            "a",
            {"class": page.name("anchor"), "href": f"geo:{self.latitude:g},{self.longitude:g}"},
            element("bdi", {}, words),
            " ",
            element("span", {"dir": "ltr"}, self.place),
        )
        image = element("img", {"src": source, "alt": words, **size})
        return (element("div", page.attributes(self, "block", "map", self.id), image, link),)

    @property
    def place(self) -> str:
        """`52.1234° N, 4.5000° W`."""
        return (
            f"{abs(self.latitude):.4f}° {'N' if self.latitude >= 0 else 'S'}, "
            f"{abs(self.longitude):.4f}° {'E' if self.longitude >= 0 else 'W'}"
        )

    def drawing(self) -> Element:
        """Meridians and parallels around the place, a coast that follows from where it is, and a pin in the middle."""
        wide, high = self.width_px, self.height_px
        turn = self.latitude * 0.7 + self.longitude * 1.3
        coast = " ".join(
            f"{x} {high * (0.62 + 0.16 * sin(turn + x / wide * 5) + 0.07 * cos(turn * 2.1 + x / wide * 13)):.0f}"
            for x in range(0, wide + 1, max(8, wide // 24))
        )
        lines = "".join(f"M{wide * at / 4:.0f} 0V{high}M0 {high * at / 4:.0f}H{wide}" for at in (1, 2, 3))
        across = 0.02 / max(0.1, cos(radians(self.latitude)))
        names = (
            element(
                "text",
                {"x": f"{wide * at / 4 + 3:.0f}", "y": str(high - 5)},
                f"{self.longitude + (at - 2) * across:.2f}°",
            )
            for at in (1, 3)
        )
        pin = element("path", {"fill": "#9c3b26", "d": "M0 0c-4-9-10-13-10-20a10 10 0 0 1 20 0c0 7-6 11-10 20z"})
        return element(
            "svg",
            {
                "xmlns": "http://www.w3.org/2000/svg",
                "width": str(wide),
                "height": str(high),
                "viewBox": f"0 0 {wide} {high}",
            },
            _path(fill="#cfe3ea", d=f"M0 0h{wide}v{high}H0z"),
            _path(fill="#e9e4d4", stroke="#a8a08a", d=f"M{coast} {wide} {high} 0 {high}z"),
            element("path", {"stroke": "#7f98a1", "stroke-opacity": ".5", "d": lines}),
            element("g", {"font-family": "sans-serif", "font-size": "10", "fill": "#4a5a60"}, *names),
            element(
                "g",
                {"transform": f"translate({wide // 2} {high // 2})"},
                pin,
                element("circle", {"cy": "-20", "r": "4", "fill": "#fff"}),
            ),
        )

    def texts_within(self) -> tuple[Part, ...]:
        return ("link",)


def _path(**attributes: str) -> Element:
    return element("path", attributes)

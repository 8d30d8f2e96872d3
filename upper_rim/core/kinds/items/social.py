"""Profiles elsewhere."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Annotated, Literal
from urllib.parse import urlsplit

from pydantic import Field, StringConstraints

from ...values.addresses import Address
from ...values.brands import Brand, Brands
from ...values.nodes import Node, Pixels
from ...values.scalars import IconSize, WordsShown
from ...values.words import Label
from ..context import PageContext, SheetContext
from ..markup import Element, Markup, element
from ..rule import Rule
from .base import BaseItem, Fact, Lack
from .parts import WORDS_CLASS, icon, listed, square


class Profile(Node):
    """An address elsewhere. The icon is found from its host."""

    address: Address
    name: Label = Field(default="", description="What it is called; the host's own name where empty.")
    colour: Annotated[str, StringConstraints(pattern=r"^(#[0-9a-fA-F]{6})?$")] = Field(
        default="", description="Of its icon alone; that of the row where empty."
    )


class SocialRow(BaseItem):
    """Profiles elsewhere, mail and telephone, each as its icon."""

    NAME = "Profiles"
    ABOUT = "Profiles elsewhere, each by its mark"
    CALLED = ("social", "follow us", "networks")
    ROLES = {"box": "menu", "content": "icon"}
    CHILDREN = ("profiles",)
    ALIKE = ("profiles",)

    kind: Literal["social"] = "social"
    profiles: tuple[Profile, ...] = ()
    icon_px: IconSize = 20
    gap_px: Pixels = 4
    words_shown: WordsShown = "none"
    new_window: bool = False
    own_colours: bool = Field(default=False, description="Each icon in the colour of its own mark.")

    def facts(self) -> Mapping[str, Fact]:
        """By whose service it is; two at one are told apart by nothing."""
        wheres = [_where(profile.address) for profile in self.profiles]
        return {
            f"profile {where}": Fact(profile.id, "address", profile.address)
            for where, profile in zip(wheres, self.profiles, strict=True)
            if wheres.count(where) == 1
        }

    def lacks(self) -> Iterator[Lack]:
        if not self.profiles:
            yield Lack("empty list", "profiles")

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        lines = (element("li", {}, self._link(profile, page)) for profile in self.profiles)
        return (element("div", page.attributes(self, "menu", "social", self.id), listed(page, *lines)),)

    def _link(self, profile: Profile, page: PageContext) -> Element:
        mark = page.brand_mark(profile.address)
        name = profile.name or mark.title
        is_web = not profile.address.startswith(("mailto:", "tel:"))
        opens_window = self.new_window and is_web
        note = f" ({page.phrase('new_window')})" if opens_window else ""
        words = None if self.words_shown == "none" else element("span", {}, name)
        classes = ["link"]
        classes += [WORDS_CLASS[self.words_shown]] if words else []
        classes += [profile.id] if profile.colour else []
        attributes = {
            "class": " ".join(page.name(part) for part in classes),
            "href": profile.address,
            "target": "_blank" if opens_window else None,
            "rel": "noopener me" if opens_window else "me" if is_web else None,
            "aria-label": name + note if words is None or opens_window else None,
            **page.mark(profile.id),
        }
        return element("a", attributes, icon(mark.icon, page), words)

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        yield Rule(f"{own} .{sheet.key}-list", {"gap": f"{self.gap_px}px"})
        # Icons in a list are as large as its text, unless their list says so.
        yield Rule(f"{own} .{sheet.key}-list .{sheet.key}-icon", square(self.icon_px))
        for one in self.profiles:
            if one.colour:
                yield Rule(f"{own} .{sheet.key}-{one.id} .{sheet.key}-icon", {"background": one.colour})
        if self.own_colours:
            marks = (sheet.brand_mark(one.address).brand for one in self.profiles)
            for brand in {mark.slug: mark for mark in marks if mark}.values():
                yield Rule(f"{own} .{sheet.key}-icon-brand-{brand.slug}", {"background": f"#{brand.colour}"})

    def icons(self, brands: Brands) -> Iterable[str]:
        marks = (brands.mark(one.address) for one in self.profiles)
        return [mark.icon for mark in marks if mark.brand is None]

    def brand_marks(self, brands: Brands) -> Iterable[Brand]:
        marks = (brands.mark(one.address) for one in self.profiles)
        return [mark.brand for mark in marks if mark.brand]


def _where(address: str) -> str:
    """The host of an address, without the name that many have before it; or mail, or telephone."""
    parts = urlsplit(address)
    return (parts.hostname or "").removeprefix("www.") or parts.scheme

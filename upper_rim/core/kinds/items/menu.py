"""A menu: in a row, as a column, in columns; and the button that stands for it, with what it opens."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Set
from typing import Annotated, Any, Literal

from pydantic import Field

from ...values.addresses import PagePath
from ...values.brands import Brands
from ...values.nodes import Pixels
from ...values.properties import CORNERS
from ...values.refs import BandRef, DrawerRef
from ...values.scalars import IconName
from ...values.styling import Part, State
from ...values.words import Words
from ..context import PageContext, SheetContext, SiteOffer, Speaks
from ..marks import entries_mark
from ..markup import Attributes, Element, Markup, element
from ..rule import Rule
from .base import Landmark, ShowsMenu
from .parts import drawn_mask, icon, listed, square

DrawerSide = Literal["start", "end", "top", "bottom", "whole"]
ALWAYS_PX = 100_000
"""Wider than any viewport."""


class MenuItem(ShowsMenu):
    """A menu in one of several ways; below a band of choice, a button that opens it."""

    NAME = "Menu"
    ABOUT = "Entries that lead to the site’s pages"
    CALLED = ("navigation", "hamburger")
    ROLES = {
        "box": "menu", "title": "opener", "content": "entry", "lower": "entry", "apart": "entry", "second-line": "second-line", "badge": "badge",
        "panel": "panel", "opened": "drawer", "veil": "veil", "close": "close",
    }  # fmt: skip

    kind: Literal["menu"] = "menu"
    depth: Annotated[int, Field(ge=1, le=9)] | None = Field(default=None, description="Levels shown; all where None.")
    way: Literal["row", "column", "columns"] = Field(
        default="row", description="Entries beside each other, below each other, or each at the head of a column."
    )
    panels: Literal["narrow", "wide"] = Field(
        default="narrow", description="What opens below an entry of a row: a list, or a panel as wide as the piece."
    )
    panel_columns: Annotated[int, Field(ge=1, le=6)] = 4
    on_hover: bool = Field(default=False, description="Panels open while one points at their entry, too.")
    drawer_below: BandRef | None = Field(
        default=None, description="The first width band, from narrow to wide, that shows it; below it, the button."
    )
    drawer_when_full: bool = Field(
        default=False,
        description="The button shows wherever the row would not fit in some language; the band counts until that is known.",
    )
    drawer_below_px: Annotated[int, Field(ge=1, le=5000)] | None = Field(
        default=None, description="The viewport width below which the button shows; where the band begins, if None."
    )
    drawer_always: bool = Field(default=False, description="The button shows at all widths, whatever the band.")
    drawer_side: DrawerSide = Field(
        default="end", description="Where what the button opens comes from; `whole`: it covers the screen."
    )
    drawer_px: Annotated[int, Field(ge=160, le=2000)] | None = Field(
        default=None, description="Its width, or its height from the top or bottom; None: what is built in."
    )
    drawer_ms: Annotated[int, Field(ge=0, le=2000)] = Field(
        default=0, description="How long it takes to come and go; it does so at once where the visitor asked for calm."
    )
    drawer_pushes: bool = Field(default=False, description="The page gives way to it.")
    drawer: DrawerRef | None = Field(
        default=None, description="The piece whose rows stand above and below the entries in what the button opens."
    )
    submenus: Literal["open", "current", "shut", "levels"] = Field(
        default="open",
        description="Where entries stand below each other: all open, those above the page open at first, all shut, or one level at a time with a way back.",
    )
    one_at_a_time: bool = Field(default=False, description="Opening a submenu there shuts the one beside it.")
    gap_px: Pixels = 24
    button_words: Words = Words(text="Menu")
    button_words_shown: bool = False
    button_words_open: Words = Field(default=Words(), description="What the button says while it is open.")
    button_icon: IconName = "menu"
    button_picture: PagePath | None = Field(
        default=None, description="A drawing of one's own among the site's files, in place of the icon."
    )
    button_words_first: bool = Field(default=False, description="Its word stands before the icon.")
    button_turns: bool = Field(default=False, description="Its icon turns into a cross while it is open.")

    @property
    def has_button(self) -> bool:
        """Whether at some widths a button stands for it."""
        return self.drawer_below is not None or self.drawer_always

    @property
    def opens_on_hover(self) -> bool:
        return self.on_hover and self.way == "row"

    @property
    def has_toggles(self) -> bool:
        """Whether submenus can be shut where entries stand below each other."""
        return self.submenus != "open"

    @property
    def levels(self) -> int | None:
        return self.depth

    def drawer_below_width(self, band_from_px: Mapping[str, int]) -> int | None:
        """The viewport width in px below which the menu is a drawer; None where it never is."""
        if self.drawer_always:
            return ALWAYS_PX
        if self.drawer_below_px is not None:
            return self.drawer_below_px
        return band_from_px.get(self.drawer_below or "", 0) or None

    def changes_at(self, band_from_px: Mapping[str, int]) -> tuple[int, ...]:
        below = self.drawer_below_width(band_from_px)
        return () if below is None else (below,)

    @classmethod
    def beginning(cls, offer: SiteOffer) -> dict[str, Any]:
        """A drawer below the site's widest band; within one, its entries below each other."""
        if offer.in_drawer:
            return {**super().beginning(offer), "way": "column"}
        drawer = {"drawer_below": offer.widest_band, "drawer_ms": 200} if offer.widest_band else {}
        return {**super().beginning(offer), **drawer}

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return f"Menu: {menu_names.get(self.menu or '', 'none yet')}"

    def landmark(self, speaks: Speaks) -> Landmark | None:
        name = speaks.menu_name(self.menu)
        return None if name is None else Landmark("navigation", name)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        name = page.menu_name(self.menu)
        if name is None:
            return (element("div", page.attributes(self, self.id)),)
        below = self.drawer_below_width(page.band_from_px)
        attributes = {
            **page.attributes(self, "menu", self.id, *self._classes(below)),
            "aria-label": name,
            "data-rim-single": self.one_at_a_time,
            "data-rim-hover": self.opens_on_hover,
            "data-rim-late": page.module("hover") if self.opens_on_hover else None,
            "data-rim-column": self.way == "column",
        }
        entries = listed(page, entries_mark(self.id, page))
        if below is None:
            return (element("nav", attributes, entries),)
        return (element("nav", attributes, *self._opener_and_drawer(below, entries, page)),)

    def _classes(self, below: int | None) -> Iterator[str]:
        """Classes that say how a menu shows itself, and how what its button opens does."""
        if self.way != "row":
            yield self.way
        elif self.panels == "wide":
            yield "panels"
        if self.has_toggles:
            yield "toggles"
        if self.submenus == "levels":
            yield "levels"
        if below is not None:
            yield f"below-{below}"
            yield f"from-{self.drawer_side}"
            if self.drawer_pushes and self.drawer_side in {"start", "end"}:
                yield "pushes"

    def _opener_and_drawer(self, below: int, entries: Element, page: PageContext) -> tuple[Element, Element]:
        drawer_id = page.html_id(f"{self.id}-drawer")
        opening: Attributes = {
            "popovertarget": drawer_id,
            "aria-controls": drawer_id,
            "data-rim-drawer": f"(max-width:{below - 0.02:.2f}px)",
            "data-rim-late": page.module("drawer"),
        }
        closing: Attributes = {
            "type": "button",
            "class": page.name("close"),
            "popovertarget": drawer_id,
            "popovertargetaction": "hide",
            "aria-label": page.phrase("close"),
        }
        close = element("button", closing, icon("x", page))
        above, under = page.drawer_rows(self.drawer, self.id)
        drawer = element(
            "div",
            {"class": page.name("drawer"), "id": drawer_id, "popover": True},
            close,
            *above,
            entries,
            *under,
        )
        return self.opener(page, opening), drawer

    def opener(self, page: PageContext, opening: Attributes | None = None) -> Element:
        """The button that stands for the menu below its width. `opening`: attributes that tie it to its drawer."""
        words = self.button_words.in_language(page.language) or "Menu"
        drawn = icon(f"own-{self.id}" if self.button_picture else self.button_icon, page)
        if self.button_turns:
            drawn = element("span", {"class": page.name("turning")}, drawn, icon("x", page))
        face = [drawn]
        if self.button_words_shown:
            told = element("span", {}, *self._shown_words(words, page))
            face = [told, drawn] if self.button_words_first else [drawn, told]
        attributes: Attributes = {
            "type": "button",
            "class": page.name("menu-button"),
            **(opening or {}),
            "aria-label": None if self.button_words_shown else words,
        }
        return element("button", attributes, *face)

    def _shown_words(self, words: str, page: PageContext) -> tuple[Markup, ...]:
        opened = self.button_words_open.in_language(page.language)
        if not opened:
            return (words,)
        return (
            element("span", {"class": page.name("shut-words")}, words),
            element("span", {"class": page.name("open-words")}, opened),
        )

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        yield Rule(f"{own} .{sheet.key}-list", {"column-gap": f"{self.gap_px}px"})
        if self.button_picture:
            size = {**drawn_mask(self.button_picture), **square(24)}
            yield Rule(f"{own} .{sheet.key}-icon-own-{self.id}", size)

    @property
    def unseen_parts(self) -> Set[Part]:
        opens = self.has_button or self.drawer_when_full or self.drawer_below_px is not None
        drawers: set[Part] = set() if opens else {"title", "opened", "veil", "close"}
        panels: set[Part] = set() if self.way == "row" else {"panel"}
        return drawers | panels | ({"lower"} if self.depth == 1 else set())

    def built_in(self, part: Part) -> Mapping[State, Mapping[str, str]]:
        if part == "opened" and self.drawer_side == "bottom":
            return {"rest": {"border-start-start-radius": "16px", "border-start-end-radius": "16px"}}
        if part == "panel" and self.panels == "wide":
            return {"rest": _corners("0") | {"padding-block-start": "20px", "padding-block-end": "20px"}}
        if part == "close":
            return {"rest": _corners("50%") | {"margin-inline-start": "auto", "inline-size": "44px"}}
        return {}

    def opened_rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        """How wide or high is what its button opens, by how much the page gives way to it, how a wide panel is
        divided."""
        key, below = sheet.key, self.drawer_below_width(sheet.band_from_px)
        if self.drawer_px is not None and self.drawer_side != "whole":
            most = "100dvh" if self.drawer_side in {"top", "bottom"} else "100vw"
            yield Rule(own, {f"--{key}-drawer": f"min({most},{self.drawer_px}px)"})
        if self.drawer_pushes and self.drawer_side in {"start", "end"} and below:
            way = f"min(100vw,{self.drawer_px}px)" if self.drawer_px else "min(86vw,360px)"
            for direction in ("ltr", "rtl"):
                sign = 1 if (self.drawer_side == "start") == (direction == "ltr") else -1
                opened = f":root:has({own}:dir({direction})>.{key}-drawer:popover-open)"
                yield Rule(f"{opened} body", {"translate": f"calc({way} * {sign}) 0"}, (f"@media (width < {below}px)",))
        if self.way == "row" and self.panels == "wide":
            gutter = f"{sheet.gutter_px}px"
            edge = f"max({gutter},calc((100% - {sheet.content_px}px) / 2 + {gutter}))"
            yield Rule(own, {f"--{key}-panel-columns": str(self.panel_columns), f"--{key}-panel-edge": edge})

    def icons(self, brands: Brands) -> Iterable[str]:
        return self.button_icon, *(["chevron-left"] if self.submenus == "levels" else [])

    def named_icons(self) -> Mapping[str, str]:
        return {"button_icon": self.button_icon}

    def modules(self, band_from_px: Mapping[str, int]) -> Iterable[str]:
        if self.drawer_below_width(band_from_px) is not None:
            yield "drawer"
        if self.opens_on_hover:
            yield "hover"


def _corners(radius: str) -> dict[str, str]:
    return {f"border-{corner}-radius": radius for corner in CORNERS}

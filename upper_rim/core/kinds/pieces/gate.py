"""What is common to gates: pieces that stand before the content of the pages that they reach, instead of it, until a
visitor has passed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated

from pydantic import Field

from ...values.addresses import PagePath
from ...values.targets import Target, ToNothing
from ..context import GateState, PageContext, SheetContext
from ..items.parts import icon
from ..markup import Attributes, Markup, element
from ..rule import Rule
from .asking import Asking, GatePlace

GATE_STATES: tuple[GateState, ...] = ("asked", "wrong", "waiting", "refused")


class Gate(Asking):
    """A page of its own, whose rows stand in a box. The server sends it in place of what it guards."""

    TAG = "main"
    SHOWS_AT_FIRST = False
    CLASSES = ("gate",)

    place: GatePlace = Field(default="middle-center", description="Where on the screen its box stands.")
    days: Annotated[int, Field(ge=0, le=3650)] = Field(
        default=0, description="So long a visitor who has passed is not asked again; 0: for the visit."
    )
    target: Target = Field(default=ToNothing(), description="Where those go who do not pass; else they are told here.")
    film: PagePath | None = Field(
        default=None,
        description="A film of the site's files behind its box, without sound; still where motion is unwanted.",
    )

    @property
    def icons(self) -> frozenset[str]:
        return frozenset({"pause", "play"} if self.film else ())

    def landmark_attributes(self, page: PageContext) -> Attributes:
        return {"data-rim-state": page.gate_state} if page.marks else {}

    def content(self, rows: Sequence[Markup], page: PageContext) -> Sequence[Markup]:
        """What is asked for is of one form, wherever in the rows it stands. Enter is a yes, whichever button is first
        (HTML Standard, 4.10.21.2: implicit submission). It posts to the address that is guarded: what is passed is
        there."""
        enter: Attributes = {"name": "answer", "value": "yes", "tabindex": "-1"}
        asking = element(
            "form",
            {"id": page.html_id("gate"), "method": "post"},
            element("div", {"class": page.name("unseen"), "aria-hidden": "true"}, element("button", enter, self.name)),
            element("input", {"type": "hidden", "name": "gate", "value": self.id}),
        )
        unseen = None if page.has_heading else element("h1", {"class": page.name("unseen")}, page.site_name)
        return [asking, *self._film(page), element("div", {"class": page.name("gate-box")}, unseen, *rows)]

    def _film(self, page: PageContext) -> Sequence[Markup]:
        """It begins by the script alone, and whoever wants it still can have that (WCAG 2.2, 2.2.2)."""
        if not self.film:
            return ()
        plays: Attributes = {"src": self.film, "preload": "none", "muted": True, "loop": True, "playsinline": True}
        film: Attributes = {"class": page.name("film"), "data-rim-film": True, "aria-hidden": "true", "tabindex": "-1"}
        still: Attributes = {
            "type": "button",
            "class": page.name("still"),
            "aria-label": page.phrase("film_still"),
            "aria-pressed": "false",
            "hidden": True,
        }
        return [
            element("video", {**film, **plays}),
            element("button", still, icon("pause", page), icon("play", page)),
        ]

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        yield Rule(own, {"min-block-size": "100vh"})
        yield from self.box_rules(own, f"{own} ", sheet.key, self.place)
        if self.film:
            yield from _film_rules(f"{own} .{sheet.key}-")
        if self.motion == "slide":
            yield Rule(own, {"overflow": "clip"})
        box = f"{own} .{sheet.key}-gate-box"
        yield from self.comes(box, box)


def _film_rules(own: str) -> Iterator[Rule]:
    """Behind all that the gate shows. The button is one that can be seen on any picture (WCAG 2.2, 1.4.11)."""
    covers = {"position": "absolute", "inset": "0", "inline-size": "100%", "block-size": "100%"}
    yield Rule(f"{own}film", {**covers, "z-index": "-1", "object-fit": "cover"})
    corner = {"position": "absolute", "inset-block-end": "12px", "inset-inline-end": "12px"}
    size = {"inline-size": "44px", "block-size": "44px", "border-radius": "50%", "cursor": "pointer"}
    seen = {"color": "#fff", "background-color": "#000c", "outline": "2px solid #fffc", "outline-offset": "-2px"}
    within = {"display": "flex", "align-items": "center", "justify-content": "center"}
    yield Rule(f"{own}still:not([hidden])", {**corner, **size, **seen, **within})
    yield Rule(f"{own}still[hidden]", {"display": "none"})
    for pressed, other in (("true", "pause"), ("false", "play")):
        yield Rule(f'{own}still[aria-pressed="{pressed}"] {own.split()[-1]}icon-{other}', {"display": "none"})

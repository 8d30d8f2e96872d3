"""What is common to gates: pieces that stand before the content of the pages that they reach, instead of it, until a
visitor has passed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, Literal

from pydantic import Field

from ...values.targets import Target, ToNothing
from ..context import GateState, PageContext, SheetContext
from ..markup import Attributes, Markup, element
from ..rule import Rule
from .base import Piece

GATE_STATES: tuple[GateState, ...] = ("asked", "wrong", "waiting", "refused")
GatePlace = Literal[
    "top-start", "top-center", "top-end",
    "middle-start", "middle-center", "middle-end",
    "bottom-start", "bottom-center", "bottom-end",
]  # fmt: skip


class Gate(Piece):
    """A page of its own, whose rows stand in a box. The server sends it in place of what it guards."""

    TAG = "main"
    SHOWS_AT_FIRST = False
    CLASSES = ("gate",)

    place: GatePlace = Field(default="middle-center", description="Where on the screen its box stands.")
    width_px: Annotated[int, Field(ge=200, le=4000)] = Field(default=440, description="Of its box, at most.")
    inset_px: Annotated[int, Field(ge=0, le=200)] = Field(default=20, description="From the edges of the screen.")
    days: Annotated[int, Field(ge=0, le=3650)] = Field(
        default=0, description="So long a visitor who has passed is not asked again; 0: for the visit."
    )
    target: Target = Field(default=ToNothing(), description="Where those go who do not pass; else they are told here.")

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
        return [asking, element("div", {"class": page.name("gate-box")}, unseen, *rows)]

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        yield Rule(own, {"min-block-size": "100vh"})
        yield from box_rules(own, f"{own} ", sheet.key, self.width_px, f"{self.inset_px}px", self.place)


def box_rules(shown: str, within: str, key: str, width_px: int, inset: str, place: str) -> Iterator[Rule]:
    """Of a piece as large as the window whose rows stand in a box: where that stands, and how wide it is. `shown`: selects
    the piece while it shows; `within`: what stands in it."""
    block, inline = place.split("-")
    yield Rule(
        shown,
        {
            "display": "flex",
            "flex-direction": "column",
            "padding": inset,
            "justify-content": _ALONG[block],
            "align-items": _ALONG[inline],
        },
    )
    yield Rule(f"{within}.{key}-gate-box", {"inline-size": f"min({width_px}px,100%)"})
    yield Rule(f"{within}.{key}-cells", {"padding-inline": "0"})


_ALONG = {"top": "flex-start", "middle": "safe center", "bottom": "flex-end"} | {
    "start": "flex-start",
    "center": "center",
    "end": "flex-end",
}

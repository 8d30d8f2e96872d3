"""What is common to gates: pieces that stand before the content of the pages that they reach, instead of it, until a
visitor has passed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated

from pydantic import Field

from ...values.targets import Target, ToNothing
from ..context import GateState, PageContext, SheetContext
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
        yield from self.box_rules(own, f"{own} ", sheet.key, self.place)
        if self.motion == "slide":
            yield Rule(own, {"overflow": "clip"})
        box = f"{own} .{sheet.key}-gate-box"
        yield from self.comes(box, box)

"""A question about consent."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, Literal, get_args

from pydantic import Field

from ..context import GateState, PageContext, SheetContext
from ..markup import Attributes, Markup, element
from ..rule import Rule
from .asking import Asking, GatePlace

QuestionPlace = Literal["bar-top", "bar-bottom", "whole"] | GatePlace
QUESTION_PLACES: tuple[str, ...] = ("bar-bottom", "bar-top", *get_args(GatePlace), "whole")
ASKED: GateState = "asked"
"""The one state in which it is seen."""


class ConsentQuestion(Asking):
    """Over a page, which goes on below it. It is there for who has given no answer, or wants to give another one; without
    script nobody is asked, and nothing that waits is fetched."""

    NAME = "Question about consent"
    TAG = "section"
    CLASSES = ("question",)

    kind: Literal["consent"] = "consent"
    place: QuestionPlace = Field(
        default="bar-bottom", description="As a bar, as a box at a place of the window, or over all of it."
    )
    inset_px: Annotated[int, Field(ge=0, le=200)] = Field(default=16, description="From the edges of the window.")
    out_ms: Annotated[int, Field(ge=0, le=2000)] = 200

    @property
    def is_bar(self) -> bool:
        return self.place.startswith("bar")

    @property
    def is_boxed(self) -> bool:
        return not self.is_bar

    def landmark_attributes(self, page: PageContext) -> Attributes:
        """Over all of the window it is a dialog (ARIA Authoring Practices, dialog pattern)."""
        modal: Attributes = {"role": "dialog", "aria-modal": "true"} if self.place == "whole" else {}
        return {"aria-label": self.name, **modal, "tabindex": "-1", "data-rim-question": True, "hidden": not page.marks}

    def content(self, rows: Sequence[Markup], page: PageContext) -> Sequence[Markup]:
        return [element("div", {"class": page.name("gate-box")}, *rows)] if self.place == "whole" else rows

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        shown = f"{own}:not([hidden])"
        yield Rule(own, {"position": "fixed", "z-index": "9004", "overflow-y": "auto"})
        if self.is_bar:
            edge = "0 auto" if self.place == "bar-top" else "auto 0"
            yield Rule(own, {"inset": "auto", "inset-inline": "0", "inset-block": edge, "max-block-size": "100dvh"})
        elif self.place == "whole":
            yield Rule(own, {"inset": "0"})
            yield from self.box_rules(shown, f"{own} ", sheet.key, "middle-center")
        else:
            block, inline = self.place.split("-")
            room = f"calc(100% - {2 * self.inset_px}px)"
            yield Rule(
                own,
                {
                    "inset": f"{self.inset_px}px",
                    "align-self": _ALONG[block],
                    "justify-self": _ALONG[inline],
                    "inline-size": f"min({self.width_px}px,{room})",
                    "max-block-size": room,
                },
            )
            yield Rule(f"{own} .{sheet.key}-cells", {"padding-inline": "0"})
        yield from self.comes(own, shown, f"{self.out_ms}ms ease-in,display {self.out_ms}ms allow-discrete")


_ALONG = {"top": "start", "middle": "center", "bottom": "end"} | {
    "start": "self-start",
    "center": "center",
    "end": "self-end",
}
"""At the sides, as the piece's own language is read, whatever the page's is."""

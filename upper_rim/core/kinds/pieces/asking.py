"""What is common to pieces that ask a visitor something before they go on: gates, and questions about consent."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from ..rule import Rule
from .base import Piece

GatePlace = Literal[
    "top-start", "top-center", "top-end",
    "middle-start", "middle-center", "middle-end",
    "bottom-start", "bottom-center", "bottom-end",
]  # fmt: skip


class Asking(Piece):
    """Its rows stand in a box at a place of the window."""

    place: str
    width_px: Annotated[int, Field(ge=200, le=4000)] = Field(default=440, description="Of its box, at most.")
    inset_px: Annotated[int, Field(ge=0, le=200)] = Field(default=20, description="From the edges of the window.")
    motion: Literal["none", "fade", "slide"] = Field(
        default="none", description="How it comes and goes; at once where less motion is asked for."
    )
    in_ms: Annotated[int, Field(ge=0, le=2000)] = 200

    @property
    def is_boxed(self) -> bool:
        """Whether its rows are no wider than a box of its own."""
        return True

    def box_rules(self, shown: str, within: str, key: str, place: str) -> Iterator[Rule]:
        """Where its box stands, and how wide it is, where the piece is as large as the window. `shown`: selects the piece
        while it shows; `within`: what stands in it."""
        block, inline = place.split("-")
        yield Rule(
            shown,
            {
                "display": "flex",
                "flex-direction": "column",
                "padding": f"{self.inset_px}px",
                "justify-content": _ALONG[block],
                "align-items": _ALONG[inline],
            },
        )
        yield Rule(f"{within}.{key}-gate-box", {"inline-size": f"min({self.width_px}px,100%)"})
        yield Rule(f"{within}.{key}-cells", {"padding-inline": "0"})

    def comes(self, box: str, shown: str, goes: str = "") -> Iterator[Rule]:
        """From not being there to where it stands (CSS Transitions 2, 3.3). `box`: selects what moves; `shown`: the same
        while it is there; `goes`: the transition by which it is taken away, where it can be."""
        if self.motion == "none":
            return
        lively = ("@media (prefers-reduced-motion:no-preference)",)
        name, there, away = ("opacity", "1", "0") if self.motion == "fade" else ("translate", "0 0", f"0 {self._away}")
        if goes:
            yield Rule(box, {name: away, "pointer-events": "none", "transition": f"{name} {goes}"}, lively)
            yield Rule(shown, {"pointer-events": "auto"}, lively)
        yield Rule(shown, {name: there, "transition": f"{name} {self.in_ms}ms ease-out"}, lively)
        yield Rule(shown, {name: away}, (*lively, "@starting-style"))

    @property
    def _away(self) -> str:
        """By how much it is moved while it is not there: beyond the edge that it is near."""
        way = "100%" if self.place.startswith("bar") else "100vh"
        return f"-{way}" if "top" in self.place else way


_ALONG = {"top": "flex-start", "middle": "safe center", "bottom": "flex-end"} | {
    "start": "flex-start",
    "center": "center",
    "end": "flex-end",
}

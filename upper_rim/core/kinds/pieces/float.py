"""A float."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, Literal

from pydantic import Field

from ..context import PageContext, SheetContext
from ..markup import Markup, element
from ..moving import Way
from ..rule import Rule
from .base import Moving, Opens

FloatPlace = Literal[
    "top-start", "top-center", "top-end", "middle-start", "middle-end", "bottom-start", "bottom-center", "bottom-end"
]


class Float(Moving):
    """A button, or a small fan of them, over the page at one of eight places."""

    NAME = "Float"
    TAG = "section"
    ROLE = "float"
    IN_LINES = True
    CLASSES = ("float",)
    WAYS = ("stays", "up")

    kind: Literal["float"] = "float"
    moves: Way = "stays"
    place: FloatPlace = "bottom-end"
    inset_px: Annotated[int, Field(ge=0, le=200)] = 16
    fan: bool = Field(default=False, description="Only its first item shows, until that one is pressed.")
    yields: bool = Field(default=True, description="It goes while the footer is in view.")

    @property
    def is_low(self) -> bool:
        return True

    @property
    def opens(self) -> tuple[Opens, ...]:
        block, inline = self.place.split("-")
        up: tuple[Opens, ...] = ("up",) if block == "bottom" else ()
        return (*up, "back") if inline == "end" else up

    def content(self, rows: Sequence[Markup], page: PageContext) -> Sequence[Markup]:
        if not self.fan:
            return rows
        summary = element("summary", {"class": page.name("button")}, self.name)
        return [element("details", {"class": page.name("fan")}, summary, *rows)]

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        key, (block, inline) = sheet.key, self.place.split("-")
        yield from self._placed(own, key, block, inline)
        yield Rule(f"{own} .{key}-cells", {"padding-inline": "0"})
        aligned = {"align-items": _ALIGNED[inline]}
        upwards = "column-reverse" if block == "bottom" else "column"
        yield Rule(f"{own} .{key}-fan", {"display": "flex", "flex-direction": upwards, **aligned, "gap": "8px"})
        yield Rule(f"{own} .{key}-fan .{key}-cell", {"flex-direction": "column", **aligned})
        yield Rule(f".{key}-fan>summary", {"cursor": "pointer"})

    def _placed(self, own: str, key: str, block: str, inline: str) -> Iterator[Rule]:
        """What stands at the bottom stands in the stack there; elsewhere it has a place of its own."""
        inset = f"{self.inset_px}px"
        if block == "bottom":
            yield Rule(own, {"align-self": _ALIGNED[inline], "margin": inset})
            return
        if block == "middle":
            # It leaves by the edge that it stands at.
            side = 1 if inline == "end" else -1
            yield Rule(own, {f"--{key}-{self.id}-side": str(side)})
            yield Rule(f"{own}:dir(rtl)", {f"--{key}-{self.id}-side": str(-side)})
            edge = {"inset-block-start": "50%", "transform": "translateY(-50%)"}
        else:
            edge = {"inset-block-start": f"calc({inset} + env(safe-area-inset-top))"}
        across = {f"inset-inline-{inline}": inset} if inline != "center" else {"inset-inline": inset, **_CENTRED}
        yield Rule(own, {"position": "fixed", **edge, **across, "z-index": "9001"})


_ALIGNED = {"start": "flex-start", "center": "center", "end": "flex-end"}
_CENTRED = {"margin-inline": "auto", "inline-size": "fit-content"}
"""Between both edges (CSS Positioned Layout 3, 4.2)."""

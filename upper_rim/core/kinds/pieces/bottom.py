"""A bottom bar."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from ..context import SheetContext
from ..moving import Way
from ..rule import Rule
from .base import Moving, Opens


class BottomBar(Moving):
    """Two to five targets at the bottom of small screens, always there: a navigation landmark."""

    NAME = "Bottom bar"
    TAG = "nav"
    IN_LINES = True
    WAYS = ("stays", "up")

    kind: Literal["bottom"] = "bottom"
    moves: Way = "stays"
    height_px: Annotated[int, Field(ge=44, le=120)] = 56

    @property
    def is_low(self) -> bool:
        return True

    @property
    def opens(self) -> tuple[Opens, ...]:
        return ("up",)

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        high = f"{self.height_px}px"
        yield Rule(f"{own}>.{sheet.key}-row", {"block-size": high, "padding-block": "0"})
        yield Rule(f"{own} .{sheet.key}-cells", {"block-size": "100%"})
        # Its edges and what its looks give it are part of what it takes.
        taken = f"calc(var(--{sheet.key}-bottom,0px) + env(safe-area-inset-bottom))"
        yield Rule(f"{own}-room", {"block-size": taken})

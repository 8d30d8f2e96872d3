"""Room between items."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ...values.nodes import Pixels
from ..context import PageContext, SheetContext
from ..markup import Markup, element
from ..rule import Rule
from .base import BaseItem
from .parts import square


class Spacer(BaseItem):
    """Room: a length, or all that is left."""

    NAME = "Spacer"
    ABOUT = "Room between things"
    CALLED = ("space", "gap", "room")

    kind: Literal["spacer"] = "spacer"
    size_px: Pixels = 24
    grows: bool = False

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        attributes = {**page.attributes(self, "block", "spacer", self.id), "aria-hidden": "true"}
        return (element("div", attributes, element("span", {})),)

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        if self.grows:
            yield Rule(own, {"flex": "1 0 0"})
        else:
            yield Rule(f"{own}>span", {"display": "block", **square(self.size_px)})

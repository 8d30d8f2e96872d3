"""A notice bar."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...conditions.audience.not_closed import NotClosed
from ...conditions.closed_before import ClosedBefore
from ...conditions.period import Moment, Period
from ...conditions.visit import VisitCondition
from ..context import PageContext, SheetContext
from ..items.parts import icon
from ..markup import Attributes, Markup, Raw, element
from ..rule import Rule
from .base import Moving, OnPaper, Printed

CLOSE_PX = 44
"""Room that a notice keeps free for its close button, and its width (`.rim-shut`)."""


class Notice(Moving, OnPaper):
    """A bar with a message, a region of its own name. Closed by a visitor, it stays closed for a time."""

    NAME = "Notice bar"
    TAG = "section"
    PRINTED: ClassVar[Printed] = "never"

    kind: Literal["notice"] = "notice"
    edge: Literal["top", "bottom"] = "top"
    closable: bool = True
    closed_days: Annotated[int, Field(ge=1, le=3650)] = 30
    shows_from: Moment | None = None
    shows_until: Moment | None = None

    @property
    def conditions(self) -> tuple[VisitCondition, ...]:
        """When it shows to somebody who is on a page that it reaches. Where its audience says for how long it stays
        closed, that counts."""
        said = any(isinstance(one, NotClosed) for one in self.audience.conditions)
        found: list[VisitCondition] = [ClosedBefore(self.closed_days)] if self.closable and not said else []
        if self.shows_from or self.shows_until:
            found.append(Period(self.shows_from, self.shows_until))
        return tuple(found)

    @property
    def is_at_bottom(self) -> bool:
        return self.edge == "bottom"

    @property
    def is_low(self) -> bool:
        return self.is_at_bottom and self.moves != "away"

    @property
    def is_early(self) -> bool:
        return self.edge == "top"

    def landmark_attributes(self, page: PageContext) -> Attributes:
        key = f"{page.name()}-{self.id}"
        data = (pair for condition in self.conditions for pair in condition.data(key))
        return {"aria-label": self.name, **{f"data-rim-{name}": value for name, value in data}}

    def content(self, rows: Sequence[Markup], page: PageContext) -> Sequence[Markup]:
        if not self.closable:
            return rows
        words = page.phrase("close_notice")
        attributes: Attributes = {
            "type": "button",
            "class": page.name("shut"),
            "data-rim-shut": True,
            "aria-label": words,
        }
        return [*rows, element("button", attributes, icon("x", page))]

    def script(self, page: PageContext) -> Sequence[Markup]:
        """Not deferred: whether the bar shows is settled before anything below it is drawn. Not on the stage, where its
        designer wants to see it at any time."""
        needed = self.closable or self.conditions
        return [element("script", {}, Raw(page.notice_script))] if needed and not page.marks else []

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        if self.closable:
            yield Rule(own, {"padding-inline-end": f"{CLOSE_PX}px"})
        if self.is_low:
            yield Rule(f"{own}-room", {"block-size": f"var(--{sheet.key}-low,0px)"})

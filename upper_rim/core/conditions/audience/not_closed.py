"""For those who have not closed it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, JsonValue

from ..visitor import Looking, Remembered
from .condition import Around, Case, Knows, Spoken, VisitorCondition


class NotClosed(VisitorCondition):
    """Closed, it does not come again for so many days; `until_changed`: it comes again earlier where it says something
    else than what they closed."""

    KNOWN_BY: ClassVar[Knows] = "the browser"
    kind: Literal["not-closed"] = "not-closed"
    days: Annotated[int, Field(ge=1, le=3650)] = 30
    until_changed: bool = False

    def holds(self, looking: Looking) -> bool:
        return not any(
            one.node == looking.node and one.days < self.days and not (self.until_changed and one.text != looking.text)
            for one in looking.card.shuts
        )

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        yield {}
        for days in sorted({0} | {one.days for one in wanted}):
            for text in ("", "something else"):
                yield {"shuts": (Remembered(node=around.node, days=days, text=text),)}

    def told(self, zone: str) -> list[JsonValue]:
        return [self.days, int(self.until_changed)]

    def in_words(self, spoken: Spoken = str) -> str:
        changed = ", or until it says something else" if self.until_changed else ""
        return f"those who have not closed it, for {self.days} day{'s' if self.days > 1 else ''}{changed}"

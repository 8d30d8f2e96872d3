"""For those who have not seen it for some time."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, JsonValue

from ..visitor import Looking, Remembered
from .condition import Around, Case, Knows, Spoken, VisitorCondition


class Unseen(VisitorCondition):
    """Shown once, it rests for so many days. While a visit lasts in which it was shown, it goes on to show."""

    KNOWN_BY: ClassVar[Knows] = "the browser"
    kind: Literal["unseen"] = "unseen"
    days: Annotated[int, Field(ge=1, le=3650)] = 7

    def holds(self, looking: Looking) -> bool:
        return not any(one.node == looking.node and 0 < one.days < self.days for one in looking.card.saw)

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        yield {}
        for days in sorted({1} | {one.days for one in wanted}):
            yield {"saw": (Remembered(node=around.node, days=days),)}

    def told(self, zone: str) -> list[JsonValue]:
        return [self.days]

    def in_words(self, spoken: Spoken = str) -> str:
        return f"those who have not seen it for {self.days} day{'s' if self.days > 1 else ''}"

"""For those who have not seen it for some time."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field, JsonValue

from ..visitor import Looking
from .condition import Knows, Spoken, VisitorCondition


class Unseen(VisitorCondition):
    """Shown once, it rests for so many days. While a visit lasts in which it was shown, it goes on to show."""

    KNOWN_BY: ClassVar[Knows] = "the browser"
    kind: Literal["unseen"] = "unseen"
    days: Annotated[int, Field(ge=1, le=3650)] = 7

    def holds(self, looking: Looking) -> bool:
        return not any(one.node == looking.node and 0 < one.days < self.days for one in looking.card.saw)

    def told(self, zone: str) -> list[JsonValue]:
        return [self.days]

    def in_words(self, spoken: Spoken = str) -> str:
        return f"those who have not seen it for {self.days} day{'s' if self.days > 1 else ''}"
